// What the weight of a place is worth: how often places of such a weight were right, over sessions with every fault.
// Measured by bench/calibration.ts on simulated sessions that no table of accuracy is made of.
import type { Share } from '../units'

/** Weight, and the share that was right; both rise. Between them a straight line. */
const TABLE: readonly (readonly [mass: Share, right: Share])[] = [
  [0, 0],
  [0.5575, 0.439],
  [0.6455, 0.592],
  [0.7043, 0.621],
  [0.7969, 0.69],
  [0.8673, 0.733],
  [0.9162, 0.81],
  [0.9671, 0.883],
  [0.9798, 0.967],
  [0.9877, 0.994],
  [1, 1],
]
/** Nothing that was only heard is certain. */
const MOST: Share = 0.99

/** How probable it is that a place of this weight is right: two digits, rounded down. */
export function calibrated(mass: Share): Share {
  const above = TABLE.findIndex(([weight]) => weight >= mass)
  const [highMass, highShare] = TABLE[above] ?? [1, 1]
  const [lowMass, lowShare] = TABLE[above - 1] ?? [0, 0]
  const share = above > 0 ? lowShare + ((highShare - lowShare) * (mass - lowMass)) / (highMass - lowMass) : mass
  return Math.min(MOST, Math.floor(share * 100) / 100)
}
