import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyScore } from '../arbitraries'
import { asPlanned } from '../cut/cut'
import { tryExpand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { formatClock } from '../time/clock'
import { chaptersOf, readChapters } from './chapters'
import { MOST_LETTERS, writeDescription } from './description'

const described = (text: string, music: string[] = []): string => {
  const { score } = readShorthand(text)
  return writeDescription({ score, shown: asPlanned(tryExpand(score).expansion?.segments ?? []), music })
}
const PLAN =
  'title Deck Hours 12\nscore: promise 10:00, series "Deck hours", next "Deck Hours 13"\ntalk Welcome: about 15\n' +
  'warm-up Warm-up: where linked, link "Harbour walk"\n' +
  'circuit Main: 3 rounds, 40 on, 20 off, 50 between, lead 5\n  Jug lift (sides alternate)\n  Keel hold\n' +
  'sets Last: 2 sets, 20 off\n  10 Deck-rail squat\ntalk Bye: about 15\n'

describe('a description', () => {
  const text = described(PLAN, ['Slow water'])
  it('says what the video is beside what was promised', () => {
    const { expansion } = tryExpand(readShorthand(PLAN).score)
    const [title, lengths] = text.split('\n')
    expect(title).toBe('Deck Hours 12')
    expect(lengths).toContain('The plan was 10:00')
    expect(lengths).toContain(`runs ${Math.floor(expansion!.totalMs / 60_000)}:`)
    expect(described(PLAN.replace('promise 10:00, ', ''))).not.toContain('The plan was')
  })
  it('has every move under its block, with reps, sides by round and the easier way', () => {
    expect(text).toContain('- Jug lift, left side in rounds 1 and 3, right side in round 2 (easier: Half-full jug)')
    expect(text.match(/- Jug lift/g)).toHaveLength(1)
    expect(text).toContain('- Deck-rail squat x 10')
    const oneSided = described('circuit Main: 2 rounds, 40 on, 20 off\n  Jug lift (sides left)\n  Keel hold\n')
    expect(oneSided).toContain('- Jug lift, left side (easier')
    expect(text).toMatch(/Main, from 0:28: 3 rounds/)
  })
  it('says of a plan what its segments are, and not what its form is', () => {
    const lines = (plan: string): string[] => described(`title X\n${plan}`).split('\n')
    const own = lines(
      'circuit Main: 3 rounds, 40 on, 20 off, 50 between\n  Jug lift (weight 6 kg); Keel hold (30 on)\n' +
        '  4 Rope pull + 5 Tiller twist (1:30 on)\n',
    )
    expect(own).toContain('Main, from 0:00: 3 rounds of 3, 0:20 off, 0:50 between')
    expect(own.join('\n')).toMatch(
      /- Jug lift, 6 kg, 0:40, left side in rounds 1 and 3, right side in round 2 \(easier/,
    )
    expect(own).toContain('- Keel hold, 0:30 (easier: On the knees)')
    expect(own).toContain('- 4 Rope pull + 5 Tiller twist, 1:30')
    expect(own.find((line) => line.startsWith('You need'))).toContain('a weight of 6 kg')
    const halves = lines('circuit Main: 2 rounds, 40 on, 10-20 off\n  Jug lift (sides halves, first right)\n')
    expect(halves).toContain('Main, from 0:00: 2 rounds, 0:40 on, 0:10 to 0:20 off')
    expect(halves.join('\n')).toContain('- Jug lift, right then left')
    const complex = lines(
      'compound Main: 2 passes, long 1:00, rest 20, short 20, after each slot 40\n' +
        '  Anchor row (sides none, from 2 Rope pull) + Shadow boxing + Keel hold + Shadow boxing\n',
    )
    expect(complex.filter((line) => line === 'Pass 1:' || line === 'Pass 2:')).toHaveLength(2)
    // A-B-A in each of two passes.
    expect(complex.filter((line) => line.startsWith('- Shadow boxing, 0:20'))).toHaveLength(4)
    expect(lines('minute-reps Each: 4 rounds\n  10 Rope pull\n')).toContain('Each, from 0:00: 4 times 1:00')
  })
  it('holds the promise against what it is a promise of', () => {
    const plan = (of: string): string =>
      described(
        `title X\nscore: promise 18:00${of}\ntalk Welcome: about 480\ncircuit Main: 18 rounds, 40 on, 20 off, last rest kept\n  Keel hold\n`,
      )
    expect(plan(', promise of workout')).toContain('The workout was planned for 18:00 and takes 18:')
    expect(plan(', promise of video')).toContain('The plan was 18:00; the video runs 26:')
  })
  it('has gear, the warm-up elsewhere, chapters, cautions, music and what comes next', () => {
    expect(text).toContain('You need: water jug')
    expect(text).toContain('Warm-up: Harbour walk')
    expect(text).toContain('Chapters\n0:00 Welcome\n')
    // Whatever else begins with a time a host would take for a chapter, and then for no list of chapters at all.
    expect(readChapters(text)).toEqual(readChapters(text.slice(text.indexOf('Chapters\n'))))
    expect(text).toContain('Before you begin\nWarm up first.')
    expect(text).toContain('Music: Slow water.')
    expect(text).toContain('Next in Deck hours: Deck Hours 13.')
    expect(described(PLAN.replace('promise', 'caution card, promise'))).not.toContain('Ask a doctor')
  })
  it('is never longer than hosts take, and loses easier ways before moves', () => {
    const moves = Array.from({ length: 120 }, (_, at) => `  Jug lift on step ${at}\n  Jug lift (${20 + at} on)`).join(
      '\n',
    )
    const long = described(`title Long\ncircuit Main: 1 round, 40 on, 20 off\n${moves}\n`)
    expect(long.length).toBeLessThanOrEqual(MOST_LETTERS)
    fc.assert(
      fc.property(anyScore, (score) => {
        const shown = asPlanned(tryExpand(score).expansion?.segments ?? [])
        expect(writeDescription({ score, shown, music: [] }).length).toBeLessThanOrEqual(MOST_LETTERS)
      }),
      { numRuns: 40 },
    )
  })
})

describe('chapters as hosts take them', () => {
  const chapters = (text: string) => chaptersOf(asPlanned(tryExpand(readShorthand(text).score).expansion!.segments))
  it('are moves where rounds are too few', () => {
    const few = chapters('circuit Main: 1 round, 40 on, 20 off\n  Jug lift; Keel hold; Oar row\n')
    expect(few.map(({ atMs, title }) => `${formatClock(atMs)} ${title}`)).toEqual([
      '0:00 Main: Jug lift, left',
      '1:00 Main: Keel hold',
      '2:00 Main: Oar row',
    ])
  })
  it('are sections where rounds are too many, and no name comes twice', () => {
    const many = chapters(
      ['One', 'Two', 'One'].map((name) => `circuit ${name}: 12 rounds, 20 on, 10 off\n  Squat\n`).join(''),
    )
    expect(many.map(({ title }) => title)).toEqual(['One', 'Two', 'One (2)'])
  })
  it('begin at 0:00, rise by ten seconds and more, and are unlike, whatever is planned', () => {
    fc.assert(
      fc.property(anyScore, (score) => {
        const found = chaptersOf(asPlanned(tryExpand(score).expansion?.segments ?? []))
        expect(found.length).toBeLessThanOrEqual(25)
        if (found.length) expect(found[0]!.atMs).toBe(0)
        found.slice(1).forEach(({ atMs }, at) => expect(atMs - found[at]!.atMs).toBeGreaterThanOrEqual(10_000))
        expect(new Set(found.map(({ title }) => title)).size).toBe(found.length)
      }),
      { numRuns: 60 },
    )
  })
})
