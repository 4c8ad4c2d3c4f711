// Work that several ask for at once and that is done once: it ends when the last of them has gone away.
import { Problem } from '../core/problem'

interface Running<T> {
  result: Promise<T>
  asking: number
  isOver: boolean
  end: AbortController
}

export class Shared<T> {
  private readonly running = new Map<string, Running<T>>()

  /**
   * @param key of the work: whoever asks by the same key while it runs shares it.
   * @param signal of whoever asks.
   * @throws what the work throws; Problem `cancelled` where the asker has gone.
   */
  async once(key: string, work: (signal: AbortSignal) => Promise<T>, signal?: AbortSignal): Promise<T> {
    if (signal?.aborted) throw new Problem({ code: 'cancelled' })
    const run = this.running.get(key) ?? this.begin(key, work)
    run.asking++
    let leave = (): void => {}
    const gone = new Promise<never>((_, reject) => {
      leave = () => reject(new Problem({ code: 'cancelled' }))
    })
    signal?.addEventListener('abort', leave, { once: true })
    try {
      return await Promise.race([run.result, gone])
    } finally {
      signal?.removeEventListener('abort', leave)
      if (--run.asking === 0) {
        if (this.running.get(key) === run) this.running.delete(key)
        if (!run.isOver) run.end.abort()
      }
    }
  }

  private begin(key: string, work: (signal: AbortSignal) => Promise<T>): Running<T> {
    const end = new AbortController()
    const run: Running<T> = { result: work(end.signal), asking: 0, isOver: false, end }
    // Whoever asks hears how it went; where nobody does any more it is nobody's.
    const over = (): void => void (run.isOver = true)
    run.result.then(over, over)
    this.running.set(key, run)
    return run
  }
}
