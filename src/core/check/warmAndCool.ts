// No warm-up before hard or jumping work; no cool-down; neither in the video nor linked. And where the cautions stand.
import { areKnown } from '../score/cast'
import { newPart, newSection, partOf, type Section } from '../score/formats'
import { freshKey, type Score } from '../score/score'
import type { Segment } from '../score/segment'
import { atSegment, finding, type Check, type Finding, type Review } from './finding'

const HARD = 4
/** Enough to get to the floor, hear what comes and be counted in. */
const READY_MS = 15_000

/** Where a section has no count-in of its own. */
const getReady = (score: Score): Section => ({
  ...newSection('break', freshKey('Get ready', keysOf(score)), 'Get ready'),
  durationMs: READY_MS,
})
const WARMING = ['Heel digs', 'Mooring march', 'Windlass turn', 'Hip circles']
const COOLING = ['Stern stretch', 'Porthole turn', 'Bow stretch']

export const checkWarmAndCool: Check = (review) => {
  const { score, expansion } = review
  if (!expansion.segments.some((segment) => segment.kind === 'work')) return []
  return [...warmUp(review), ...coolDown(score), ...misplaced(score), ...caution(score)]
}

function warmUp(review: Review): Finding[] {
  const { score, expansion, cast } = review
  const hard = expansion.segments.find((segment) => segment.kind === 'work' && isHard(segment, review))
  if (!hard) return []
  const warmAt = score.sections.findIndex(isWarmUp)
  const hardAt = score.sections.findIndex((section) => section.key === hard.sectionKey)
  // A warm-up that comes too late is told as that.
  if (warmAt >= 0 && (warmAt <= hardAt || isLate(score, warmAt))) return []
  const guess = !areKnown(cast, hard.moves)
  return [
    finding('warm-up', {
      id: 'none',
      severity: guess ? 'note' : 'warning',
      ...atSegment(hard),
      fact: { code: 'no-warm-up', label: hard.label, jumping: cast(hard.label).impact === 'high', guess },
      mend: {
        fact: { code: 'add-warm-up' },
        apply: (draft) => {
          const opening = draft.sections.findIndex((section) => partOf(section) !== 'talk')
          const part = newPart('warmUp', freshKey('Warm-up', keysOf(draft)), 'Warm-up', WARMING)
          // Nobody goes from the last warming move straight into the clock.
          const next = draft.sections[Math.max(0, opening)]
          const counts = next && 'leadInMs' in next
          if (counts) next.leadInMs = Math.max(next.leadInMs, READY_MS)
          draft.sections.splice(Math.max(0, opening), 0, part, ...(next && !counts ? [getReady(draft)] : []))
        },
      },
    }),
  ]
}

/** A warm-up, or a section of any other format that is called so. */
const isWarmUp = (section: Section): boolean =>
  partOf(section) === 'warmUp' || (partOf(section) === 'main' && /\bwarm[\s-]*up\b/i.test(section.name))

const isTrained = (section: Section): boolean => partOf(section) === 'main' && !isWarmUp(section)

/** Nothing is trained after it. */
const isLate = ({ sections }: Score, at: number): boolean =>
  sections.some(isTrained) && !sections.slice(at).some(isTrained)

/** A warm-up after everything, a cool-down before anything. */
function misplaced(score: Score): Finding[] {
  const { sections } = score
  const first = sections.findIndex(isTrained)
  return sections.flatMap((section, at) => {
    const late = isWarmUp(section) && isLate(score, at)
    const early = partOf(section) === 'coolDown' && first > at
    if (!late && !early) return []
    const code = late ? 'warm-up-late' : 'cool-down-early'
    const where = { sectionKey: section.key, segmentId: null }
    return [
      finding(late ? 'warm-up' : 'cool-down', {
        id: section.key,
        severity: 'warning',
        ...where,
        fact: { code, section: section.name },
      }),
    ]
  })
}

function coolDown({ sections }: Score): Finding[] {
  if (sections.some((section) => partOf(section) === 'coolDown')) return []
  return [
    finding('cool-down', {
      id: 'none',
      severity: 'note',
      fact: { code: 'no-cool-down' },
      mend: {
        fact: { code: 'add-cool-down' },
        apply: (draft) => {
          const { length } = draft.sections
          const part = newPart('coolDown', freshKey('Cool-down', keysOf(draft)), 'Cool-down', COOLING)
          // From one hold to the next the body changes places.
          Object.assign(part, { leadInMs: READY_MS, restMs: READY_MS })
          draft.sections.splice(partOf(draft.sections.at(-1)) === 'talk' ? length - 1 : length, 0, part)
        },
      },
    }),
  ]
}

function caution({ caution: place }: Score): Finding[] {
  if (place !== 'none') return []
  const apply = (draft: Score): void => {
    draft.caution = 'both'
  }
  const mend = { fact: { code: 'caution-both' } as const, apply }
  return [finding('caution', { id: 'none', severity: 'warning', fact: { code: 'no-caution' }, mend })]
}

const keysOf = (score: Score): string[] => score.sections.map((section) => section.key)

const isHard = (segment: Segment, { cast }: Review): boolean =>
  (segment.effort ?? 0) >= HARD || segment.moves.some((name) => cast(name).impact === 'high')
