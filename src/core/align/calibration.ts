// What the weight of a place is worth: how often places of such a weight were right, over sessions with every fault.
// Measured by bench/calibration.ts on simulated sessions that no table of accuracy is made of.
import type { Share } from '../units'

/** Weight, and the share that was right; both rise. Between them a straight line. */
const TABLE: readonly (readonly [mass: Share, right: Share])[] = [
  [0, 0],
  [0.5564, 0.444],
  [0.621, 0.517],
  [0.6826, 0.603],
  [0.7923, 0.674],
  [0.8626, 0.7],
  [0.917, 0.822],
  [0.967, 0.842],
  [0.9766, 0.95],
  [0.9815, 0.967],
  [0.9876, 0.992],
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
