// The queue of saves against a server that is made up here.
import { beforeEach, expect, it, vi } from 'vitest'
import { isMadeFrom, type Version } from '@/core/version'
import { CallError } from '../api'
import { SaveQueue, type SaveState } from './saveQueue'

const NOW: Version & { document: string } = { revision: 1, key: null, document: '' }
let now = { ...NOW }
/** Answers wait here until the test lets them go; `false` loses one. */
let waiting: ((arrives: boolean) => void)[] = []

function page(): { queue: SaveQueue<string>; type: (text: string) => void; states: SaveState[]; kept: unknown[] } {
  let text = now.document
  const states: SaveState[] = []
  const kept: unknown[] = []
  const queue: SaveQueue<string> = new SaveQueue({
    saved: text,
    version: { revision: now.revision, key: now.key },
    read: () => text,
    async send({ document, ...save }) {
      if (!isMadeFrom(now, save))
        throw new CallError('stale', '', {
          code: 'stale',
          what: 'score',
          now: { revision: now.revision, key: now.key },
        })
      now = { revision: now.revision + 1, key: save.key, document }
      const { revision } = now
      if (!(await new Promise<boolean>((done) => waiting.push(done)))) throw new CallError('offline', '')
      return revision
    },
    onState: (state) => states.push(state),
    keep: async () => void kept.push(queue.begun()),
  })
  const type = (next: string): void => {
    text = next
    queue.changed()
  }
  return { queue, type, states, kept }
}
beforeEach(() => {
  now = { ...NOW }
  waiting = []
  vi.useFakeTimers()
  return () => vi.useRealTimers()
})

it('sends what is typed last when the page is left, though an earlier save is still on its way', () => {
  const { queue, type } = page()
  type('one')
  queue.leave()
  type('one two')
  queue.leave()
  queue.leave()
  expect(now).toMatchObject({ document: 'one two', revision: 3 })
})

it('saves on over a save of its own whose answer was lost, and asks about one of another', async () => {
  const { queue, type, states } = page()
  type('one')
  const lost = queue.flush()
  waiting.shift()?.(false)
  await lost
  expect(states.at(-1)).toBe('offline')
  type('one two')
  const second = queue.flush()
  waiting.shift()?.(true)
  await second
  expect([now.document, states.at(-1)]).toEqual(['one two', 'saved'])
  now = { revision: 9, key: 'of another', document: 'theirs' }
  type('mine')
  await queue.flush()
  expect([now.document, states.at(-1)]).toEqual(['theirs', 'stale'])
})

it('does not take the saves of another tab for its own', async () => {
  const one = page()
  one.type('one')
  const saved = one.queue.flush()
  waiting.shift()?.(true)
  await saved
  const other = page()
  other.queue.takeUp(one.kept.at(-1) as Parameters<typeof other.queue.takeUp>[0])
  one.type('of one')
  void one.queue.flush()
  other.type('of the other')
  await other.queue.flush()
  expect([now.document, other.states.at(-1)]).toEqual(['of one', 'stale'])
})
