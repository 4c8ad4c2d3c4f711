// A series of sessions as a calendar (iCalendar, RFC 5545): one each day or so, at a time of day wherever one is.
import { z } from 'zod'
import { DAY, type Ms } from '../units'

export interface CalendarSession {
  /** The same for the same session whenever it is written, so that a calendar changes it and has it no second time. */
  id: string
  title: string
  lengthMs: Ms
}

export const calendarSchema = z.object({
  /** The first day and the time of day, without a zone: "2026-12-01T07:00". */
  from: z.iso.datetime({ local: true, offset: false }),
  /** Days from one to the next. */
  every: z.coerce.number().int().min(1).max(60).default(1),
})
export type CalendarWish = z.infer<typeof calendarSchema>

/** @param sessions in order. @param writtenMs when it is written, since the epoch. */
export function writeCalendar(
  sessions: readonly CalendarSession[],
  { from, every }: CalendarWish,
  { name, writtenMs }: { name: string; writtenMs: Ms },
): string {
  // Reckoned as if it were in no zone, so that no summer time moves it.
  const startMs = Date.parse(`${from.replace(/Z$/, '')}Z`)
  const stamp = compact(new Date(writtenMs))
  const times = new Map<string, number>()
  const events = sessions.flatMap(({ id, title, lengthMs }, at) => {
    const time = (times.get(id) ?? 0) + 1
    times.set(id, time)
    // A session that is done again is an event of its own.
    const uid = time === 1 ? id : `${id}-${time}`
    const beginMs = startMs + at * every * DAY
    return [
      ...['BEGIN:VEVENT', `UID:${escaped(uid)}@jivet`, `DTSTAMP:${stamp}Z`, `SUMMARY:${escaped(title)}`],
      ...[`DTSTART:${compact(new Date(beginMs))}`, `DURATION:PT${Math.max(1, Math.round(lengthMs / 1000))}S`],
      'END:VEVENT',
    ]
  })
  const lines = [
    ...['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Jivet//Series//EN', `X-WR-CALNAME:${escaped(name)}`],
    ...[...events, 'END:VCALENDAR', ''],
  ]
  return lines.map(folded).join('\r\n')
}

const compact = (date: Date): string => date.toISOString().slice(0, 19).replace(/[-:]/g, '')

const escaped = (text: string): string =>
  text
    .toWellFormed()
    // Control characters are no text.
    .replace(/[^\P{Cc}\n]/gu, ' ')
    .replace(/[\\;,]/g, '\\$&')
    .replace(/\n/g, '\\n')

const MOST_OCTETS = 75
const encoder = new TextEncoder()

/** Lines that are longer go on after a line break and a blank; no letter is cut in two. */
function folded(line: string): string {
  if (encoder.encode(line).length <= MOST_OCTETS) return line
  const lines = ['']
  let octets = 0
  for (const letter of line) {
    const length = encoder.encode(letter).length
    if (octets + length > MOST_OCTETS) {
      lines.push(' ')
      octets = 1
    }
    lines[lines.length - 1] += letter
    octets += length
  }
  return lines.join('\r\n')
}
