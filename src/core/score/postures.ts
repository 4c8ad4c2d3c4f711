// Where the body is during a move, what it works, how hard it lands, and how its sides are taken.
export const POSTURES = ['standing', 'kneeling', 'handsFeet', 'faceUp', 'faceDown', 'seated'] as const
export type Posture = (typeof POSTURES)[number]

export const SIDE_RULES = [
  'none',
  'byRep',
  'alternate',
  'halves',
  'direction',
  'each',
  'left',
  'right',
  'both',
] as const
/**
 * `byRep`: left and right in turn within the interval, each rep. `alternate`: odd rounds (or sets) left, even ones
 * right. `halves`: left, then right, inside one interval. `direction`: one way, then the other, inside one interval,
 * both sides at work all along. `each`: an interval for the left, then one for the right. `left`, `right`, `both`:
 * always that. Where a station says so, the right comes first.
 */
export type SideRule = (typeof SIDE_RULES)[number]

export const SIDES = ['left', 'right', 'both', 'switch'] as const
/** `switch` is an interval in two halves, left first. */
export type Side = (typeof SIDES)[number]

export const STANDING_LEGS = ['unknown', 'same', 'other'] as const
/**
 * On which leg a move that is done on one leg stands: that of the side that is called, or the other one. `unknown` also
 * where it stands on both, or on none.
 */
export type StandingLeg = (typeof STANDING_LEGS)[number]

export const MUSCLES = ['shoulders', 'chest', 'back', 'arms', 'grip', 'trunk', 'hips', 'thighs', 'calves'] as const
export type Muscle = (typeof MUSCLES)[number]

export const IMPACTS = ['still', 'low', 'high'] as const
/** `still`: nothing leaves the floor. `low`: a foot does. `high`: both do, or a hard landing. */
export type Impact = (typeof IMPACTS)[number]
