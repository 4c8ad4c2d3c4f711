// Decodes a rendered video and checks that it is what it should be: its length, every change of the count to the
// picture, every tone and line to the millisecond, its loudness and its peak.
import { createCanvas } from '@napi-rs/canvas'
import type { Cue } from '../core/cue/cue'
import type { Cut } from '../core/cut/cut'
import { drawOverlay, overlayLayers, type Frame, type Layer } from '../core/look/drawOverlay'
import type { LookWish } from '../core/look/looks/family'
import type { OverlayChange, OverlayState } from '../core/look/overlay'
import type { Surface } from '../core/look/surface'
import {
  findSound,
  CLEAR_MATCH,
  LEAST_MATCH,
  LETS,
  nearerTo,
  unlikeness,
  type Fault,
  type Verified,
} from '../core/proof/verify'
import { integrated, levelOf, LoudnessMeter } from '../core/sound/loudness'
import { MIX_RATE, TARGETS, type Mix } from '../core/sound/mix'
import { PeakFinder } from '../core/sound/truePeak'
import type { Heard } from '../core/sound/track'
import { frameMsOf, type Ms, type Samples } from '../core/units'
import { registerFonts } from './fonts'
import { footageFrom, footageInput, patience } from './input'
import { channelsOf } from './loudness'
import { probeFootage, type FootageFacts } from './probe'
import { sampleReader } from './samples'
import { measuringSurface } from './strip'
import { runTool } from './tool'

export interface Expected {
  cut: Pick<Cut, 'outMs' | 'spans'>
  changes: readonly OverlayChange[]
  look: LookWish
  cues: readonly Cue[]
  heard: Heard
  mix: Mix
}

/** Pictures `[from, to)` of a video, by their numbers. */
export interface Frames {
  from: number
  to: number
}

/** What was found to be right in parts of an earlier video that this one is joined from. */
export interface Known {
  /** What is yet to be looked at. Default: all. */
  frames?: readonly Frames[]
  /** What was found in all else. */
  counts?: Verified['counts']
  /** Default: it is listened to. */
  sound?: SoundFound
}

export interface SoundFound {
  faults: readonly Fault[]
  cues: Verified['cues']
  loudness: Verified['loudness']
  lengthMs: Ms
}

export interface Found {
  verified: Verified
  /** Changes of the count that were looked at, and by how many pictures each is off. */
  turns: readonly { frame: number; off: number }[]
  sound: SoundFound
}

/** @throws Problem where the video cannot be read. */
export const verifyVideo = async (video: string, expected: Expected, signal?: AbortSignal): Promise<Verified> =>
  (await lookThrough(video, expected, {}, signal)).verified

/** The same for a video of which parts are known. */
export async function lookThrough(
  video: string,
  expected: Expected,
  known: Known,
  signal?: AbortSignal,
): Promise<Found> {
  const facts = await probeFootage(video, signal)
  const [picture, sound] = await Promise.all([
    verifyPicture(video, expected, { facts, frames: known.frames }, signal),
    known.sound ?? verifySound(video, expected, facts, signal),
  ])
  const { outMs } = expected.cut
  const faults = [...picture.faults, ...sound.faults]
  if (Math.abs(picture.lengthMs - outMs) > LETS.lengthMs)
    faults.unshift({ kind: 'length', atMs: null, found: Math.round(picture.lengthMs), expected: outMs, what: '' })
  if (Math.abs(picture.lengthMs - sound.lengthMs) > LETS.apartMs)
    faults.push({
      ...{ kind: 'apart' as const, atMs: null, what: '' },
      ...{ found: Math.round(sound.lengthMs), expected: Math.round(picture.lengthMs) },
    })
  const offs = picture.turns.map(({ off }) => Math.abs(off))
  const counts = {
    checked: offs.length + (known.counts?.checked ?? 0),
    worstFrames: Math.max(0, ...offs, known.counts?.worstFrames ?? 0),
  }
  const verified = {
    ...{ ok: !faults.length, lengthMs: Math.round(picture.lengthMs), expectedMs: outMs, counts },
    ...{ cues: sound.cues, loudness: sound.loudness, faults },
  }
  return { verified, turns: picture.turns, sound }
}

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

async function verifyPicture(
  video: string,
  { changes, look }: Expected,
  { facts, frames }: { facts: FootageFacts; frames: readonly Frames[] | undefined },
  signal?: AbortSignal,
): Promise<{ faults: Fault[]; turns: Found['turns']; lengthMs: Ms }> {
  const times = await frameTimes(video, signal)
  const lengthMs = (times.at(-1) ?? 0) + frameMsOf(facts.rate)
  const states = changes.flatMap(({ state }) => state ?? [])
  const layer = countLayer(overlayLayers(facts, states, measuringSurface(), look), states)
  if (!layer) return { faults: [], turns: [], lengthMs }
  const stretches = frames ? widened(frames, times.length) : [{ from: 0, to: times.length }]
  const turns = turnsIn(changes, { layer, frame: facts, look, times, frames: frames ?? stretches })
  for (const stretch of stretches) await watch(video, { layer, turns, stretch, times, signal })
  const faults: Fault[] = []
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
    const first = times.findIndex((ms) => ms >= fromMs - ROUNDED_MS)
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
  layer: Layer
  turns: readonly Turn[]
  stretch: Frames
  times: readonly Ms[]
  signal: AbortSignal | undefined
}

/** Fills in what is seen around each change. */
async function watch(video: string, { layer, turns, stretch, times, signal }: Watching): Promise<void> {
  const { x, y, width, height } = layer
  const size = width * height
  const byFrame = new Map<number, Turn[]>()
  for (const turn of turns)
    for (let frame = turn.frame - AROUND_FRAMES; frame <= turn.frame + AROUND_FRAMES; frame++)
      byFrame.set(frame, [...(byFrame.get(frame) ?? []), turn])
  let rest: Buffer = Buffer.alloc(0)
  let frame = stretch.from
  const see = (chunk: Buffer): void => {
    let bytes = rest.length ? Buffer.concat([rest, chunk]) : chunk
    for (; bytes.length >= size; bytes = bytes.subarray(size), frame++) {
      const near = byFrame.get(frame)
      if (near) noteTurns(near, frame, fullRange(bytes.subarray(0, size)))
    }
    rest = Buffer.from(bytes)
  }
  const begin = times[stretch.from] ?? 0
  // Before the picture that is meant, and after the one before it.
  const fromMs = stretch.from ? (begin + (times[stretch.from - 1] ?? 0)) / 2 : 0
  const crop = `crop=${width}:${height}:${x}:${y},format=yuv444p,extractplanes=y`
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...footageFrom(video, fromMs), '-map', '0:V:0', '-vf', crop],
      ...['-frames:v', String(stretch.to - stretch.from), '-fps_mode', 'passthrough', '-f', 'rawvideo', 'pipe:1'],
    ],
    { ...(signal ? { signal } : {}), limitMs: patience(times.at(-1) ?? 0, 10), onOutput: see },
  )
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

/** So far around its instant a sound is looked for, and so much of it. */
const REACH_MS: Ms = 60
const BEFORE_MS: Ms = 20
const OF_TONE_MS: Ms = 90
const OF_LINE_MS: Ms = 350

interface Listening {
  cue: Cue
  from: Samples
  window: Float32Array
  template: Float32Array
}

async function verifySound(
  video: string,
  { cues, heard, mix }: Expected,
  facts: FootageFacts,
  signal?: AbortSignal,
): Promise<SoundFound> {
  const { durationMs } = facts
  const inMs = (ms: Ms): Samples => Math.round((ms * MIX_RATE) / 1000)
  const listening = (mix.cuesOn ? cues : []).flatMap((cue): Listening[] => {
    const sound = heard(cue)
    const lengthMs = cue.line === null ? OF_TONE_MS : OF_LINE_MS
    if (!sound || cue.atMs + lengthMs + REACH_MS > durationMs || cue.atMs < BEFORE_MS + REACH_MS) return []
    const template = new Float32Array(inMs(BEFORE_MS + lengthMs))
    template.set(sound.subarray(0, template.length - inMs(BEFORE_MS)), inMs(BEFORE_MS))
    const from = inMs(cue.atMs) - inMs(BEFORE_MS + REACH_MS)
    return [{ cue, from, window: new Float32Array(template.length + 2 * inMs(REACH_MS)), template }]
  })
  const { lufs, peakDb, lengthMs } = await listen(video, listening, { facts, signal })
  const faults: Fault[] = []
  const told = { checked: listening.length, worstMs: 0 }
  for (const { cue, window, template } of listening) {
    const { at, match } = findSound(window, template)
    const offMs = ((at - inMs(REACH_MS)) * 1000) / MIX_RATE
    const what = cue.line ?? cue.sound
    const isOff = Math.abs(offMs) > LETS.cueMs
    // What is hardly like it, and elsewhere, is something else.
    const isHeard = match >= (isOff ? CLEAR_MATCH : LEAST_MATCH)
    if (!isHeard) faults.push({ kind: 'unheard', atMs: cue.atMs, found: 0, expected: 1, what })
    else if (isOff) faults.push({ kind: 'cue', atMs: cue.atMs, found: Math.round(offMs), expected: 0, what })
    if (isHeard) told.worstMs = Math.max(told.worstMs, Math.round(Math.abs(offMs) * 10) / 10)
  }
  const targetLufs = TARGETS[mix.target]
  if (targetLufs !== null && lufs !== null && Math.abs(lufs - targetLufs) > LETS.lufs)
    faults.push({ kind: 'loudness', atMs: null, found: round1(lufs), expected: targetLufs, what: '' })
  if (targetLufs !== null && peakDb > LETS.peakDb)
    faults.push({ kind: 'peak', atMs: null, found: round1(peakDb), expected: -1, what: '' })
  const loudness = { lufs: lufs === null ? null : round1(lufs), targetLufs, peakDb: round1(peakDb) }
  return { faults, cues: told, loudness, lengthMs }
}

const round1 = (value: number): number => Math.round(value * 10) / 10

/** Decodes the sound once: loudness and peak of all of it, and the samples around each cue. */
async function listen(
  video: string,
  listening: readonly Listening[],
  { facts, signal }: { facts: FootageFacts; signal: AbortSignal | undefined },
): Promise<{ lufs: number | null; peakDb: number; lengthMs: Ms }> {
  const channels = channelsOf(facts.audioChannels)
  const meter = new LoudnessMeter(MIX_RATE, channels)
  const finders = Array.from({ length: channels }, () => new PeakFinder(0.5))
  const samplesIn = sampleReader(channels)
  let at: Samples = 0,
    highest = 0
  const hear = (block: Float32Array): void => {
    meter.add(block)
    for (let index = 0; index < block.length; index++)
      highest = Math.max(highest, finders[index % channels]?.next(block[index] ?? 0) ?? 0)
    const count = block.length / channels
    for (const { from, window } of listening) {
      const begin = Math.max(from, at),
        end = Math.min(from + window.length, at + count)
      for (let sample = begin; sample < end; sample++) {
        window[sample - from] = block[(sample - at) * channels] ?? 0
      }
    }
    at += count
  }
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...footageInput(video), '-map', '0:a:0', '-vn'],
      ...['-ac', String(channels), '-ar', String(MIX_RATE), '-f', 'f32le', 'pipe:1'],
    ],
    {
      ...(signal ? { signal } : {}),
      limitMs: patience(facts.durationMs, 10),
      onOutput: (chunk) => hear(samplesIn(chunk)),
    },
  )
  return { lufs: integrated(meter.finish().energy), peakDb: levelOf(highest), lengthMs: (at * 1000) / MIX_RATE }
}
