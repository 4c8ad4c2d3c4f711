import { describe, expect, it } from 'vitest'
import type { Counted, EvidenceOf } from '../evidence'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import type { Ms } from '../units'
import { boundariesOf } from './boundaries'
import { saidOtherwise } from './said'
import { handStitch, type Stitch } from './ties'

const segmentsOf = (text: string) => expand(readShorthand(text).score).segments
const plan = segmentsOf(
  'circuit Main: 3 rounds, 40 on, 20 off, 50 between, lead 5\n  Jug lift\n  Keel hold\n  Buoy press\n',
)
const tied = (segments = plan): Stitch[] =>
  boundariesOf(segments).map((boundary) => handStitch({ ...boundary, footageMs: 2000 + boundary.plannedMs }))
const says = (amount: number, counted: Counted, atMs: Ms): EvidenceOf<'said'> => ({
  ...{ kind: 'said', amount, counted, atMs, spreadMs: 120, strength: 0.8, text: `${amount} ${counted}` },
})
/** Jug lift runs from 7 to 47 s, its rest to 67 s. */
const otherwise = (said: EvidenceOf<'said'>[], segments = plan, ties = tied(segments)) =>
  saidOtherwise(segments, ties, said, 900_000).map((one) => [one.said.amount, one.segment.label])

describe('a number that the coach says', () => {
  it('is remarked where nothing near it lasts so long', () => {
    expect(otherwise([says(45, 'seconds', 50_000), says(30, 'seconds', 8000)])).toEqual([
      [45, 'Keel hold'],
      [30, 'Jug lift'],
    ])
  })
  it.each([
    ['the length of the work', 40, 50_000],
    ['the length of the rest', 20, 8000],
    ['half of it', 20, 27_000],
    ['what is left', 32, 15_500],
    ['what has passed', 15, 22_000],
    ['the work and its rest', 60, 50_000],
    ['too short to be an interval', 5, 50_000],
    ['of the whole session', 600, 50_000],
  ])('is borne out by %s', (_, amount, atMs) => {
    expect(otherwise([says(amount, 'seconds', atMs)])).toEqual([])
  })
  it('of rounds is the number of all, of this one, or of those to come', () => {
    expect(otherwise([1, 2, 3, 4].map((amount) => says(amount, 'rounds', 50_000)))).toEqual([[4, 'Keel hold']])
  })
  it('of reps is held against reps, and is advice where there are none', () => {
    const counted = segmentsOf('circuit Main: 2 rounds, 40 on, 20 off\n  Jug lift\n').map((one) => ({
      ...one,
      reps: 12,
    }))
    expect(otherwise([says(10, 'reps', 50_000)])).toEqual([])
    expect(otherwise([says(12, 'reps', 8000), says(10, 'reps', 9000)], counted)).toEqual([[10, 'Jug lift']])
  })
  it('is told once, and not where nobody knows what it was said of', () => {
    expect(otherwise([says(45, 'seconds', 50_000), says(45, 'seconds', 52_000)])).toHaveLength(1)
    expect(otherwise([says(45, 'seconds', 500)])).toEqual([])
    expect(otherwise([says(45, 'seconds', 50_000)], plan, tied().slice(0, 1))).toEqual([])
    const unsure = tied().map((tie): Stitch => ({ ...tie, origin: 'heard', confidence: 0.6 }))
    expect(otherwise([says(45, 'seconds', 50_000)], plan, unsure)).toEqual([])
  })
})
