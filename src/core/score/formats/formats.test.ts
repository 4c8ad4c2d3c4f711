import fc from 'fast-check'
import { newSwap } from './station'
import { describe, expect, it } from 'vitest'
import { anyScore, anySection } from '../../arbitraries'
import { around, score, station } from '../../testing'
import { expand } from '../../expand/expand'
import { recognise, toList } from '../listing'
import { scoreSchema } from '../score'
import {
  describeSection,
  expandSection,
  FORMAT_NAMES,
  formatNamed,
  newSection,
  type FormatName,
  type Section,
  type SectionOf,
} from './index'

const A = station('Jug lift', { sideRule: 'none' }),
  B = station('Lock-gate push'),
  C = station('Keel hold')
const make = <N extends FormatName>(format: N, change: Partial<SectionOf<N>>): Section =>
  ({ ...newSection(format, 'main', 'Main'), leadInMs: 0, ...change }) as unknown as Section
const seconds = (section: Section): string =>
  expandSection(section, around())
    .map((one) => `${one.kind[0]}${one.durationMs / 1000}`)
    .join(' ')

describe('each format, worked by hand', () => {
  it.each<[string, Section, string]>([
    [
      'circuit',
      make('circuit', { rounds: 2, workMs: 30_000, restMs: 10_000, roundBreakMs: 60_000, stations: [A, B] }),
      'w30 r10 w30 b60 w30 r10 w30 r10',
    ],
    [
      'station by station',
      make('byStation', { sets: 2, workMs: 30_000, restMs: 10_000, changeMs: 45_000, stations: [A, B] }),
      'w30 r10 w30 b45 w30 r10 w30 r10',
    ],
    [
      'pairs',
      make('pairs', {
        times: 2,
        workMs: 30_000,
        restMs: 15_000,
        pairBreakMs: 60_000,
        lastRest: 'dropped',
        groups: [
          [A, B],
          [C, B],
        ],
      }),
      'w30 r15 w30 r15 w30 r15 w30 b60 w30 r15 w30 r15 w30 r15 w30',
    ],
    [
      'bursts',
      make('burst', { intervals: 3, talkMs: 5000, burstBreakMs: 40_000, groups: [[A], [B, C]] }),
      'w20 r10 w20 r10 w20 r10 b40 t5 w20 r10 w20 r10 w20 r10',
    ],
    [
      'straight through',
      make('straight', { passes: [40_000, 20_000], gapMs: 8000, stations: [A, B] }),
      'w40 w40 b8 w20 w20',
    ],
    [
      'ladder',
      make('ladder', { rungs: 3, startMs: 10_000, stepMs: 5000, lastRest: 'kept', groups: [[A]] }),
      'w10 r10 w15 r15 w20 r20',
    ],
    [
      'ladder, rest after the round',
      make('ladder', {
        rungs: 2,
        startMs: 10_000,
        stepMs: 5000,
        restAfter: 'round',
        lastRest: 'dropped',
        groups: [[A, B]],
      }),
      'w10 w10 r10 w15 w15',
    ],
    [
      'slot up and down',
      make('slot', { steps: 3, shape: 'upAndDown', lastRest: 'dropped', stations: [A] }),
      'w20 r40 w30 r30 w40 r20 w30 r30 w20',
    ],
    ['slot that fills up', make('slot', { slotMs: 30_000, steps: 3, stations: [A] }), 'w20 r10 w30 w30'],
    [
      'table',
      make('table', {
        rounds: [
          { workMs: 40_000, restMs: 20_000 },
          { workMs: 30_000, restMs: 10_000 },
        ],
        stations: [A, B],
        lastRest: 'kept',
      }),
      'w40 r20 w40 r20 w30 r10 w30 r10',
    ],
    [
      'growing break',
      make('growingBreak', { rounds: 3, workMs: 30_000, breakMs: 20_000, breakStepMs: 10_000, stations: [A, B] }),
      'w30 w30 b20 w30 w30 b30 w30 w30',
    ],
    [
      'compound slot',
      make('compound', { passes: 2, groups: [[A, B, C, B]] }),
      'w60 r20 w20 w20 w20 r40 w60 r20 w20 w20 w20 r40',
    ],
    [
      'uneven group',
      make('uneven', {
        rounds: 2,
        lastRest: 'dropped',
        groups: [
          [station('Jug lift', { sideRule: 'none', workMs: 60_000 }), station('Pump-out hop', { workMs: 20_000 }), B],
        ],
      }),
      'w60 w20 w40 r30 w60 w20 w40',
    ],
    [
      'buy-in',
      make('buyIn', { rounds: 2, lastRest: 'dropped', groups: [[station('Deck-rail squat', { reps: 12 }), C]] }),
      'w60 r30 w60',
    ],
    [
      'couplet',
      make('couplet', {
        workMs: 360_000,
        lastRest: 'dropped',
        groups: [[station('Lock-gate push', { reps: 8 }), station('Deck-rail squat', { reps: 6 })]],
      }),
      'w360',
    ],
    // 12 reps of 3 s are 36 s, so 24 s of the minute are left; 25 reps of 3 s do not fit and are cut to the slot.
    [
      'every minute by reps',
      make('minuteReps', {
        rounds: 1,
        stations: [station('Deck-rail squat', { reps: 12 }), station('Lock-gate push', { reps: 25 })],
      }),
      'w36 r24 w60',
    ],
    ['every minute by time', make('minuteTime', { rounds: 2, lastRest: 'dropped', stations: [A] }), 'w40 r20 w40'],
    // 2, 4, 6 ... reps of 3 s: 6 + 12 + 18 + 24 = 60 s is four rungs in a minute; down again 8 + 6 + 4 + 2 = 20 reps =
    // 60 s.
    [
      'rep pyramid',
      make('pyramid', { climbMs: 60_000, restMs: 30_000, lastRest: 'dropped', groups: [[station('Deck-rail squat')]] }),
      'w60 r30 w60',
    ],
    [
      'sets by reps',
      make('sets', {
        sets: 2,
        restMs: 60_000,
        changeMs: 90_000,
        stations: [station('Deck-rail squat', { reps: 10 }), station('Lock-gate push', { reps: 8 })],
      }),
      'w30 r60 w30 b90 w24 r60 w24 r60',
    ],
    ['finisher', make('finisher', { rounds: 2, stations: [station('Deck-rail squat', { reps: 5 })] }), 'w15 w15'],
    [
      'warm-up',
      make('warmUp', {
        stations: [
          station('Heel digs', { workMs: 45_000 }),
          station('Mooring march', { reps: 20 }),
          station('Windlass turn'),
        ],
      }),
      'w45 w20 w30',
    ],
    [
      'cool-down, sides in turn',
      make('coolDown', { stations: [station('Stern stretch'), station('Chest opener'), station('Roof-walk lunge')] }),
      'w30 w30 w30 w30 w30',
    ],
    [
      'a cool-down elsewhere',
      make('coolDown', { where: 'linked', link: 'Deck Hours: slow water', stations: [A] }),
      't8',
    ],
  ])('%s', (_name, section, wanted) => expect(seconds(section)).toBe(wanted))

  it('a ladder of which rest equals work is twice its work in all, with the last rest kept', () => {
    const section = make('ladder', { rungs: 5, startMs: 10_000, stepMs: 10_000, lastRest: 'kept', groups: [[A]] })
    expect(expand(score(section)).totalMs).toBe(2 * (10 + 20 + 30 + 40 + 50) * 1000)
  })
  it('says what it is in words', () => {
    expect(
      describeSection(make('circuit', { rounds: 4, workMs: 35_000, restMs: 15_000, stations: [A, B] }), around()),
    ).toBe('4 rounds of 2 stations, 0:35 on, 0:15 off, 1:00 between rounds')
    expect(
      describeSection(
        make('couplet', {
          workMs: 360_000,
          groups: [[station('Lock-gate push', { reps: 8 }), station('Deck-rail squat', { reps: 6 })]],
        }),
        around(),
      ),
    ).toMatch(/about 8.5 times round$/)
  })
})

describe('sides and swaps', () => {
  const sides = (section: Section): string =>
    expandSection(section, around())
      .filter((one) => one.kind === 'work')
      .map((one) => one.side?.[0] ?? '-')
      .join('')
  it('turns a whole round left and the next right, while unsided stations stay as they are', () => {
    expect(
      sides(
        make('circuit', { rounds: 3, stations: [station('Jug lift'), station('Keel hold'), station('Tiller twist')] }),
      ),
    ).toBe('l-sr-sl-s')
  })
  it('alternates by set, gives each side an interval, or keeps to one', () => {
    expect(sides(make('byStation', { sets: 4, stations: [station('Jug lift')] }))).toBe('lrlr')
    expect(
      sides(
        make('circuit', {
          rounds: 1,
          stations: [
            station('Jug lift', { sideRule: 'each' }),
            station('Jug lift', { sideRule: 'right' }),
            station('Jug lift', { sideRule: 'both' }),
          ],
        }),
      ),
    ).toBe('lrrb')
  })
  it('alternates over the passes of a pair, not over its intervals', () => {
    expect(sides(make('burst', { intervals: 4, groups: [[station('Jug lift'), station('Lantern reach')]] }))).toBe(
      'llrr',
    )
  })
  it('swaps the long move in the second pass while the short ones stay', () => {
    const section = make('compound', {
      groups: [[station('Jug lift', { sideRule: 'none', swaps: [newSwap(2, 'Anchor row')] }), B, C]],
    })
    expect(
      expandSection(section, around())
        .filter((one) => one.kind === 'work')
        .map((one) => one.label),
    ).toEqual(['Jug lift', 'Lock-gate push', 'Keel hold', 'Anchor row', 'Lock-gate push', 'Keel hold'])
  })
})

describe('every format', () => {
  const outline = (section: Section): unknown =>
    expandSection(section, around()).map(({ kind, label, side, round, set, durationMs, reps }) => [
      kind,
      label,
      side,
      round,
      set,
      durationMs,
      reps,
    ])
  it.each(FORMAT_NAMES)('%s expands whatever is in it, with ids of its own and lengths above nothing', (format) => {
    fc.assert(
      fc.property(anySection(format), (section) => {
        expect(formatNamed(format).schema.safeParse(section).error).toBeUndefined()
        const segments = expandSection(section, around())
        expect(new Set(segments.map((one) => one.id)).size).toBe(segments.length)
        for (const one of segments) expect(Number.isInteger(one.durationMs) && one.durationMs >= 0, one.id).toBe(true)
        expect(describeSection(section, around())).toMatch(/\S/)
      }),
      { numRuns: 60 },
    )
  })
  it.each(FORMAT_NAMES)('%s says which field decides a length: changing it changes the length by as much', (format) => {
    fc.assert(
      fc.property(anySection(format), (section) => {
        for (const { origin, durationMs, id } of expandSection(section, around())) {
          if (!origin?.length) continue
          const value = origin.length.field.reduce<unknown>(
            (inside, step) => (inside as Record<string | number, unknown>)[step],
            section,
          )
          if (typeof value !== 'number') continue
          const reckoned = origin.length.baseMs + origin.length.times * value
          // Fixed slots cut what does not fit.
          if (['slot', 'minuteTime'].includes(format))
            expect(Math.max(0, reckoned), id).toBeGreaterThanOrEqual(Math.min(durationMs, reckoned))
          else expect(reckoned, id).toBe(durationMs)
        }
      }),
      { numRuns: 60 },
    )
  })
  const names = ['Jug lift', 'Lock-gate push', 'Keel hold', 'Rope pull', 'Tiller twist', 'Lantern reach']
  const plain = (count: number): fc.Arbitrary<ReturnType<typeof station>[]> =>
    fc
      .shuffledSubarray(names, { minLength: count, maxLength: count })
      .map((some) => some.map((label) => station(label)))
  const LISTED = FORMAT_NAMES.filter((name) => formatNamed(name).recognise)
  it.each(LISTED)('%s turned into a list has the same intervals, and is recognised again', (format) => {
    const groupSize = formatNamed(format).notation.groupSize?.[1] || 2
    const some = fc.record({
      six: plain(6),
      count: fc.integer({ min: 1, max: 3 }),
      rounds: fc.integer({ min: 2, max: 4 }),
      lastRest: fc.constantFrom('kept' as const, 'dropped' as const, 'replaced' as const),
    })
    fc.assert(
      fc.property(some, ({ six, count, rounds, lastRest }) => {
        const base = newSection(format, 'main', 'Main') as unknown as Record<string, unknown>
        const counts = Object.fromEntries(
          ['rounds', 'times', 'sets', 'rungs', 'passes', 'steps', 'intervals']
            .filter((name) => typeof base[name] === 'number')
            .map((name) => [name, rounds]),
        )
        const reps = ['buyIn', 'couplet', 'minuteReps', 'sets', 'finisher'].includes(format) ? 8 : null
        const stations = six.slice(0, count).map((one) => ({ ...one, reps }))
        const groups = Array.from({ length: count }, (_, at) =>
          six
            .slice(at * groupSize, (at + 1) * groupSize)
            .map((one, index) => ({ ...one, reps: format === 'buyIn' && index ? null : reps })),
        ).filter((group) => group.length === groupSize)
        const section = {
          ...base,
          ...counts,
          ...('lastRest' in base ? { lastRest } : {}),
          ...('stations' in base ? { stations } : { groups }),
        } as unknown as Section
        const list = toList(section, around())
        expect(outline(list)).toEqual(outline(section))
        const again = recognise(list, around())
        expect(again?.format).toBe(format)
        expect(outline(again as Section)).toEqual(outline(section))
      }),
      { numRuns: 40 },
    )
  })
})

describe('a score', () => {
  it('of any kind passes its schema and comes back the same', () => {
    fc.assert(
      fc.property(anyScore, (one) => {
        expect(scoreSchema.parse(JSON.parse(JSON.stringify(one)))).toEqual(one)
      }),
      { numRuns: 100 },
    )
  })
  it('shows moves up front, before blocks or in the rests', () => {
    const two = [
      make('circuit', { rounds: 1, stations: [A, B] }),
      { ...make('circuit', { rounds: 1, stations: [A, C] }), key: 'more' },
    ]
    const shown = (place: 'upFront' | 'beforeBlocks' | 'inRests'): string[] =>
      expand({ ...score(...two), demos: { place, eachMs: 10_000 } }).segments.map((one) =>
        one.kind === 'talk' ? one.label : one.note || one.kind,
      )
    expect(shown('upFront')).toEqual([
      'Shown: Jug lift',
      'Shown: Lock-gate push',
      'Shown: Keel hold',
      'work',
      'rest',
      'work',
      'rest',
      'work',
      'rest',
      'work',
    ])
    expect(shown('beforeBlocks')).toEqual([
      'Shown: Jug lift',
      'Shown: Lock-gate push',
      'work',
      'rest',
      'work',
      'rest',
      'Shown: Keel hold',
      'work',
      'rest',
      'work',
    ])
    expect(shown('inRests')).toEqual([
      'work',
      'Shown now: Lock-gate push',
      'work',
      'rest',
      'work',
      'Shown now: Keel hold',
      'work',
    ])
  })
})
