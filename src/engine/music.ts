// Pieces of music: made of whatever sound file was brought, measured, and read as a bed while a video is mixed.
import { open, type FileHandle } from 'node:fs/promises'
import { join } from 'node:path'
import { Problem } from '../core/problem'
import type { Steps } from '../core/sound/loudness'
import { GainWalk, MIX_RATE, type GainPoint } from '../core/sound/mix'
import { evenedBy, fadeAt, partAt, type BedPart } from '../core/sound/music'
import { MINUTE, type Ms, type Samples } from '../core/units'
import { QUIET } from './encoding'
import { probeInput, soundInput } from './input'
import { measured, measuredOnce } from './loudness'
import type { PieceFile } from './renderJob'
import { runTool } from './tool'

/** Longer ones are sessions, and no pieces. */
export const LONGEST_PIECE_MS: Ms = 30 * MINUTE
/** So long a tool may work on a piece. */
const LIMIT_MS: Ms = 3 * MINUTE
/** Below this a piece has not begun. */
const SILENCE = '-50dB'

/**
 * A sound file as a piece: FLAC, 48 kHz, two channels, without the silence before its first sound, so that its first
 * beat falls where the piece is begun.
 * @returns how long it is.
 * @throws Problem `no-music` where it holds no sound, `music-too-long`.
 */
export async function makePiece(path: string, out: string, signal?: AbortSignal): Promise<Ms> {
  const trimmed = `aresample=${MIX_RATE},silenceremove=start_periods=1:start_threshold=${SILENCE}`
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, ...soundInput(path), '-map', '0:a:0', '-map_metadata', '-1'],
      ...['-t', String(LONGEST_PIECE_MS / 1000 + 1), '-af', trimmed, '-ac', '2', '-ar', String(MIX_RATE)],
      ...['-c:a', 'flac', '-sample_fmt', 's16', '-f', 'flac', out],
    ],
    { ...(signal ? { signal } : {}), limitMs: LIMIT_MS },
  ).catch((error: unknown) => {
    if (error instanceof Problem && error.code === 'tool-failed') throw new Problem({ code: 'no-music' })
    throw error
  })
  const ms = await pieceMs(out, signal)
  if (ms < 1000) throw new Problem({ code: 'no-music' })
  if (ms > LONGEST_PIECE_MS) throw new Problem({ code: 'music-too-long', minutes: LONGEST_PIECE_MS / MINUTE })
  return ms
}

async function pieceMs(path: string, signal?: AbortSignal): Promise<Ms> {
  const told = await runTool(
    'ffprobe',
    ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', ...probeInput(path)],
    signal ? { signal } : {},
  )
  const seconds = parseFloat(told.toString())
  return Number.isFinite(seconds) ? Math.round(seconds * 1000) : 0
}

/** Two channels as one, as a browser makes it: ffmpeg's own way is three decibels louder where both are alike. */
const onChannels = (channels: 1 | 2): string => (channels === 1 ? 'pan=mono|c0=0.5*c0+0.5*c1' : 'anull')

/** How loud a piece is in a mix of so many channels; measured once. */
export const pieceLoudness = (
  { path, hash }: Pick<PieceFile, 'path' | 'hash'>,
  channels: 1 | 2,
  signal?: AbortSignal,
): Promise<Steps | null> =>
  measuredOnce(
    `${hash}-${channels}`,
    (signal) =>
      measured({ input: soundInput(path), filter: onChannels(channels), channels, limitMs: LIMIT_MS, signal }),
    signal,
  )

/** A bed, decided before a sample is mixed. */
export interface BedPlan {
  parts: readonly BedPart[]
  /** Of each piece: where it lies, and what it is evened by. */
  pieces: readonly { path: string; gain: number }[]
  /** How it gives way to what is said. */
  ducking: readonly GainPoint[]
}

export const bedPlan = (
  parts: readonly BedPart[],
  pieces: readonly PieceFile[],
  steps: readonly (Steps | null)[],
  ducking: readonly GainPoint[],
): BedPlan => ({
  ...{ parts, ducking },
  pieces: pieces.map(({ path }, at) => ({ path, gain: evenedBy(steps[at] ?? null) })),
})

/** A gain that moves is reckoned anew so often. */
const GAIN_EVERY: Samples = 48
const BYTES_A_SAMPLE = 4

/** Reads a bed from its beginning on, in blocks of any length. Each piece is decoded once, into a file. */
export class BedReader {
  private at: Samples = 0
  private readonly walk: GainWalk
  private readonly files = new Map<number, FileHandle>()

  constructor(
    private readonly plan: BedPlan,
    private readonly channels: 1 | 2,
    private readonly folder: string,
    private readonly signal: AbortSignal,
  ) {
    this.walk = new GainWalk(plan.ducking)
  }

  /** The next samples of all channels, interleaved. */
  async next(length: Samples): Promise<Float32Array> {
    const block = new Float32Array(length * this.channels)
    const { parts } = this.plan
    for (let done = 0; done < length;) {
      const outMs = ((this.at + done) * 1000) / MIX_RATE
      const part = partAt(parts, outMs)
      const next = part ? part.outMs + part.lengthMs : (parts.find((one) => one.outMs > outMs)?.outMs ?? Infinity)
      const left = Number.isFinite(next) ? Math.max(1, Math.ceil((next * MIX_RATE) / 1000) - this.at - done) : Infinity
      const count = Math.min(length - done, left)
      if (part) await this.read(part, block.subarray(done * this.channels, (done + count) * this.channels), done)
      done += count
    }
    this.at += length
    return block
  }

  /** @param into is filled with the piece, as loud as it is to be; what lies behind its end stays silent. */
  private async read(part: BedPart, into: Float32Array, done: Samples): Promise<void> {
    const { channels, plan } = this
    const file = this.files.get(part.piece) ?? (await this.decoded(part.piece))
    const begin = this.at + done
    const from = begin - Math.ceil((part.outMs * MIX_RATE) / 1000)
    const bytes = Buffer.from(into.buffer, into.byteOffset, into.byteLength)
    await file.read(bytes, 0, bytes.length, Math.max(0, from) * channels * BYTES_A_SAMPLE)
    const evened = plan.pieces[part.piece]?.gain ?? 1
    let gain = 0
    for (let sample = 0; sample * channels < into.length; sample++) {
      if (sample === 0 || (begin + sample) % GAIN_EVERY === 0) {
        // At the same instants wherever blocks begin, and never before the piece.
        const steady = Math.floor((begin + sample) / GAIN_EVERY) * GAIN_EVERY
        const outMs = Math.max(part.outMs, (steady * 1000) / MIX_RATE)
        gain = evened * fadeAt(plan.parts, outMs) * this.walk.gainAt(outMs)
      }
      for (let at = sample * channels; at < (sample + 1) * channels; at++) into[at] = (into[at] ?? 0) * gain
    }
  }

  private async decoded(piece: number): Promise<FileHandle> {
    const path = this.plan.pieces[piece]?.path
    if (path === undefined) throw new Problem({ code: 'stored-file-gone' })
    const raw = join(this.folder, `music-${piece}.f32`)
    await runTool(
      'ffmpeg',
      [
        ...[...QUIET, ...soundInput(path), '-map', '0:a:0', '-af', onChannels(this.channels)],
        ...['-ac', String(this.channels), '-ar', String(MIX_RATE), '-f', 'f32le', raw],
      ],
      { signal: this.signal, limitMs: LIMIT_MS },
    )
    const file = await open(raw)
    this.files.set(piece, file)
    return file
  }

  async close(): Promise<void> {
    for (const file of this.files.values()) await file.close()
  }
}
