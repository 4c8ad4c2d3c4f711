// How long things take in a rest: the table that the judgement of rests adds up. Every number can be tuned by the
// creator. The usual numbers are ours, set by doing the changes at an easy pace; they are rules of thumb, not
// measurements of viewers.
import { z } from 'zod'
import type { PostureFact } from '../facts'
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

/** What it takes to get from one posture to another; null where nothing changes. */
export function changeOfPosture(from: Posture, to: Posture, needs: Needs): PostureFact | null {
  const need = (code: PostureFact['code'], seconds: number): PostureFact => ({ code, ms: Math.round(seconds * 1000) })
  if (from === to) return null
  if (to === 'standing') return need('stand-up', from === 'kneeling' ? needs.kneelChange : needs.floorToStand)
  if (from === 'standing')
    return to === 'kneeling' ? need('kneel-down', needs.kneelChange) : need('get-to-floor', needs.standToFloor)
  if (to === 'kneeling') return need('kneel', needs.kneelChange)
  return from === 'kneeling' ? need('leave-kneeling', needs.kneelChange) : need('turn-over', needs.rollOver)
}
