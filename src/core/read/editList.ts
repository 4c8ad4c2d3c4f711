// Reads what another program did to the footage: an edit decision list (CMX 3600) or a timeline in OpenTimelineIO's
// JSON, as pieces of files on the time of a video. Only cuts are read; what is anything else is named, and refused.
import { z } from 'zod'
import { Problem } from '../problem'
import { parsedJson } from './json'
import { frameOf, msAt, nominalOf } from '../time/timecode'
import { HOUR, type Ms, type Rate } from '../units'

/** A piece of a file, and where it stands in the video. */
export interface EditedPiece {
  /** What the list calls its file; empty where it does not say. */
  clip: string
  fromMs: Ms
  toMs: Ms
  atMs: Ms
  /** In the video: another than in the file where it is slower or faster. */
  lengthMs: Ms
  /** Where the list says so. */
  place: string
}

/** @param name its ending tells which of the two it is. @throws Problem with the line or clip as its place. */
export function readEditList(text: string, name: string, rate: Rate): EditedPiece[] {
  const pieces = /\.otio$/i.test(name) ? readOtio(text) : readEdl(text, rate)
  if (!pieces.length) throw new Problem({ code: 'edits-none' })
  const [first] = [...pieces].sort((one, other) => one.atMs - other.atMs)
  // A video begins at the first whole hour by custom.
  const begin = Math.floor((first?.atMs ?? 0) / HOUR) * HOUR
  return pieces.map((piece) => ({ ...piece, atMs: piece.atMs - begin })).sort((one, other) => one.atMs - other.atMs)
}

const EVENT = /^(\d{1,6})\s+(\S+)\s+(\S+)\s+(C|D|W\d+|K\S*)\s+(?:\d+\s+)?(\S+)\s+(\S+)\s+(\S+)\s+(\S+)\s*$/
const CLIP = /^\*\s*FROM CLIP NAME:\s*(.*)$/i

function readEdl(text: string, rate: Rate): EditedPiece[] {
  const pieces: EditedPiece[] = []
  for (const [index, line] of text.split(/\r?\n/).entries()) {
    const place = `line ${index + 1}`
    const clip = CLIP.exec(line.trim())?.[1]
    const last = pieces.at(-1)
    if (clip !== undefined && last) last.clip = clip.trim()
    const event = EVENT.exec(line.trim())
    if (!event) continue
    const [, , reel = '', channels = '', kind = '', ...codes] = event
    // Sound that is cut apart from its picture is not followed.
    if (!/V|B/.test(channels)) continue
    if (kind !== 'C') throw new Problem({ code: 'edits-no-cut', found: kind }, place)
    const [fromMs = 0, toMs = 0, atMs = 0, endMs = 0] = codes.map((code) => {
      const frame = frameOf(code, rate)
      if (frame === null) throw new Problem({ code: 'edits-timecode', found: code, perSecond: nominalOf(rate) }, place)
      return msAt(frame, rate)
    })
    if (toMs < fromMs || endMs < atMs) throw new Problem({ code: 'edits-backwards' }, place)
    if (endMs > atMs)
      pieces.push({ clip: reel === 'AX' ? '' : reel, fromMs, toMs, atMs, lengthMs: endMs - atMs, place })
  }
  return pieces
}

const timeSchema = z.object({ rate: z.number().positive(), value: z.number() })
const rangeSchema = z.object({ start_time: timeSchema, duration: timeSchema })
const mediaSchema = z.looseObject({ name: z.string().nullish(), target_url: z.string().optional() })
const itemSchema = z.looseObject({
  OTIO_SCHEMA: z.string(),
  name: z.string().nullish(),
  source_range: rangeSchema.nullish(),
  effects: z.array(z.looseObject({ OTIO_SCHEMA: z.string(), time_scalar: z.number().optional() })).nullish(),
  media_reference: mediaSchema.nullish(),
  media_references: z.record(z.string(), mediaSchema).nullish(),
  active_media_reference_key: z.string().nullish(),
})
type Item = z.infer<typeof itemSchema>
const trackSchema = z.looseObject({ OTIO_SCHEMA: z.string(), kind: z.string(), children: z.array(itemSchema) })
const timelineSchema = z.looseObject({
  OTIO_SCHEMA: z.string().startsWith('Timeline.'),
  tracks: z.looseObject({ children: z.array(z.unknown()) }),
})

const msOf = ({ rate, value }: z.infer<typeof timeSchema>): Ms => (value * 1000) / rate

function readOtio(text: string): EditedPiece[] {
  const timeline = timelineSchema.safeParse(parsedJson(text))
  if (!timeline.success) throw notOtio(timeline.error)
  const pictures = timeline.data.tracks.children.filter((one) => (one as { kind?: unknown } | null)?.kind === 'Video')
  const [track, more] = pictures
  if (!track) throw new Problem({ code: 'edits-none' })
  if (more) throw new Problem({ code: 'edits-layers', count: pictures.length })
  const read = trackSchema.safeParse(track)
  if (!read.success) throw notOtio(read.error)
  let atMs: Ms = 0
  return read.data.children.flatMap((item, index): EditedPiece[] => {
    const piece = pieceOf(item, atMs, `clip ${index + 1}`)
    atMs += item.source_range ? msOf(item.source_range.duration) : 0
    return piece ? [piece] : []
  })
}

function notOtio(error: z.ZodError): Problem {
  const [issue] = error.issues
  return new Problem({ code: 'not-otio', field: issue?.path.join('.') || 'the whole', reason: issue?.message ?? '' })
}

function pieceOf(item: Item, atMs: Ms, place: string): EditedPiece | null {
  const kind = item.OTIO_SCHEMA.split('.')[0] ?? ''
  if (kind === 'Gap') return null
  if (kind !== 'Clip') throw new Problem({ code: 'edits-no-cut', found: kind }, place)
  const { source_range: range } = item
  if (!range) throw new Problem({ code: 'edits-no-range' }, place)
  const fromMs = msOf(range.start_time)
  const lengthMs = msOf(range.duration)
  return { clip: clipOf(item), fromMs, toMs: fromMs + lengthMs * scalarOf(item, place), atMs, lengthMs, place }
}

/** How much faster than its file; 1 where nothing is done to it. */
function scalarOf({ effects }: Item, place: string): number {
  let scalar = 1
  for (const { OTIO_SCHEMA: schema, time_scalar: by } of effects ?? []) {
    if (!schema.startsWith('LinearTimeWarp') || !by || by < 0)
      throw new Problem({ code: 'edits-no-cut', found: schema.split('.')[0] ?? schema }, place)
    scalar *= by
  }
  return scalar
}

function clipOf({ name, media_reference: one, media_references: all, active_media_reference_key: key }: Item): string {
  const media = one ?? all?.[key ?? 'DEFAULT_MEDIA']
  const url = media?.target_url ?? ''
  return decoded(url.split(/[/\\]/).at(-1) ?? '') || media?.name || name || ''
}

function decoded(url: string): string {
  try {
    return decodeURIComponent(url)
  } catch {
    return url
  }
}
