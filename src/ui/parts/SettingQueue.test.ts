import { describe, expect, it } from 'vitest'
import { mergeThree } from '@/core/workout/mergeThree'
import { CallError } from '../api'
import { SettingQueue, type Unsaved } from './SettingQueue'

type Setting = Record<string, number>

/** A server of one setting, as `saveSetting` keeps it, with clocks that tests wind. */
function desk(kept: Setting = { a: 0, b: 0 }) {
  const server = { kept, away: false as boolean | string, answers: 0 }
  const timers: (() => void)[] = []
  const log = { unsaved: null as Unsaved<Setting> | null, troubles: [] as string[], saved: 0 }
  const open = (): SettingQueue<Setting> =>
    new SettingQueue(server.kept, {
      send: async ({ base, now }) => {
        await Promise.resolve()
        if (server.away) throw new CallError(typeof server.away === 'string' ? server.away : 'offline', 'away')
        server.answers++
        server.kept = mergeThree(base, now, server.kept)
        return server.kept
      },
      keep: (unsaved) => (log.unsaved = unsaved),
      onTrouble: (trouble) => log.troubles.push(trouble ? (trouble.refused ? 'refused' : 'failing') : 'over'),
      onSaved: () => log.saved++,
      wait: (_ms, then) => {
        timers.push(then)
        return () => void timers.splice(timers.indexOf(then) >>> 0, 1)
      },
    })
  const wind = async (): Promise<void> => {
    for (const then of timers.splice(0)) then()
    await new Promise((done) => setTimeout(done, 0))
  }
  return { server, log, open, wind }
}

describe('a setting', () => {
  it('is sent again until it is acknowledged, and kept in the browser until then', async () => {
    const { server, log, open, wind } = desk()
    const queue = open()
    server.away = true
    queue.change({ a: 1, b: 0 })
    await wind()
    await wind()
    expect([queue.read(), queue.state, server.kept]).toEqual([{ a: 1, b: 0 }, 'failing', { a: 0, b: 0 }])
    expect(log.unsaved).toEqual({ base: { a: 0, b: 0 }, now: { a: 1, b: 0 } })
    server.away = false
    await wind()
    expect([server.kept, queue.state, log.unsaved, log.saved]).toEqual([{ a: 1, b: 0 }, 'saved', null, 1])
    expect(log.troubles).toEqual(['failing', 'failing', 'over'])
  })

  it('of two tabs loses neither', async () => {
    const { server, open, wind } = desk()
    const [one, other] = [open(), open()]
    one.change({ a: 1, b: 0 })
    await wind()
    other.change({ a: 0, b: 2 })
    await wind()
    expect([server.kept, other.read()]).toEqual([
      { a: 1, b: 2 },
      { a: 1, b: 2 },
    ])
  })

  it('changed twice in a moment keeps both changes', async () => {
    const { server, open, wind } = desk()
    const queue = open()
    queue.change({ ...queue.read(), a: 1 })
    const sending = queue.flush()
    queue.change({ ...queue.read(), b: 2 })
    await sending
    await wind()
    expect([server.kept, queue.read()]).toEqual([
      { a: 1, b: 2 },
      { a: 1, b: 2 },
    ])
  })

  it('that was left unsaved goes on in the next page, with what others saved since', async () => {
    const { server, log, open, wind } = desk()
    const queue = open()
    server.away = true
    queue.change({ a: 1, b: 0 })
    const left = log.unsaved
    server.away = false
    server.kept = { a: 0, b: 7 }
    const next = open()
    if (left) next.takeUp(left)
    expect(next.read()).toEqual({ a: 1, b: 7 })
    await wind()
    expect(server.kept).toEqual({ a: 1, b: 7 })
  })

  it('that the server will not have is shown as it is kept, and said', async () => {
    const { server, log, open, wind } = desk()
    const queue = open()
    server.away = 'bad-document'
    queue.change({ a: 1, b: 0 })
    await wind()
    expect([queue.read(), queue.state, log.troubles, log.unsaved]).toEqual([{ a: 0, b: 0 }, 'saved', ['refused'], null])
  })

  it("takes the server's form where nothing of its own waits", async () => {
    const { open, wind } = desk()
    const queue = open()
    queue.adopt({ a: 5, b: 5 })
    expect(queue.read()).toEqual({ a: 5, b: 5 })
    // An earlier form, out of the browser's memory.
    queue.adopt({ a: 0, b: 0 })
    expect(queue.read()).toEqual({ a: 5, b: 5 })
    queue.change({ a: 6, b: 5 })
    queue.adopt({ a: 0, b: 0 })
    expect(queue.read()).toEqual({ a: 6, b: 5 })
    await wind()
  })
})
