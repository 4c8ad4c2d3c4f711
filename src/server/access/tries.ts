// How often somebody may try: a few times a minute each, and not many more all together.
import { MINUTE, type Ms } from '../../core/units'

const EACH = 5
const ALL = 30

export class Tries {
  private tries: { who: string; atMs: Ms }[] = []

  /**
   * @param nowMs on a clock that never goes back.
   * @returns 0 where one more may be made, which then counts; else how long to wait.
   */
  waitFor(who: string, nowMs: Ms): Ms {
    this.tries = this.tries.filter(({ atMs }) => atMs > nowMs - MINUTE)
    const own = this.tries.filter((one) => one.who === who)
    const limiting = own.length >= EACH ? own.at(-EACH) : this.tries.length >= ALL ? this.tries.at(-ALL) : undefined
    if (limiting) return limiting.atMs + MINUTE - nowMs
    this.tries.push({ who, atMs: nowMs })
    return 0
  }
}
