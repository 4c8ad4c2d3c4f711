// What viewers read, kind by kind: docs/viewers.md names these tests.
import { describe, expect, it } from 'vitest'
import { asPlanned, type ShownSegment } from '../cut/cut'
import { expand } from '../expand/expand'
import { moveSchema } from '../score/move'
import { readShorthand } from '../shorthand/read'
import { overlayAt, overlayChanges, type OverlayState } from './overlay'

const plan = (text: string) => {
  const { score } = readShorthand(text)
  return { score, lane: asPlanned(expand(score).segments) }
}
const CIRCUIT = 'circuit Main: 2 rounds, 40 on, 20 off, 50 between, lead 5\n'
const at = (text: string, seconds: number, change: (lane: ShownSegment[]) => ShownSegment[] = (lane) => lane) => {
  const { score, lane } = plan(text)
  return overlayAt(overlayChanges(change(lane), score), seconds * 1000)
}
const textsOf = (state: OverlayState | null): string[] => state?.lines.map(({ text }) => text) ?? []

describe('during work viewers read', () => {
  const main = `${CIRCUIT}  Jug lift (sides alternate)\n  Keel hold\n`
  it('move, side and count', () => {
    expect(at(main, 6)).toMatchObject({ ground: 'work', label: 'Jug lift', side: 'left', count: 39, way: 'down' })
  })
  it('the number of reps, and what counts as one', () => {
    const state = at('sets Main: 3 sets, 20 off\n  10 Jug lift (rep is "each side counts one")\n', 1)
    expect(state).toMatchObject({ label: 'Jug lift', reps: 10, count: null })
    expect(textsOf(state)).toContain('each side counts one')
  })
  it('weight and gear, of moves that are known', () => {
    expect(textsOf(at(`${CIRCUIT}  Jug lift (weight 6 kg)\n  Keel hold\n`, 20))).toContain('6 kg, water jug')
    expect(textsOf(at(`${CIRCUIT}  Unheard whirl\n`, 20))).toEqual([])
  })
  it('the easier way, for its first seconds', () => {
    expect(textsOf(at(main, 6))).toContain('Easier: Half-full jug')
    expect(textsOf(at(main, 20))).not.toContain('Easier: Half-full jug')
  })
  it('on which leg to stand, where the move is known to be done on one', () => {
    const stands = (move: string, seconds: number) =>
      at(`${CIRCUIT}  ${move}\n`, seconds)?.lines.find(({ kind }) => kind === 'stands')?.text
    expect(stands('One-leg deadlift (sides left)', 6)).toBe('Stand on the left leg')
    expect(stands('Standing leg lift (sides left)', 6)).toBe('Stand on the right leg')
    expect([6, 20, 26].map((seconds) => stands('Leg swing (sides halves)', seconds))).toEqual([
      'Stand on the right leg',
      undefined,
      'Stand on the left leg',
    ])
    expect(stands('Rope pull (sides left)', 6)).toBeUndefined()
    expect(stands('Standing leg lift + Rope pull (sides left)', 6)).toBeUndefined()
    expect(stands('Standing leg lift (sides by rep)', 6)).toBeUndefined()
    const own = 'move "Heron": standing leg other\n'
    expect(at(`${own}${CIRCUIT}  Heron (sides right)\n`, 6)?.lines).toContainEqual({
      kind: 'stands',
      text: 'Stand on the left leg',
    })
  })
  it('halfway, the other side, and the other way, in the middle', () => {
    expect(at(main, 25.5)?.lines[0]).toEqual({ kind: 'halfway', text: 'Halfway' })
    expect(at(main, 29)?.lines[0]?.kind).not.toBe('halfway')
    expect(at(`${CIRCUIT}  Jug lift (sides halves)\n`, 26)).toMatchObject({ side: 'right' })
    expect(textsOf(at(`${CIRCUIT}  Jug lift (sides halves)\n`, 26))).toContain('Other side')
    expect(textsOf(at(`${CIRCUIT}  Arm circles (sides direction)\n`, 26))).toContain('Other way')
  })
  it('the last round, and the last one of all, as they begin', () => {
    const last = (seconds: number) => at(main, seconds)?.lines.find(({ kind }) => kind === 'last')?.text
    // Two stations of 60 s, and the last rest is the break.
    expect([6, 156, 216, 230].map(last)).toEqual([undefined, 'Last round', 'Last one', undefined])
  })
  it('what comes next and how long it is', () => {
    expect(at(main, 6)).toMatchObject({ next: 'Rest', nextMs: 20_000, nextDiffers: true })
    expect(at(main, 70)).toMatchObject({ next: 'Break', nextMs: 50_000, nextDiffers: true })
    expect(at('straight Main: 40 on\n  Jug lift\n  Keel hold\n', 1)).toMatchObject({
      next: 'Keel hold',
      nextMs: 40_000,
    })
  })
})

describe('counters', () => {
  const counters = (text: string, seconds: number) => {
    const state = at(text, seconds)
    return [state?.counters, state?.marks]
  }
  it('are the two widest in words, and the narrowest as marks', () => {
    const two = `${CIRCUIT}  Jug lift\n  Keel hold\n  Oar row\ncircuit More: 2 rounds, 30 on, 10 off\n  Squat\n`
    expect(counters(two, 70)).toEqual([['Block 1 of 2', 'Round 1 of 2'], { done: 1, of: 3 }])
    expect(counters(`${CIRCUIT}  Jug lift\n  Keel hold\n`, 70)).toEqual([['Round 1 of 2', 'Station 2 of 2'], null])
  })
  it('stand in the order in which they nest', () => {
    expect(counters('stations Main: 3 sets, 30 on, 10 off\n  Jug lift\n  Keel hold\n', 45)).toEqual([
      ['Station 1 of 2', 'Set 2 of 3'],
      null,
    ])
  })
  it('in a rest leave the station to what is next', () => {
    expect(counters(`${CIRCUIT}  Jug lift\n  Keel hold\n`, 50)).toEqual([['Round 1 of 2'], null])
  })
})

describe('in a rest or a break viewers read', () => {
  const main = `${CIRCUIT}  Jug lift (sides alternate)\n  Keel hold\n`
  it('what is next with its side and gear, and its length where that is another than before', () => {
    expect(at(main, 50)).toMatchObject({ ground: 'rest', label: 'Rest', next: 'Keel hold', nextDiffers: false })
    const back = at(main, 110)
    expect(back).toMatchObject({ label: 'Break', next: 'Jug lift, right', nextMs: 40_000, nextDiffers: false })
    expect(textsOf(back)).toEqual(['Have ready: Water jug', 'Have some water'])
    expect(at(main, 1)).toMatchObject({ ground: 'ready', next: 'Jug lift, left', nextMs: 40_000, nextDiffers: true })
    const ladder = 'ladder Main: 3 rungs, from 20, step 10\n  Squat\n'
    expect(at(ladder, 25)).toMatchObject({ next: 'Squat', nextMs: 30_000, nextDiffers: true })
  })
  it('the name of an active rest', () => {
    const { score, lane } = plan(main)
    const named = lane.map((laid) =>
      laid.segment.kind === 'rest' ? { ...laid, segment: { ...laid.segment, label: 'Walk the deck' } } : laid,
    )
    expect(overlayAt(overlayChanges(named, score), 50_000)?.label).toBe('Walk the deck')
  })
  it('that it lasts until they are ready, where it is open, and a count where footage tells its end', () => {
    const open = (lane: ShownSegment[]): ShownSegment[] =>
      lane.map((laid) =>
        laid.segment.kind === 'break' ? { ...laid, segment: { ...laid.segment, pace: 'open', estimated: true } } : laid,
      )
    const longer = (lane: ShownSegment[]): ShownSegment[] => {
      const place = lane.findIndex(({ segment }) => segment.kind === 'break')
      return open(lane).map((laid, index) => ({
        ...laid,
        startMs: laid.startMs + (index > place ? 8000 : 0),
        endMs: laid.endMs + (index >= place ? 8000 : 0),
      }))
    }
    expect(at(main, 110, open)).toMatchObject({ count: null, staff: null, passed: null })
    expect(textsOf(at(main, 110, open))[0]).toBe('Until you are ready')
    expect(at(main, 110, longer)).toMatchObject({ count: 53 })
    expect(textsOf(at(main, 110, longer))).not.toContain('Until you are ready')
  })
})

describe('in a demonstration viewers read', () => {
  const shown = `score: demos up front, each demo 10\n${CIRCUIT}  Jug lift\n  Keel hold\n`
  it('what is shown, its easier and its harder way, and no count', () => {
    const state = at(shown, 2)
    expect(state).toMatchObject({ ground: 'talk', label: 'Shown: Jug lift', count: null, staff: null, next: '' })
    expect(textsOf(state)).toEqual(['Easier: Half-full jug', 'Harder: Pause at the knee'])
  })
  it('nothing while somebody only talks, once the cautions are over', () => {
    expect(at(`talk Hello: about 20\n${CIRCUIT}  Jug lift\n`, 15)).toBeNull()
  })
})

describe('on cards viewers read', () => {
  const SERIES = 'score: series "Deck hours", next "Deck hours 13"\n'
  it('where to warm up, while that is said', () => {
    const linked = `warm-up Warm-up: where linked, link "Harbour walk"\n${CIRCUIT}  Jug lift\n`
    expect([at(linked, 0)?.card, at(linked, 7)?.card, at(linked, 8)?.card]).toEqual([
      ['Warm-up', 'Harbour walk'],
      ['Warm-up', 'Harbour walk'],
      undefined,
    ])
    expect(at(`cool-down Cool-down: where viewer\n${CIRCUIT}  Jug lift\n`, 1)?.card).toEqual([
      'Cool-down',
      'in your own way',
    ])
  })
  it('what comes next in the series, at the end of the closing talk', () => {
    const whole = `${SERIES}${CIRCUIT}  Jug lift\ntalk Bye: about 20\n`
    const endS = plan(whole).lane.at(-1)!.endMs / 1000
    expect([endS - 13, endS - 12, endS - 0.1].map((s) => at(whole, s)?.card)).toEqual([
      undefined,
      ['Next in Deck hours', 'Deck hours 13'],
      ['Next in Deck hours', 'Deck hours 13'],
    ])
    const short = `${SERIES}${CIRCUIT}  Jug lift\ntalk Bye: about 3\n`
    expect(at(short, plan(short).lane.at(-1)!.endMs / 1000 - 1)?.card).toBeUndefined()
  })
  it('cautions first, where the only talk is both the opening and the end', () => {
    const talk = `${SERIES}talk Hello: about 15\n`
    expect([1, 13].map((s) => at(talk, s)?.card?.[0])).toEqual(['Before you begin', undefined])
    const long = `${SERIES}talk Hello: about 20\n`
    expect([1, 13].map((s) => at(long, s)?.card?.[0])).toEqual(['Before you begin', 'Next in Deck hours'])
  })
})

describe('a name that has to be short', () => {
  it('is that of the move, and never that of one that it is only taken for', () => {
    const { score, lane } = plan(`${CIRCUIT}  Deck-rail squat with a slow lantern reach\n`)
    const known = { ...score, moves: [moveSchema.parse({ name: 'Deck-rail squat', short: 'Rail squat' })] }
    expect(overlayAt(overlayChanges(lane, known), 6000)?.short).toBe('')
    const plain = plan(`${CIRCUIT}  Deck-rail squat\n`)
    expect(overlayAt(overlayChanges(plain.lane, known), 6000)?.short).toBe('Rail squat')
  })
})

describe('of the whole viewers see', () => {
  it('how much is over, where its length is known', () => {
    const whole = `${CIRCUIT}  Jug lift\n  Keel hold\n`
    const lengthMs = plan(whole).lane.at(-1)!.endMs
    expect([0, lengthMs / 2000, lengthMs / 1000 - 0.5].map((s) => at(whole, s)?.passed)).toEqual([
      0,
      expect.closeTo(50, -1),
      99,
    ])
    const own = `${whole}finisher Last: 1 round\n  10 Squat\n`
    expect(at(own, 10)?.passed).toBeNull()
    // Footage tells how long the squats took.
    const filmed = (lane: ShownSegment[]): ShownSegment[] =>
      lane.map((laid) => (laid.segment.pace === 'own' ? { ...laid, endMs: laid.endMs + 700 } : laid))
    expect(at(own, 10, filmed)?.passed).toBeGreaterThan(0)
  })
  it('the title of a section as it begins', () => {
    expect([1, 6].map((s) => [at(`${CIRCUIT}  Squat\n`, s)?.section, at(`${CIRCUIT}  Squat\n`, s)?.begins])).toEqual([
      ['Main', true],
      ['Main', false],
    ])
  })
})

describe('the cautions', () => {
  const opened = 'score: caution both\ntalk Welcome: about 20\n' + CIRCUIT + '  Jug lift\n'
  it('stand on a card as the opening talk begins, and then go', () => {
    expect(at(opened, 0)?.card?.[0]).toBe('Before you begin')
    expect(at(opened, 11)?.card).toHaveLength(5)
    expect(at(opened, 12)).toBeNull()
    expect(at(opened, 26)).toMatchObject({ label: 'Jug lift' })
    expect(at(opened, 26)?.card).toBeUndefined()
  })
  it('stand no longer than the talk, and nowhere where there is none or where they are not wanted', () => {
    expect(at(opened.replace('about 20', 'about 8'), 8)).toMatchObject({ ground: 'ready' })
    expect(at(opened.replace('about 20', 'about 3'), 1)).toBeNull()
    expect(at(opened.replace('both', 'description'), 1)).toBeNull()
    expect(at(`score: caution both\n${CIRCUIT}  Jug lift\n`, 1)?.card).toBeUndefined()
  })
})
