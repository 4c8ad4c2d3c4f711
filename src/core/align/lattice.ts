// All the ways in which the boundaries of a score may lie in a footage, summed: a forward pass over boundaries and
// cells of time. The backward pass is the same one, run over everything reversed.
import type { Ms, Share } from '../units'
import { carrierOf, carry, SHORTEST_MS, type Length } from './lengths'

export interface Lattice {
  cells: number
  stepMs: Ms
  /** The same for the two changes that come between where a station is done twice: its work begins, then its rest. */
  extra: readonly [Float64Array, Float64Array]
  /** For each boundary, how much likelier what was heard is if the boundary lies in a cell; arrays may be shared. */
  likelihoods: readonly Float64Array[]
  /** `lengths[k]` lies between boundaries k and k + 1. */
  lengths: readonly Length[]
  /** Planned lengths, of the same places. */
  plannedMs: readonly Ms[]
  /** Where a stretch is a rest after work that may have been done twice with it: how long both usually are. */
  again: readonly ({ rest: Length; work: Length } | null)[]
  /** `leftOut[k]` leads from boundary k to k + 3 where the station between may be left out. */
  leftOut: readonly (Length | null)[]
  /** Boundaries that no path may leave out: somebody tied them. */
  fixed: readonly boolean[]
  /** First cells of files after the first: between two files anything may have happened that was not filmed. */
  borders: readonly number[]
}

/** Called for each boundary in the order of the pass. `alpha` is reused: copy what is to be kept. */
export type OnBoundary = (at: number, alpha: Float64Array, logScale: number) => void

/** The footage begins with the first boundary; within the score; or anywhere. */
const FROM_FIRST = 0.84
const FROM_WITHIN = 0.08
const FROM_ANYWHERE = 0.08
/** One station is left out: two boundaries never happen. Of each station, in a session of the usual length. */
const SKIP_STATION: Share = 0.012
/** A station is done twice: two changes come that the score does not have. */
const REPEAT_STATION: Share = 0.006
/** In a longer session each station is as much less likely: so many slips are made in a session, not in a station. */
const USUAL_BOUNDARIES = 32
/** Any number of boundaries is left out, as where a part was not filmed; each at this share of the price. */
const SKIP_PART: Share = 0.001
const SKIP_FADE: Share = 0.9
/** Where a file ends and another begins, part of the session was not filmed, as likely as not. */
const LEAVE_FILE: Share = 0.5
/** A camera is mostly stopped and begun within a stretch; how long such a stretch usually is. */
const WITHIN_STRETCH: Share = 0.8
const USUAL_STRETCH_MS: Ms = 30_000
/** The same lattice seen from its end. */
export function mirrored(lattice: Lattice): Lattice {
  const { extra, likelihoods, lengths, plannedMs, again, leftOut, fixed, borders, ...same } = lattice
  const turned = new Map([...new Set([...extra, ...likelihoods])].map((one) => [one, one.slice().reverse()]))
  const turn = (one: Float64Array): Float64Array => turned.get(one) ?? one
  return {
    ...same,
    extra: [turn(extra[1]), turn(extra[0])],
    likelihoods: likelihoods.map(turn).reverse(),
    lengths: [...lengths].reverse(),
    plannedMs: [...plannedMs].reverse(),
    again: [...again].reverse(),
    leftOut: [...leftOut].reverse(),
    fixed: [...fixed].reverse(),
    borders: borders.map((cell) => lattice.cells - cell).reverse(),
  }
}

/** Weights of paths that begin at a boundary, per cell: in the first cells, and in all others. */
export interface Beginning {
  within: number
  near: number
  far: number
}

/** How likely the footage begins with each boundary. */
export function beginnings({ cells, stepMs, likelihoods, plannedMs, fixed }: Lattice): Beginning[] {
  const firstFixed = fixed.indexOf(true)
  const count = likelihoods.length
  return likelihoods.map((_, at) => {
    if (firstFixed >= 0 && at > firstFixed) return { within: 0, near: 0, far: 0 }
    if (at === 0) return { within: 0, near: 0, far: FROM_FIRST / cells }
    const within = Math.min(cells, Math.max(1, Math.round((plannedMs[at - 1] ?? 0) / stepMs)))
    const far = FROM_ANYWHERE / count / cells
    return { within, near: FROM_WITHIN / count / within + far, far }
  })
}

/** The same for the ends, whose first cells are counted from the end of the footage. */
export const endings = ({ plannedMs, fixed, ...same }: Lattice): Beginning[] =>
  beginnings({ ...same, plannedMs: [...plannedMs].reverse(), fixed: [...fixed].reverse() }).reverse()

/** Sums over all paths to each boundary, in order. */
export function runForward(lattice: Lattice, onBoundary: OnBoundary): void {
  new ForwardPass(lattice).run(onBoundary)
}

class ForwardPass {
  /** Of this boundary and the three before it, by place modulo 4, with the logarithms of their scales. */
  private readonly recent: readonly Float64Array[]
  private readonly scales = [0, 0, 0, 0]
  /** Of all boundaries but the last, fading. */
  private readonly pool: Float64Array
  private readonly twice: readonly [Float64Array, Float64Array]
  /** For each border, what has left the files before it; on the scale of the boundary before. */
  private readonly left: number[]
  private logScale = 0
  private readonly skip: Share
  private readonly repeat: Share

  constructor(private readonly lattice: Lattice) {
    const empty = (): Float64Array => new Float64Array(lattice.cells)
    this.recent = [empty(), empty(), empty(), empty()]
    this.pool = empty()
    this.twice = [empty(), empty()]
    this.left = lattice.borders.map(() => 0)
    const each = Math.min(1, USUAL_BOUNDARIES / lattice.likelihoods.length)
    this.skip = SKIP_STATION * each
    this.repeat = REPEAT_STATION * each
  }

  run(onBoundary: OnBoundary): void {
    const { cells, likelihoods } = this.lattice
    const begin = beginnings(this.lattice)
    likelihoods.forEach((likelihood, at) => {
      const alpha = this.at(at)
      const entry = Math.exp(Math.min(600, -this.logScale))
      const { within = 0, near = 0, far = 0 } = begin[at] ?? {}
      alpha.fill(near * entry, 0, within).fill(far * entry, within)
      if (at) this.arrive(at, alpha)
      let sum = 0
      for (let cell = 0; cell < cells; cell++) sum += alpha[cell] = (alpha[cell] ?? 0) * (likelihood[cell] ?? 0)
      this.rescale(at, alpha, sum > 0 ? 1 / sum : 1)
      onBoundary(at, alpha, this.logScale)
    })
  }

  private at(boundary: number): Float64Array {
    return this.recent[boundary % 4] as Float64Array
  }

  /** By the stretch before, over a station done twice, past one left out, or past any number. */
  private arrive(at: number, alpha: Float64Array): void {
    const { lattice, pool } = this
    const { lengths, again, leftOut, fixed, extra } = lattice
    const before = this.at(at - 1)
    const twice = again[at - 1]
    if (twice) {
      const [start, end] = this.twice
      this.onceMore(twice.rest, [before, start], extra[0])
      this.onceMore(twice.work, [start, end], extra[1])
      carry(end, alpha, carrierOf(twice.rest, this.repeat, lattice))
    }
    const shortcut = leftOut[at - 3]
    if (shortcut && !fixed[at - 1] && !fixed[at - 2]) {
      const weight = this.skip * Math.exp(Math.max(-600, (this.scales[(at - 3) % 4] ?? 0) - this.logScale))
      carry(this.at(at - 3), alpha, carrierOf(shortcut, weight, lattice))
    }
    this.overBorders(at, alpha)
    if (fixed[at - 1]) pool.fill(0)
    carry(before, alpha, carrierOf(lengths[at - 1] ?? [], 1 - this.skip - SKIP_PART - this.repeat, lattice), {
      weights: pool,
      lag: Math.max(1, Math.round(SHORTEST_MS / lattice.stepMs)),
      factor: SKIP_PART / lattice.cells,
    })
  }

  /** From any boundary before a border to this one after it, however much of the score lies between. */
  private overBorders(at: number, alpha: Float64Array): void {
    const { borders, plannedMs, fixed, cells, stepMs, likelihoods } = this.lattice
    const before = this.at(at - 1)
    const inMs = (ms: Ms | undefined): number => Math.max(1, Math.round((ms ?? 0) / stepMs))
    borders.forEach((border, index) => {
      // The camera stopped within the stretch that the boundary begins, or just anywhere.
      const reach = Math.max(0, border - inMs(plannedMs[at - 1]))
      let far = 0,
        near = 0
      for (let cell = 0; cell < reach; cell++) far += before[cell] ?? 0
      for (let cell = reach; cell < border; cell++) near += before[cell] ?? 0
      const anywhere = (1 - WITHIN_STRETCH) / cells
      const gone = (far + near) * anywhere + (near * WITHIN_STRETCH) / (border - reach)
      const all = (fixed[at - 1] ? 0 : (this.left[index] ?? 0)) + gone
      this.left[index] = all
      const weight = (LEAVE_FILE * all * inMs(USUAL_STRETCH_MS)) / likelihoods.length
      if (!weight) return
      const until = Math.min(cells, border + inMs(plannedMs[at - 1]))
      const within = weight * (anywhere + WITHIN_STRETCH / (until - border))
      for (let cell = border; cell < until; cell++) alpha[cell] = (alpha[cell] ?? 0) + within
      for (let cell = until; cell < cells; cell++) alpha[cell] = (alpha[cell] ?? 0) + weight * anywhere
    })
  }

  /** To a change that is none of the score's, heard like any other. */
  private onceMore(length: Length, [from, into]: [Float64Array, Float64Array], likelihood: Float64Array): void {
    into.fill(0)
    carry(from, into, carrierOf(length, 1, this.lattice))
    for (let cell = 0; cell < into.length; cell++) into[cell] = (into[cell] ?? 0) * (likelihood[cell] ?? 0)
  }

  private rescale(at: number, alpha: Float64Array, scale: number): void {
    const { pool } = this
    const cells = alpha.length
    for (let cell = 0; cell < cells; cell++) alpha[cell] = (alpha[cell] ?? 0) * scale
    if (at) {
      const before = this.at(at - 1)
      const fade = SKIP_FADE * scale
      for (let cell = 0; cell < cells; cell++) pool[cell] = (pool[cell] ?? 0) * fade + (before[cell] ?? 0) * scale
    }
    this.left.forEach((left, index) => (this.left[index] = left * scale))
    this.logScale -= Math.log(scale)
    this.scales[at % 4] = this.logScale
  }
}
