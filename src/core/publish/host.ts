// What a video host says of itself, and of a video that was handed to it: the words of our adapters, whichever it is.
import { z } from 'zod'

/** Where the simulated host listens where nothing else is set. */
export const STAND_IN_PORT = 4330

export const hostLimitsSchema = z.object({
  /** Letters. */
  title: z.number(),
  description: z.number(),
  bytes: z.number(),
  lengthMs: z.number(),
})
export type HostLimits = z.infer<typeof hostLimitsSchema>

export const HOST_STATES = ['receiving', 'processing', 'ready', 'rejected'] as const
export const hostVideoSchema = z.object({
  id: z.string(),
  state: z.enum(HOST_STATES),
  /** Why it was rejected, in the host's words; empty otherwise. */
  reason: z.string(),
  /** Its page, to be opened by a person. */
  page: z.string(),
  /** How many chapters the host found in its description. */
  chapters: z.number(),
  hasCaptions: z.boolean(),
})
export type HostVideo = z.infer<typeof hostVideoSchema>

export const hostCommentSchema = z.object({ id: z.string(), name: z.string(), text: z.string(), at: z.string() })
export type HostComment = z.infer<typeof hostCommentSchema>

/** What is told of a video before its bytes. */
export interface HostedVideo {
  /** One key is one video, however often it is told. */
  key: string
  title: string
  description: string
  bytes: number
}
