// What movement says of changes: work begins with a leap in it, rest with its end; holds and demonstrations do neither.
// It is too weak to tie anything by itself, and weighs between the places that something else leaves open.
import type { EvidenceOf } from '../evidence'
import { addBell, strayRate, type Begins, type Grid } from './marks'
import type { Ms, Share } from '../units'

/** So many changes are seen in movement, and not only heard. */
const MARKED: Share = 0.5
/** What is seen counts this much of what it would alone: it goes with what is heard, and is wrong with it. */
const SOFTENED = 0.5
/** Beyond this many standard deviations it says nothing. */
const REACH = 3

/**
 * How much likelier the movement is if a change lies in a cell than if none does.
 * @param movement in any order.
 * @param expected changes that the score has.
 */
export function movementLikelihood(
  movement: readonly EvidenceOf<'motion'>[],
  begins: Begins,
  { cells, stepMs }: Grid,
  { expected, footageMs }: { expected: number; footageMs: Ms },
): Float64Array {
  const told = begins === null ? [] : movement.filter((one) => one.begins === (begins === 'work'))
  if (!told.length) return new Float64Array(cells).fill(1)
  const field = new Float64Array(cells).fill(1 - MARKED)
  const strayPerMs = strayRate(told.length, expected / 2, footageMs)
  for (const { atMs, spreadMs, strength } of told)
    addBell(field, stepMs, { atMs, sigmaMs: spreadMs, weight: (MARKED * strength) / strayPerMs, reach: REACH })
  return field.map((one) => one ** SOFTENED)
}
