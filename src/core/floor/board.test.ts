import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { castOf } from '../score/cast'
import { readShorthand } from '../shorthand/read'
import { cuesFor } from '../cue/cues'
import { aheadOf } from './ahead'
import { boardOf, type Board } from './board'
import { earTrack } from './ear'
import { runOf } from './run'
import type { FloorEvent } from './events'
import { soundingOf } from './sounding'

const planOf = (text: string) => {
  const { score } = readShorthand(text)
  return { segments: expand(score).segments, cast: castOf(score.moves) }
}
const CIRCUIT = planOf(
  [
    'circuit Main: 2 rounds, 20 on, 10 off, 15 between, lead 5, last rest dropped',
    '  Jug lift (sides alternate)',
    '  Tiller twist (sides halves)',
  ].join('\n'),
)
const key = (number: number): string => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`
const begun: FloorEvent[] = [{ kind: 'start', key: key(0), atMs: 0, countInMs: 5000 }]
const told = (kind: 'hold' | 'next' | 'open', atMs: number, on: number): FloorEvent => ({
  kind,
  key: key(atMs),
  atMs,
  on,
})

const boardAt = (nowMs: number, events = begun, plan = CIRCUIT): Board =>
  boardOf({ ...plan, state: runOf(plan.segments, events, nowMs).state, nowMs })

describe('the board', () => {
  it('counts in, then counts each interval down to nothing', () => {
    expect(boardAt(1200)).toMatchObject({ ground: 'ready', count: 4, way: 'down', phase: 'countingIn' })
    expect(boardAt(10_000)).toMatchObject({ ground: 'work', count: 20, left: 1, label: 'Jug lift', side: 'left' })
    expect(boardAt(19_999)).toMatchObject({ count: 11, pastHalf: false })
    expect(boardAt(20_000)).toMatchObject({ count: 10, left: 0.5, pastHalf: true })
    expect(boardAt(29_999).count).toBe(1)
    expect(boardAt(30_000)).toMatchObject({ ground: 'rest', count: 10, label: 'Rest' })
  })

  it('changes the side halfway, names what is next and how long it is', () => {
    expect([boardAt(42_000).side, boardAt(52_000).side]).toEqual(['left', 'right'])
    expect(boardAt(32_000).next).toMatchObject({ label: 'Tiller twist, left then right', lengthMs: 20_000 })
    expect(boardAt(42_000)).toMatchObject({ counters: ['Round 1 of 2', 'Station 2 of 2'], leftMs: 83_000 })
    expect(boardAt(118_000)).toMatchObject({ next: null })
  })

  it('counts up what waits, and says that what is left is a guess', () => {
    const opened = [...begun, told('open', 62_000, 4)]
    expect(boardAt(80_000, opened)).toMatchObject({ way: 'up', count: 20, left: null, waits: true, leftIsGuess: true })
    const sets = planOf('sets Main: 2 sets, 1:00 off, last rest dropped\n  10 Jug lift\n')
    expect(boardAt(12_000, begun, sets)).toMatchObject({ waits: true, way: 'up', details: ['10 reps', 'water jug'] })
  })

  it('stands still on hold', () => {
    const held = [...begun, told('hold', 14_000, 1)]
    expect([boardAt(15_000, held).count, boardAt(60_000, held).count]).toEqual([16, 16])
  })

  it("counts a slot's clock over all its parts", () => {
    const minutes = planOf('minute-reps Main: 2 rounds\n  12 Jug lift\n')
    expect(boardAt(5000, begun, minutes)).toMatchObject({ count: 60, way: 'down', waits: true })
    const done = [...begun, told('next', 35_000, 0)]
    expect(boardAt(40_000, done, minutes)).toMatchObject({ ground: 'rest', count: 25, way: 'down', waits: false })
  })
})

describe('what is heard on the floor', () => {
  const at = (events: FloorEvent[], nowMs: number, plan = CIRCUIT) => runOf(plan.segments, events, nowMs).state
  const places = new Map(CIRCUIT.segments.map(({ id }, place) => [id, place]))

  it('is the cues of a video at the same instants, after a counting in', () => {
    const cues = cuesFor(aheadOf(CIRCUIT.segments, at(begun, 0)))
    expect(cues.filter(({ sound }) => sound === 'go').map(({ atMs }) => atMs / 1000)).toEqual([10, 40, 75, 105])
    expect(cues.filter(({ atMs }) => atMs < 10_000).map(({ sound, atMs }) => `${sound} ${atMs / 1000}`)).toEqual([
      ...['pip 2', 'pip 3', 'pip 4', 'pip 7', 'pip 8', 'pip 9'],
    ])
  })

  it('stops where somebody has to say when it goes on, and where it is on hold', () => {
    const opened = soundingOf(CIRCUIT.segments, places, at([...begun, told('open', 62_000, 4)], 62_000))
    expect(opened.cues.filter(({ atMs }) => atMs > 62_000)).toEqual([])
    expect(aheadOf(CIRCUIT.segments, at([...begun, told('hold', 14_000, 1)], 15_000))).toEqual([])
  })

  it('says what is next, the halves, and numbers; nothing runs over another', () => {
    const said = earTrack(aheadOf(CIRCUIT.segments, at(begun, 0)))
    expect(said.map(({ atMs, text }) => `${atMs / 1000} ${text}`).slice(0, 7)).toEqual([
      '5.7 Next: Jug lift, left',
      '20 Ten to go',
      '30.7 Next: Tiller twist, left then right, 20 seconds',
      '50.7 Right side',
      '60.7 Round 2 of 2, next: Jug lift, right, 20 seconds',
      '85 Ten to go',
      '95.7 Next: Tiller twist, left then right, 20 seconds',
    ])
    said.slice(1).forEach(({ atMs }, index) => expect(atMs - (said[index]?.atMs ?? 0)).toBeGreaterThanOrEqual(2500))
  })

  it('bears the numbers of changes in chirps, none for the counting in', () => {
    const { chirps } = soundingOf(CIRCUIT.segments, places, at(begun, 0))
    expect(chirps.slice(0, 3)).toEqual([
      { atMs: 5000, code: 1 },
      { atMs: 10_000, code: 2 },
      { atMs: 30_000, code: 3 },
    ])
  })
})
