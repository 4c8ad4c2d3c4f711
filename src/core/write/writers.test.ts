// What every writer of the core holds to, whatever the score: each new one gets a line in the list.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyScore } from '../arbitraries'
import { asPlanned } from '../cut/cut'
import { tryExpand } from '../expand/expand'
import type { Score } from '../score/score'
import type { Segment } from '../score/segment'
import { printShorthand } from '../shorthand/print'
import { writeChapters } from './chapters'
import { writeIntervalTable } from './intervalTable'
import { writeVtt } from './vtt'
import { writeWorkoutFile } from './workoutFile'

const WRITERS: [name: string, write: (score: Score, segments: readonly Segment[]) => string][] = [
  ['WebVTT', (_, segments) => writeVtt(asPlanned(segments))],
  ['chapters', (_, segments) => writeChapters(asPlanned(segments))],
  ['interval table', (_, segments) => writeIntervalTable(segments)],
  ['workout file', (score) => writeWorkoutFile(score)],
  ['shorthand', (score) => printShorthand(score)],
]

describe.each(WRITERS)('%s', (_, write) => {
  it('writes the same text every time, ends it with its line, and leaves what it was given as it was', () => {
    fc.assert(
      fc.property(anyScore, (score) => {
        const segments = tryExpand(score).expansion?.segments ?? []
        const before = JSON.stringify([score, segments])
        const text = write(score, segments)
        expect(write(score, segments)).toBe(text)
        expect(text === '' || text.endsWith('\n')).toBe(true)
        expect(JSON.stringify([score, segments])).toBe(before)
      }),
      { numRuns: 25 },
    )
  })
})
