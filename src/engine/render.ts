// Renders the published video: footage with the overlay strip laid over it and the cues mixed under its sound. All
// times here are output time, through the cut.
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { isWhole } from '../core/cut/cut'
import { framedSize } from '../core/cut/framing'
import { overlayLayers } from '../core/look/drawOverlay'
import { overlayChanges, type OverlayChange } from '../core/look/overlay'
import { Problem } from '../core/problem'
import { ENCODER, QUIET } from './encoding'
import { footageInput, patience } from './input'
import { listInputs, overlaid } from './overlaid'
import { progressReader } from './progress'
import { DRAWN, type PictureParts, type RenderJob } from './renderJob'
import { renderPieces } from './renderPieces'
import { renderSound, soundPlan, type SoundPlan } from './renderSound'
import { drawStrip, measuringSurface } from './strip'
import { COPY_TIMES, pictureOnTime } from './timebase'
import { runTool } from './tool'

/** What a video was rendered with, for whoever checks it. */
export interface Rendered {
  changes: readonly OverlayChange[]
  sound: SoundPlan
}

/**
 * Writes an MP4 (H.264, AAC, index first) of the first file's rate and of its size, or as it is framed, and of the
 * cut's length.
 * @throws Problem `cut-empty`, `tool-failed`, `disk-full`, `tool-missing` or `cancelled`.
 */
export async function renderVideo(job: RenderJob): Promise<Rendered> {
  const { cut, reel } = job
  const filmed = reel[0]?.facts ?? DRAWN
  const size = framedSize(filmed, job.framing?.shape ?? 'filmed')
  const facts = { ...filmed, ...size }
  if (!cut.spans.length) throw new Problem({ code: 'cut-empty' })
  const halt = new AbortController()
  const signal = job.signal ? AbortSignal.any([job.signal, halt.signal]) : halt.signal
  const folder = await mkdtemp(join(job.scratch ?? tmpdir(), 'jivet-strip-'))
  try {
    const changes = overlayChanges(job.shown, job.viewing)
    const states = changes.flatMap(({ state }) => state ?? [])
    const parts = { facts, filmed, layers: overlayLayers(facts, states, measuringSurface(), job.look), changes }
    const sound = join(folder, 'sound.mp4')
    const plan = soundPlan(job, signal)
    // One footage from its beginning on keeps its own times, picture by picture; all else is laid on a grid.
    const isFramed = size.width !== filmed.width || size.height !== filmed.height
    const asIs = reel.length === 1 && isWhole(cut) && !isFramed
    const drawPicture = asIs ? renderWhole : renderPieces
    // Apart, because one ffmpeg filters and encodes sound on the very thread that feeds the picture's encoder.
    const [picture] = await allOf(halt, [
      drawPicture(job, { ...parts, folder, signal }),
      renderSound(job, { plan, facts, out: sound, folder, signal }).then(() => []),
    ])
    await runTool(
      'ffmpeg',
      [
        ...[...QUIET, ...(picture ?? []), '-i', sound, '-map', '0:v', '-map', '1:a', '-c', 'copy'],
        ...['-movflags', '+faststart', '-f', 'mp4', `file:${job.out}`],
      ],
      { signal, limitMs: patience(cut.outMs, 2) },
    )
    return { changes, sound: await plan }
  } catch (error) {
    halt.abort()
    throw error
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** All of it; where one fails the others are halted, and none is still at work on the folder that is swept. */
async function allOf<T>(halt: AbortController, work: readonly Promise<T>[]): Promise<T[]> {
  try {
    return await Promise.all(work)
  } catch (error) {
    halt.abort()
    await Promise.allSettled(work)
    throw error
  }
}

/** @returns arguments that open the picture, for ffmpeg. */
async function renderWhole({ reel, cut, onProgress }: RenderJob, parts: PictureParts): Promise<string[]> {
  const { facts, layers, changes, folder, signal } = parts
  const durationMs = cut.outMs
  const lists = await Promise.all(
    layers.map((layer, number) =>
      drawStrip({ name: `layer${number}`, layer, changes, frame: facts, durationMs, folder, signal }),
    ),
  )
  const out = join(folder, 'picture.mp4')
  const shape = `scale=${facts.width}:${facts.height},setsar=1,format=yuv420p`
  const base = pictureOnTime(facts, { input: '0:V:0', output: 'under0', shape })
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, ...COPY_TIMES, ...footageInput(reel[0]?.path ?? ''), ...listInputs(lists)],
      ...['-filter_complex', [base, ...overlaid(layers)].join(';'), '-map', '[picture]', ...ENCODER],
      ...['-fps_mode', 'passthrough', '-f', 'mp4', '-progress', 'pipe:1', out],
    ],
    { signal, limitMs: patience(durationMs, 30), onOutput: progressReader(durationMs, onProgress) },
  )
  return ['-i', out]
}
