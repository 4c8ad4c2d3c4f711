// Pre-draws the overlay: one small picture per change, and the list that tells ffmpeg how long each stands.
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { createCanvas } from '@napi-rs/canvas'
import type { Frame, Layer } from '../core/look/drawOverlay'
import type { OverlayChange, OverlayState } from '../core/look/overlay'
import type { Surface } from '../core/look/surface'
import type { Ms } from '../core/units'
import { registerFonts } from './fonts'

export interface StripJob {
  /** Tells this layer's files from another's. */
  name: string
  /** The list's name. Default: the layer's. */
  list?: string
  /** Pictures of this layer that are drawn already, by what they show; new ones are added. */
  files?: Map<string, string>
  layer: Layer
  changes: readonly OverlayChange[]
  frame: Frame
  durationMs: Ms
  folder: string
  signal?: AbortSignal
}

/**
 * Writes PNG files and a list (for ffmpeg's concat reader) into `folder`.
 * @returns the list's path. Equal pictures share a file, and a picture that stays is listed once.
 */
export async function drawStrip({
  name,
  list: listName = `${name}.txt`,
  files = new Map(),
  layer,
  changes,
  frame,
  durationMs,
  folder,
  signal,
}: StripJob): Promise<string> {
  registerFonts()
  const lines = ['ffconcat version 1.0']
  for (const { state, key, fromMs, untilMs } of stays(layer, changes, durationMs)) {
    signal?.throwIfAborted()
    const file = files.get(key) ?? `${name}-${files.size}.png`
    if (!files.has(key)) {
      files.set(key, file)
      await writeFile(join(folder, file), await picture(state, layer, frame))
    }
    // The reader's own default of 25 pictures a second would round every change to 40 ms.
    lines.push(`file ${file}`, 'option framerate 1000', `duration ${((untilMs - fromMs) / 1000).toFixed(3)}`)
  }
  const list = join(folder, listName)
  await writeFile(list, `${lines.join('\n')}\n`)
  return list
}

/** A canvas that texts are measured on. */
export function measuringSurface(): Surface {
  registerFonts()
  return createCanvas(1, 1).getContext('2d') as unknown as Surface
}

interface Stay {
  state: OverlayState | null
  key: string
  fromMs: Ms
  untilMs: Ms
}

/** The layer's pictures in order, without gaps from 0 to the end. */
function stays(layer: Layer, changes: readonly OverlayChange[], durationMs: Ms): Stay[] {
  const out: Stay[] = []
  const all = [{ fromMs: 0, state: null }, ...changes]
  all.forEach(({ fromMs, state }, index) => {
    const untilMs = Math.min(durationMs, all[index + 1]?.fromMs ?? durationMs)
    const key = state ? layer.keyOf(state) : ''
    const last = out.at(-1)
    if (untilMs <= fromMs) return
    if (last?.key === key) last.untilMs = untilMs
    else out.push({ state, key, fromMs, untilMs })
  })
  return out
}

function picture(state: OverlayState | null, layer: Layer, frame: Frame): Promise<Buffer> {
  const canvas = createCanvas(layer.width, layer.height)
  if (state) {
    const surface = canvas.getContext('2d')
    surface.translate(-layer.x, -layer.y)
    // The same methods as in a browser; the two declare their colours and images by types that do not meet.
    layer.draw(surface as unknown as Surface, state, frame)
  }
  return canvas.encode('png')
}
