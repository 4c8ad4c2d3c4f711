// What part of the footage is shown, where a video has another shape than was filmed: how large it is, and where it
// looks at each instant. Keys stand in the time of their file, so they stay with what they show however it is cut.
import { z } from 'zod'
import { lastBegun } from '../lastBegun'
import type { Ms, Share } from '../units'
import { sourceMsIn, type Span } from './cut'

/** Width to height; null as it was filmed. */
export const SHAPES = { filmed: null, wide: 16 / 9, upright: 9 / 16, square: 1 } as const
export type Shape = keyof typeof SHAPES
export const SHAPE_NAMES = Object.keys(SHAPES) as [Shape, ...Shape[]]

/** Where the picture looks: 0 as far left (or up) as it can, 1 as far right (or down). */
export interface Aim {
  atMs: Ms
  at: Share
}

const keySchema = z.object({
  /** Id of the file. */
  footage: z.string().max(80),
  atMs: z.number().min(0),
  at: z.number().min(0).max(1),
})
export type FramingKey = z.infer<typeof keySchema>

export const framingSchema = z.object({
  shape: z.enum(SHAPE_NAMES).default('filmed'),
  /** In any order; a file without any is looked at in its middle. */
  keys: z.array(keySchema).max(20_000).default([]),
})
export type Framing = z.infer<typeof framingSchema>
export const AS_FILMED: Framing = framingSchema.parse({})

export interface Size {
  width: number
  height: number
}

/** The nearest size that encoders take. */
export const even = (value: number): number => Math.max(2, 2 * Math.round(value / 2))

/** Width to height, where that is another than was filmed. */
function wantedOf({ width, height }: Size, shape: Shape): number | null {
  const wanted = SHAPES[shape]
  // Closer than that, sizes in even pixels are the same shape.
  return wanted === null || Math.abs(width / height / wanted - 1) < 0.01 ? null : wanted
}

/** The largest part of a picture that has the shape, in even pixels. */
export function partOf({ width, height }: Size, shape: Shape): Size {
  const wanted = wantedOf({ width, height }, shape)
  if (wanted === null) return { width, height }
  return width / height > wanted ? { width: even(height * wanted), height } : { width, height: even(width / wanted) }
}

/** Of the video: its shorter side is as long as the footage's, so that a part of 720 lines is no worse a video. */
export function framedSize({ width, height }: Size, shape: Shape): Size {
  const wanted = wantedOf({ width, height }, shape)
  if (wanted === null) return { width, height }
  const shorter = Math.min(width, height)
  return wanted >= 1
    ? { width: even(shorter * wanted), height: even(shorter) }
    : { width: even(shorter), height: even(shorter / wanted) }
}

/** Keys of one file, in order of time. */
export const aimsOf = ({ keys }: Pick<Framing, 'keys'>, footage: string): Aim[] =>
  keys
    .filter((key) => key.footage === footage)
    .map(({ atMs, at }) => ({ atMs, at }))
    .sort((one, other) => one.atMs - other.atMs)

const MIDDLE: Share = 0.5

/** Straight from key to key; as the nearest before the first and after the last. @param aims in order of time. */
export function aimAt(aims: readonly Aim[], ms: Ms): Share {
  const at = lastBegun(aims, ({ atMs }) => atMs, ms)
  const before = aims[at],
    after = aims[at + 1]
  if (!before) return after?.at ?? MIDDLE
  if (!after) return before.at
  return before.at + ((after.at - before.at) * (ms - before.atMs)) / (after.atMs - before.atMs)
}

/**
 * Where a piece of the output looks, by its own time from 0 on: at least one point, the first at 0.
 * @param piece runs at a steady rate through its source from `fromMs` on.
 */
export function aimsWithin(
  aims: readonly Aim[],
  { fromMs, lengthMs, rate }: Pick<Span, 'fromMs' | 'lengthMs' | 'rate'>,
): Aim[] {
  const begin = { atMs: 0, at: aimAt(aims, fromMs) }
  if (rate <= 0) return [begin]
  const untilMs = sourceMsIn({ fromMs, outMs: 0, rate }, lengthMs)
  const within = aims.filter(({ atMs }) => atMs > fromMs && atMs < untilMs)
  return [
    begin,
    ...within.map(({ atMs, at }) => ({ atMs: (atMs - fromMs) / rate, at })),
    { atMs: lengthMs, at: aimAt(aims, untilMs) },
  ]
}

/** A key in place of one that stands as near as this. */
export const SAME_KEY_MS: Ms = 400

/** With a key at an instant of a file. */
export function withKey(framing: Framing, key: FramingKey): Framing {
  const keys = framing.keys.filter(
    ({ footage, atMs }) => footage !== key.footage || Math.abs(atMs - key.atMs) > SAME_KEY_MS,
  )
  return { ...framing, keys: [...keys, key] }
}
