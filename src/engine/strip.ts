// Pre-draws the overlay: one small picture per change and place, and the list that tells ffmpeg how long each stands.
import { createHash } from 'node:crypto'
import { writeFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { createCanvas, type Canvas } from '@napi-rs/canvas'
import type { Frame, Layer } from '../core/look/drawOverlay'
import type { OverlayChange, OverlayState } from '../core/look/overlay'
import type { Surface } from '../core/look/surface'
import { laidTogether, overlap, TILE_STEP, tilesOf, type Cover, type Tile } from '../core/look/tiles'
import type { Ms } from '../core/units'
import { registerFonts } from './fonts'

interface StripJob {
  /** Tells its files from another's. */
  name: string
  /** From the lowest up. */
  layers: readonly Layer[]
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
 * Writes pictures and lists (for ffmpeg's concat reader) into `folder`. Equal pictures share a file, and a picture that
 * stays is listed once.
 * @returns the fewest places that are laid soonest; none where there is never anything.
 */
export async function drawStrips(job: StripJob): Promise<Strip[]> {
  registerFonts()
  const drawn = job.layers.map((layer) => drawnLayer(layer, job))
  const places = laidTogether(
    drawn.flatMap(({ tiles }) => tiles),
    job.frame,
  )
  return Promise.all(
    places.map((place, at) => {
      const here = drawn.filter(({ layer }) => overlap(layer, place))
      return stripOf(here, place, { ...job, name: `${job.name}-${at}` })
    }),
  )
}

interface Drawn {
  layer: Layer
  stays: readonly Stay[]
  /** By the keys of stays. */
  pictures: ReadonlyMap<string, Canvas>
  /** Where in the frame there is ever anything. */
  tiles: readonly Tile[]
}

function drawnLayer(layer: Layer, { changes, durationMs, frame, signal }: StripJob): Drawn {
  const all = stays(layer, changes, durationMs)
  const pictures = new Map<string, Canvas>()
  for (const { state, key } of all) {
    signal?.throwIfAborted()
    if (state && !pictures.has(key)) pictures.set(key, picture(state, layer, frame))
  }
  const tiles = tilesOf(coverOf([...pictures.values()], layer), layer, frame)
  return {
    layer,
    stays: all,
    pictures,
    tiles: tiles.map((tile) => ({ ...tile, x: layer.x + tile.x, y: layer.y + tile.y })),
  }
}

async function stripOf(here: readonly Drawn[], place: Tile, { name, folder, signal }: StripJob): Promise<Strip> {
  const all = standing(here)
  const files = new Map<string, string>()
  for (const { shown } of all) {
    signal?.throwIfAborted()
    const key = JSON.stringify(shown)
    if (!files.has(key)) files.set(key, await writePlace(here, shown, place, join(folder, name)))
  }
  const list = join(folder, `${name}.txt`)
  await writeFile(list, listOf(all.map((one) => ({ ...one, file: files.get(JSON.stringify(one.shown)) ?? '' }))))
  return { x: place.x, y: place.y, list, stands: standsOf(all) }
}

/** What stands of all layers, from each of their changes to the next. */
interface Standing {
  fromMs: Ms
  untilMs: Ms
  /** The key of each layer's picture; '' where there is nothing of it. */
  shown: readonly string[]
}

function standing(here: readonly Drawn[]): Standing[] {
  const beginsMs = [...new Set(here.flatMap(({ stays }) => stays.map(({ fromMs }) => fromMs)))].sort((a, b) => a - b)
  const endMs = Math.max(...here.map(({ stays }) => stays.at(-1)?.untilMs ?? 0))
  return beginsMs.map((fromMs, at) => ({
    fromMs,
    untilMs: beginsMs[at + 1] ?? endMs,
    shown: here.map(({ stays }) => stays.findLast((stay) => stay.fromMs <= fromMs)?.key ?? ''),
  }))
}

/** When anything is seen. */
function standsOf(all: readonly Standing[]): { fromMs: Ms; untilMs: Ms }[] {
  const stands: { fromMs: Ms; untilMs: Ms }[] = []
  for (const { shown, fromMs, untilMs } of all) {
    if (shown.every((key) => key === '')) continue
    const last = stands.at(-1)
    if (last?.untilMs === fromMs) last.untilMs = untilMs
    else stands.push({ fromMs, untilMs })
  }
  return stands
}

function listOf(all: readonly (Standing & { file: string })[]): string {
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

/**
 * Writes what stands of all layers in a place, as PAM: a picture that stands for a second is sooner written as it is
 * than packed and unpacked.
 * @returns the file's name: equal pictures are one file.
 */
async function writePlace(
  here: readonly Drawn[],
  shown: Standing['shown'],
  { x, y, width, height }: Tile,
  path: string,
): Promise<string> {
  const whole = createCanvas(width, height)
  const context = whole.getContext('2d')
  here.forEach(({ layer, pictures }, at) => {
    const drawn = pictures.get(shown[at] ?? '')
    if (drawn) context.drawImage(drawn, layer.x - x, layer.y - y)
  })
  const { data } = context.getImageData(0, 0, width, height)
  const file = `${path}-${createHash('sha1').update(data).digest('hex').slice(0, 20)}.pam`
  const head = `P7\nWIDTH ${width}\nHEIGHT ${height}\nDEPTH 4\nMAXVAL 255\nTUPLTYPE RGB_ALPHA\nENDHDR\n`
  await writeFile(file, [head, data])
  return basename(file)
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

function picture(state: OverlayState, layer: Layer, frame: Frame): Canvas {
  const canvas = createCanvas(layer.width, layer.height)
  const surface = canvas.getContext('2d')
  surface.translate(-layer.x, -layer.y)
  // The same methods as in a browser; the two declare their colours and images by types that do not meet.
  layer.draw(surface as unknown as Surface, state, frame)
  return canvas
}
