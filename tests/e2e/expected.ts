// What a correct render of the demo shows and sounds, reckoned from the truth file alone.
import type { Sound } from '../../src/core/cue/cue'
import type { Truth } from './jivet'

interface Interval {
  kind: string
  startMs: number
  endMs: number
  planned: number
  halves: boolean
  /** The last round, or the last work of all, begins with it. */
  last: boolean
}

const PLANNED: Record<string, number> = { lead: 5, work: 20, rest: 10, break: 15 }

function intervals(truth: Truth): Interval[] {
  return truth.boundaries.flatMap(({ segmentId, footageMs }, index) => {
    const kind = segmentId.split('/').at(-1) ?? ''
    const endMs = truth.boundaries[index + 1]?.footageMs ?? truth.durationMs
    return kind === 'talk'
      ? []
      : [
          {
            ...{ kind, startMs: footageMs, endMs, planned: PLANNED[kind] ?? 0, halves: segmentId.includes('/s3/work') },
            last: /r2\/s[13]\/work$/.test(segmentId),
          },
        ]
  })
}

/**
 * Instants (ms) at which the count's block must change: each start, each whole second before an end, and the last end.
 */
export function expectedCountChanges(truth: Truth): number[] {
  const all = intervals(truth)
  const instants = all.flatMap(({ kind, startMs, endMs, planned }) => {
    // Work that ran to its plan within a moment counts the plan, all else what was filmed.
    const filmed = (endMs - startMs) / 1000
    const counted = kind === 'work' && Math.abs(filmed - planned) <= 1.5 ? planned : Math.round(filmed)
    const seconds = Array.from({ length: counted - 1 }, (_, index) => endMs - (index + 1) * 1000)
    return [startMs, ...seconds.filter((ms) => ms > startMs + 50)]
  })
  return [...instants, all.at(-1)!.endMs].sort((one, other) => one - other)
}

export function decodedCues(truth: Truth): { voice: Sound; atMs: number }[] {
  return intervals(truth).flatMap(({ kind, startMs, endMs, halves, last }) => {
    const halfway = kind === 'work' && !halves && endMs - startMs >= 20_000
    const opening: Sound | null = kind === 'work' ? 'go' : kind === 'lead' ? null : 'rest'
    return [
      ...(opening ? [{ voice: opening, atMs: startMs }] : []),
      ...(halves ? [{ voice: 'switch' as const, atMs: (startMs + endMs) / 2 }] : []),
      ...(halfway ? [{ voice: 'halfway' as const, atMs: (startMs + endMs) / 2 }] : []),
      ...(last ? [{ voice: 'last' as const, atMs: startMs + 700 }] : []),
      ...[3000, 2000, 1000].map((before) => ({ voice: 'pip' as const, atMs: endMs - before })),
    ]
  })
}
