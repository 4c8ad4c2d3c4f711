// Stretches of a video in which there is nothing to see, or nothing moves, found on small grey pictures of it.
import type { Ms } from '../units'

/** Pictures are looked at in this size, each pixel the mean of its part: what encoders do to single ones is lost. */
export const SMALL = { width: 64, height: 36 } as const

export interface Dead {
  kind: 'black' | 'frozen'
  fromMs: Ms
  untilMs: Ms
}

/** A fade is shorter, and so is a coach who holds still to explain. */
const LEAST_MS: Record<Dead['kind'], Ms> = { black: 2000, frozen: 10_000 }
/** Luma of video begins at 16; encoders leave a few levels of noise. */
const BLACK_LUMA = 24
const STILL_LEVELS = 2

interface Run {
  fromMs: Ms
  /** The picture that it began with. */
  first: Uint8Array
}

/** A picture, and what is laid over it. */
interface Laid {
  small: Uint8Array
  overlay: string
}

/** Sees pictures in order of time. */
export class DeadFinder {
  private readonly found: Dead[] = []
  private readonly runs: Record<Dead['kind'], Run | null> = { black: null, frozen: null }
  /** The first picture with what is laid over the footage now. */
  private laid: Laid | null = null

  /** @param places of a small picture over which nothing is ever laid; there may be none. */
  constructor(private readonly places: readonly number[]) {}

  /**
   * @param small luma, `SMALL` in size; null where nobody asks how the picture is.
   * @param overlay tells what is laid over it: where that stays the same, all that changes is the footage.
   */
  see(small: Uint8Array | null, atMs: Ms, overlay = ''): void {
    const isBlack = small !== null && this.isDark(small)
    this.follow('black', isBlack ? small : null, atMs)
    const { frozen } = this.runs
    const moves = small === null || isBlack || (frozen !== null && this.hasMoved(small, frozen.first, overlay))
    if (small && (moves || this.laid?.overlay !== overlay)) this.laid = { small: Uint8Array.from(small), overlay }
    if (moves) this.follow('frozen', null, atMs)
    this.follow('frozen', isBlack ? null : small, atMs)
  }

  /** @returns in order of time. */
  finish(atMs: Ms): Dead[] {
    this.see(null, atMs)
    return this.found.sort((one, other) => one.fromMs - other.fromMs)
  }

  private follow(kind: Dead['kind'], small: Uint8Array | null, atMs: Ms): void {
    const run = this.runs[kind]
    if (small) this.runs[kind] ??= { fromMs: atMs, first: Uint8Array.from(small) }
    else if (run) {
      if (atMs - run.fromMs >= LEAST_MS[kind]) this.found.push({ kind, fromMs: run.fromMs, untilMs: atMs })
      this.runs[kind] = null
    }
  }

  private isDark(small: Uint8Array): boolean {
    return this.places.length > 0 && this.places.every((place) => (small[place] ?? 0) <= BLACK_LUMA)
  }

  private hasMoved(small: Uint8Array, first: Uint8Array, overlay: string): boolean {
    if (this.places.some((place) => isUnlike(small, first, place))) return true
    const { laid } = this
    return laid?.overlay === overlay && small.some((_, place) => isUnlike(small, laid.small, place))
  }
}

const isUnlike = (one: Uint8Array, other: Uint8Array, place: number): boolean =>
  Math.abs((one[place] ?? 0) - (other[place] ?? 0)) > STILL_LEVELS
