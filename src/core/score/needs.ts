// How long things take in a rest: the table that the judgement of rests adds up. Every number can be tuned by the creator.
// The usual numbers are ours, set by doing the changes at an easy pace; they are rules of thumb, not measurements of viewers.
import { z } from 'zod'
import type { Posture } from './postures'

const seconds = z.number().min(0).max(120)

export const USUAL_NEEDS = {
  /** Reading or hearing, in words a second. */
  wordsPerSecond: 2.5,
  standToFloor: 3,
  floorToStand: 4,
  kneelChange: 2,
  rollOver: 2,
  gearChange: 4,
  sideChange: 1.5,
  countIn: 3,
}
export type Needs = typeof USUAL_NEEDS

export const needsSchema = z
  .object({
    wordsPerSecond: z.number().min(0.5).max(10),
    standToFloor: seconds,
    floorToStand: seconds,
    kneelChange: seconds,
    rollOver: seconds,
    gearChange: seconds,
    sideChange: seconds,
    countIn: seconds,
  })
  .partial()

/** Seconds to get from one posture to another, with what the change is called. */
export function changeOfPosture(from: Posture, to: Posture, needs: Needs): { seconds: number; what: string } | null {
  if (from === to) return null
  if (to === 'standing')
    return from === 'kneeling'
      ? { seconds: needs.kneelChange, what: 'stand up' }
      : { seconds: needs.floorToStand, what: 'stand up' }
  if (from === 'standing')
    return to === 'kneeling'
      ? { seconds: needs.kneelChange, what: 'kneel down' }
      : { seconds: needs.standToFloor, what: 'get to the floor' }
  if (from === 'kneeling' || to === 'kneeling')
    return { seconds: needs.kneelChange, what: to === 'kneeling' ? 'kneel' : 'change from kneeling' }
  return { seconds: needs.rollOver, what: 'turn over' }
}
