// Where in the picture somebody moves, so that a part of it can go along: found in small pictures, smoothed, and told
// in as few keys as it takes.
import { SMALL_PICTURE } from '../hear/movement'
import { SECOND, type Share } from '../units'
import type { Aim } from './framing'

/** Of 255: less than this is noise. */
const NOISE = 12
/** More of the picture than this never moves by itself: the light changed, or the camera was turned. */
const WHOLE_PICTURE: Share = 0.6
/** Less of it is nobody. */
const LEAST: Share = 0.002
/** What moved within so long on either side decides where somebody is. */
const AROUND_S = 1.5
/** A place that is off by no more than this part of the picture's width needs no key of its own. */
const NEAR: Share = 0.04

/** Which way there is room: a wide picture is looked at from left to right. */
export type Axis = 'across' | 'down'

export class MovementPath {
  private before: Uint8Array | null = null
  /** Of each picture, where its movement has its middle; null where nobody moves. */
  private readonly places: ({ at: Share; weight: number } | null)[] = []

  constructor(private readonly axis: Axis) {}

  /** @param picture as `MovementListener` is given it. */
  push(picture: Uint8Array): void {
    this.places.push(this.before && this.placeOf(this.before, picture))
    this.before = picture.slice()
  }

  private placeOf(before: Uint8Array, picture: Uint8Array): { at: Share; weight: number } | null {
    const { width, height } = SMALL_PICTURE
    let sum = 0,
      moment = 0,
      moved = 0
    for (let at = 0; at < width * height; at++) {
      const by = Math.abs((picture[at] ?? 0) - (before[at] ?? 0)) - NOISE
      if (by <= 0) continue
      const place = this.axis === 'across' ? ((at % width) + 0.5) / width : (Math.floor(at / width) + 0.5) / height
      sum += by
      moment += by * place
      moved++
    }
    const share = moved / (width * height)
    return share < LEAST || share > WHOLE_PICTURE ? null : { at: moment / sum, weight: sum }
  }

  /**
   * @param part how much of the picture is shown, along the axis, 0 to 1.
   * @returns keys that keep the middle of the movement in the middle of the part, as far as the picture goes.
   */
  finish(part: Share): Aim[] {
    const smooth = smoothed(this.places, Math.round(AROUND_S * SMALL_PICTURE.rate))
    const room = 1 - part
    if (room <= 0) return []
    const aims = smooth.flatMap((middle, at): Aim[] => {
      if (middle === null) return []
      const aimed = Math.min(1, Math.max(0, (middle - part / 2) / room))
      return [{ atMs: (at * SECOND) / SMALL_PICTURE.rate, at: aimed }]
    })
    return thinned(aims, NEAR / room)
  }
}

/** The weighted mean of what is near, held where nothing moved. */
function smoothed(places: readonly ({ at: Share; weight: number } | null)[], around: number): (Share | null)[] {
  return places.map((_, at) => {
    let sum = 0,
      moment = 0
    for (let near = Math.max(0, at - around); near <= Math.min(places.length - 1, at + around); near++) {
      const place = places[near]
      if (!place) continue
      // What lies further off counts less, so that the mean does not leap as movement enters and leaves.
      const weight = place.weight * (1 - Math.abs(near - at) / (around + 1))
      sum += weight
      moment += weight * place.at
    }
    return sum > 0 ? moment / sum : null
  })
}

/** As few of them as stay within `near` of all (Douglas and Peucker, 1973). */
function thinned(aims: readonly Aim[], near: Share): Aim[] {
  const kept = new Set<number>()
  const waiting: [from: number, to: number][] = aims.length ? [[0, aims.length - 1]] : []
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const [from, to] = next
    kept.add(from).add(to)
    const first = aims[from],
      last = aims[to]
    if (!first || !last || to - from < 2) continue
    let worst = { at: from, off: near }
    for (let at = from + 1; at < to; at++) {
      const aim = aims[at]
      if (!aim) continue
      const line = first.at + ((last.at - first.at) * (aim.atMs - first.atMs)) / (last.atMs - first.atMs)
      if (Math.abs(aim.at - line) > worst.off) worst = { at, off: Math.abs(aim.at - line) }
    }
    if (worst.at > from) waiting.push([from, worst.at], [worst.at, to])
  }
  return (
    [...kept]
      .sort((one, other) => one - other)
      .flatMap((at) => aims[at] ?? [])
      // Where all are alike, one says it.
      .filter((aim, at, all) => at === 0 || all.some((other) => Math.abs(other.at - aim.at) > near / 2))
  )
}
