import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { EvidenceOf } from '../evidence'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { boundariesOf, tieKey } from './boundaries'
import { chirpTies } from './chirped'
import { matchEvidence } from './sync'
import { handStitch } from './ties'

const segmentsOf = (text: string): ReturnType<typeof expand>['segments'] => expand(readShorthand(text).score).segments
const segments = segmentsOf('circuit Main: 2 rounds, 40 on, 20 off, 60 between\n  Jug lift; Keel hold; Tiller twist\n')
const boundaries = boundariesOf(segments)
const BEGAN_MS = 7000
const chirp = (at: number, atMs: number): EvidenceOf<'chirp'> => ({
  ...{ kind: 'chirp', atMs, spreadMs: 0.3, strength: 1, code: at + 1 },
})
/** All changes as planned. */
const whole = boundaries.map(({ plannedMs }, at) => chirp(at, BEGAN_MS + plannedMs))

describe('ties by chirps', () => {
  it('stand at their changes, whichever of them were heard', () => {
    fc.assert(
      fc.property(fc.subarray(whole, { minLength: whole.length - 3 }), (heard) => {
        expect(chirpTies(segments, heard)).toEqual(
          heard.map(({ code, atMs }) => {
            const { segmentId, edge } = boundaries[code - 1] ?? { segmentId: '', edge: 'start' }
            return { segmentId, edge, footageMs: atMs }
          }),
        )
      }),
    )
  })
  it('follow a session that was held, done twice and cut short', () => {
    const held = whole.map((one, at) => (at > 3 ? { ...one, atMs: one.atMs + 31_000 } : one)).slice(0, 8)
    const again = [...held.slice(0, 6), ...held.slice(4, 8).map((one) => ({ ...one, atMs: one.atMs + 60_000 }))]
    expect(chirpTies(segments, again).map(tieKey)).toEqual(boundaries.slice(0, 8).map(tieKey))
  })
  it('are none where the chirps are of another score, or too few to tell', () => {
    const other = boundariesOf(segmentsOf('circuit Main: 3 rounds, 30 on, 15 off, 45 between\n  Jug lift; Keel hold\n'))
    expect(
      chirpTies(
        segments,
        other.map(({ plannedMs }, at) => chirp(at, plannedMs)),
      ),
    ).toEqual([])
    expect(chirpTies(segments, whole.slice(3, 4))).toEqual([])
    expect(chirpTies(segments, [chirp(4094, 5000), chirp(-1, 9000)])).toEqual([])
  })
  it('give way to a hand, and hold everything else', () => {
    const tied = boundaries[3] as (typeof boundaries)[number]
    const hand = handStitch({ ...tied, footageMs: 300_000 })
    const { found, likeness } = matchEvidence(segments, { evidence: whole, footageMs: 600_000 }, [hand])
    expect(likeness).toBeGreaterThan(0.9)
    const keys = found.map(tieKey)
    expect(keys).not.toContain(tieKey(tied))
    // What would come before the hand although it follows in the score is not tied.
    for (const one of found)
      if (boundaries.findIndex((boundary) => tieKey(boundary) === tieKey(one)) > 3)
        expect(one.footageMs).toBeGreaterThanOrEqual(300_000)
    const free = matchEvidence(segments, { evidence: whole, footageMs: 600_000 })
    expect(free.found.map(({ evidence }) => evidence)).toEqual(boundaries.map(() => ['chirp']))
  })
})
