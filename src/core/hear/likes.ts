// Finds what sounds like one call that somebody pointed at, in whatever language: the features around the tap are a
// template, laid over the recording by dynamic time warping from half to twice its pace.
import { byTime, type EvidenceOf } from '../evidence'
import type { Ms, Share } from '../units'
import { MEL_BANDS, MEL_STEP_MS, MelListener } from './mel'

/** Two frames of bands make one of these. */
const STEP_MS: Ms = 20
const EACH = STEP_MS / MEL_STEP_MS
const CEPSTRA = 13
const FEATURES = 2 * CEPSTRA
/** A count-in before the tap, and the call itself. */
const BEFORE_MS: Ms = 1400
const AFTER_MS: Ms = 500
/** No two likes are closer. */
const APART_MS: Ms = 2000
const SPREAD_MS: Ms = 60

/** Bands of a recording every 20 ms, fed block by block. */
export class BandGatherer {
  private readonly parts: Float32Array[] = []
  private part = new Float32Array(PART * MEL_BANDS)
  private frames = 0
  private readonly mel = new MelListener((bands) => this.take(bands))

  /** @param samples mono, -1..1, at 16 kHz. */
  push(samples: Float32Array): void {
    this.mel.push(samples)
  }

  /** @returns `MEL_BANDS` numbers a frame. */
  finish(): Float32Array {
    const whole = Math.floor(this.frames / EACH)
    const out = new Float32Array(whole * MEL_BANDS)
    ;[...this.parts, this.part].forEach((part, index) => {
      const from = index * PART * MEL_BANDS
      out.set(part.subarray(0, Math.max(0, out.length - from)), from)
    })
    return out
  }

  private take(bands: Float32Array): void {
    const frame = Math.floor(this.frames / EACH) % PART
    if (this.frames && this.frames % (EACH * PART) === 0) {
      this.parts.push(this.part)
      this.part = new Float32Array(PART * MEL_BANDS)
    }
    for (let band = 0; band < MEL_BANDS; band++) {
      const at = frame * MEL_BANDS + band
      this.part[at] = (this.part[at] ?? 0) + (bands[band] ?? 0) / EACH
    }
    this.frames++
  }
}
/** Frames in a block of memory. */
const PART = 15_000

/**
 * @param bands of the whole recording, as `BandGatherer` gives them.
 * @param tapMs where somebody pointed at a call.
 * @param word what was called there.
 * @returns likes in order of time, the tap itself not among them; none where the tap is too near an end.
 */
export function likesOf(bands: Float32Array, tapMs: Ms, word: 'work' | 'rest'): EvidenceOf<'sample'>[] {
  const features = featuresOf(bands)
  const frames = features.length / FEATURES
  const tap = Math.round(tapMs / STEP_MS)
  const from = tap - BEFORE_MS / STEP_MS,
    to = tap + AFTER_MS / STEP_MS
  if (from < 0 || to > frames) return []
  const template = features.subarray(from * FEATURES, to * FEATURES)
  const { costs, marks } = warped(template, features, tap - from)
  const { middle, spread } = robust(costs)
  const found: EvidenceOf<'sample'>[] = []
  const apart = APART_MS / STEP_MS
  const order = [...costs.keys()]
    .filter((at) => Number.isFinite(costs[at]))
    .sort((one, other) => (costs[one] ?? 0) - (costs[other] ?? 0))
  const taken = new Uint8Array(frames)
  for (const end of order) {
    const strength = chanceOf((middle - (costs[end] ?? 0)) / spread)
    if (strength < LEAST_CHANCE || found.length >= MOST_LIKES) break
    if (taken[end]) continue
    taken.fill(1, Math.max(0, end - apart), end + apart)
    const atMs = (marks[end] ?? 0) * STEP_MS
    if (Math.abs(atMs - tapMs) < APART_MS) continue
    found.push({ kind: 'sample', word, atMs, spreadMs: SPREAD_MS, strength, likeMs: tapMs })
  }
  return found.sort(byTime)
}

const MOST_LIKES = 2000
const LEAST_CHANCE: Share = 0.1
/**
 * A like is half as likely as it gets this many robust deviations below the usual cost. However alike, one in four is
 * something else, such as a set counted aloud where the tap was a count-in (takes of the split "tune").
 */
const EVEN_AT = 4
const STEEPNESS = 1.4
const MOST_CHANCE: Share = 0.75
const chanceOf = (deviations: number): Share => MOST_CHANCE / (1 + Math.exp(-STEEPNESS * (deviations - EVEN_AT)))

/** Cepstra of each frame without their first, which is loudness, and how they change; all of one spread. */
function featuresOf(bands: Float32Array): Float32Array {
  const frames = bands.length / MEL_BANDS
  const cosines = Float64Array.from({ length: CEPSTRA * MEL_BANDS }, (_, at) =>
    Math.cos((Math.PI * (Math.floor(at / MEL_BANDS) + 1) * ((at % MEL_BANDS) + 0.5)) / MEL_BANDS),
  )
  const out = new Float32Array(frames * FEATURES)
  for (let frame = 0; frame < frames; frame++)
    for (let at = 0; at < CEPSTRA; at++) {
      let sum = 0
      for (let band = 0; band < MEL_BANDS; band++)
        sum += (cosines[at * MEL_BANDS + band] as number) * (bands[frame * MEL_BANDS + band] as number)
      out[frame * FEATURES + at] = sum
    }
  const near = 2
  for (let frame = 0; frame < frames; frame++)
    for (let at = 0; at < CEPSTRA; at++) {
      const place = (off: number): number => Math.max(0, Math.min(frames - 1, frame + off)) * FEATURES + at
      out[frame * FEATURES + CEPSTRA + at] = (out[place(near)] as number) - (out[place(-near)] as number)
    }
  for (let at = 0; at < FEATURES; at++) {
    let sum = 0,
      square = 0
    for (let frame = 0; frame < frames; frame++) {
      const value = out[frame * FEATURES + at] as number
      sum += value
      square += value * value
    }
    const mean = sum / frames
    const scale = 1 / Math.sqrt(Math.max(1e-9, square / frames - mean * mean))
    for (let frame = 0; frame < frames; frame++)
      out[frame * FEATURES + at] = ((out[frame * FEATURES + at] as number) - mean) * scale
  }
  return out
}

interface Warped {
  /** Cost a frame of the template of the best path that ends in each frame. */
  costs: Float64Array
  /** The frame in which that path passes the template's mark. */
  marks: Float64Array
}

/** Columns of the recording in turn; a path steps by one and one, one and two, or two and one. */
function warped(template: Float32Array, features: Float32Array, mark: number): Warped {
  const rows = template.length / FEATURES,
    frames = features.length / FEATURES
  const column = (): Float64Array => new Float64Array(rows).fill(Infinity)
  let cost = [column(), column(), column()],
    passed = [column(), column(), column()]
  const local = new Float64Array(rows),
    before = new Float64Array(rows)
  const costs = new Float64Array(frames),
    marks = new Float64Array(frames)
  for (let frame = 0; frame < frames; frame++) {
    const [now, one, two] = cost as [Float64Array, Float64Array, Float64Array]
    const [nowAt, oneAt, twoAt] = passed as [Float64Array, Float64Array, Float64Array]
    before.set(local)
    distances(template, features, frame, local)
    now[0] = local[0] ?? 0
    for (let row = 1; row < rows; row++) {
      const here = local[row] as number
      const straight = (one[row - 1] as number) + here
      const slow = (two[row - 1] as number) + (before[row] as number) + here
      const fast = row > 1 ? (one[row - 2] as number) + (local[row - 1] as number) + here : Infinity
      const least = Math.min(straight, slow, fast)
      now[row] = least
      if (row <= mark) nowAt[row] = frame
      else
        nowAt[row] = (least === straight ? oneAt[row - 1] : least === slow ? twoAt[row - 1] : oneAt[row - 2]) as number
    }
    costs[frame] = (now[rows - 1] as number) / rows
    marks[frame] = nowAt[rows - 1] as number
    cost = [two, now, one]
    passed = [twoAt, nowAt, oneAt]
  }
  return { costs, marks }
}

function distances(template: Float32Array, features: Float32Array, frame: number, into: Float64Array): void {
  const from = frame * FEATURES
  for (let row = 0; row < into.length; row++) {
    let sum = 0
    const at = row * FEATURES
    for (let feature = 0; feature < FEATURES; feature++) {
      const off = (template[at + feature] as number) - (features[from + feature] as number)
      sum += off * off
    }
    into[row] = Math.sqrt(sum)
  }
}

/** The median, and 1.48 times the median distance from it below it: what is unlike is no measure of what is alike. */
function robust(values: Float64Array): { middle: number; spread: number } {
  const sorted = values.filter(Number.isFinite).sort()
  const middle = sorted[Math.floor(sorted.length / 2)] ?? 0
  const lower = sorted[Math.floor(sorted.length * 0.16)] ?? 0
  return { middle, spread: Math.max(1e-9, middle - lower) }
}
