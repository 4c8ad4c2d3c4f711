// The picture of a rendered video against what it should show: every change of the count to the picture, and stretches
// in which nothing is seen.
import type { Readable } from 'node:stream'
import { lastBegun } from '../core/lastBegun'
import { overlayLayers, type Frame, type Layer } from '../core/look/drawOverlay'
import { overlayAt, type OverlayChange, type OverlayState } from '../core/look/overlay'
import { DeadFinder, SMALL, type Dead } from '../core/proof/dead'
import type { Fault } from '../core/proof/verify'
import { frameMsOf, type Ms, type Share } from '../core/units'
import { footageFrom, patience, probeInput } from './input'
import type { FootageFacts } from './probe'
import { asDrawn, pixelsOf, usualRange, type Range } from './range'
import { measuringSurface } from './strip'
import { runTool } from './tool'
import { AROUND_FRAMES, ROUNDED_MS, turnsIn, TurnWatcher, type Judged } from './turns'
import type { Expected, Found, Frames } from './expected'

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
  const turns = layer ? turnsIn(changes, times, frames ?? stretches) : []
  const isFilmedAt = filmedAt(cut.spans, changes)
  const overlayFrom = (ms: Ms): string => String(lastBegun(changes, ({ fromMs }) => fromMs, ms + ROUNDED_MS))
  const places = uncovered(layers, facts)
  const dead: Dead[] = []
  const judged: Judged[] = []
  const range = facts.hdr ?? usualRange(facts)
  for (const stretch of stretches) {
    const finder = new DeadFinder(places)
    const watcher = layer && new TurnWatcher(turns, { layer, frame: facts, look, range })
    await watch(video, { layer, watcher, stretch, times, range, isFilmedAt, overlayFrom, finder, signal })
    dead.push(...finder.finish(times[stretch.to] ?? lengthMs))
    judged.push(...(watcher?.finish() ?? []))
  }
  const faults = [
    ...dead.map(({ kind, fromMs, untilMs }): Fault => ({
      ...{ kind, atMs: Math.round(fromMs), found: Math.round(untilMs - fromMs), expected: 0, what: '' },
    })),
    ...judged.flatMap(({ fault }) => fault ?? []),
  ]
  return { faults, turns: judged.map(({ frame, off }) => ({ frame, off })), lengthMs }
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
    [
      '-v',
      'error',
      '-select_streams',
      'V:0',
      '-show_entries',
      'packet=pts_time',
      '-of',
      'csv=p=0',
      ...probeInput(video),
    ],
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

interface Watching {
  layer: Layer | null
  watcher: TurnWatcher | null
  stretch: Frames
  times: readonly Ms[]
  range: Range
  /** Another text where another overlay is laid. */
  overlayFrom: (ms: Ms) => string
  /** Whether it is footage that is seen at an instant, and nothing hides it. */
  isFilmedAt: (ms: Ms) => boolean
  finder: DeadFinder
  signal: AbortSignal | undefined
}

/** Shows the count to one, and the whole picture to the other. One decoding does for both. */
async function watch(video: string, watching: Watching): Promise<void> {
  const { layer, watcher, stretch, times, range, isFilmedAt, overlayFrom, finder, signal } = watching
  const { x, y, width, height } = layer ?? { x: 0, y: 0, width: 2, height: 2 }
  const seeCount = inPictures(width * height, (luma, number) => watcher?.see(luma, stretch.from + number))
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
      `[0:V:0]format=${pixelsOf(range)},split[whole][all];` +
        `[whole]${[`crop=${width}:${height}:${x}:${y}`, ...asDrawn(range)].join(',')},extractplanes=y[count];` +
        // Of a picture that names its range the scaler would spread the levels.
        `[all]setparams=range=unspecified,extractplanes=y,scale=${SMALL.width}:${SMALL.height}:flags=area,format=gray[small]`,
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
