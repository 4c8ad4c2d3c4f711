// Hears what a coach calls out, and where somebody speaks or music plays: a small convolutional network over bands of
// sound, trained on simulated coaches by training/train.py. Fed block by block; the network runs over stretches that
// overlap by as far as it sees.
import { z } from 'zod'
import { byTime, CALLS, type EvidenceOf } from '../evidence'
import { Problem } from '../problem'
import type { Ms, Share } from '../units'
import { MEL_BANDS, MEL_STEP_MS, MelListener } from './mel'
import { SOUNDING, soundingIn, type SoundingSpan } from './sounding'

/** The network says something once every so often. */
export const CALL_STEP_MS: Ms = 40

interface Layer {
  /** A convolution and a rectifier; the same, added to what came in; or a sum of all channels, without one. */
  kind: 'conv' | 'residual' | 'linear'
  out: number
  in: number
  kernel: number
  stride: number
  dilation: number
  /** `[out][in][kernel]`. */
  weights: Float32Array
  biases: Float32Array
}
export type CallModel = readonly Layer[]

const headerSchema = z.object({
  format: z.literal(2),
  bands: z.literal(MEL_BANDS),
  layers: z
    .array(
      z.object({
        kind: z.enum(['conv', 'residual', 'linear']),
        out: z.number().int().min(4).max(512).multipleOf(4),
        in: z.number().int().min(2).max(512).multipleOf(2),
        kernel: z.number().int().min(1).max(15),
        stride: z.number().int().min(1).max(4),
        dilation: z.number().int().min(1).max(64),
      }),
    )
    .min(1)
    .max(32),
})

/**
 * @param bytes a model file: the length of its header (32 bits, little endian), the header as JSON, and for each layer
 *   its weights and biases as half-precision numbers.
 * @throws Problem `model-damaged`
 */
export function readCallModel(bytes: Uint8Array): CallModel {
  try {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
    const headerLength = view.getUint32(0, true)
    const header: unknown = JSON.parse(new TextDecoder().decode(bytes.subarray(4, 4 + headerLength)))
    let at = 4 + headerLength
    const values = (count: number): Float32Array => {
      const read = Float32Array.from({ length: count }, (_, index) => halfAt(view, at + 2 * index))
      at += 2 * count
      return read
    }
    const model = headerSchema
      .parse(header)
      .layers.map((layer) => ({
        ...layer,
        weights: values(layer.out * layer.in * layer.kernel),
        biases: values(layer.out),
      }))
    if (model.at(-1)?.out !== OUTPUTS) throw new RangeError('other classes')
    if (at !== bytes.length) throw new RangeError('longer than its header says')
    return model
  } catch {
    throw new Problem({ code: 'model-damaged', name: 'calls.bin' })
  }
}

function halfAt(view: DataView, at: number): number {
  const bits = view.getUint16(at, true)
  const sign = bits & 0x8000 ? -1 : 1,
    exponent = (bits >> 10) & 0x1f,
    fraction = bits & 0x3ff
  if (exponent === 0x1f) throw new RangeError('no number')
  return exponent ? sign * 2 ** (exponent - 15) * (1 + fraction / 1024) : sign * 2 ** -14 * (fraction / 1024)
}

/** A stretch that the network looks at in one go, and what it sees to either side of a step, both in steps. */
const STRETCH = 500
const SIGHT = 40
const FRAMES_A_STEP = CALL_STEP_MS / MEL_STEP_MS
/** No call, or one of them: one of these is so. Speech and music: each may be so. */
const CLASSES = CALLS.length + 1
const OUTPUTS = CLASSES + SOUNDING.length

/** Step `n` of `CALL_STEP_MS` is centred on its middle. */
export class CallListener {
  private readonly mel = new MelListener((frame) => this.take(frame))
  private readonly frames = new Float64Array((STRETCH + 2 * SIGHT) * FRAMES_A_STEP * MEL_BANDS)
  /** Frames held; before the first one there is silence. */
  private held = SIGHT * FRAMES_A_STEP
  private readonly chances: Float32Array[] = []
  private readonly sounding: Float32Array[] = []
  private readonly network: Network

  constructor(model: CallModel) {
    this.network = new Network(model)
  }

  /** @param samples mono, -1..1, at 16 kHz; blocks follow one another without gaps. */
  push(samples: Float32Array): void {
    this.mel.push(samples)
  }

  /** Ends the recording. @returns calls heard, and where somebody speaks and music plays, each in order of time. */
  finish(): (SpokenCall | SoundingSpan)[] {
    for (let left = Math.floor(this.held / FRAMES_A_STEP) - SIGHT; left > 0; left -= STRETCH) {
      this.frames.fill(0, this.held * MEL_BANDS)
      this.look(Math.min(STRETCH, left))
      this.forget()
    }
    return [...callsIn(joined(this.chances)), ...soundingIn(joined(this.sounding), CALL_STEP_MS)]
  }

  private take(frame: Float32Array): void {
    this.frames.set(frame, this.held * MEL_BANDS)
    if (++this.held * MEL_BANDS < this.frames.length) return
    this.look(STRETCH)
    this.forget()
  }

  private look(steps: number): void {
    const logits = this.network.run(this.frames)
    const chances = new Float32Array(steps * CLASSES),
      sounding = new Float32Array(steps * SOUNDING.length)
    for (let step = 0; step < steps; step++) {
      const from = (SIGHT + step) * OUTPUTS
      let sum = 0
      for (let at = 0; at < CLASSES; at++) sum += chances[step * CLASSES + at] = Math.exp(logits[from + at] ?? 0)
      for (let at = 0; at < CLASSES; at++) chances[step * CLASSES + at] = (chances[step * CLASSES + at] ?? 0) / sum
      for (let at = 0; at < SOUNDING.length; at++)
        sounding[step * SOUNDING.length + at] = 1 / (1 + Math.exp(-(logits[from + CLASSES + at] ?? 0)))
    }
    this.chances.push(chances)
    this.sounding.push(sounding)
  }

  private forget(): void {
    this.frames.copyWithin(0, STRETCH * FRAMES_A_STEP * MEL_BANDS)
    this.held -= STRETCH * FRAMES_A_STEP
  }
}

function joined(parts: readonly Float32Array[]): Float32Array {
  const out = new Float32Array(parts.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const part of parts) {
    out.set(part, at)
    at += part.length
  }
  return out
}

/** Values stand time by time, then channel by channel; doubles, which are added without being converted first. */
class Network {
  private readonly layers: readonly Filter[]

  constructor(model: CallModel) {
    this.layers = model.map((layer) => ({ ...layer, byTap: byTap(layer) }))
  }

  run(frames: Float64Array): Float64Array {
    return this.layers.reduce(convolve, frames)
  }
}

interface Filter extends Layer {
  /** `[out][kernel][in]`, so that what is summed lies together. */
  byTap: Float64Array
}

function byTap({ out, in: into, kernel, weights }: Layer): Float64Array {
  const turned = new Float64Array(weights.length)
  for (let to = 0; to < out; to++)
    for (let from = 0; from < into; from++)
      for (let tap = 0; tap < kernel; tap++)
        turned[(to * kernel + tap) * into + from] = weights[(to * into + from) * kernel + tap] ?? 0
  return turned
}

/** Outside of what came in there is silence. */
function convolve(input: Float64Array, layer: Filter): Float64Array {
  const { kind, out, in: into, kernel, stride, dilation, byTap: weights, biases } = layer
  const times = input.length / into
  const count = Math.ceil(times / stride)
  const result = new Float64Array(count * out)
  const reach = ((kernel - 1) / 2) * dilation
  const seen = new Float64Array(kernel * into)
  const sums = new Float64Array(out)
  for (let time = 0; time < count; time++) {
    for (let tap = 0; tap < kernel; tap++) {
      const place = time * stride + tap * dilation - reach
      if (place >= 0 && place < times) seen.set(input.subarray(place * into, (place + 1) * into), tap * into)
      else seen.fill(0, tap * into, (tap + 1) * into)
    }
    products(seen, weights, sums)
    for (let to = 0; to < out; to++) {
      const sum = (sums[to] as number) + (biases[to] as number)
      const kept = kind === 'linear' || sum > 0 ? sum : 0
      result[time * out + to] = kind === 'residual' ? kept + (input[time * into + to] as number) : kept
    }
  }
  return result
}

/** Each row of a matrix times one column; four rows at a time, in eight sums that do not wait for one another. */
function products(column: Float64Array, rows: Float64Array, sums: Float64Array): void {
  const { length } = column
  for (let row = 0; row + 3 < sums.length; row += 4) {
    let at = row * length
    let a = 0,
      b = 0,
      c = 0,
      d = 0,
      e = 0,
      f = 0,
      g = 0,
      h = 0
    for (let index = 0; index < length; index += 2, at += 2) {
      const one = column[index] as number,
        other = column[index + 1] as number
      a += one * (rows[at] as number)
      b += other * (rows[at + 1] as number)
      c += one * (rows[at + length] as number)
      d += other * (rows[at + length + 1] as number)
      e += one * (rows[at + 2 * length] as number)
      f += other * (rows[at + 2 * length + 1] as number)
      g += one * (rows[at + 3 * length] as number)
      h += other * (rows[at + 3 * length + 1] as number)
    }
    sums[row] = a + b
    sums[row + 1] = c + d
    sums[row + 2] = e + f
    sums[row + 3] = g + h
  }
}

export type SpokenCall = EvidenceOf<'word'>

/** Two calls are this far apart at least. */
const APART_STEPS = 10
/** A call is placed at the middle of what is this near. */
const NEAR_STEPS = 3
/** Less than this is not worth telling. Faint calls are told too: where one is expected they say that it was made. */
const LEAST_CHANCE: Share = 0.05
/** Standard deviation of a call's beginning against the truth, on takes of the split "tune". */
const SPREAD_MS = 40

function callsIn(chances: Float32Array): SpokenCall[] {
  const steps = chances.length / CLASSES
  const found = CALLS.flatMap((word, index): SpokenCall[] => {
    const chance = (step: number): number =>
      step < 0 || step >= steps ? 0 : (chances[step * CLASSES + index + 1] ?? 0)
    const calls: SpokenCall[] = []
    for (let step = 0; step < steps; step++) {
      const strength = chance(step)
      if (strength < LEAST_CHANCE) continue
      let highest = true
      for (let off = 1; off <= APART_STEPS && highest; off++)
        highest = chance(step - off) < strength && chance(step + off) <= strength
      if (!highest) continue
      let sum = 0,
        moment = 0
      for (let off = -NEAR_STEPS; off <= NEAR_STEPS; off++) {
        sum += chance(step + off)
        moment += chance(step + off) * off
      }
      const atMs = Math.max(0, (step + 0.5 + moment / sum) * CALL_STEP_MS)
      calls.push({ kind: 'word', word, atMs, spreadMs: SPREAD_MS, strength })
    }
    return calls
  })
  return found.sort(byTime)
}
