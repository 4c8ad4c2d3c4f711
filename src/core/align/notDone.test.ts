import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { circuit, score, station } from '../testing'
import { notDoneStitch, restOfRound, stationAt, withNotDonePlaced } from './notDone'
import { matchEvidence } from './sync'
import { handStitch, type Stitch } from './ties'
import type { EvidenceOf } from '../evidence'

const stations = [station('Jug lift', { sideRule: 'none' }), station('Keel hold', { sideRule: 'none' })]
const { segments } = expand(score(circuit({ rounds: 3, roundBreakMs: 15_000, lastRest: 'dropped', stations })))
/** Rows: each round is work, rest, work; breaks are rows 3 and 7. */
const idOf = (row: number): string => segments[row]?.id ?? ''
const tie = (row: number, footageMs: number, confidence = 0.95): Stitch => ({
  ...handStitch({ segmentId: idOf(row), edge: 'start', footageMs }),
  ...{ origin: 'heard', confidence, evidence: ['beep'] },
})

describe('what was not done', () => {
  it('is the station with its rest, whichever of the two was asked about', () => {
    expect(stationAt(segments, [], idOf(4))).toEqual([idOf(4), idOf(5)])
    expect(stationAt(segments, [], idOf(5))).toEqual([idOf(4), idOf(5)])
    expect(stationAt(segments, [tie(4, 0)], idOf(5))).toEqual([idOf(5)])
    expect(stationAt(segments, [], idOf(3))).toEqual([idOf(3)])
  })
  it('is all of a round that is not sure', () => {
    expect(restOfRound(segments, [tie(4, 0), tie(5, 9, 0.6)], idOf(6))).not.toContain(idOf(4))
    expect(restOfRound(segments, [tie(4, 0), tie(5, 9, 0.6)], idOf(6))).toEqual(
      expect.arrayContaining([idOf(5), idOf(6)]) as string[],
    )
    expect(restOfRound(segments, [], idOf(0))).not.toContain(idOf(4))
  })
  it('lasts nothing where the next begins, and moves with it', () => {
    const ties = [tie(0, 1000), notDoneStitch(idOf(1)), notDoneStitch(idOf(2)), tie(3, 21_000)]
    const at = (all: Stitch[], row: number) => all.find(({ segmentId }) => segmentId === idOf(row))?.footageMs
    const placed = withNotDonePlaced(segments, ties, 300_000)
    expect([at(placed, 1), at(placed, 2)]).toEqual([21_000, 21_000])
    const later = withNotDonePlaced(segments, [...ties.slice(0, 3), tie(3, 26_000)], 300_000)
    expect(at(later, 1)).toBe(26_000)
    // Where nothing ties the next, it is where the plan has it after what was done.
    expect(at(withNotDonePlaced(segments, ties.slice(0, 3), 300_000), 1)).toBe(21_000)
  })
  it('is not looked for in what was heard', () => {
    const beep = (atMs: number): EvidenceOf<'beep'> => ({
      ...{ kind: 'beep', atMs, spreadMs: 3, hz: 2000, durationMs: 300, strength: 0.9 },
    })
    const done = segments.filter((_, row) => row !== 4 && row !== 5)
    let clock = 5000
    const evidence = done.map(({ durationMs }) => {
      clock += durationMs
      return beep(clock)
    })
    const { found } = matchEvidence(segments, { evidence, footageMs: clock + 4000 }, [
      notDoneStitch(idOf(4)),
      notDoneStitch(idOf(5)),
    ])
    expect(found.map(({ segmentId }) => segmentId)).not.toContain(idOf(4))
    expect(found.filter(({ confidence }) => confidence >= 0.9).length).toBeGreaterThan(4)
    const breakEnds = 5000 + segments.slice(0, 4).reduce((sum, { durationMs }) => sum + durationMs, 0)
    expect(found.find(({ segmentId }) => segmentId === idOf(6))?.footageMs).toBeCloseTo(breakEnds, -2)
  })
})
