// The edited ties against a server that is made up here.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { handStitch, type Stitch } from '@/core/align/ties'
import { expand } from '@/core/expand/expand'
import { circuit, score } from '@/core/testing'
import { createStitchStore } from './stitchStore'

const { segments } = expand(score(circuit({ rounds: 3 })))
const idOf = (row: number): string => segments[row - 1]?.id ?? ''
const hand = (row: number, footageMs: number): Stitch => handStitch({ segmentId: idOf(row), edge: 'start', footageMs })
const heard = (row: number, footageMs: number): Stitch => ({
  ...hand(row, footageMs),
  origin: 'heard',
  confidence: 0.7,
  evidence: ['beep'],
})

/** What the server holds; `down` makes it silent. */
const server = { revision: 1, stitches: [] as Stitch[], saves: 0, down: false, outlived: false }

beforeEach(() => {
  Object.assign(server, { revision: 1, stitches: [], saves: 0, down: false, outlived: false })
  vi.useFakeTimers()
  vi.stubGlobal('fetch', (path: string, { body, keepalive }: { body: string; keepalive: boolean }) => {
    expect(path).toBe('/api/workouts/workout/stitches')
    if (server.down) return Promise.reject(new TypeError('no connection'))
    const asked = JSON.parse(body) as { stitches: Stitch[]; revision: number }
    if (asked.revision !== server.revision)
      return Promise.resolve(
        Response.json(
          {
            problem: {
              code: 'stale',
              fact: { code: 'stale', what: 'ties', now: { revision: server.revision, key: null } },
            },
          },
          { status: 409 },
        ),
      )
    Object.assign(server, {
      stitches: asked.stitches,
      revision: server.revision + 1,
      saves: server.saves + 1,
      outlived: keepalive,
    })
    return Promise.resolve(Response.json({ revision: server.revision }))
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const open = (stitches: Stitch[] = []) =>
  createStitchStore({
    workoutId: 'workout',
    reelKey: 'film',
    segments,
    footageMs: 90_000,
    stitches,
    version: { revision: 1, key: null },
    onSaved: () => {},
  })
const put = (store: ReturnType<typeof open>, row: number, footageMs: number) =>
  store.getState().put({ segmentId: idOf(row), edge: 'start', footageMs })

describe('a tie by hand', () => {
  it('is saved at once, also where the page is left meanwhile', async () => {
    const store = open()
    expect(put(store, 1, 5000)).toEqual({ dropped: 0, problem: null })
    await vi.runAllTimersAsync()
    expect(server).toMatchObject({ stitches: [hand(1, 5000)], outlived: true })
  })
  it('is refused where it would change places with another, with the reason, and nothing is saved', async () => {
    const store = open([hand(1, 101_000 - 90_000), hand(3, 50_000)])
    expect(put(store, 5, 20_000)).toMatchObject({ problem: { code: 'tie-crosses', atMs: 20_000, otherMs: 50_000 } })
    expect(put(store, 5, 91_000)).toMatchObject({ problem: { code: 'tie-outside' } })
    await vi.runAllTimersAsync()
    expect([store.getState().stitches.length, server.saves]).toEqual([2, 0])
  })
  it('takes the place of what was heard and cannot hold beside it, in one step that is undone in one', () => {
    const store = open([heard(1, 10_000), heard(2, 30_000), hand(4, 60_000)])
    expect(put(store, 3, 25_000)).toEqual({ dropped: 1, problem: null })
    expect(
      store
        .getState()
        .stitches.map(({ footageMs }) => footageMs)
        .sort(),
    ).toEqual([10_000, 25_000, 60_000])
    store.getState().undoOnce()
    expect(store.getState().stitches).toHaveLength(3)
    store.getState().redoOnce()
    expect(store.getState().stitches).toContainEqual(hand(3, 25_000))
  })
})

describe('what is heard', () => {
  it('stands beside ties by hand, and never in their place', () => {
    const store = open([hand(2, 40_000)])
    store
      .getState()
      .setHeard([heard(1, 10_000), heard(2, 33_000), heard(3, 35_000), heard(4, 50_000)], store.getState().stitches)
    const times = Object.fromEntries(store.getState().stitches.map((one) => [one.segmentId, one.footageMs]))
    expect(times).toEqual({ [idOf(1)]: 10_000, [idOf(2)]: 40_000, [idOf(4)]: 50_000 })
  })
})

describe('what was changed while it was being heard', () => {
  it('stays as it was changed: a tie taken away, one made by hand, one moved', () => {
    const before = [heard(1, 10_000), heard(2, 30_000)]
    const store = open(before)
    store.getState().remove({ segmentId: idOf(2), edge: 'start' })
    put(store, 3, 42_000)
    store.getState().setHeard([heard(1, 10_100), heard(2, 30_000), heard(3, 40_000), heard(4, 60_000)], before)
    const times = Object.fromEntries(store.getState().stitches.map((one) => [one.segmentId, one.footageMs]))
    expect(times).toEqual({ [idOf(1)]: 10_100, [idOf(3)]: 42_000, [idOf(4)]: 60_000 })
  })
})

describe('saving', () => {
  it('goes on when a silent server is back, and says so meanwhile', async () => {
    server.down = true
    const store = open()
    put(store, 1, 5000)
    await vi.advanceTimersByTimeAsync(100)
    expect(store.getState().saveState).toBe('offline')
    server.down = false
    await vi.advanceTimersByTimeAsync(5000)
    expect([server.saves, store.getState().saveState]).toEqual([1, 'saved'])
  })
  it('asks where they were changed elsewhere', async () => {
    server.revision = 5
    const store = open()
    put(store, 1, 5000)
    await vi.runAllTimersAsync()
    expect([server.saves, store.getState().saveState]).toEqual([0, 'stale'])
  })
})
