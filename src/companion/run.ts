// Where a session is: which interval, how far into it, held or not. What lasts as long as its viewer wants waits for a
// press. It has no clock: it is told how much time has passed.
import type { ShownSegment } from '@/core/cut/cut'
import type { Ms } from '@/core/units'

/** A press on "back" so early in an interval means the one before. */
const JUST_BEGUN_MS: Ms = 2000

const isOpen = (laid: ShownSegment | undefined): boolean =>
  laid?.segment.pace === 'own' || laid?.segment.pace === 'open'

export class Run {
  private at = 0
  private intoMs: Ms = 0
  private isHeld = false
  private readonly lane: readonly ShownSegment[]

  /** @param lane in time as planned, from 0 on. */
  constructor(lane: readonly ShownSegment[]) {
    this.lane = lane.filter(({ startMs, endMs }) => endMs > startMs)
  }

  get held(): boolean {
    return this.isHeld
  }

  get over(): boolean {
    return this.at >= this.lane.length
  }

  /** What runs; undefined when all is over. */
  get now(): ShownSegment | undefined {
    return this.lane[this.at]
  }

  /** Its length is up to whoever does it. */
  get waits(): boolean {
    return isOpen(this.now)
  }

  /** The instant of the plan that is shown. */
  get planMs(): Ms {
    const { now } = this
    return now ? now.startMs + Math.min(this.intoMs, now.endMs - now.startMs - 1) : (this.lane.at(-1)?.endMs ?? 0)
  }

  /** How many of the intervals are over, 0 to 1: how long the rest takes, nobody may know. */
  get share(): number {
    return this.lane.length ? this.at / this.lane.length : 1
  }

  /** Until this instant of the plan the clock alone decides. */
  get steadyUntilMs(): Ms {
    return this.lane.slice(this.at).find(isOpen)?.endMs ?? Infinity
  }

  pass(ms: Ms): void {
    if (this.isHeld || this.over) return
    this.intoMs += ms
    for (let { now } = this; now && !this.waits && this.intoMs >= now.endMs - now.startMs; now = this.now) {
      this.intoMs -= now.endMs - now.startMs
      this.at++
    }
  }

  hold(held: boolean): void {
    this.isHeld = held
  }

  next(): void {
    this.goTo(this.at + 1)
  }

  back(): void {
    this.goTo(this.intoMs > JUST_BEGUN_MS ? this.at : this.at - 1)
  }

  private goTo(at: number): void {
    this.at = Math.min(this.lane.length, Math.max(0, at))
    this.intoMs = 0
  }
}
