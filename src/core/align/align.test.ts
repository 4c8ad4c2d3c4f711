import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { timerBeeps } from '../hear/timerBeeps'
import type { Beep } from '../hear/tones'
import { readShorthand } from '../shorthand/read'
import { circuit, score, station, talk } from '../testing'
import { boundariesOf } from './boundaries'
import { describeSync, matchEvidence, type SyncResult } from './sync'

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

const beep = (atMs: number, hz = 2000, durationMs = 400): Beep => ({
  kind: 'beep',
  atMs,
  spreadMs: 3,
  hz,
  durationMs,
  strength: 0.9,
})
const syncByBeeps = (plan: typeof segments, beeps: Beep[], footageMs: number): SyncResult =>
  describeSync(plan, matchEvidence(plan, { evidence: beeps, footageMs }).found, footageMs)
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
    const heard = beepsAt(times, (ms) => !silent(ms))
    const { found } = matchEvidence(segments, { evidence: heard, footageMs: 300_000 })
    const lost = audible.filter((one) => silent(times.get(one.segmentId) ?? 0)).map((one) => one.segmentId)
    expect(lost.length).toBeGreaterThan(1)
    // Before the silence a station may have been left out: what stands there may be tied, and is not sure.
    const doubtful = ['main/r1/s1/work', 'main/r1/s1/rest']
    const clear = (ids: string[]): string[] => ids.filter((id) => !doubtful.includes(id))
    expect(clear(found.map(({ segmentId }) => segmentId))).toEqual(
      clear(audible.map(({ segmentId }) => segmentId)).filter((id) => !lost.includes(id)),
    )
    for (const { segmentId, footageMs } of found)
      expect(Math.abs(footageMs - (times.get(segmentId) ?? 0))).toBeLessThan(1)
    const sure = found.filter(({ confidence }) => confidence >= 0.9).map(({ segmentId }) => segmentId)
    expect(sure).not.toContain('main/r1/s1/work')
    expect(sure).toContain('main/r2/s1/work')
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

describe('how sure a tie is', () => {
  const FOOTAGE_MS = 900_000

  /** Changes that no two stretches have in common: work and rest of every round have lengths of their own. */
  const uneven = expand(
    readShorthand(
      'table Main: 40/20 then 35/15 then 30/25 then 45/10 rounds, 1:00 between, last rest dropped\n  Jug lift; Keel hold; Rope pull\n',
    ).score,
  )
  const marksOf = (plan: typeof uneven, keep: (index: number) => boolean = () => true): Beep[] =>
    boundariesOf(plan.segments)
      .filter((one, index) => one.audible && keep(index))
      .flatMap((one) => counted(one.plannedMs + 20_000))
  const sure = (plan: typeof uneven, beeps: Beep[]): number =>
    matchEvidence(plan.segments, { evidence: beeps, footageMs: FOOTAGE_MS }).found.filter(
      (one) => one.confidence >= 0.9,
    ).length

  it('is 0.9 and more where a long chain has no rival', () => {
    const all = matchEvidence(uneven.segments, { evidence: marksOf(uneven), footageMs: FOOTAGE_MS }).found
    expect(all.length).toBe(boundariesOf(uneven.segments).length)
    expect(all.filter((one) => one.confidence < 0.9)).toEqual([])
  })
  it('is never that for a short chain', () => {
    expect(sure(uneven, marksOf(uneven).slice(0, 4 * 5))).toBe(0)
  })
  it('is never that where the same chain fits as well a step earlier or later', () => {
    const even = expand(readShorthand('circuit Main: 6 rounds, 40 on, 20 off\n  Jug lift; Keel hold\n').score)
    // The first and the last change went unheard: nothing tells which one the first beep is.
    const last = boundariesOf(even.segments).length - 1
    expect(
      sure(
        even,
        marksOf(even, (index) => index > 1 && index < last - 1),
      ),
    ).toBe(0)
  })
  it('is never that where a station was skipped among many alike: nobody can tell which', () => {
    const even = expand(
      readShorthand(
        'circuit Main: 1 round, 40 on, 20 off\n  Jug lift; Keel hold; Squat; Rope pull; Lunge; Plank; Crunch; Swing\n',
      ).score,
    )
    const skipped = boundariesOf(even.segments).filter((one) => one.audible)
    const beeps = skipped.slice(0, -2).flatMap((one) => counted(one.plannedMs + 20_000))
    // The end is where the tones end, if a station was skipped.
    const wrong = matchEvidence(even.segments, { evidence: beeps, footageMs: FOOTAGE_MS }).found.filter(
      ({ confidence, edge }) => confidence >= 0.9 && edge === 'start',
    )
    expect(wrong).toEqual([])
  })
  it('is never that for another session of the same intervals, and it is asked whether it is one', () => {
    const score =
      'circuit Main: 3 rounds, 30 on, 10 off, 60 between\n  Jug lift; Keel hold; Tiller twist; Crawl; Lunge\n'
    const { segments: own } = expand(readShorthand(score).score)
    for (const [rounds, between] of [
      [12, 45],
      [9, 75],
    ] as const) {
      const other = `circuit Main: ${rounds} rounds, 30 on, 10 off, ${between} between\n  Squat; Jump; Bridge; Plank\n`
      const tones = boundariesOf(expand(readShorthand(other).score).segments).map(({ plannedMs }) =>
        beep(plannedMs + 9000),
      )
      const { found, likeness, doubtful } = matchEvidence(own, { evidence: tones, footageMs: 3_600_000 })
      expect(found.filter(({ confidence }) => confidence > 0.5)).toEqual([])
      expect(likeness < 0.5 || doubtful).toBe(true)
    }
  })
  it('is never that for a chime that comes back every twenty seconds, whatever the score', () => {
    const chime = Array.from({ length: 40 }, (_, index) => beep(5000 + index * 20_000))
    for (const plan of [
      uneven,
      expand(readShorthand('circuit Main: 8 rounds, 20 on, 20 off\n  Jug lift; Keel hold\n').score),
    ])
      expect(sure(plan, chime)).toBe(0)
  })
  it('refuses what is too large to be matched, before it begins', () => {
    const plan = expand(
      score(
        circuit({
          rounds: 500,
          workMs: 5000,
          restMs: 5000,
          stations: Array.from({ length: 8 }, () => station('Jug lift')),
        }),
      ),
    )
    const beeps = Array.from({ length: 5000 }, (_, index) => beep(index * 1500))
    expect(() => matchEvidence(plan.segments, { evidence: beeps, footageMs: FOOTAGE_MS }).found).toThrow(
      /pairs to match is the most/,
    )
  })
})

describe('timer beeps', () => {
  it('tells counts from marks, and drops pitches that do not return', () => {
    const heard = timerBeeps([...counted(10_000), ...counted(30_000), ...counted(50_000), beep(61_234, 777)])
    expect(heard).toHaveLength(12)
    expect(heard.filter((one) => one.boundaryLikelihood > 0.5).map((one) => one.atMs)).toEqual([10_000, 30_000, 50_000])
  })
})
