import { calendarSchema, writeCalendar } from '@/core/write/calendar'
import { textAttachment } from '@/server/attachment'
import { idFrom, readQuery, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { findWorkout, seriesOf } from '@/server/workouts'

/** The series that a workout is part of as a calendar, from `?from=` on, every so many days. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const asked = readQuery(request, calendarSchema)
  const { id: own, score } = await findWorkout(idFrom(id))
  const name = score.series.name || score.title
  const text = writeCalendar(await seriesOf(own, score.series.name), asked, { name, writtenMs: Date.now() })
  return textAttachment(text, 'text/calendar', downloadName(name, '.ics'))
})
