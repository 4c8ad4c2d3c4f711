// A move: an exercise with all that a plan needs to know of it. One schema for the library, for files and for scores.
import { z } from 'zod'
import { IMPACTS, MUSCLES, POSTURES, SIDE_RULES, STANDING_LEGS } from './postures'

const line = (most: number) => z.string().trim().max(most)

export const moveSchema = z.object({
  name: line(300).min(1),
  /** What fits on a small screen. */
  short: line(60).default(''),
  /** What is said while it is done. */
  cue: line(300).default(''),
  posture: z.enum(POSTURES).default('standing'),
  muscles: z.array(z.enum(MUSCLES)).max(MUSCLES.length).default([]),
  impact: z.enum(IMPACTS).default('still'),
  /** 1 (easy) to 5 (all out); the height of the land. */
  effort: z.number().int().min(1).max(5).default(3),
  sideRule: z.enum(SIDE_RULES).default('none'),
  standingLeg: z.enum(STANDING_LEGS).default('unknown'),
  gear: z.array(line(60).min(1)).max(20).default([]),
  easier: line(300).default(''),
  harder: line(300).default(''),
  caution: line(500).default(''),
  secondsPerRep: z.number().min(0.2).max(120).default(3),
  tags: z.array(line(40).min(1)).max(20).default([]),
})
export type Move = z.infer<typeof moveSchema>
