// Why a change was tied where it was, in one sentence.
import type { FoundStitch } from '../../align/sync'
import { formatInstant } from '../../time/clock'

/** Below this a rival is not worth a word. */
const WORTH_NAMING = 0.05

/** What was heard there, and what stands against it. */
export function whyTied({ confidence, alternatives }: Pick<FoundStitch, 'confidence' | 'alternatives'>): string {
  const [rival] = alternatives.filter((one) => one.confidence >= WORTH_NAMING)
  const heard = 'A tone sounds here, as far from its neighbours as planned'
  if (rival) return `${heard}; ${formatInstant(rival.footageMs)} would fit as well, at ${percent(rival.confidence)}.`
  if (confidence >= 0.9) return `${heard}, and no other place fits.`
  return `${heard}; the session may also have gone another way, in which this change never came.`
}

const percent = (share: number): string => `${Math.round(100 * share)} %`
