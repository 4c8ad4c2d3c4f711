// Pre-draws the overlay: one small picture per change, and the list that tells ffmpeg how long each stands.
import { createHash } from 'node:crypto'
import { writeFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { createCanvas, type Canvas } from '@napi-rs/canvas'
import type { Frame, Layer } from '../core/look/drawOverlay'
import type { OverlayChange, OverlayState } from '../core/look/overlay'
import type { Surface } from '../core/look/surface'
import { TILE_STEP, tilesOf, type Cover, type Tile } from '../core/look/tiles'
import type { Ms } from '../core/units'
import { registerFonts } from './fonts'

interface StripJob {
  /** Tells its files from another's. */
  name: string
  layer: Layer
  changes: readonly OverlayChange[]
  frame: Frame
  durationMs: Ms
  folder: string
  signal?: AbortSignal
}

/** Pictures of one place in the frame, one after another. */
export interface Strip {
  x: number
  y: number
  /** The list's path. */
  list: string
  /** When there is anything, in order. */
  stands: readonly { fromMs: Ms; untilMs: Ms }[]
}

/**
 * Writes PNG files and lists (for ffmpeg's concat reader) into `folder`. Equal pictures share a file, and a picture
 * that stays is listed once.
 * @returns no strip where there is never anything of the layer; several where one would be mostly empty.
 */
export async function drawStrips({
  name,
  layer,
  changes,
  frame,
  durationMs,
  folder,
  signal,
}: StripJob): Promise<Strip[]> {
  registerFonts()
  const all = stays(layer, changes, durationMs)
  const stands = standsOf(all)
  if (!stands.length) return []
  const pictures = new Map<string, Canvas>()
  for (const { state, key } of all) {
    signal?.throwIfAborted()
    if (!pictures.has(key)) pictures.set(key, picture(state, layer, frame))
  }
  const tiles = tilesOf(coverOf([...pictures.values()], layer), layer)
  return Promise.all(
    tiles.map(async (tile, at): Promise<Strip> => {
      const files = new Map<string, string>()
      for (const [key, whole] of pictures) files.set(key, await writePart(whole, tile, join(folder, `${name}-${at}`)))
      const list = join(folder, `${name}-${at}.txt`)
      await writeFile(list, listOf(all.map((stay) => ({ ...stay, file: files.get(stay.key) ?? '' }))))
      return { x: layer.x + tile.x, y: layer.y + tile.y, list, stands }
    }),
  )
}

/** When anything is seen. */
function standsOf(all: readonly Stay[]): { fromMs: Ms; untilMs: Ms }[] {
  const stands: { fromMs: Ms; untilMs: Ms }[] = []
  for (const { state, fromMs, untilMs } of all) {
    const last = stands.at(-1)
    if (state && last?.untilMs === fromMs) last.untilMs = untilMs
    else if (state) stands.push({ fromMs, untilMs })
  }
  return stands
}

function listOf(all: readonly (Stay & { file: string })[]): string {
  const lines = ['ffconcat version 1.0']
  all.forEach(({ file, untilMs }, at) => {
    // What looks the same in this part stays.
    if (all[at + 1]?.file === file) return
    const fromMs = all[all.slice(0, at).findLastIndex((one) => one.file !== file) + 1]?.fromMs ?? 0
    // The reader's own default of 25 pictures a second would round every change to 40 ms.
    lines.push(`file ${file}`, 'option framerate 1000', `duration ${((untilMs - fromMs) / 1000).toFixed(3)}`)
  })
  return `${lines.join('\n')}\n`
}

/** @returns the file's name: equal parts are one file. */
async function writePart(whole: Canvas, { x, y, width, height }: Tile, place: string): Promise<string> {
  const part = createCanvas(width, height)
  part.getContext('2d').drawImage(whole, -x, -y)
  const bytes = part.data()
  const path = `${place}-${createHash('sha1').update(bytes).digest('hex').slice(0, 20)}.png`
  await writeFile(path, await part.encode('png'))
  return basename(path)
}

/** Where any of the pictures has anything. */
function coverOf(pictures: readonly Canvas[], { width, height }: Layer): Cover {
  const cover: Cover = Array.from({ length: Math.ceil(height / TILE_STEP) }, () => null)
  for (const one of pictures) {
    const bytes = one.data()
    for (let y = 0; y < height; y++) {
      const row = Math.floor(y / TILE_STEP)
      const alpha = (x: number): number => bytes[(y * width + x) * 4 + 3] ?? 0
      let from = 0,
        to = width
      while (from < width && !alpha(from)) from++
      if (from === width) continue
      while (!alpha(to - 1)) to--
      const known = cover[row]
      cover[row] = {
        from: Math.min(known?.from ?? Infinity, Math.floor(from / TILE_STEP)),
        to: Math.max(known?.to ?? 0, Math.ceil(to / TILE_STEP)),
      }
    }
  }
  return cover
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
  all.forEach(({ fromMs, state: shown }, index) => {
    const state = shown && layer.shows(shown) ? shown : null
    const untilMs = Math.min(durationMs, all[index + 1]?.fromMs ?? durationMs)
    const key = state ? layer.keyOf(state) : ''
    const last = out.at(-1)
    if (untilMs <= fromMs) return
    if (last?.key === key) last.untilMs = untilMs
    else out.push({ state, key, fromMs, untilMs })
  })
  return out
}

function picture(state: OverlayState | null, layer: Layer, frame: Frame): Canvas {
  const canvas = createCanvas(layer.width, layer.height)
  if (state) {
    const surface = canvas.getContext('2d')
    surface.translate(-layer.x, -layer.y)
    // The same methods as in a browser; the two declare their colours and images by types that do not meet.
    layer.draw(surface as unknown as Surface, state, frame)
  }
  return canvas
}
