// A page's link to a session on the floor: its clock, what was told so far, and what waits to be written down. What is
// told counts at once, is kept by the browser before anything else happens, and goes to the server when that answers.
import { floorEventSchema, type FloorEvent } from '@/core/floor/events'
import type { Ms } from '@/core/units'
import type { Told } from '@/server/sessions'
import { CallError } from '../api'

export type { Told }

/** An event without what the link gives it. */
export type Telling = FloorEvent extends infer One
  ? One extends FloorEvent
    ? Omit<One, 'key' | 'atMs'>
    : never
  : never

/** What the link needs of the world. */
export interface LinkOutside {
  /** Milliseconds on a clock that never goes back. */
  clock: () => Ms
  /** @throws where the server does not answer. */
  send: (telling: { events: FloorEvent[]; seenMs: Ms | null; after: number }) => Promise<Told>
  storage: Pick<Storage, 'length' | 'key' | 'getItem' | 'setItem' | 'removeItem'>
  newKey: () => string
}

export interface LinkFacts {
  sessionId: string
  /** Seconds of the session in one of the wall's. */
  speed: number
  /** Only looks on: tells nothing, not even that it is there. */
  looksOn: boolean
}

/** What the page shows of the link itself. */
export interface LinkState {
  events: readonly FloorEvent[]
  unsent: number
  /** The server did not answer last time. */
  away: boolean
  ended: boolean
}

/** Whoever asks this long after the last time has slept, and takes the time from the server. */
const SLEPT_MS: Ms = 5000
const OFF_MS: Ms = 1000

export class FloorLink {
  private anchor: { atMs: Ms; onClock: Ms }
  private after: number
  private readonly known = new Map<string, FloorEvent>()
  private unsent: FloorEvent[] = []
  private sending = false
  private lastPulse: Ms
  private readonly listeners = new Set<() => void>()
  state: LinkState

  constructor(
    private readonly facts: LinkFacts,
    told: Told,
    private readonly outside: LinkOutside,
  ) {
    this.lastPulse = outside.clock()
    this.anchor = { atMs: told.nowMs, onClock: this.lastPulse }
    this.after = told.last
    for (const event of told.events) this.known.set(event.key, event)
    if (!facts.looksOn) this.unsent = this.left().filter(({ key }) => !this.known.has(key))
    for (const event of this.unsent) this.known.set(event.key, event)
    this.state = { events: [...this.known.values()], unsent: this.unsent.length, away: false, ended: told.ended }
  }

  /** Session time. */
  nowMs = (): Ms => Math.round(this.atClock(this.outside.clock()))

  /** Session time at an instant of the clock, and back. */
  atClock = (onClock: Ms): Ms => this.anchor.atMs + (onClock - this.anchor.onClock) * this.facts.speed
  clockAt = (sessionMs: Ms): Ms => this.anchor.onClock + (sessionMs - this.anchor.atMs) / this.facts.speed

  /** @returns the event, at the time it is now. */
  tell(telling: Telling): FloorEvent {
    const event = { ...telling, key: this.outside.newKey(), atMs: this.nowMs() } as FloorEvent
    try {
      this.outside.storage.setItem(this.placeOf(event.key), JSON.stringify(event))
    } catch {
      /* a browser that keeps nothing: it is sent all the same */
    }
    this.known.set(event.key, event)
    this.unsent = [...this.unsent, event]
    this.changed({ events: [...this.known.values()], unsent: this.unsent.length })
    void this.pulse()
    return event
  }

  /** Sends what waits, and hears what was told elsewhere. Called every second, and at each event. */
  async pulse(): Promise<void> {
    if (this.sending) return
    this.sending = true
    const slept = this.outside.clock() - this.lastPulse > SLEPT_MS
    this.lastPulse = this.outside.clock()
    const events = this.unsent
    try {
      const asked = this.outside.clock()
      const told = await this.outside.send({
        ...{ events, seenMs: this.facts.looksOn ? null : this.nowMs(), after: this.after },
      })
      const answered = this.outside.clock()
      if (slept) this.wake(told.nowMs, (asked + answered) / 2)
      this.sent(events)
      this.after = told.last
      const before = this.known.size
      for (const event of told.events) this.known.set(event.key, event)
      const more = this.known.size > before
      this.changed({
        ...(more ? { events: [...this.known.values()] } : {}),
        ...{ unsent: this.unsent.length, away: false, ended: told.ended },
      })
    } catch (error) {
      const isOver = error instanceof CallError && error.code === 'session-over'
      this.changed(isOver ? { away: false, ended: true } : { away: true })
    } finally {
      this.sending = false
    }
    // What was told in the meantime does not wait for the next second.
    if (this.unsent.length && !this.state.away && !this.state.ended) await this.pulse()
  }

  follow(listener: () => void): () => void {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }

  private wake(nowMs: Ms, onClock: Ms): void {
    if (Math.abs(this.atClock(onClock) - nowMs) > OFF_MS) this.anchor = { atMs: nowMs, onClock }
  }

  private sent(events: readonly FloorEvent[]): void {
    const gone = new Set(events.map(({ key }) => key))
    this.unsent = this.unsent.filter(({ key }) => !gone.has(key))
    for (const key of gone) this.outside.storage.removeItem(this.placeOf(key))
  }

  private readonly placeOf = (key: string): string => `jivet-floor:${this.facts.sessionId}:${key}`

  /** What an earlier page of this browser told and could not send. */
  private left(): FloorEvent[] {
    const { storage } = this.outside
    const prefix = this.placeOf('')
    return Array.from({ length: storage.length }, (_, at) => storage.key(at)).flatMap((place) => {
      if (!place?.startsWith(prefix)) return []
      try {
        const event = floorEventSchema.safeParse(JSON.parse(storage.getItem(place) ?? ''))
        return event.success ? [event.data] : []
      } catch {
        return []
      }
    })
  }

  private changed(change: Partial<LinkState>): void {
    const next = { ...this.state, ...change }
    const same = (Object.keys(next) as (keyof LinkState)[]).every((name) => next[name] === this.state[name])
    if (same) return
    this.state = next
    this.listeners.forEach((one) => one())
  }
}
