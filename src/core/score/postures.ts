// Where the body is during a move. The terrain draws each as a ground of its own.
export const POSTURES = ['standing', 'kneeling', 'handsFeet', 'faceUp', 'faceDown', 'seated'] as const
export type Posture = (typeof POSTURES)[number]

export const SIDE_RULES = ['none', 'alternate', 'halves'] as const
/** `alternate`: odd rounds left, even rounds right. `halves`: left, then right, inside one interval. */
export type SideRule = (typeof SIDE_RULES)[number]

export const SIDES = ['left', 'right', 'both', 'switch'] as const
/** `switch` is an interval in two halves, left first. */
export type Side = (typeof SIDES)[number]
