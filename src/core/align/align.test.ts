import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lay } from '../cut/lane'
import { expand } from '../expand/expand'
import { timerBeeps } from '../hear/timerBeeps'
import type { Beep } from '../hear/tones'
import { circuit, score, station, talk } from '../testing'
import { boundariesOf, fitClock, predict } from './boundaries'
import { syncByBeeps } from './sync'

const plan = score(
  talk('welcome', 30_000),
  circuit({
    leadInMs: 5000,
    rounds: 3,
    stations: [station('Jug lift'), station('Keel hold')],
    roundBreakMs: 20_000,
    lastRest: 'dropped',
  }),
  talk('bye', 10_000),
)
const { segments } = expand(plan)
const boundaries = boundariesOf(segments)

/** Where each boundary falls when talk takes 12.5 s, the clock drifts, and the first break runs 3.4 s long. */
function happened(driftPpm = 60, extraMs = 3400): Map<string, number> {
  let at = 0
  const times = new Map<string, number>()
  for (const segment of segments) {
    times.set(segment.id, at)
    const lengthMs =
      segment.id === 'welcome/talk' ? 12_500 : segment.durationMs + (segment.id === 'main/r1/break' ? extraMs : 0)
    at += lengthMs * (1 + driftPpm / 1e6)
  }
  return times
}

const beep = (atMs: number, hz = 2000, durationMs = 400): Beep => ({ atMs, hz, durationMs, strength: 0.9 })
const counted = (atMs: number): Beep[] =>
  [3000, 2000, 1000].map((before) => beep(atMs - before, 1500, 80)).concat(beep(atMs))
const audible = boundaries.filter((one) => one.audible)
const beepsAt = (times: Map<string, number>, keep: (ms: number) => boolean = () => true): Beep[] =>
  audible
    .flatMap((one) => counted(times.get(one.segmentId) ?? 0))
    .filter((one) => keep(one.atMs))
    .sort((one, other) => one.atMs - other.atMs)

describe('aligning beeps', () => {
  it('ties every audible change, over talk, drift and a restarted timer', () => {
    const times = happened()
    const { stitches, missing, summary } = syncByBeeps(segments, beepsAt(times), 300_000)
    expect(missing).toEqual([])
    for (const stitch of stitches)
      expect(Math.abs(stitch.footageMs - (times.get(stitch.segmentId) ?? 0))).toBeLessThan(1)
    expect(summary.driftPpm).toBeCloseTo(60, -1)
    expect(summary.worstErrorMs).toBeGreaterThan(3300)
  })
  it('reports as missing what lies in a silent stretch, and still ties the rest', () => {
    const times = happened()
    const silent = (ms: number): boolean => ms >= 45_000 && ms < 80_000
    const { stitches, missing } = syncByBeeps(
      segments,
      beepsAt(times, (ms) => !silent(ms)),
      300_000,
    )
    const lost = audible.filter((one) => silent(times.get(one.segmentId) ?? 0)).map((one) => one.segmentId)
    expect(lost.length).toBeGreaterThan(1)
    expect(missing).toEqual(lost)
    expect(stitches).toHaveLength(audible.length - lost.length)
  })
  it('works with a timer that beeps once per change, and among tones that are not the timer', () => {
    const times = happened()
    const single = audible.map((one) => beep(times.get(one.segmentId) ?? 0))
    const noise = Array.from({ length: 40 }, (_, index) => beep(700 + index * 3671, 500 + index * 37, 120))
    const { missing } = syncByBeeps(
      segments,
      [...single, ...noise].sort((one, other) => one.atMs - other.atMs),
      300_000,
    )
    expect(missing).toEqual([])
  })
  it('ties what was filmed of a score that goes on much longer, from its beginning', () => {
    const long = expand(
      score(
        talk('welcome', 12_000),
        circuit({
          leadInMs: 5000,
          rounds: 24,
          stations: [station('Jug lift'), station('Keel hold')],
          roundBreakMs: 20_000,
          lastRest: 'dropped',
        }),
      ),
    )
    const filmed = boundariesOf(long.segments)
      .filter((one) => one.audible)
      .slice(0, 9)
    const { stitches, missing } = syncByBeeps(
      long.segments,
      filmed.flatMap((one) => counted(one.plannedMs - 700)),
      180_000,
    )
    expect(stitches.map((one) => one.segmentId)).toEqual(filmed.map((one) => one.segmentId))
    expect(missing).not.toContain('main/r2/s2/work')
    expect(missing).toContain('main/r24/s1/work')
  })
  it('ties nothing where nothing was heard', () => {
    expect(syncByBeeps(segments, [], 300_000)).toMatchObject({ stitches: [], summary: { worstErrorMs: 0 } })
  })
})

describe('timer beeps', () => {
  it('tells counts from marks, and drops pitches that do not return', () => {
    const heard = timerBeeps([...counted(10_000), ...counted(30_000), ...counted(50_000), beep(61_234, 777)])
    expect(heard).toHaveLength(12)
    expect(heard.filter((one) => one.boundaryLikelihood > 0.5).map((one) => one.atMs)).toEqual([10_000, 30_000, 50_000])
  })
})

describe('the fitted clock', () => {
  const tie = (index: number, footageMs: number) => ({
    segmentId: boundaries[index]!.segmentId,
    edge: boundaries[index]!.edge,
    footageMs,
  })
  it('takes offset and rate from two stitches, and lets the rest follow', () => {
    const first = boundaries[1]!,
      last = boundaries[6]!
    const rate = 1.0002
    const ties = [tie(1, 7000), tie(6, 7000 + (last.plannedMs - first.plannedMs) * rate)]
    expect(fitClock(boundaries, ties).driftPpm).toBeCloseTo(200, 0)
    const places = predict(boundaries, ties, 400_000)
    for (const index of [2, 3, 4, 5, 7, 8])
      expect(places[index]?.footageMs).toBe(Math.round(7000 + (boundaries[index]!.plannedMs - first.plannedMs) * rate))
    expect(places[1]?.stitched).toBe(true)
    expect(places[2]?.stitched).toBe(false)
  })
  it('never runs backwards, never leaves the footage, and keeps stitches in order where they were put', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: boundaries.length - 1 }), { maxLength: 6 }),
        fc.array(fc.integer({ min: 0, max: 200_000 }), { minLength: 6, maxLength: 6 }),
        (chosen, times) => {
          const sorted = [...times].sort((one, other) => one - other)
          const ties = [...chosen].sort((one, other) => one - other).map((index, at) => tie(index, sorted[at]!))
          const places = predict(boundaries, ties, 200_000)
          places.reduce((before, place) => {
            expect(place.footageMs).toBeGreaterThanOrEqual(before)
            expect(place.footageMs).toBeLessThanOrEqual(200_000)
            return place.footageMs
          }, 0)
          const lane = lay(segments, boundaries, ties, 200_000)
          lane.slice(1).forEach((laid, index) => expect(laid.startMs).toBe(lane[index]!.endMs))
        },
      ),
    )
  })
  it('gives opening talk the footage from its very start', () => {
    expect(predict(boundaries, [tie(1, 12_500)], 300_000)[0]?.footageMs).toBe(0)
  })
})
