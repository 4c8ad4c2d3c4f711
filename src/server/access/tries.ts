// How often something may be done: a few times a minute each, and not many more all together.
import { isIPv6 } from 'node:net'
import { MINUTE, type Ms } from '../../core/units'

export interface Limits {
  /** A minute, for each. */
  each: number
  /** A minute, for all that are not known. */
  all: number
}

export class Tries {
  private tries: { who: string; atMs: Ms }[] = []
  private readonly known = new Set<string>()

  constructor(private readonly limits: Limits) {}

  /**
   * @param who an address.
   * @param nowMs on a clock that never goes back.
   * @returns 0 where one more may be made, which then counts; else how long to wait.
   */
  waitFor(who: string, nowMs: Ms): Ms {
    const { each, all } = this.limits
    const from = networkOf(who)
    this.tries = this.tries.filter(({ atMs }) => atMs > nowMs - MINUTE)
    const own = this.tries.filter((one) => one.who === from)
    const others = this.known.has(from) ? [] : this.tries.filter((one) => !this.known.has(one.who))
    const limiting = own.length >= each ? own.at(-each) : others.length >= all ? others.at(-all) : undefined
    if (limiting) return limiting.atMs + MINUTE - nowMs
    this.tries.push({ who: from, atMs: nowMs })
    return 0
  }

  /** Whoever did it rightly once is kept out by nobody else's tries. */
  know(who: string): void {
    this.known.add(networkOf(who))
  }
}

/** Of IPv6 the first four groups: whoever has one address there has all. */
function networkOf(address: string): string {
  if (!isIPv6(address) || address.includes('.')) return address
  const [head = '', tail] = address.split('::')
  const groups = head.split(':').filter(Boolean)
  const behind = tail === undefined ? [] : tail.split(':').filter(Boolean)
  const whole = [...groups, ...Array<string>(Math.max(0, 8 - groups.length - behind.length)).fill('0'), ...behind]
  return whole.slice(0, 4).join(':')
}
