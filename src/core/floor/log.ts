// The record of a session on the floor as a file: documented JSON, with the plan as it was run, so that it can be read
// by itself whatever becomes of the workout.
import { z } from 'zod'
import { longestRising } from '../align/rising'
import { expand } from '../expand/expand'
import { readDocument } from '../read/workoutFile'
import { scoreSchema } from '../score/score'
import type { Segment } from '../score/segment'
import { DAY, type Ms } from '../units'
import { floorEventSchema } from './events'
import { runOf, standing, takesOf, type Take } from './run'

const MOST_EVENTS = 20_000

export const floorLogSchema = z.object({
  format: z.literal('jivet-floor-log'),
  version: z.literal(1),
  /** When the session was opened, which is its instant 0. */
  openedAt: z.iso.datetime(),
  rehearsal: z.boolean(),
  score: scoreSchema,
  events: z.array(floorEventSchema).max(MOST_EVENTS),
})
export type FloorLog = z.infer<typeof floorLogSchema>

/** @throws Problem `bad-json`, or `bad-document` with the first wrong field as its place. */
export const readFloorLog = (text: string): FloorLog => readDocument(text, floorLogSchema, 'floor log')

/** What was done, for whoever lays it on footage. */
export interface Performance {
  /** The plan that was run. */
  segments: Segment[]
  /** All takes, in order of time. */
  takes: Take[]
  /** What stands of them, rising in the plan and in time alike; each lasts something. */
  stands: Take[]
  /** From the first start to the last end. */
  lengthMs: Ms
}

/** @param nowMs session time up to which the clock ran. Default: to the end of whatever was begun. */
export function performanceOf({ score, events }: Pick<FloorLog, 'score' | 'events'>, nowMs: Ms = DAY): Performance {
  const { segments } = expand(score)
  const { stretches } = runOf(segments, events, nowMs)
  const takes = takesOf(stretches, events)
  const places = new Map(segments.map(({ id }, at) => [id, at]))
  const lasting = standing(takes).filter(({ fromMs, toMs }) => toMs > fromMs)
  const stands = longestRising(lasting, ({ segmentId }) => places.get(segmentId) ?? -1, false)
  const [first] = takes
  return { segments, takes, stands, lengthMs: (takes.at(-1)?.toMs ?? 0) - (first?.fromMs ?? 0) }
}
