import { describe, expect, it } from 'vitest'
import { Shared } from './shared'

describe('work that several ask for', () => {
  it('is done once for all that ask while it runs, and again for whoever comes later', async () => {
    const shared = new Shared<number>()
    let runs = 0
    const work = async (): Promise<number> => {
      await new Promise((done) => setTimeout(done, 5))
      return ++runs
    }
    expect(await Promise.all([1, 2, 3].map(() => shared.once('a', work)))).toEqual([1, 1, 1])
    expect([await shared.once('a', work), await shared.once('b', work)]).toEqual([2, 3])
  })

  it('goes on while one of them waits, and ends with the last', async () => {
    const shared = new Shared<string>()
    const ended: string[] = []
    const work = (signal: AbortSignal): Promise<string> =>
      new Promise((done, fail) => {
        const timer = setTimeout(() => done('done'), 20)
        signal.addEventListener('abort', () => {
          clearTimeout(timer)
          ended.push('ended')
          fail(new Error('ended'))
        })
      })
    const [first, second] = [new AbortController(), new AbortController()]
    const left = shared.once('a', work, first.signal)
    const stays = shared.once('a', work, second.signal)
    first.abort()
    await expect(left).rejects.toThrow()
    expect([await stays, ended]).toEqual(['done', []])
    const alone = shared.once('b', work, new AbortController().signal)
    const gone = new AbortController()
    const other = shared.once('c', work, gone.signal)
    gone.abort()
    await expect(other).rejects.toThrow()
    expect([await alone, ended]).toEqual(['done', ['ended']])
  })

  it('fails for all, and is tried anew by the next', async () => {
    const shared = new Shared<number>()
    let runs = 0
    const work = async (): Promise<number> => {
      await Promise.resolve()
      if (++runs === 1) throw new Error('no')
      return runs
    }
    const both = await Promise.allSettled([shared.once('a', work), shared.once('a', work)])
    expect(both.map(({ status }) => status)).toEqual(['rejected', 'rejected'])
    expect(await shared.once('a', work)).toBe(2)
  })
})
