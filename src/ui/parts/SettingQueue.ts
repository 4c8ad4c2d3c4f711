// Saves of one setting, one at a time, until each is acknowledged. What the page shows is never lost: a failed save is
// sent again, what others saved meanwhile is merged in, and the browser keeps what is not saved yet.
import { mergeThree, sameJson } from '@/core/workout/mergeThree'
import type { Ms } from '@/core/units'
import { CallError } from '../api'

/** `waiting`: a change waits to be sent, or is on its way. `failing`: it is sent again and again. */
export type SettingState = 'saved' | 'waiting' | 'failing'

/** A change that is not acknowledged. */
export interface Unsaved<T> {
  /** The setting as the server had it. */
  base: T
  now: T
}

export interface SettingOutside<T> {
  /** @returns the setting as the server keeps it now. @throws CallError. */
  send: (change: Unsaved<T>) => Promise<T>
  /** Keeps a change in the browser; null: there is none any more. */
  keep: (unsaved: Unsaved<T> | null) => void
  /** Told why a save failed; null: it did not, or does not any more. `refused`: it will not be sent again. */
  onTrouble: (trouble: { reason: string; refused: boolean } | null) => void
  onSaved: () => void
  /** @returns a function that takes it back. */
  wait: (ms: Ms, then: () => void) => () => void
}

/** A slider is let go of before its level is sent. */
const SETTLED_MS: Ms = 400
const AGAIN_MS: Ms = 3000
const MOST_BEFORE = 50

export class SettingQueue<T> {
  state: SettingState = 'saved'
  private now: T
  private saving = false
  /** Earlier forms of it: a page out of the browser's memory may still bring one. */
  private before: T[] = []
  private takeBack = (): void => {}
  private readonly listeners = new Set<() => void>()

  constructor(
    private saved: T,
    private readonly outside: SettingOutside<T>,
  ) {
    this.now = saved
  }

  read = (): T => this.now

  follow = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }

  change(now: T): void {
    if (sameJson(now, this.now)) return
    this.show(now)
    this.outside.keep({ base: this.saved, now })
    if (this.state === 'saved') this.state = 'waiting'
    this.later(SETTLED_MS)
  }

  /** The setting as a page has it from the server, where nothing of ours waits. */
  adopt(saved: T): void {
    if (this.state !== 'saved' || [this.saved, ...this.before].some((one) => sameJson(one, saved))) return
    this.remember(saved)
    this.show(saved)
  }

  /** Goes on with what a page left unsaved. */
  takeUp({ base, now }: Unsaved<T>): void {
    this.change(mergeThree(base, now, this.now))
    if (sameJson(this.now, this.saved)) this.outside.keep(null)
  }

  /** Sends what waits, at once: before this returns, where no other save is on its way. */
  async flush(): Promise<void> {
    this.takeBack()
    if (this.saving) return
    if (sameJson(this.now, this.saved)) return this.settle()
    this.saving = true
    const sent = { base: this.saved, now: this.now }
    try {
      this.answered(sent.now, await this.outside.send(sent))
    } catch (error) {
      this.failed(error)
    } finally {
      this.saving = false
    }
  }

  private answered(sent: T, kept: T): void {
    this.remember(kept)
    // What was changed since it was sent stands.
    this.show(mergeThree(sent, this.now, kept))
    if (this.state === 'failing') this.outside.onTrouble(null)
    if (sameJson(this.now, kept)) return this.settle()
    this.state = 'waiting'
    this.outside.keep({ base: kept, now: this.now })
    this.later(0)
  }

  private remember(saved: T): void {
    this.before = [this.saved, ...this.before].slice(0, MOST_BEFORE)
    this.saved = saved
  }

  private settle(): void {
    const hadWork = this.state !== 'saved'
    this.state = 'saved'
    this.outside.keep(null)
    if (hadWork) this.outside.onSaved()
  }

  private failed(error: unknown): void {
    const reason = error instanceof Error ? error.message : String(error)
    if (error instanceof CallError && !error.mayPass) {
      // The server has looked at it and will not have it: what is shown is what is kept.
      this.state = 'saved'
      this.show(this.saved)
      this.outside.keep(null)
      this.outside.onTrouble({ reason, refused: true })
      return
    }
    this.state = 'failing'
    this.outside.onTrouble({ reason, refused: false })
    this.later(AGAIN_MS)
  }

  private later(ms: Ms): void {
    this.takeBack()
    this.takeBack = this.outside.wait(ms, () => void this.flush())
  }

  private show(now: T): void {
    if (sameJson(now, this.now)) return
    this.now = now
    this.listeners.forEach((one) => one())
  }
}
