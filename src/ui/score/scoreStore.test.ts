// The edited score against a server that is made up here: saving, undoing, silence and staleness.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Score } from '@/core/score/score'
import { isKnown, isMadeFrom, type Save } from '@/core/version'
import { circuit, score, talk } from '@/core/testing'

const kept = new Map<string, unknown>()
vi.mock('idb-keyval', () => ({
  keys: () => Promise.resolve([...kept.keys()]),
  get: (key: string) => Promise.resolve(structuredClone(kept.get(key))),
  set: (key: string, value: unknown) => Promise.resolve(void kept.set(key, structuredClone(value))),
  del: (key: string) => Promise.resolve(void kept.delete(key)),
}))
const { createScoreStore } = await import('./scoreStore')

/** A server with one score; `down` makes it silent. */
const server = {
  revision: 1,
  score: score(circuit()) as unknown,
  down: false,
  saves: 0,
  refuses: '',
  key: null as string | null,
  loses: 0,
}
const answer = (status: number, data: unknown): Response => Response.json(data, { status })

const staleFact = () => ({ code: 'stale', what: 'score', now: { revision: server.revision, key: server.key } })

beforeEach(() => {
  kept.clear()
  Object.assign(server, {
    revision: 1,
    score: score(circuit()),
    down: false,
    saves: 0,
    refuses: '',
    key: null,
    loses: 0,
  })
  vi.useFakeTimers()
  vi.stubGlobal('fetch', (_path: string, init: { method: string; body?: string }) => {
    if (server.down) return Promise.reject(new TypeError('no connection'))
    if (init.method === 'GET')
      return Promise.resolve(answer(200, { score: server.score, revision: server.revision, key: server.key }))
    const body = JSON.parse(init.body ?? '{}') as { score: unknown } & Save
    if (isKnown(server, body)) return Promise.resolve(answer(200, { revision: server.revision, key: server.key }))
    if (!isMadeFrom(server, body))
      return Promise.resolve(answer(409, { problem: { code: 'stale', fact: staleFact(), message: '', place: null } }))
    if (server.refuses)
      return Promise.resolve(answer(400, { problem: { code: 'bad-request', message: server.refuses, place: null } }))
    server.saves++
    Object.assign(server, { score: body.score, key: body.key, revision: server.revision + 1 })
    if (server.loses-- > 0) return Promise.reject(new TypeError('the answer was lost'))
    return Promise.resolve(answer(200, { revision: server.revision, key: body.key }))
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const open = () => createScoreStore('deck', server.score as Score, { revision: server.revision, key: server.key })
const rename = (store: ReturnType<typeof open>, title: string): void =>
  store.getState().edit((draft) => {
    draft.title = title
  })

describe('editing', () => {
  it('saves by itself, several changes at once, and says so', async () => {
    const store = open()
    rename(store, 'one')
    rename(store, 'two')
    expect(store.getState().saveState).toBe('unsaved')
    await vi.advanceTimersByTimeAsync(600)
    expect([store.getState().saveState, server.saves, (server.score as { title: string }).title]).toEqual([
      'saved',
      1,
      'two',
    ])
  })
  it('undoes and does again, step by step, and a new change ends what could be done again', () => {
    const store = open()
    rename(store, 'one')
    rename(store, 'two')
    store.getState().undoOnce()
    expect(store.getState().score.title).toBe('one')
    store.getState().redoOnce()
    expect(store.getState().score.title).toBe('two')
    store.getState().undoOnce()
    rename(store, 'three')
    store.getState().redoOnce()
    expect(store.getState().score.title).toBe('three')
  })
  it('does not count a change that changes nothing', () => {
    const store = open()
    rename(store, store.getState().score.title)
    expect(store.getState().undo).toHaveLength(0)
  })
})

describe('trouble', () => {
  it('keeps trying while the server is silent, and saves when it is back', async () => {
    const store = open()
    server.down = true
    rename(store, 'kept')
    await vi.advanceTimersByTimeAsync(700)
    expect(store.getState().saveState).toBe('offline')
    server.down = false
    await vi.advanceTimersByTimeAsync(3500)
    expect([store.getState().saveState, (server.score as { title: string }).title]).toEqual(['saved', 'kept'])
  })
  it('says why a score is refused, does not ask again by itself, and saves once it is mended', async () => {
    const store = open()
    server.refuses = 'Too many sections.'
    rename(store, 'one section too many')
    await vi.advanceTimersByTimeAsync(700)
    expect([store.getState().saveState, store.getState().refusal]).toEqual(['refused', 'Too many sections.'])
    server.refuses = ''
    await vi.advanceTimersByTimeAsync(10_000)
    expect([store.getState().saveState, server.saves]).toEqual(['refused', 0])
    store.getState().undoOnce()
    rename(store, 'mended')
    await vi.advanceTimersByTimeAsync(700)
    expect([store.getState().saveState, server.saves, (server.score as { title: string }).title]).toEqual([
      'saved',
      1,
      'mended',
    ])
  })
  it('brings unsaved work and history back after a reload', async () => {
    const store = open()
    server.down = true
    rename(store, 'not saved')
    await vi.advanceTimersByTimeAsync(700)
    server.down = false
    const again = open()
    await again.getState().restore()
    expect([again.getState().score.title, again.getState().undo.length]).toEqual(['not saved', 1])
    await vi.advanceTimersByTimeAsync(100)
    expect((server.score as { title: string }).title).toBe('not saved')
    again.getState().undoOnce()
    expect(again.getState().score.title).toBe('Deck Hours')
  })
  it.each([
    ['mine', 'here', 0],
    ['theirs', 'there', 1],
  ] as const)('asks when another tab has saved: keeping %s', async (choice, title, sections) => {
    const store = open()
    Object.assign(server, { revision: 7, score: { ...score(talk('x', 1000)), title: 'there' } })
    store.getState().edit((draft) => {
      Object.assign(draft, { title: 'here', sections: [] })
    })
    await vi.advanceTimersByTimeAsync(600)
    expect(store.getState().saveState).toBe('stale')
    await store.getState().resolveStale(choice)
    await vi.advanceTimersByTimeAsync(600)
    expect([store.getState().saveState, store.getState().score.title, store.getState().score.sections.length]).toEqual([
      'saved',
      title,
      sections,
    ])
    expect((server.score as { title: string }).title).toBe(title)
  })
  it('drops history that belongs to a revision that is gone', async () => {
    const store = open()
    rename(store, 'one')
    await vi.advanceTimersByTimeAsync(600)
    const later = createScoreStore('deck', score(talk('x', 1000)), { revision: 9, key: null })
    await later.getState().restore()
    expect([later.getState().undo.length, later.getState().score.sections[0]?.key]).toEqual([0, 'x'])
  })
})

describe('a lost answer', () => {
  it('is no conflict: the save is known again by its key, and what was typed since is saved over it', async () => {
    const store = open()
    server.loses = 1
    rename(store, 'first')
    await vi.advanceTimersByTimeAsync(600)
    rename(store, 'second')
    await vi.advanceTimersByTimeAsync(5000)
    expect([store.getState().saveState, (server.score as Score).title, server.revision]).toEqual(['saved', 'second', 3])
  })
  it('that brought all there was is not sent again', async () => {
    const store = open()
    server.loses = 1
    rename(store, 'only')
    await vi.advanceTimersByTimeAsync(5000)
    expect([store.getState().saveState, server.saves]).toEqual(['saved', 1])
  })
  it('is none after a reload either, whether the page was made before or after that save', async () => {
    for (const early of [false, true]) {
      kept.clear()
      const store = open()
      const before = { score: server.score as Score, version: { revision: server.revision, key: server.key } }
      server.loses = 1
      rename(store, `lost, ${early}`)
      await vi.advanceTimersByTimeAsync(600)
      const again = early ? createScoreStore('deck', before.score, before.version) : open()
      await again.getState().restore()
      rename(again, `typed after, ${early}`)
      await vi.advanceTimersByTimeAsync(8000)
      expect([again.getState().saveState, (server.score as Score).title]).toEqual(['saved', `typed after, ${early}`])
    }
  })
  it('does not hide what somebody else saved after it', async () => {
    const store = open()
    server.loses = 1
    rename(store, 'lost')
    await vi.advanceTimersByTimeAsync(600)
    Object.assign(server, { revision: 3, key: 'theirs' })
    rename(store, 'mine')
    await vi.advanceTimersByTimeAsync(5000)
    expect(store.getState().saveState).toBe('stale')
  })
})

describe('a page that is left', () => {
  it.each([
    ['after', false],
    ['before', true],
  ])('sends at once, and what it kept is no conflict for a page that was made %s that save', async (_, early) => {
    const store = open()
    const before = { score: server.score as Score, version: { revision: server.revision, key: server.key } }
    rename(store, 'typed last')
    await vi.advanceTimersByTimeAsync(100)
    const left = structuredClone([...kept])
    void store.getState().flush()
    expect((server.score as Score).title).toBe('typed last')
    for (const [name, work] of left) kept.set(name, work)
    const again = early ? createScoreStore('deck', before.score, before.version) : open()
    await again.getState().restore()
    rename(again, 'typed after')
    await vi.advanceTimersByTimeAsync(8000)
    expect([again.getState().saveState, (server.score as Score).title]).toEqual(['saved', 'typed after'])
  })
})
