// Pre-draws the overlay: one small picture per change, and the list that tells ffmpeg how long each stands.
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { createCanvas } from '@napi-rs/canvas'
import { drawOverlay, overlayStrip, type Frame } from '../core/look/drawOverlay'
import { keyOf, type OverlayChange, type OverlayState } from '../core/look/overlay'
import type { Surface } from '../core/look/surface'
import type { Ms } from '../core/units'
import { registerFonts } from './fonts'

/**
 * Writes PNG files and `strip.txt` (for ffmpeg's concat reader) into `folder`.
 * @returns the list's path. Equal states share a file.
 */
export async function drawStrip(changes: readonly OverlayChange[], frame: Frame, durationMs: Ms, folder: string, signal?: AbortSignal): Promise<string> {
  registerFonts()
  const files = new Map<string, string>()
  const blank = { fromMs: 0, state: null }
  const all = (changes[0]?.fromMs ?? 1) > 0 ? [blank, ...changes] : [...changes]
  const lines = ['ffconcat version 1.0']
  for (const [index, { fromMs, state }] of all.entries()) {
    signal?.throwIfAborted()
    const untilMs = Math.min(durationMs, all[index + 1]?.fromMs ?? durationMs)
    if (untilMs <= fromMs) continue
    const key = keyOf(state)
    const file = files.get(key) ?? `${files.size}.png`
    if (!files.has(key)) {
      files.set(key, file)
      await writeFile(join(folder, file), await picture(state, frame))
    }
    // The reader's own default of 25 pictures a second would round every change to 40 ms.
    lines.push(`file ${file}`, 'option framerate 1000', `duration ${((untilMs - fromMs) / 1000).toFixed(3)}`)
  }
  const last = files.get(keyOf(all.at(-1)?.state ?? null))
  if (last) lines.push(`file ${last}`, 'option framerate 1000')
  const list = join(folder, 'strip.txt')
  await writeFile(list, `${lines.join('\n')}\n`)
  return list
}

function picture(state: OverlayState | null, frame: Frame): Promise<Buffer> {
  const strip = overlayStrip(frame)
  const canvas = createCanvas(strip.width, strip.height)
  if (state) {
    const surface = canvas.getContext('2d')
    surface.translate(0, -strip.y)
    drawOverlay(surface as unknown as Surface, state, frame)
  }
  return canvas.encode('png')
}
