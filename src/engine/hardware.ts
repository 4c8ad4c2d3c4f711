// Encoders in hardware, where they are asked for by JIVET_ENCODER=hardware and found. One is trusted once it has
// encoded a second of pictures here: each is there, looks as it should, and a group begins where it was told to.
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Purpose } from '../core/render/purpose'
import { encodersFor, IN_HARDWARE, mayBeInHardware, QUIET, type InHardware } from './encoding'
import { footageInput, probeInput } from './input'
import { runTool } from './tool'

let found: Promise<InHardware | undefined> | null = null

/**
 * What is to encode on this machine; looked for once in each process.
 * @returns nothing where the processor does.
 */
export function encoderHere(): Promise<InHardware | undefined> {
  if (process.env.JIVET_ENCODER !== 'hardware') return Promise.resolve(undefined)
  return (found ??= firstTrusted())
}

/** What is to encode a video for a purpose on this machine. @returns as `encoderHere` does. */
export const encoderFor = async (purpose: Purpose): Promise<InHardware | undefined> =>
  mayBeInHardware(purpose) ? encoderHere() : undefined

async function firstTrusted(): Promise<InHardware | undefined> {
  for (const encoder of IN_HARDWARE) if (await isTrusted(encoder)) return encoder
  return undefined
}

const PICTURES = 30
const GROUP = 15
const PATTERN = `testsrc2=s=640x360:r=${PICTURES}:d=1,format=yuv420p`
/** Of each picture. x264 makes 43 dB of the pattern at the same quality, and 28 at its coarsest. */
const LEAST_DB = 30

/** @returns false, too, where ffmpeg has no such encoder, or no hardware for it. */
export async function isTrusted(encoder: InHardware): Promise<boolean> {
  const folder = await mkdtemp(join(tmpdir(), 'jivet-encoder-'))
  try {
    const out = join(folder, 'pattern.mp4')
    const { device, handOver, picture } = encodersFor('host', encoder)
    await runTool('ffmpeg', [
      ...[...QUIET, ...device, '-f', 'lavfi', '-i', PATTERN, '-vf', handOver ?? 'null', ...picture],
      ...['-force_key_frames', String(GROUP / PICTURES), out],
    ])
    return (await areAsDrawn(out)) && (await beginsGroups(out))
  } catch {
    return false
  } finally {
    await rm(folder, { recursive: true })
  }
}

async function areAsDrawn(path: string): Promise<boolean> {
  const told = await runTool('ffmpeg', [
    ...[...QUIET, ...footageInput(path), '-f', 'lavfi', '-i', PATTERN],
    ...['-lavfi', '[0:v][1:v]psnr=stats_file=-', '-f', 'null', '-'],
  ])
  const each = [...told.toString().matchAll(/psnr_avg:(\S+)/g)].map(([, db]) => Number(db))
  return each.length === PICTURES && each.every((db) => db >= LEAST_DB)
}

async function beginsGroups(path: string): Promise<boolean> {
  const told = await runTool('ffprobe', [
    '-v',
    'error',
    '-show_entries',
    'packet=flags',
    '-of',
    'csv=p=0',
    ...probeInput(path),
  ])
  const flags = told.toString().trim().split('\n')
  return flags.length === PICTURES && [0, GROUP].every((at) => flags[at]?.startsWith('K'))
}
