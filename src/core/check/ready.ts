// Work on a clock that starts right after talk, or after work at one's own pace, without a count-in.
import { setField } from '../score/edits'
import { formatOf, type Section } from '../score/formats'
import type { Segment } from '../score/segment'
import { SECOND } from '../units'
import { nameOf } from '../words/en/names'
import { atSegment, Repeats, type Check, type FindingMend } from './finding'

const COUNT_IN_MS = 10 * SECOND

export const checkReady: Check = ({ score, expansion }) => {
  const found = new Repeats()
  const sections = new Map(score.sections.map((section) => [section.key, section]))
  let before: Segment | null = null
  for (const segment of expansion.segments) {
    const last = before
    before = segment.durationMs || segment.kind === 'talk' ? segment : before
    // A warm-up mixes counted and timed moves as it goes.
    if (!last || segment.block === null || !startsOnTheClock(segment) || !endsByItself(last)) continue
    const mend = last.sectionKey === segment.sectionKey ? null : countIn(sections.get(segment.sectionKey))
    found.meet('ready', `${segment.sectionKey} ${last.kind}`, (times) => ({
      severity: 'note',
      ...atSegment(segment),
      fact: {
        code: 'not-ready',
        from: last.kind === 'talk' ? '' : nameOf(last),
        to: nameOf(segment),
        talk: last.kind === 'talk',
        times,
      },
      mend,
    }))
  }
  return found.findings()
}

const startsOnTheClock = ({ kind, pace, durationMs }: Segment): boolean =>
  kind === 'work' && pace === 'fixed' && durationMs > 0

const endsByItself = ({ kind, pace, slot }: Segment): boolean => kind === 'talk' || (pace === 'own' && slot === null)

function countIn(section: Section | undefined): FindingMend | null {
  if (!section || !formatOf(section).notation.fields.some(({ field }) => field === 'leadInMs')) return null
  return {
    fact: { code: 'lead-in', ms: COUNT_IN_MS },
    apply: (draft) => setField(draft, section.key, ['leadInMs'], COUNT_IN_MS),
  }
}
