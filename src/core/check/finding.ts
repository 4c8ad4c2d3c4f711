// A finding: what will go wrong, where, why, and a mend where one is at hand. And what every check is given to look at.
import type { FindingFact, MendFact } from '../facts'
import type { Cast } from '../score/cast'
import type { Needs } from '../score/needs'
import type { Score } from '../score/score'
import type { Expansion, Segment } from '../score/segment'

export const SEVERITIES = ['error', 'warning', 'note'] as const
/** `error`: viewers cannot follow it. `warning`: it will go wrong for some. `note`: worth a thought. */
export type Severity = (typeof SEVERITIES)[number]

export interface FindingMend {
  fact: MendFact
  /** Changes the score in place; one command to undo. */
  apply: (score: Score) => void
}

export interface Finding {
  /** The same for the same trouble at the same place, so that what was dismissed stays dismissed. */
  id: string
  check: string
  severity: Severity
  sectionKey: string | null
  /** The first segment that it is about, or null for the whole. */
  segmentId: string | null
  /** What was found; `words/en` has the sentences. */
  fact: FindingFact
  mend: FindingMend | null
}

export interface Review {
  score: Score
  expansion: Expansion
  cast: Cast
  needs: Needs
}

export type Check = (review: Review) => Finding[]

type Part = Pick<Finding, 'id' | 'severity' | 'fact'> & Partial<Finding>

/** A finding of a check; `id` need only be unlike within the check. */
export const finding = (check: string, { id, ...part }: Part): Finding => ({
  sectionKey: null,
  segmentId: null,
  mend: null,
  ...part,
  check,
  id: `${check}: ${id}`,
})

export const atSegment = (segment: Segment): Pick<Finding, 'sectionKey' | 'segmentId'> => ({
  sectionKey: segment.sectionKey,
  segmentId: segment.id,
})

/** Findings that rounds repeat: each told once, with how often it was met. */
export class Repeats {
  private readonly met = new Map<
    string,
    { check: string; id: string; make: (times: number) => Omit<Part, 'id'>; times: number }
  >()

  /** @param make called at the end with how often it was met. */
  meet(check: string, id: string, make: (times: number) => Omit<Part, 'id'>): void {
    const key = `${check}: ${id}`
    const known = this.met.get(key)
    if (known) known.times++
    else this.met.set(key, { check, id, make, times: 1 })
  }

  findings(): Finding[] {
    return [...this.met.values()].map(({ check, id, make, times }) => finding(check, { id, ...make(times) }))
  }
}
