// Where changes lie in a footage: ties stay where they were put, and time goes where it really went.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyScore } from '../arbitraries'
import { lay } from '../cut/lane'
import { tryExpand } from '../expand/expand'
import type { Segment } from '../score/segment'
import { readShorthand } from '../shorthand/read'
import { boundariesOf, tieKey } from './boundaries'
import { fitClock } from './clock'
import { placeBoundaries } from './place'
import { handStitch, holdingTies, tieProblem, withHandTie, type Tie } from './ties'

const segmentsOf = (shorthand: string): Segment[] => tryExpand(readShorthand(shorthand).score).expansion?.segments ?? []
const tieOf = (segments: readonly Segment[], index: number, footageMs: number): Tie => {
  const { segmentId, edge } = boundariesOf(segments)[index]!
  return { segmentId, edge, footageMs }
}
const placesOf = (segments: readonly Segment[], ties: readonly Tie[], footageMs = 400_000): number[] =>
  placeBoundaries(segments, ties, footageMs).map((place) => place.footageMs)

/** Any score with ties by hand in order: some of its changes at any rising instants of the footage. */
const anyTied = fc
  .tuple(anyScore, fc.array(fc.nat(), { maxLength: 12 }), fc.array(fc.nat({ max: 3_600_000 }), { maxLength: 12 }))
  .map(([score, picks, instants]) => {
    const segments = tryExpand(score).expansion?.segments ?? []
    const count = segments.length ? segments.length + 1 : 0
    const chosen = [...new Set(picks.map((pick) => pick % Math.max(1, count)))].sort((one, other) => one - other)
    const rising = [...instants].sort((one, other) => one - other)
    const ties = count ? chosen.slice(0, rising.length).map((at, index) => tieOf(segments, at, rising[index]!)) : []
    return { segments, ties }
  })

describe('ties by hand', () => {
  it('are anchors: placed exactly where they were tied, in any score, and everything else in order between them', () => {
    fc.assert(
      fc.property(anyTied, fc.nat({ max: 600_000 }), ({ segments, ties }, over) => {
        const footageMs = (ties.at(-1)?.footageMs ?? 0) + over
        expect(tieProblem(segments, ties, footageMs)).toBeNull()
        const places = placeBoundaries(segments, ties, footageMs)
        const tied = new Map(ties.map((tie) => [tieKey(tie), tie.footageMs]))
        boundariesOf(segments).forEach((boundary, index) => {
          const wanted = tied.get(tieKey(boundary))
          if (wanted !== undefined) expect(places[index]).toEqual({ footageMs: wanted, tied: true })
          else expect(places[index]?.tied).toBe(false)
        })
        places.reduce((before, { footageMs: ms }) => {
          expect(ms).toBeGreaterThanOrEqual(before)
          expect(ms).toBeLessThanOrEqual(footageMs)
          return ms
        }, 0)
        lay(segments, ties, footageMs).forEach((laid, index, all) => {
          if (index) expect(laid.fromMs).toBe(all[index - 1]!.toMs)
        })
      }),
    )
  })
  it('hold a block where it was tied, though the work before it would not fit', () => {
    // 60 s of work tied at 10 s, talk, and a block tied at 40 s: it once landed at 70 s and collapsed.
    const segments = segmentsOf(
      'circuit Main: 1 round, 60 on\n  Jug lift\ntalk Water:\ncircuit Last: 1 round, 30 on\n  Squat\n',
    )
    const ties = [tieOf(segments, 0, 10_000), tieOf(segments, 2, 40_000)]
    expect(placesOf(segments, ties, 120_000)).toEqual([10_000, 40_000, 40_000, 70_000])
  })
  const three = segmentsOf('circuit Main: 1 round, 40 on, 20 off\n  Jug lift; Squat; Rope pull\n')
  it('that cross, or lie outside the footage, are refused with the reason', () => {
    const late = tieOf(three, 2, 101_000),
      early = tieOf(three, 4, 20_000)
    expect(tieProblem(three, [late, early], 200_000)).toMatchObject({
      code: 'tie-crosses',
      atMs: 20_000,
      otherMs: 101_000,
    })
    expect(tieProblem(three, [tieOf(three, 2, 200_001)], 200_000)).toMatchObject({ code: 'tie-outside' })
    expect(tieProblem(three, [late, late], 200_000)).toMatchObject({ code: 'tie-twice' })
    expect(tieProblem(three, [late, tieOf(three, 4, 101_000)], 200_000)).toBeNull()
  })
  it('take the place of what was only heard and cannot hold beside them, and never of another hand', () => {
    const heard = { ...handStitch(tieOf(three, 4, 20_000)), origin: 'heard' as const, confidence: 0.6 }
    const taken = withHandTie(three, [heard], tieOf(three, 2, 101_000), 200_000)
    expect(taken).toMatchObject({ problem: null, dropped: 1, ties: [{ footageMs: 101_000 }] })
    const refused = withHandTie(three, [handStitch(heard)], tieOf(three, 2, 101_000), 200_000)
    expect(refused.problem?.code).toBe('tie-crosses')
  })
  it('stay, where old data holds ties that cross, before all that was heard', () => {
    const hand = handStitch(tieOf(three, 3, 50_000))
    const heard = [1, 2, 4].map((index) => ({
      ...handStitch(tieOf(three, index, [0, 90_000, 30_000, 0, 80_000][index]!)),
      origin: 'heard' as const,
    }))
    const held = holdingTies(three, [...heard, hand], 200_000)
    expect(held.map(({ tie }) => tie.footageMs)).toEqual([30_000, 50_000, 80_000])
  })
})

describe('between two ties', () => {
  const tied = (shorthand: string, first: number, last: number): number[] => {
    const segments = segmentsOf(shorthand)
    const all = placesOf(segments, [tieOf(segments, 0, first), tieOf(segments, segments.length, last)])
    return all.slice(1).map((ms, index) => ms - all[index]!)
  }
  it('what is over goes to the break, and the timer ran as planned', () => {
    // 2 x 40 of work and 30 of break are 110 s; the footage has 140.
    expect(tied('circuit Main: 2 rounds, 40 on, 30 between\n  Jug lift\n', 10_000, 150_000)).toEqual([
      40_000, 60_000, 40_000,
    ])
  })
  it('what is over goes to talk before any break', () => {
    const plan =
      'circuit Main: 2 rounds, 40 on, 30 between\n  Jug lift\ntalk Water: about 20\ncircuit Last: 1 round, 40 on\n  Squat\n'
    expect(tied(plan, 0, 200_000)).toEqual([40_000, 30_000, 40_000, 50_000, 40_000])
  })
  it('what is over goes to reps that have no clock', () => {
    // Two sets of about 30 and two rests of 30 are 120 s; the footage has 130.
    expect(tied('sets Main: 2 sets, 30 off, last rest kept\n  10 Squat\n', 0, 130_000)).toEqual([
      35_000, 30_000, 35_000, 30_000,
    ])
  })
  it('what is missing is taken from breaks first, and only then from all alike', () => {
    const plan = 'circuit Main: 2 rounds, 40 on, 30 between\n  Jug lift\n'
    expect(tied(plan, 0, 90_000)).toEqual([40_000, 10_000, 40_000])
    expect(tied(plan, 0, 60_000)).toEqual([30_000, 0, 30_000])
  })
  it('what was not filmed at all is the last of it: the plan goes on from the tie until nothing is left', () => {
    const rounds = segmentsOf('circuit Main: 3 rounds, 20 on, 10 off, 30 between\n  Jug lift; Squat\n')
    const places = placesOf(rounds, [tieOf(rounds, 0, 0), tieOf(rounds, rounds.length, 95_000)], 95_000)
    expect(places.slice(0, 5)).toEqual(rounds.slice(0, 5).map(({ startMs }) => startMs))
    expect(places.slice(5).every((ms) => ms === 95_000)).toBe(true)
  })
  it('a timer that ran long is stretched evenly where nothing else could have taken the time', () => {
    expect(tied('circuit Main: 1 round, 40 on, 20 off, last rest kept\n  Jug lift; Squat\n', 0, 132_000)).toEqual([
      44_000, 22_000, 44_000, 22_000,
    ])
  })
})

describe('outside the ties', () => {
  const plan = segmentsOf('talk Hello:\ncircuit Main: 3 rounds, 40 on, 20 off\n  Jug lift; Squat\ntalk Bye:\n')
  it('the fitted clock carries on', () => {
    const rate = 1.0002
    const ties = [tieOf(plan, 1, 7000), tieOf(plan, 11, 7000 + 300_000 * rate)]
    expect(fitClock(boundariesOf(plan), ties).driftPpm).toBeCloseTo(200, 0)
    expect(placesOf(plan, ties, 500_000)[13]).toBe(Math.round(7000 + 360_000 * rate))
  })
  it('a slope that no clock has is not taken for drift', () => {
    const ties = [tieOf(plan, 1, 7000), tieOf(plan, 3, 7000 + 63_000)]
    expect(fitClock(boundariesOf(plan), ties).driftPpm).toBe(0)
  })
  it('opening talk begins with the footage and closing talk ends with it, unless they are tied', () => {
    const places = placesOf(plan, [tieOf(plan, 1, 12_500)], 450_000)
    expect([places[0], places.at(-1)]).toEqual([0, 450_000])
    expect(placesOf(plan, [tieOf(plan, 0, 3000), tieOf(plan, 1, 12_500)], 450_000)[0]).toBe(3000)
  })
})
