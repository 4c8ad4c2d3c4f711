// The picture of a rendered video against what it should show: every change of the count to the picture, and stretches
// in which nothing is seen.
import type { Readable } from 'node:stream'
import { createCanvas } from '@napi-rs/canvas'
import { lastBegun } from '../core/lastBegun'
import { drawOverlay, overlayLayers, type Frame, type Layer } from '../core/look/drawOverlay'
import type { LookWish } from '../core/look/looks/family'
import { overlayAt, type OverlayChange, type OverlayState } from '../core/look/overlay'
import type { Surface } from '../core/look/surface'
import { DeadFinder, SMALL, type Dead } from '../core/proof/dead'
import { LETS, nearerTo, unlikeness, type Fault } from '../core/proof/verify'
import { frameMsOf, type Ms, type Share } from '../core/units'
import { registerFonts } from './fonts'
import { footageFrom, patience } from './input'
import type { FootageFacts } from './probe'
import { measuringSurface } from './strip'
import { runTool } from './tool'
import type { Expected, Found, Frames } from './expected'

/** A change of the count: what is to be seen in the layer's box before and after it, as luma. */
interface Turn {
  frame: number
  atMs: Ms
  count: string
  before: Uint8Array | null
  after: Uint8Array
  /** Where both cover the film, and differ. */
  places: readonly number[]
  /** Where the later one covers the film. */
  covered: readonly number[]
  /** Frame by frame around it: above 0 it is nearer to the later one. */
  seen: Map<number, { side: number; unlike: number }>
}

/** Pictures that are looked at on either side of a change. */
const AROUND_FRAMES = 5
/** So far from what was drawn, in grey levels, it is something else. An encoder is off by a few. */
const OTHER_PICTURE = 26
/** Times of pictures are told to a microsecond, and reckoned from a rate that is none. */
const ROUNDED_MS: Ms = 0.05
/** One pixel in so many is compared. */
const EVERY_PIXEL = 3

/** @param frames what is looked at. Default: all. */
export async function verifyPicture(
  video: string,
  { changes, look, cut }: Expected,
  { facts, frames }: { facts: FootageFacts; frames: readonly Frames[] | undefined },
  signal?: AbortSignal,
): Promise<{ faults: Fault[]; turns: Found['turns']; lengthMs: Ms }> {
  const times = await frameTimes(video, signal)
  const lengthMs = (times.at(-1) ?? 0) + frameMsOf(facts.rate)
  const states = changes.flatMap(({ state }) => state ?? [])
  const layers = overlayLayers(facts, states, measuringSurface(), look)
  const layer = countLayer(layers, states)
  const stretches = frames ? widened(frames, times.length) : [{ from: 0, to: times.length }]
  const looked = frames ?? stretches
  const turns = layer ? turnsIn(changes, { layer, frame: facts, look, times, frames: looked }) : []
  const isFilmedAt = filmedAt(cut.spans, changes)
  const overlayFrom = (ms: Ms): string => String(lastBegun(changes, ({ fromMs }) => fromMs, ms + ROUNDED_MS))
  const places = uncovered(layers, facts)
  const dead: Dead[] = []
  for (const stretch of stretches) {
    const finder = new DeadFinder(places)
    await watch(video, { layer, turns, stretch, times, isFilmedAt, overlayFrom, finder, signal })
    dead.push(...finder.finish(times[stretch.to] ?? lengthMs))
  }
  const faults = dead.map(({ kind, fromMs, untilMs }): Fault => ({
    ...{ kind, atMs: Math.round(fromMs), found: Math.round(untilMs - fromMs), expected: 0, what: '' },
  }))
  const found = turns.map((turn) => {
    const seen = [...turn.seen].sort(([one], [other]) => one - other)
    const last = seen.findLast(([, { side }]) => side <= 0)
    const first = seen.find(([frame, { side }]) => side > 0 && frame > (last?.[0] ?? -1))
    const off = first ? first[0] - turn.frame : AROUND_FRAMES + 1
    const at = { atMs: Math.round(turn.atMs), what: turn.count }
    if (Math.abs(off) > LETS.frames) faults.push({ kind: 'count', ...at, found: off, expected: 0 })
    else if ((first?.[1].unlike ?? 0) > OTHER_PICTURE)
      faults.push({ kind: 'picture', ...at, found: Math.round(first?.[1].unlike ?? 0), expected: 0 })
    return { frame: turn.frame, off }
  })
  return { faults, turns: found, lengthMs }
}

/** With what is seen around their first and last pictures; what overlaps then is one. @param frames in order. */
function widened(frames: readonly Frames[], length: number): Frames[] {
  const wide: Frames[] = []
  for (const { from, to } of frames) {
    const last = wide.at(-1)
    const begin = Math.max(0, from - AROUND_FRAMES),
      end = Math.min(length, to + AROUND_FRAMES + 1)
    if (last && begin <= last.to) last.to = end
    else wide.push({ from: begin, to: end })
  }
  return wide
}

/** When each picture is shown, in order. */
async function frameTimes(video: string, signal?: AbortSignal): Promise<Ms[]> {
  const told = await runTool(
    'ffprobe',
    ['-v', 'error', '-select_streams', 'V:0', '-show_entries', 'packet=pts_time', '-of', 'csv=p=0', `file:${video}`],
    signal ? { signal } : {},
  )
  return told
    .toString()
    .split('\n')
    .map(parseFloat)
    .filter(Number.isFinite)
    .sort((one, other) => one - other)
    .map((seconds) => seconds * 1000)
}

/** The layer that the count stands in. */
function countLayer(layers: readonly Layer[], states: readonly OverlayState[]): Layer | null {
  const counted = states.find(({ count }) => count !== null)
  if (!counted?.count) return null
  const other = { ...counted, count: counted.count + 1 }
  return layers.find((layer) => layer.keyOf(counted) !== layer.keyOf(other)) ?? null
}

interface Drawing {
  layer: Layer
  frame: Frame
  look: LookWish
}

/** @param frames in which changes are looked for. */
function turnsIn(
  changes: readonly OverlayChange[],
  { layer, frame, look, times, frames }: Drawing & { times: readonly Ms[]; frames: readonly Frames[] },
): Turn[] {
  registerFonts()
  const drawn = new Map<string, Drawn>()
  const pictureOf = (state: OverlayState): Drawn => {
    const key = JSON.stringify(state)
    const known = drawn.get(key) ?? lumaOf(state, { layer, frame, look })
    // Few repeat, and a session has thousands.
    if (drawn.size > 40) drawn.clear()
    drawn.set(key, known)
    return known
  }
  return changes.flatMap(({ fromMs, state }, at): Turn[] => {
    const earlier = changes[at - 1]?.state ?? null
    if (!state?.count || (earlier?.count === state.count && earlier.segmentId === state.segmentId)) return []
    const first = lastBegun(times, (ms) => ms, fromMs - ROUNDED_MS) + 1
    if (!frames.some(({ from, to }) => first >= from && first < to)) return []
    const after = pictureOf(state)
    const before = earlier ? pictureOf(earlier) : null
    const covered = after.covered
    const places = before
      ? covered.filter(
          (place) => before.isCovered(place) && Math.abs((before.luma[place] ?? 0) - (after.luma[place] ?? 0)) > 30,
        )
      : []
    if (before && places.length < 12) return []
    const pictures = { before: before?.luma ?? null, after: after.luma, places, covered }
    return [{ frame: first, atMs: fromMs, count: String(state.count), ...pictures, seen: new Map() }]
  })
}

interface Drawn {
  luma: Uint8Array
  covered: number[]
  isCovered: (place: number) => boolean
}

/** What is seen in the layer's box, with all that lies over one another there; luma by BT.601, as the render has it. */
function lumaOf(state: OverlayState, { layer, frame, look }: Drawing): Drawn {
  const canvas = createCanvas(layer.width, layer.height)
  const surface = canvas.getContext('2d')
  surface.translate(-layer.x, -layer.y)
  drawOverlay(surface as unknown as Surface, state, frame, look)
  const { data } = surface.getImageData(0, 0, layer.width, layer.height)
  const luma = new Uint8Array(layer.width * layer.height)
  const covered: number[] = []
  const isCovered = (place: number): boolean => (data[place * 4 + 3] ?? 0) > 250
  for (let place = 0; place < luma.length; place++) {
    const at = place * 4
    luma[place] = Math.round(0.299 * (data[at] ?? 0) + 0.587 * (data[at + 1] ?? 0) + 0.114 * (data[at + 2] ?? 0))
    if (place % EVERY_PIXEL === 0 && isCovered(place)) covered.push(place)
  }
  return { luma, covered, isCovered }
}

interface Watching {
  layer: Layer | null
  turns: readonly Turn[]
  stretch: Frames
  times: readonly Ms[]
  /** Another text where another overlay is laid. */
  overlayFrom: (ms: Ms) => string
  /** Whether it is footage that is seen at an instant, and nothing hides it. */
  isFilmedAt: (ms: Ms) => boolean
  finder: DeadFinder
  signal: AbortSignal | undefined
}

/** Fills in what is seen around each change, and finds where nothing is. One decoding does for both. */
async function watch(video: string, watching: Watching): Promise<void> {
  const { layer, turns, stretch, times, isFilmedAt, overlayFrom, finder, signal } = watching
  const { x, y, width, height } = layer ?? { x: 0, y: 0, width: 2, height: 2 }
  const byFrame = new Map<number, Turn[]>()
  for (const turn of turns)
    for (let frame = turn.frame - AROUND_FRAMES; frame <= turn.frame + AROUND_FRAMES; frame++)
      byFrame.set(frame, [...(byFrame.get(frame) ?? []), turn])
  const seeCount = inPictures(width * height, (luma, number) => {
    const near = byFrame.get(stretch.from + number)
    if (near) noteTurns(near, stretch.from + number, fullRange(luma))
  })
  const seeSmall = inPictures(SMALL.width * SMALL.height, (luma, number) => {
    const atMs = times[stretch.from + number] ?? 0
    finder.see(isFilmedAt(atMs) ? luma : null, atMs, overlayFrom(atMs))
  })
  const begin = times[stretch.from] ?? 0
  // Before the picture that is meant, and after the one before it.
  const fromMs = stretch.from ? (begin + (times[stretch.from - 1] ?? 0)) / 2 : 0
  const raw = ['-frames:v', String(stretch.to - stretch.from), '-fps_mode', 'passthrough', '-f', 'rawvideo']
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...footageFrom(video, fromMs), '-filter_complex'],
      // Another format than the video's own would have every picture converted as a whole.
      `[0:V:0]format=yuv420p,split[whole][all];[whole]crop=${width}:${height}:${x}:${y},extractplanes=y[count];` +
        `[all]extractplanes=y,scale=${SMALL.width}:${SMALL.height}:flags=area[small]`,
      ...['-map', '[count]', ...raw, 'pipe:1', '-map', '[small]', ...raw, 'pipe:3'],
    ],
    {
      ...(signal ? { signal } : {}),
      ...{ limitMs: patience(times.at(-1) ?? 0, 10), onOutput: seeCount, extraPipes: 1 },
      feed: async (child) => {
        for await (const chunk of child.stdio[3] as unknown as Readable) seeSmall(chunk as Buffer)
      },
    },
  )
}

/** @returns takes bytes as they come, and hands on whole pictures with their numbers. */
function inPictures(size: number, see: (luma: Buffer, number: number) => void): (chunk: Buffer) => void {
  let rest: Buffer = Buffer.alloc(0),
    number = 0
  return (chunk) => {
    let bytes = rest.length ? Buffer.concat([rest, chunk]) : chunk
    for (; bytes.length >= size; bytes = bytes.subarray(size)) see(bytes.subarray(0, size), number++)
    rest = Buffer.from(bytes)
  }
}

/** Places of a small picture over which none of the layers lies; what covers most of it is a card, and stands alone. */
function uncovered(layers: readonly Layer[], { width, height }: Frame): number[] {
  const boxes = layers.filter((layer) => layer.width * layer.height < MOST_COVER * width * height)
  return Array.from({ length: SMALL.width * SMALL.height }, (_, place) => place).filter((place) => {
    const x = (((place % SMALL.width) + 0.5) * width) / SMALL.width,
      y = ((Math.floor(place / SMALL.width) + 0.5) * height) / SMALL.height
    return !boxes.some((box) => x >= box.x && x < box.x + box.width && y >= box.y && y < box.y + box.height)
  })
}
const MOST_COVER: Share = 0.6

/** Where footage runs, and no card is over it. */
function filmedAt(spans: Expected['cut']['spans'], changes: readonly OverlayChange[]): (ms: Ms) => boolean {
  return (ms) => {
    const span = spans[lastBegun(spans, ({ outMs }) => outMs, ms + ROUNDED_MS)]
    return typeof span?.source === 'number' && !overlayAt(changes, ms + ROUNDED_MS)?.card
  }
}

function noteTurns(turns: readonly Turn[], frame: number, luma: Uint8Array): void {
  for (const { before, after, places, covered, seen } of turns) {
    const unlike = unlikeness(luma, after, covered)
    const side = before ? nearerTo(luma, before, after, places) : OTHER_PICTURE - unlike
    seen.set(frame, { side, unlike })
  }
}

/** Luma of video lies between 16 and 235. */
function fullRange(luma: Uint8Array): Uint8Array {
  return luma.map((one) => Math.max(0, Math.min(255, Math.round(((one - 16) * 255) / 219))))
}
