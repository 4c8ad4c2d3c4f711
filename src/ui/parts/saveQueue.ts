// Saves of one document, in one queue: one on its way at a time, each with a key of its own. A save names the
// keys of those before it whose answers were lost, so that only what somebody else saved is ever called a conflict.
import { MOST_UNANSWERED, type Version } from '@/core/version'
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
  /** Sends a document made from a revision, or after saves of which nothing was heard yet. @throws CallError. */
  send: (save: { document: T; revision: number; key: string; after: string[] }) => Promise<number>
  /** Told of every change of state, with the reason of a refusal. */
  onState: (state: SaveState, refusal: string) => void
  /** Keeps `begun()` in the browser, with each change and after each save. */
  keep: () => Promise<void>
  onSaved?: () => void
}

const SAVE_AFTER_MS = 500
const RETRY_AFTER_MS = 3000

export class SaveQueue<T> {
  state: SaveState = 'saved'
  private saved: T
  private version: Version
  private timer: ReturnType<typeof setTimeout> | undefined
  private saving: Promise<void> | null = null
  /** Of the save that comes, kept before it is sent: a page that is left waits for nothing. */
  private nextKey = newKey()
  /** Keys of saves without an answer. */
  private unanswered: string[] = []
  /** What was sent last, under which key; null where the server has refused it. */
  private sent: { document: T; key: string } | null = null

  constructor(private readonly options: Options<T>) {
    this.saved = options.saved
    this.version = options.version
  }

  get dirty(): boolean {
    return this.options.read() !== this.saved
  }

  begun(): Begun {
    return { revision: this.version.revision, keys: [...this.unanswered, this.nextKey], dirty: this.dirty }
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

  /** The page is being left: what is not sent yet is sent, whatever is on its way. */
  leave(): void {
    if (!this.saving) return void this.flush()
    if (this.dirty && this.state !== 'stale' && this.sent?.document !== this.options.read()) void this.attempt()
  }

  /**
   * Takes up what was begun before a reload, as far as the server's version allows.
   * @returns whether what was kept follows from the server's version: with it its history holds, too.
   */
  takeUp({ revision, keys, dirty }: Begun): boolean {
    // Where nothing was on its way they are those of another tab, whose saves are not ours.
    if (dirty) this.unanswered.push(...keys)
    const ours = revision === this.version.revision || (this.version.key !== null && keys.includes(this.version.key))
    // What follows from another version is saved over that, and then the answer is a conflict.
    if (!ours) this.version = { revision, key: null }
    return ours
  }

  /** Goes on from a version of the server's, after a conflict. */
  adopt(document: T, version: Version): void {
    this.saved = document
    this.version = version
    this.unanswered = []
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
    // The same once more is the same save.
    const key = this.sent?.document === document ? this.sent.key : this.nextKey
    if (key === this.nextKey) this.nextKey = newKey()
    const after = this.unanswered.slice(-MOST_UNANSWERED)
    this.unanswered = [...new Set([...after, key])]
    this.sent = { document, key }
    try {
      const revision = await this.options.send({ document, revision: this.version.revision, key, after })
      this.answered(document, { revision, key })
    } catch (error) {
      this.failed(error, key)
    }
    await this.options.keep()
  }

  private answered(document: T, version: Version): void {
    // One that was sent after it was answered before it.
    if (version.revision < this.version.revision) return
    this.saved = document
    this.version = version
    this.unanswered = this.unanswered.slice(this.unanswered.indexOf(version.key ?? '') + 1)
    this.show(this.dirty ? 'unsaved' : 'saved')
    if (this.dirty) this.schedule()
    this.options.onSaved?.()
  }

  private failed(error: unknown, key: string): void {
    const fact = error instanceof CallError ? error.fact : undefined
    if (fact?.code === 'stale') return this.show('stale')
    if (error instanceof CallError && !error.mayPass) {
      // The server has looked at it and changed nothing.
      this.unanswered = this.unanswered.filter((one) => one !== key)
      this.sent = null
      return this.show('refused', error.message)
    }
    this.show('offline')
    this.schedule(RETRY_AFTER_MS)
  }
}
