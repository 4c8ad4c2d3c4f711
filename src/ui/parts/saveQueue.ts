// Saves of one document, in one queue: one on its way at a time, each with a key of its own. A save whose answer was
// lost is known again by its key, so that only what somebody else saved is ever called a conflict.
import type { Version } from '@/core/version'
import { CallError } from '../api'
import { newKey } from './newKey'

/** `refused`: the server will not have this document, and says why; the next change is tried again. */
export type SaveState = 'saved' | 'saving' | 'unsaved' | 'offline' | 'stale' | 'refused'

/** What a page keeps in the browser, so that it knows after a reload what it had begun. */
export interface Begun {
  revision: number
  /** Keys of saves that were sent and not answered, and of the one that comes. */
  keys: string[]
  dirty: boolean
}

interface Options<T> {
  /** The document as the server has it, and which version that is. */
  saved: T
  version: Version
  /** The document as it is now. */
  read: () => T
  /** Sends a document made from a revision. @returns the new revision. @throws CallError. */
  send: (save: { document: T; revision: number; key: string }) => Promise<number>
  /** Told of every change of state, with the reason of a refusal. */
  onState: (state: SaveState, refusal: string) => void
  /** Keeps `begun()` in the browser, with each change and after each save. */
  keep: () => Promise<void>
  onSaved?: () => void
}

const SAVE_AFTER_MS = 500
const RETRY_AFTER_MS = 3000
/** A server that is away for long has had none of them but, at most, one of the newest. */
const MOST_UNANSWERED = 100

export class SaveQueue<T> {
  state: SaveState = 'saved'
  private saved: T
  private version: Version
  private timer: ReturnType<typeof setTimeout> | undefined
  private saving: Promise<void> | null = null
  /** Of the save that comes, kept before it is sent: a page that is left waits for nothing. */
  private nextKey = newKey()
  /** Saves without an answer: what was sent under which key. After a reload the document is not known any more. */
  private readonly unanswered = new Map<string, T | null>()

  constructor(private readonly options: Options<T>) {
    this.saved = options.saved
    this.version = options.version
  }

  get dirty(): boolean {
    return this.options.read() !== this.saved
  }

  begun(): Begun {
    return { revision: this.version.revision, keys: [...this.unanswered.keys(), this.nextKey], dirty: this.dirty }
  }

  /** To be called after every change of the document. */
  changed(): void {
    if (this.state !== 'stale') this.show('unsaved')
    void this.options.keep()
    this.schedule()
  }

  /** Saves what is not saved, at once: it is sent before this returns, where no other save is on its way. */
  async flush(): Promise<void> {
    clearTimeout(this.timer)
    while (this.saving) await this.saving
    if (!this.dirty || this.state === 'stale') return
    this.saving = this.attempt().finally(() => {
      this.saving = null
    })
    await this.saving
  }

  /**
   * Takes up what was begun before a reload, as far as the server's version allows.
   * @returns whether what was kept follows from the server's version: with it its history holds, too.
   */
  takeUp({ revision, keys }: Begun): boolean {
    for (const key of keys) this.unanswered.set(key, null)
    const ours = revision === this.version.revision || (this.version.key !== null && keys.includes(this.version.key))
    // What follows from another version is saved over that, and then the answer is a conflict.
    if (!ours) this.version = { revision, key: null }
    return ours
  }

  /** Goes on from a version of the server's, after a conflict. */
  adopt(document: T, version: Version): void {
    this.saved = document
    this.version = version
    this.unanswered.clear()
    this.show(this.dirty ? 'unsaved' : 'saved')
    void this.options.keep()
    if (this.dirty) this.schedule(0)
  }

  private schedule(delay = SAVE_AFTER_MS): void {
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.flush(), delay)
  }

  private show(state: SaveState, refusal = ''): void {
    this.state = state
    this.options.onState(state, refusal)
  }

  private async attempt(): Promise<void> {
    this.show('saving')
    const document = this.options.read()
    const key = this.nextKey
    this.nextKey = newKey()
    this.unanswered.set(key, document)
    for (const old of [...this.unanswered.keys()].slice(0, -MOST_UNANSWERED)) this.unanswered.delete(old)
    try {
      const revision = await this.options.send({ document, revision: this.version.revision, key })
      this.answered(document, { revision, key })
    } catch (error) {
      this.failed(error, key)
    }
    await this.options.keep()
  }

  private answered(document: T, version: Version): void {
    this.saved = document
    this.version = version
    this.unanswered.clear()
    this.show(this.dirty ? 'unsaved' : 'saved')
    if (this.dirty) this.schedule()
    this.options.onSaved?.()
  }

  private failed(error: unknown, key: string): void {
    const fact = error instanceof CallError ? error.fact : undefined
    if (fact?.code === 'stale') {
      const now = fact.now
      if (now.key !== null && this.unanswered.has(now.key)) return this.recognised(now, now.key)
      return this.show('stale')
    }
    if (error instanceof CallError && !error.mayPass) {
      // The server has looked at it and changed nothing.
      this.unanswered.delete(key)
      return this.show('refused', error.message)
    }
    this.show('offline')
    this.schedule(RETRY_AFTER_MS)
  }

  /** The server has a save of ours whose answer was lost. */
  private recognised(now: Version, key: string): void {
    const sent = this.unanswered.get(key)
    this.version = now
    if (sent !== undefined && sent !== null) this.saved = sent
    this.unanswered.clear()
    this.show(this.dirty ? 'unsaved' : 'saved')
    if (this.dirty) this.schedule(0)
    else this.options.onSaved?.()
  }
}
