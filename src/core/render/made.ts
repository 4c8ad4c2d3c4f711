// What a video was made with, as it is written into it: whoever checks it later by its plan need not be told. Names and
// texts are the plan's own and are not kept here.
import { z } from 'zod'
import type { CueAsk } from '../cue/cues'
import { cueWishesSchema } from '../cue/wishes'
import type { Cut, ShownSegment } from '../cut/cut'
import { lookSchema, type LookWish } from '../look/looks/family'
import type { Viewing } from '../look/overlay'
import { Problem } from '../problem'
import type { Segment } from '../score/segment'
import { mixSchema, type Mix } from '../sound/mix'

const ms = z.number().finite()
const madeSchema = z.object({
  made: z.literal(1),
  look: lookSchema,
  mix: mixSchema,
  /** Absent: as usual. */
  cues: cueWishesSchema.optional(),
  coach: z.object({ fromMs: ms, untilMs: ms }).array(),
  timer: ms.array(),
  namesTalk: z.boolean(),
  cut: z.object({
    outMs: ms,
    spans: z
      .object({
        source: z.union([z.number().int(), z.literal('card'), z.literal('still')]),
        ...{ fromMs: ms, toMs: ms, outMs: ms, lengthMs: ms, rate: ms, mirrored: z.boolean() },
        segmentId: z.string().nullable(),
        why: z.enum(['filmed', 'shortened', 'slowed', 'reused', 'held', 'card']),
        stillOf: z.number().int().nullable(),
      })
      .array(),
  }),
  shown: z.object({ id: z.string(), startMs: ms, endMs: ms, startTied: z.boolean(), endTied: z.boolean() }).array(),
})
export type Made = z.infer<typeof madeSchema>

interface Making {
  cut: Cut
  shown: readonly ShownSegment[]
  viewing?: Viewing
  look: LookWish
  mix: Mix
  cueAsk?: CueAsk
}

export const madeOf = ({ cut, shown, viewing, look, mix, cueAsk = {} }: Making): Made => ({
  made: 1,
  ...{ look, mix, coach: [...(cueAsk.coach ?? [])], timer: [...(cueAsk.timer ?? [])] },
  ...(cueAsk.wishes ? { cues: cueAsk.wishes } : {}),
  namesTalk: viewing?.namesTalk ?? false,
  cut: { outMs: cut.outMs, spans: [...cut.spans] },
  shown: shown.map(({ segment, ...at }) => ({ id: segment.id, ...at })),
})

/** @returns null where it is no such text, or one of a Jivet that is newer than this. */
export function readMade(text: string): Made | null {
  try {
    return madeSchema.safeParse(JSON.parse(text)).data ?? null
  } catch {
    return null
  }
}

/** What was shown, in the words of a plan. @throws Problem `video-of-other-plan`. */
export function shownOf({ shown }: Made, segments: readonly Segment[]): ShownSegment[] {
  const byId = new Map(segments.map((segment) => [segment.id, segment]))
  return shown.map(({ id, ...at }) => {
    const segment = byId.get(id)
    if (!segment) throw new Problem({ code: 'video-of-other-plan', segmentId: id })
    return { segment, ...at }
  })
}
