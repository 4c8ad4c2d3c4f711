import { describe, expect, it } from 'vitest'
import type { Evidence } from '../evidence'
import { expand } from '../expand/expand'
import type { FloorEvent } from '../floor/events'
import { performanceOf } from '../floor/log'
import { circuit, score, station, talk } from '../testing'
import type { Ms } from '../units'
import { matchLogged } from './logged'
import { SURE } from './ties'

const plan = score(
  talk('welcome', 30_000),
  circuit({
    ...{ leadInMs: 5000, rounds: 2, roundBreakMs: 15_000, lastRest: 'dropped' },
    stations: [station('Jug lift'), station('Keel hold'), station('Rope pull')],
  }),
)
const { segments } = expand(plan)
const at = (id: string): number => segments.findIndex((segment) => segment.id === id)

let count = 0
type Bare = 'hold' | 'goOn' | 'next' | 'skip' | 'repeat' | 'open'
const told = (kind: Bare, atMs: Ms, on: number): FloorEvent => ({
  ...{ kind, atMs, on, key: `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}` },
})

/**
 * Talk of 12 s; the jug lift done again after 8 s of it; the rope pull of round one left out; a break of 41 s; held in
 * the keel hold of round two.
 */
const events: FloorEvent[] = [
  { kind: 'start', key: '00000000-0000-4000-8000-999999999999', atMs: 2000, countInMs: 5000 },
  told('next', 19_000, 0),
  told('repeat', 32_000, at('main/r1/s1/work')),
  told('skip', 97_600, at('main/r1/s3/work')),
  told('open', 99_000, at('main/r1/break')),
  told('next', 139_000, at('main/r1/break')),
  told('hold', 175_000, at('main/r2/s2/work')),
  told('goOn', 182_000, at('main/r2/s2/work')),
]
const performance = performanceOf({ score: plan, events })
const beginMs = performance.stands[0]?.fromMs ?? 0

/** Where the footage has an instant of the session: begun 9.3 s before it, by a clock that is 80 ppm fast. */
const filmed = (sessionMs: Ms): Ms => 9300 + (sessionMs - beginMs) * (1 + 80e-6)
const FOOTAGE_MS = 300_000
const truth = new Map(performance.stands.map(({ segmentId, fromMs }) => [segmentId, filmed(fromMs)]))

const beep = (atMs: Ms): Evidence => ({ kind: 'beep', atMs, spreadMs: 3, strength: 0.9, hz: 2000, durationMs: 400 })
const word = (atMs: Ms, call: 'work' | 'rest'): Evidence => ({
  ...{ kind: 'word', atMs, spreadMs: 150, strength: 0.95, word: call },
})
const chirp = (atMs: Ms, code: number): Evidence => ({ kind: 'chirp', atMs, spreadMs: 1, strength: 1, code })
const matched = (evidence: Evidence[], now = segments, hands: Parameters<typeof matchLogged>[3] = []) =>
  matchLogged(now, performance, { evidence, footageMs: FOOTAGE_MS }, hands)

const worstMs = (found: readonly { segmentId: string; edge: string; footageMs: Ms }[]): Ms =>
  Math.max(
    ...found
      .filter(({ edge }) => edge === 'start')
      .map(({ segmentId, footageMs }) => Math.abs(footageMs - (truth.get(segmentId) ?? NaN))),
  )

const beepsOf = (ids: readonly string[]): Evidence[] => ids.map((id) => beep(truth.get(id) ?? 0))

describe('laying the record of the floor on a footage', () => {
  it('takes one number from the sound, and every change from the record', () => {
    const { found, log } = matched(
      beepsOf(['main/r1/s2/work', 'main/r1/s2/rest', 'main/r2/s1/work', 'main/r2/s1/rest']),
    )
    expect(log).toBe('placed')
    expect(found.filter(({ edge }) => edge === 'start').map(({ segmentId }) => segmentId)).toEqual([...truth.keys()])
    expect(worstMs(found)).toBeLessThan(25)
    expect(found.every(({ confidence }) => confidence >= SURE)).toBe(true)
    // What was done again is tied where it was done again.
    expect(found.find(({ segmentId }) => segmentId === 'main/r1/s1/work')?.footageMs).toBeGreaterThan(filmed(36_900))
  })

  it('is placed by calls as well, and by chirps of which a few were heard', () => {
    const called = performance.stands.flatMap(({ segmentId, fromMs }, index): Evidence[] => {
      const kind = segments[at(segmentId)]?.kind
      return kind === 'work' || kind === 'rest' ? [word(filmed(fromMs) + [120, -90, 60][index % 3]!, kind)] : []
    })
    const voice = matched(called)
    expect([voice.log, worstMs(voice.found) < 250]).toEqual(['placed', true])
    const chirps = [...truth]
      .filter((_, index) => index % 4 === 1)
      .map(([segmentId, atMs]) => chirp(atMs, at(segmentId) + 1))
    const coded = matched(chirps)
    expect([coded.log, worstMs(coded.found) < 25]).toEqual(['placed', true])
  })

  it('knows that nothing says where it lies; one tie by hand does', () => {
    expect(matched([])).toMatchObject({ log: 'unplaced', found: [] })
    const hand = { segmentId: 'main/r2/s1/work', edge: 'start' as const, footageMs: truth.get('main/r2/s1/work')! }
    const tied = matched([], segments, [{ ...hand, footageMs: Math.round(hand.footageMs) }])
    expect([tied.log, worstMs(tied.found) < 25]).toEqual(['placed', true])
    expect(tied.found.some(({ segmentId }) => segmentId === hand.segmentId)).toBe(false)
  })

  it('is sure of nothing where the footage is of another session of the same plan', () => {
    // As planned, without anything of what the record has.
    const asPlanned = segments.slice(1).map(({ startMs }) => beep(4000 + startMs))
    const { found, log } = matched(asPlanned)
    expect(log).not.toBe('placed')
    for (const { segmentId, footageMs, confidence } of found)
      if (confidence >= SURE) {
        const planned = segments[at(segmentId)]?.startMs ?? 0
        expect(Math.abs(footageMs - planned - 4000)).toBeLessThan(100)
      }
  })

  it('says what is no longer planned, and ties the rest to the moves that they were made for', () => {
    const edited = score(
      ...plan.sections.slice(0, 1),
      circuit({
        ...{ leadInMs: 5000, rounds: 2, roundBreakMs: 15_000, lastRest: 'dropped', restMs: 15_000 },
        stations: [station('Keel hold', { key: 's2' }), station('Jug lift', { key: 's1' })],
      }),
    )
    const now = expand(edited).segments
    const { found, gone, log } = matched(beepsOf(['main/r1/s2/work', 'main/r1/s2/rest', 'main/r2/s1/work']), now)
    expect(log).toBe('placed')
    expect(gone).toContain('main/r2/s3/work')
    expect(found.length).toBeGreaterThan(0)
    expect(worstMs(found)).toBeLessThan(25)
  })
})
