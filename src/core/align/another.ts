// Whether what was heard may be another session's. A session of other rounds that shares its intervals fits here and
// there, and each place by itself looks good; but most of what marks its changes then marks none of this score's.
import { sum } from '../sum'
import type { Ms, Share } from '../units'
import { FEWEST_MARKS, type Mark } from './marks'

/** A change, with the places that it may have, likeliest first. */
interface Placed {
  instants: readonly { footageMs: Ms; mass: Share }[]
}

/** A mark that is less likely than this to be one is not missed. */
const LEAST_LIKELY: Share = 0.4
/** A count and the change that it leads to are one. */
const ONE_MS: Ms = 4000
/** Of another session's marks fewer are explained, and fewer of the score's changes have a place beyond doubt. */
const LEAST_EXPLAINED: Share = 0.45
const LEAST_PLACED: Share = 0.5
const BEYOND_DOUBT: Share = 0.9

/** @param marks of the likeliest hypothesis, in order of time. */
export function maybeAnothers(posteriors: readonly Placed[], marks: readonly Mark[]): boolean {
  const instants = posteriors.flatMap((one) => one.instants)
  const explained = apart(marks).map(({ atMs }) => {
    const near = instants.filter(({ footageMs }) => Math.abs(footageMs - atMs) <= ONE_MS)
    return Math.min(1, massOf(near))
  })
  if (explained.length < FEWEST_MARKS) return false
  const share = sum(explained) / explained.length
  const placed = posteriors.filter(({ instants: [first] }) => first && first.mass >= BEYOND_DOUBT)
  return share < LEAST_EXPLAINED && placed.length < LEAST_PLACED * posteriors.length
}

const massOf = (instants: Placed['instants']): number => sum(instants.map(({ mass }) => mass))

/** Marks that are none of another's count. */
function apart(marks: readonly Mark[]): Mark[] {
  const found: Mark[] = []
  for (const mark of marks) {
    const last = found.at(-1)
    const tells = mark.boundaryLikelihood >= LEAST_LIKELY && mark.overtonePerMs === undefined
    if (tells && (!last || mark.atMs - last.atMs > ONE_MS)) found.push(mark)
  }
  return found
}
