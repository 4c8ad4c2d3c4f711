// What cuts across the formats: the last rest, active rests, estimates, counters, sides and swaps.
import { describe, expect, it } from 'vitest'
import { around, station } from '../../testing'
import type { Segment } from '../segment'
import { restStays, type Follows } from './lastRest'
import { LAST_RESTS, type LastRest } from './fields'
import {
  describeSection,
  expandSection,
  FORMAT_NAMES,
  formatNamed,
  newSection,
  type FormatName,
  type Section,
} from './index'
import { newStation, newSwap, type Station } from './station'

const COUNTS = ['rounds', 'times', 'sets', 'rungs', 'passes', 'steps', 'intervals']
const squat = station('Squat', { reps: 10 }),
  lunge = station('Lunge', { sideRule: 'none', reps: 10 })
/** One station to a group where a format lets one stand alone, so that there are two groups of each kind. */
const ALONE: readonly FormatName[] = ['burst', 'ladder', 'pyramid']

/** Twice through two stations, or two groups, of any format. */
function twice(
  format: FormatName,
  change: object = {},
  [one, other]: readonly [Station, Station] = [squat, lunge],
): Section {
  const base = newSection(format, 'main', 'Main') as unknown as Record<string, unknown>
  const counts = Object.fromEntries(COUNTS.filter((name) => typeof base[name] === 'number').map((name) => [name, 2]))
  const moves =
    'stations' in base
      ? { stations: [one, other] }
      : 'groups' in base
        ? {
            groups: ALONE.includes(format)
              ? [[one], [other]]
              : [
                  [one, other],
                  [other, one],
                ],
          }
        : {}
  return { ...base, ...counts, ...moves, leadInMs: 0, ...change } as unknown as Section
}
const laid = (section: Section, follows: Follows = 'section'): Segment[] => expandSection(section, around({ follows }))
const kinds = (segments: readonly Segment[]): string => segments.map((one) => one.kind[0]).join('')

const SLOTS: readonly FormatName[] = ['slot', 'minuteReps', 'minuteTime']
const RESTING = FORMAT_NAMES.filter((name) => 'lastRest' in newSection(name, 'x', 'x'))

describe('the last rest', () => {
  it.each<[LastRest, boolean, boolean, Follows, boolean]>([
    // rule, last pass, break between passes, what follows, stays
    ['kept', true, false, 'break', true],
    ['kept', true, false, 'nothing', true],
    ['kept', false, true, 'section', true],
    ['replaced', true, false, 'section', true],
    ['replaced', true, false, 'break', false],
    ['replaced', true, false, 'nothing', false],
    ['replaced', false, true, 'section', false],
    ['replaced', false, false, 'break', true],
    ['replaced', false, false, 'nothing', true],
    ['dropped', true, false, 'section', false],
    ['dropped', true, false, 'break', false],
    ['dropped', false, true, 'section', false],
    ['dropped', false, false, 'section', true],
  ])('%s: last %s, break between %s, followed by %s: stays %s', (rule, last, breakBetween, follows, stays) =>
    expect(restStays(rule, { last, breakBetween, follows })).toBe(stays),
  )

  it('is a choice of every format with rests', () => expect(RESTING).toHaveLength(15))
  it.each(RESTING)('of %s: kept ends with it, dropped never, replaced unless a break or nothing follows', (format) => {
    const end = (rule: LastRest, follows: Follows): string =>
      kinds(laid(twice(format, { lastRest: rule }), follows)).slice(-2)
    for (const follows of ['section', 'break', 'nothing'] as const) {
      expect(end('kept', follows)).toBe('wr')
      expect(end('dropped', follows)).toMatch(/w$/)
    }
    expect(end('replaced', 'section')).toBe('wr')
    expect(end('replaced', 'break')).toMatch(/w$/)
    // What is left of a slot is part of it: the last is as long as any.
    expect(end('replaced', 'nothing')).toMatch(SLOTS.includes(format) ? /wr$/ : /w$/)
  })
  it.each(RESTING)('of %s changes rests alone: the works stay what they are', (format) => {
    const works = LAST_RESTS.map((rule) =>
      laid(twice(format, { lastRest: rule }))
        .filter((one) => one.kind === 'work')
        .map(({ id, durationMs, side, round }) => [id, durationMs, side, round]),
    )
    expect(works[1]).toEqual(works[0])
    expect(works[2]).toEqual(works[0])
  })
  it.each(RESTING.filter((name) => kinds(laid(twice(name))).includes('b')))(
    'of %s gives way to its own break, unless it is kept',
    (format) => {
      expect(kinds(laid(twice(format, { lastRest: 'kept' })))).toMatch(/rb/)
      for (const rule of ['replaced', 'dropped'] as const)
        expect(kinds(laid(twice(format, { lastRest: rule })))).not.toMatch(/rb/)
    },
  )
})

describe('an active rest', () => {
  it.each(RESTING)('of %s is called by its name in every rest, and in nothing else', (format) => {
    const segments = laid(twice(format, { restLabel: 'Walk the towpath', lastRest: 'kept' }))
    for (const { kind, label } of segments) expect(label === 'Walk the towpath', kind).toBe(kind === 'rest')
    expect(kinds(segments)).toContain('r')
  })
})

describe('what is estimated', () => {
  const marks = (format: FormatName, stations?: readonly [Station, Station]): string =>
    laid(twice(format, {}, stations))
      .map((one) => one.kind[0] + (one.estimated ? '~' : ''))
      .join(' ')
  it.each<[FormatName, string]>([
    ['sets', 'w~ r w~ b w~ r w~ r'],
    ['finisher', 'w~ w~ w~ w~'],
    ['minuteReps', 'w~ r~ w~ r~ w~ r~ w~ r~'],
    ['pyramid', 'w r w~ r w r w~ r'],
    ['warmUp', 'w~ w~ w~ w~'],
    ['talk', 't~'],
  ])('%s: what is counted, and what a count leaves', (format, wanted) => expect(marks(format)).toBe(wanted))
  it.each(
    FORMAT_NAMES.filter((name) => !['sets', 'finisher', 'minuteReps', 'pyramid', 'talk', 'burst'].includes(name)),
  )('%s on the clock is exact', (format) =>
    expect(marks(format, [station('Squat'), station('Lunge', { sideRule: 'none' })])).not.toContain('~'),
  )
  it('a guess is as long as its reps take, twice where both sides are done', () => {
    // Squats take 3 s each; 8 on each side in one turn are 16.
    const one = (sideRule: Station['sideRule']): number[] =>
      laid({
        ...twice('finisher'),
        rounds: 1,
        stations: [station('Jug lift', { reps: 8, sideRule })],
      } as unknown as Section).map((segment) => segment.durationMs)
    expect(one('none')).toEqual([24_000])
    expect(one('halves')).toEqual([48_000])
    expect(one('each')).toEqual([24_000, 24_000])
  })
})

describe('counters', () => {
  const counters = (format: FormatName): string =>
    laid(twice(format))
      .filter((one) => one.kind === 'work')
      .map(({ set, sets, round, rounds, station: at, stations }) =>
        [
          [set, sets],
          [round, rounds],
          [at, stations],
        ]
          .map(([now, of]) => (now === null ? '-' : `${now}/${of}`))
          .join(' '),
      )
      .join(', ')
  it.each<[FormatName, string]>([
    ['circuit', '- 1/2 1/2, - 1/2 2/2, - 2/2 1/2, - 2/2 2/2'],
    ['byStation', '1/2 - 1/2, 2/2 - 1/2, 1/2 - 2/2, 2/2 - 2/2'],
    ['sets', '1/2 - 1/2, 2/2 - 1/2, 1/2 - 2/2, 2/2 - 2/2'],
    ['burst', '1/2 1/2 -, 1/2 2/2 -, 2/2 1/2 -, 2/2 2/2 -'],
    ['ladder', '1/2 1/2 1/1, 1/2 2/2 1/1, 2/2 1/2 1/1, 2/2 2/2 1/1'],
    ['pyramid', '1/2 1/2 -, 1/2 2/2 -, 2/2 1/2 -, 2/2 2/2 -'],
    ['straight', '- 1/2 1/2, - 1/2 2/2, - 2/2 1/2, - 2/2 2/2'],
    ['couplet', '- 1/2 1/2, - 1/2 2/2, - 2/2 1/2, - 2/2 2/2'],
    ['warmUp', '- 1/2 1/2, - 1/2 2/2, - 2/2 1/2, - 2/2 2/2'],
  ])('of %s', (format, wanted) => expect(counters(format)).toBe(wanted))
  it.each(FORMAT_NAMES)('of %s never go beyond what they count to, and the words are there to say them', (format) => {
    for (const { set, sets, round, rounds, station: at, stations, words } of laid(twice(format))) {
      for (const [now, of] of [
        [set, sets],
        [round, rounds],
        [at, stations],
      ] as const) {
        expect(now === null).toBe(of === null)
        if (now !== null && of !== null) expect(now >= 1 && now <= of).toBe(true)
      }
      for (const pair of Object.values(words)) expect(pair.one && pair.many).toBeTruthy()
    }
  })
})

describe('sides', () => {
  const SIDED = FORMAT_NAMES.filter((name) => formatNamed(name).notation.moves === 'flat' && !['list'].includes(name))
  const sided = (rule: Station['sideRule']): [Station, Station] => [
    newStation('Jug lift', { sideRule: rule, reps: 8 }),
    newStation('Keel hold', { sideRule: 'none', reps: 8 }),
  ]
  const of = (format: FormatName, rule: Station['sideRule']): (string | null)[] =>
    laid(twice(format, {}, sided(rule)))
      .filter((one) => one.label === 'Jug lift')
      .map((one) => one.side)
  it.each(SIDED)('of %s: each side in turn has as much left as right, and a fixed side nothing else', (format) => {
    const each = of(format, 'each')
    expect(each.length).toBeGreaterThan(1)
    expect(each.filter((side) => side === 'left')).toHaveLength(each.length / 2)
    expect(each.filter((side) => side === 'right')).toHaveLength(each.length / 2)
    for (const side of ['left', 'right', 'both'] as const) expect(new Set(of(format, side))).toEqual(new Set([side]))
    expect(new Set(of(format, 'halves'))).toEqual(new Set(['switch']))
    expect(new Set(of(format, 'none'))).toEqual(new Set([null]))
  })
  it.each(SIDED)('of %s leave what has no sides alone', (format) => {
    for (const one of laid(twice(format, {}, sided('alternate'))))
      if (one.label === 'Keel hold') expect(one.side).toBeNull()
  })
})

describe('swaps', () => {
  const SWAPPING = FORMAT_NAMES.filter(
    (name) => formatNamed(name).notation.perMove?.includes('swaps') && formatNamed(name).notation.moves === 'flat',
  )
  const stations: [Station, Station] = [
    newStation('Jug lift', { sideRule: null, swaps: [newSwap(2, 'Keel hold')] }),
    newStation('Squat'),
  ]
  it.each(SWAPPING)('of %s put the other move there from its pass on, with its own posture and sides', (format) => {
    const works = laid(twice(format, {}, stations)).filter((one) => one.kind === 'work' && one.label !== 'Squat')
    expect([...new Set(works.map((one) => one.label))]).toEqual(['Jug lift', 'Keel hold'])
    for (const { label, posture, side, moves } of works) {
      expect(posture).toBe(label === 'Keel hold' ? 'faceDown' : 'standing')
      expect(side === null).toBe(label === 'Keel hold')
      expect(moves).toEqual([label])
    }
  })
  it('of the latest pass that has come hold, in whatever order they were written', () => {
    const late = newStation('Squat', { swaps: [newSwap(3, 'Plank'), newSwap(2, 'Lunge')] })
    const section = { ...newSection('circuit', 'main', 'Main'), rounds: 4, stations: [late] }
    expect(
      laid(section)
        .filter((one) => one.kind === 'work')
        .map((one) => one.label),
    ).toEqual(['Squat', 'Lunge', 'Plank', 'Plank'])
  })
})

describe('a section in words', () => {
  it.each<[FormatName, string]>(
    FORMAT_NAMES.filter((name) => name !== 'list' && name !== 'talk' && name !== 'again').map((name) => [
      name,
      describeSection(twice(name), around()),
    ]),
  )('%s: %s', (format, said) => {
    // A number that decides the section is said: the first length or count that it has.
    expect(said).toMatch(/\d/)
    expect(said).not.toMatch(/undefined|NaN|null|\.$/)
    expect(
      describeSection(
        twice(format, {
          workMs: 77_000,
          longMs: 77_000,
          startMs: 77_000,
          climbMs: 77_000,
          durationMs: 77_000,
          passes: format === 'straight' ? [77_000] : 2,
          rounds: format === 'table' ? [{ workMs: 77_000, restMs: 0 }] : 2,
          sets: 7,
          restMs: 33_000,
        }),
        around(),
      ),
    ).toMatch(/1:17|7 sets|2 rounds/)
  })
})
