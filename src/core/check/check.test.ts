import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyScore } from '../arbitraries'
import { scoreSchema, type Score } from '../score/score'
import { readShorthand } from '../shorthand/read'
import { judge, mendOf, told } from './check'
import { findingSentence, type Sentence } from '../words/en/findings'
import type { Finding } from './finding'

const plan = (shorthand: string): Score => readShorthand(shorthand).score
const findings = (from: Score | string): Finding[] => judge(typeof from === 'string' ? plan(from) : from).findings
/** Findings of a check, with their sentences. */
const of = (check: string, from: Score | string): (Finding & Sentence)[] =>
  findings(from)
    .filter((one) => one.check === check)
    .map((one) => ({ ...one, ...findingSentence(one.fact) }))
const mended = (from: string, check: string): Score => {
  const one = plan(from)
  const found = of(check, one)[0]
  if (!found?.mend) throw new Error(`no mend for ${check}`)
  found.mend.apply(one)
  expect(scoreSchema.safeParse(one).error).toBeUndefined()
  return one
}

describe('a rest', () => {
  // Heel digs end standing without gear; the keel hold is on the floor. From the floor with no jug to the jug,
  // standing.
  const TIGHT = 'circuit Main: 2 rounds, 30 on, 8 off\n  Keel hold; Jug lift (sides none)\n'
  it('that is too short says what must happen in it, in seconds, and is mended to what it needs', () => {
    // Stand up 4, swap the jug 4, hear "Jug lift" 2 words / 2.5 = 0.8, count in 3: 11.8 s; there are 8.
    const [found] = of('rest', TIGHT)
    expect(found?.what).toBe(
      'From Keel hold to Jug lift needs about 11.8 s: stand up 4, take water jug 4, hear next move 0.8, count in 3; has 8 s, 2 times.',
    )
    expect(found?.segmentId).toBe('main/r1/s1/rest')
    expect(mended(TIGHT, 'rest').sections[0]).toMatchObject({ restMs: 12_000 })
  })
  it("is judged by the creator's own numbers", () => {
    expect(of('rest', `needs: floor to stand 9\n${TIGHT}`)[0]?.what).toContain('stand up 9')
    expect(of('rest', `needs: floor to stand 0, gear change 0, stand to floor 0, count in 0\n${TIGHT}`)).toEqual([])
  })
  it('keeps a percent sign in a name where it is', () => {
    expect(of('rest', TIGHT.replace('Keel hold', '"50% hold" (posture face up)'))[0]?.what).toMatch(
      /^From 50% hold to Jug lift needs .*, 2 times\.$/,
    )
  })
  it('is long enough between two of the same move', () =>
    expect(of('rest', 'burst Main:\n  Deck-rail squat\n')).toEqual([]))
  it('of a ladder is judged on its first and shortest rung', () => {
    expect(
      of('rest', 'ladder Main: 4 rungs, 5 from, 10 step\n  Keel hold + Jug lift (sides none)\n')[0]?.segmentId,
    ).toBe('main/r1/s1/rest')
  })
  it('is missed where the body has to change places without one', () => {
    expect(of('rest', 'straight Main: 30 on\n  Deck-rail squat; Keel hold\n')[0]?.what).toMatch(
      /get to the floor 3; has 0 s/,
    )
  })
})

describe('the whole', () => {
  it('breaks its promise by more than 5 % or a minute', () => {
    // 3 x 3 x (40 + 20) = 9 min.
    const nine = (promise: string): string =>
      `score: promise ${promise}\ncircuit Main: 3 rounds, 40 on, 20 off, last rest kept\n  Squat; Lunge; Crunch\n`
    expect(of('promise', nine('8:00'))).toEqual([])
    expect(of('promise', nine('7:00'))[0]?.what).toBe('Promised 7:00, the sum is 9:00: 2:00 over.')
    expect(mended(nine('7:00'), 'promise').promiseMs).toBe(540_000)
  })
  it('is not what its title says, in the reading chosen', () => {
    const titled = (reading: string, lengths: string): string =>
      `title Boat Tabata\n${reading}burst Main: ${lengths}\n  Squat\n`
    expect(of('title', titled('', '8 intervals, 20 on, 10 off'))).toEqual([])
    expect(of('title', titled('', '8 intervals, 40 on, 20 off'))).toHaveLength(1)
    expect(of('title', titled('score: tabata double\n', '8 intervals, 40 on, 20 off'))).toEqual([])
    expect(of('title', 'title EMOM on deck\nminute-time Main: 4 rounds\n  Squat\n')).toHaveLength(1)
  })
  it.each([
    [
      'title Rope ladder\n',
      'circuit Main: 3 rounds, 40 on\n  Squat\n',
      /says "ladder", and nothing here is work that changes by a step/,
    ],
    [
      'title Roof pyramid\n',
      'ladder Main: 3 rungs, from 20, step 10\n  Squat\n',
      /says "pyramid", and nothing here is a climb with its descent/,
    ],
    ['title Deck day with a finisher\n', 'circuit Main: 3 rounds, 40 on\n  Squat\n', /nothing here is a finisher/],
    [
      'title Deck day with warm-up\n',
      'warm-up: where linked\ncircuit Main: 3 rounds, 40 on\n  Squat\n',
      /nothing here is a warm-up in this video/,
    ],
  ])('does not have what its title names: %j', (title, plan, what) =>
    expect(of('title', title + plan)[0]?.what).toMatch(what),
  )
  it.each([
    ['title Rope ladder\nslot Main: 3 rungs, from 20, step 10\n  Squat\n'],
    ['title Up and down pyramid\nslot Main: 3 rungs, from 20, step 10, shape up and down\n  Squat\n'],
    ['title Deck day, no warm-up\ncircuit Main: 3 rounds, 40 on\n  Squat\n'],
    ['title Ladders of the lock\n'],
  ])('has what its title names, or names nothing: %j', (plan) => expect(of('title', plan)).toEqual([]))
  it('runs longer than the minutes in its title, which can be set right', () => {
    // 3 x (40 + 20) s x 4 = 12 min.
    const twelve = (title: string): string =>
      `title ${title}\ncircuit Main: 4 rounds, 40 on, 20 off, last rest kept\n  Squat; Lunge; Crunch\n`
    expect(of('title', twelve('10-minute deck'))[0]?.what).toBe('The title says 10 minutes, the sum is 12:00.')
    expect(mended(twelve('10-minute deck'), 'title').title).toBe('12-minute deck')
    expect(mended(twelve('Deck in 20 min'), 'title').title).toBe('Deck in 12 min')
    for (const kept of ['12 minutes of deck', 'Deck in 13 min', 'Deck 10', '0 min deck'])
      expect(of('title', twelve(kept))).toEqual([])
    // The promise says it already.
    expect(
      of('title', `score: promise 10:00\n${twelve('10 min deck')}`.replace(/^(score.*\n)(title.*\n)/, '$2$1')),
    ).toEqual([])
  })
  it('has hard work without a warm-up before it, and no cool-down', () => {
    const hard = 'circuit Main: 1 round, 40 on\n  Jump squat\n'
    expect(of('warm-up', hard)[0]?.what).toMatch(/jumping/)
    expect(mended(hard, 'warm-up').sections.map((one) => one.format)).toEqual(['warmUp', 'circuit'])
    expect(of('warm-up', `warm-up: where linked\n${hard}`)).toEqual([])
    expect(of('warm-up', `${hard}warm-up: where linked\n`)).toHaveLength(1)
    expect(of('warm-up', 'circuit Main: 1 round, 40 on\n  Arm circles\n')).toEqual([])
    expect(mended(hard, 'cool-down').sections.map((one) => one.format)).toEqual(['circuit', 'coolDown'])
  })
  it('keeps the cautions from everybody', () => {
    expect(mended('score: caution none\ncircuit Main: 1 round, 40 on\n  Squat\n', 'caution').caution).toBe('both')
  })
})

describe('cards', () => {
  const main = 'circuit Main: 1 round, 40 on\n  Squat\n'
  it('of cautions need an opening talk, where they stand nowhere else', () => {
    expect(of('cards', `score: caution card\n${main}`)[0]?.what).toMatch(/no opening talk/)
    expect(of('cards', main)).toEqual([])
    expect(of('cards', `score: caution card\ntalk Hello: about 12\n${main}`)).toEqual([])
    expect(of('cards', mended(`score: caution card\n${main}`, 'cards'))).toEqual([])
    expect(mended(`score: caution card\ntalk Hello\n${main}`, 'cards').sections).toHaveLength(2)
  })
  it('of the end need a closing one', () => {
    const next = `score: next "Deck hours 13"\n${main}`
    expect(of('cards', next)[0]?.what).toMatch(/no closing talk/)
    expect(mended(next, 'cards').sections.map((one) => one.format)).toEqual(['circuit', 'talk'])
    expect(of('cards', mended(next, 'cards'))).toEqual([])
    expect(of('cards', `${next}talk Bye: about 3\n`)).toHaveLength(1)
  })
})

describe('sides', () => {
  const odd = 'circuit Main: 3 rounds, 40 on, 20 off\n  Jug lift\n'
  it('are uneven after an odd number of rounds, by how much', () => {
    expect(of('sides', odd)[0]?.what).toBe('Jug lift: left 1:20, right 0:40; 0:40 more on the left.')
    expect(of('sides', mended(odd, 'sides'))).toEqual([])
    expect(of('sides', odd.replace('3', '4'))).toEqual([])
  })
  it('of a free list are mended too: each turn is shared by both', () => {
    const list =
      'list Main:\n  Jug lift (40 work, side left); Jug lift (40 work, side right); Jug lift (40 work, side left)\n'
    expect(of('sides', list)).toHaveLength(1)
    expect(of('sides', mended(list, 'sides'))).toEqual([])
  })
  it('may be evened out by another section', () => {
    expect(
      of(
        'sides',
        'circuit A: 1 round, 40 on\n  Jug lift (sides left)\ncircuit B: 1 round, 40 on\n  Jug lift (sides right)\n',
      ),
    ).toEqual([])
  })
})

describe('moves', () => {
  it('that follow one another tire the same muscles', () => {
    expect(of('muscles', 'circuit Main: 3 rounds, 40 on, 20 off\n  Rope pull; Anchor row\n')[0]?.what).toMatch(
      /both load back, arms and grip, 5 times/,
    )
    expect(of('muscles', 'circuit Main: 3 rounds, 40 on, 1:00 off\n  Rope pull; Anchor row\n')).toEqual([])
  })
  it('keep one posture for long, or change it every time', () => {
    expect(of('posture', 'circuit Main: 6 rounds, 50 on, 10 off\n  Keel hold\n')[0]?.what).toMatch(
      /without leaving one posture/,
    )
    expect(
      of('posture', 'circuit Main: 4 rounds, 30 on, 10 off\n  Squat; Keel hold\n').some((one) =>
        /every one of its 7 rests/.test(one.what),
      ),
    ).toBe(true)
  })
  it('lack an easier version, gear, or anybody who knows them', () => {
    expect(of('move', 'move "Roof jump": impact high\ncircuit Main: 1 round, 40 on\n  Roof jump\n')[0]?.what).toMatch(
      /no easier version/,
    )
    expect(
      of('move', 'move "Weight carry": effort 3\ncircuit Main: 1 round, 40 on\n  Weight carry\n')[0]?.what,
    ).toMatch(/no gear/)
    expect(of('move', 'circuit Main: 1 round, 40 on\n  Barge waltz\n')[0]?.what).toMatch(
      /"Barge waltz" is not known at all/,
    )
  })
  it('have no name yet: once a section, blank or empty', () => {
    const score = plan('circuit Main: 1 round, 40 on\n  Squat; Lunge\ncircuit End: 1 round, 40 on\n  Squat\n')
    const [main, end] = score.sections
    if (main?.format !== 'circuit' || end?.format !== 'circuit') throw new Error('two circuits')
    Object.assign(main.stations[0] ?? {}, { label: '' })
    Object.assign(main.stations[1] ?? {}, { label: ' ' })
    Object.assign(end.stations[0] ?? {}, { label: '' })
    expect(of('move', score).map((one) => one.id)).toEqual(['move: main unnamed', 'move: end unnamed'])
  })
})

describe('counters and targets', () => {
  it('reps that earn more or less rest than wanted', () => {
    const text = 'minute-reps Main: 4 rounds, 15 wanted rest\n  12 Squat\n'
    expect(of('earned rest', text)[0]?.what).toBe('12 Squat leave about 24 s of rest; 15 s is wanted.')
    expect(mended(text, 'earned rest').sections[0]).toMatchObject({ stations: [{ reps: 15 }] })
    expect(of('earned rest', 'minute-reps Main: 4 rounds\n  25 Squat\n')[0]).toMatchObject({ severity: 'warning' })
    // How long a move takes that nobody knows is a guess, and a guess stands in nobody's way.
    expect(of('earned rest', 'minute-reps Main: 4 rounds\n  40 Blorp\n')[0]).toMatchObject({ severity: 'note' })
  })
  it('moves that share a minute are judged together, and not each by itself', () => {
    expect(of('earned rest', 'minute-reps Main: 4 rounds\n  6 Squat + 6 Press-up\n')).toEqual([])
    expect(of('earned rest', 'minute-reps Main: 4 rounds\n  12 Squat + 20 Press-up\n')[0]).toMatchObject({
      severity: 'warning',
      what: expect.stringMatching(/^12 Squat \+ 20 Press-up take about \d+ s together; the slot is 60 s\.$/) as string,
    })
  })
  it('a finisher with a clock, a slot that overflows, a section without moves, an interval too short to count', () => {
    expect(mended('finisher End: 3 rounds\n  10 Squat (30 on)\n', 'counter').sections[0]).toMatchObject({
      stations: [{ workMs: null }],
    })
    expect(mended('slot Main: 5 rungs, 30 from, 10 step\n  Squat\n', 'slot').sections[0]).toMatchObject({
      stepMs: 7000,
    })
    expect(mended('circuit Main: 3 rounds, 40 on\n', 'empty').sections).toEqual([])
    expect(mended('circuit Main: 3 rounds, 3 on, 20 off\n  Squat\n', 'cue').sections[0]).toMatchObject({ workMs: 4000 })
    expect(of('rung', 'pyramid Main: 5 climb, 5 reps\n  Squat\n')).toHaveLength(1)
    expect(of('couplet', 'couplet Main: 20 on\n  10 Squat + 10 Lunge\n')).toHaveLength(1)
  })
  it('lines that were not understood', () =>
    expect(of('not understood', 'circut Main: 3 rounds\n')[0]?.what).toContain('circut Main'))
})

describe('judging', () => {
  it('sets aside what was dismissed, with the reason, until it is something else', () => {
    const one = plan('circuit Main: 3 rounds, 40 on, 20 off\n  Jug lift\n')
    const id = of('sides', one)[0]?.id ?? ''
    const after = judge({ ...one, dismissed: [{ finding: id, reason: 'next week is the other side' }] })
    expect(after.findings.some((found) => found.check === 'sides')).toBe(false)
    expect(after.dismissed.map((found) => found.reason)).toEqual(['next week is the other side'])
  })
  it('says so when a score is beyond the limits', () => {
    expect(findings('circuit Main: 500 rounds, 10:00 on\n  Squat\n')).toMatchObject([
      { check: 'limits', severity: 'error' },
    ])
  })
  it('never breaks, whatever the score; every mend leaves a score that holds, and ids are unlike', () => {
    fc.assert(
      fc.property(anyScore, (one) => {
        const { findings: all, dismissed } = judge(one)
        const ids = [...all, ...dismissed.map((each) => each.finding)].map((each) => each.id)
        expect(new Set(ids).size).toBe(ids.length)
        for (const { mend } of all) {
          if (!mend) continue
          const copy = structuredClone(one)
          mend.apply(copy)
          expect(scoreSchema.safeParse(copy).error).toBeUndefined()
          expect(copy).not.toEqual(one)
        }
      }),
      { numRuns: 100 },
    )
  })
})

describe('a judgement told to another thread', () => {
  const BOTH = 'circuit Main: 2 rounds, 30 on, 8 off\n  Keel hold; Jug lift (sides none)\n'
  it('is plain data with what every mend is, and the mend is found again by its finding', () => {
    const score = plan(BOTH)
    const sent = structuredClone(told(judge(score)))
    expect(sent.findings.map((one) => one.id)).toEqual(findings(score).map((one) => one.id))
    const rest = sent.findings.find((one) => one.check === 'rest')
    expect(rest?.mend).toEqual(of('rest', score)[0]?.mend?.fact)
    mendOf(score, rest?.id ?? '')?.apply(score)
    expect(score.sections[0]).toMatchObject({ restMs: 12_000 })
    expect(mendOf(score, rest?.id ?? '')).toBeNull()
  })
})
