// Plans with stretches of no fixed length, of which only a part was filmed: nothing that is sure is wrong, and changes
// rise in time whatever was heard.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { pick, seededRandom } from '../demo/camera/random'
import { EVERY } from './every'
import { byTime, type Evidence, type EvidenceOf } from '../src/core/evidence'
import { expand } from '../src/core/expand/expand'
import type { Segment } from '../src/core/score/segment'
import { readShorthand } from '../src/core/shorthand/read'
import { boundariesOf, tieKey } from '../src/core/align/boundaries'
import { matchEvidence } from '../src/core/align/sync'
import { SURE } from '../src/core/align/ties'

/** With `JIVET_EVERY=1` two hundred. */
const PLANS = EVERY ? 200 : 30

const beep = (atMs: number): EvidenceOf<'beep'> => ({
  ...{ kind: 'beep', atMs, spreadMs: 3, hz: 2000, durationMs: 400, strength: 0.9 },
})

const plan = (text: string): readonly Segment[] => expand(readShorthand(text).score).segments

/** Circuits with something of no fixed length between them. */
function randomPlan(random: () => number): readonly Segment[] {
  const lengths = [
    [40, 20],
    [30, 15],
    [45, 15],
    [20, 10],
  ] as const
  const same = random() < 0.5
  const usual = pick(lengths, random)
  const circuit = (name: string): string => {
    const [work, rest] = same ? usual : pick(lengths, random)
    return `circuit ${name}: ${2 + Math.floor(2 * random())} rounds, ${work} on, ${rest} off\n  Jug lift; Keel hold\n`
  }
  const between = (name: string): string =>
    pick(['reps', 'range', 'open', 'talk'] as const, random) === 'talk'
      ? `talk ${name}: about 30\n`
      : `list ${name}:\n  60 Tiller twist\n`
  const text = circuit('A') + between('Own') + circuit('B') + (random() < 0.4 ? between('Last') + circuit('C') : '')
  return plan(text).map((segment) => {
    if (!/^(?:own|last)\//.test(segment.id)) return segment
    const pace = pick(['own', 'range', 'open'] as const, random)
    const [minMs, maxMs] = pace === 'range' ? [0, 2 * segment.durationMs] : [segment.minMs, segment.maxMs]
    return { ...segment, pace, minMs, maxMs }
  })
}

/** What a camera saw of it: from one block to another, or to the middle of one; the timer beeped at each change. */
function filmedPart(segments: readonly Segment[], random: () => number) {
  const boundaries = boundariesOf(segments)
  const atMs = new Map<string, number>()
  let nowMs = 0
  for (const segment of segments) {
    atMs.set(`${segment.id} start`, nowMs)
    const { minMs, maxMs, durationMs, pace } = segment
    const lasts =
      pace === 'range'
        ? minMs + random() * ((maxMs ?? durationMs) - minMs)
        : pace === 'fixed'
          ? durationMs
          : durationMs * (0.4 + 1.4 * random())
    nowMs += Math.max(1500, lasts)
  }
  const endMs = nowMs
  const truth = boundaries.map((boundary) => ({
    key: tieKey(boundary),
    atMs: boundary.edge === 'end' ? endMs : (atMs.get(`${boundary.segmentId} start`) ?? 0),
  }))
  const fromMs = 8000 + 20_000 * random()
  const untilMs = endMs * (0.25 + 0.6 * random())
  const filmed = truth.filter((one) => one.atMs <= untilMs).map(({ key, atMs: ms }) => ({ key, atMs: ms + fromMs }))
  return { truth: new Map(filmed.map(({ key, atMs: ms }) => [key, ms])), footageMs: untilMs + fromMs + 3000 }
}

describe('a plan with lengths that nobody fixed, filmed in part', () => {
  it('has no change that is sure and wrong', () => {
    const wrong: string[] = []
    let [sure, there] = [0, 0]
    for (let seed = 1; seed <= PLANS; seed++) {
      const random = seededRandom(seed)
      const segments = randomPlan(random)
      const { truth, footageMs } = filmedPart(segments, random)
      const evidence: Evidence[] = [...truth.values()].map(beep).sort(byTime)
      const { found } = matchEvidence(segments, { evidence, footageMs })
      there += truth.size
      for (const tie of found) {
        if (tie.confidence < SURE) continue
        sure++
        const trueMs = truth.get(tieKey(tie))
        if (trueMs === undefined || Math.abs(trueMs - tie.footageMs) > 100)
          wrong.push(`${seed}: ${tieKey(tie)} at ${tie.footageMs}, is ${trueMs ?? 'not filmed'}, ${tie.confidence}`)
      }
    }
    expect(wrong).toEqual([])
    expect(sure).toBeGreaterThan(there / 2)
  }, 300_000)
})

describe('changes that were found', () => {
  const plans = [
    plan(
      'circuit A: 2 rounds, 40 on, 20 off\n  Jug lift; Keel hold\nlist Own:\n  10 Tiller twist\ncircuit B: 2 rounds, 40 on, 20 off\n  Jug lift; Keel hold\n',
    ),
    plan('talk Welcome: about 20\ncircuit A: 3 rounds, 20 on, 10 off\n  Jug lift\nlist Own:\n  60 Tiller twist\n'),
  ]
  const heard = fc.array(
    fc.record({ atMs: fc.integer({ min: 0, max: 300_000 }), strength: fc.double({ min: 0.2, max: 1, noNaN: true }) }),
    { maxLength: 40 },
  )
  it('rise in time, strictly, whatever was heard', () => {
    fc.assert(
      fc.property(heard, fc.constantFrom(...plans), (marks, segments) => {
        const evidence = marks.map(({ atMs, strength }): Evidence => ({ ...beep(atMs), strength })).sort(byTime)
        const { found } = matchEvidence(segments, { evidence, footageMs: 310_000 })
        found.forEach((tie, at) => expect(tie.footageMs).toBeGreaterThan(found[at - 1]?.footageMs ?? -1))
      }),
      { numRuns: 12 },
    )
  })
})
