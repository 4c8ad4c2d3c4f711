import { issueToProblem } from '@/core/read/workoutFile'
import { calendarSchema, writeCalendar } from '@/core/write/calendar'
import { textAttachment } from '@/server/attachment'
import { idFrom, route } from '@/server/http'
import { downloadName } from '@/server/packs'
import { findWorkout, seriesOf } from '@/server/workouts'

/** The series that a workout is part of as a calendar, from `?from=` on, every so many days. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const asked = calendarSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams))
  if (!asked.success) throw issueToProblem(asked.error, 'request')
  const { id: own, score } = await findWorkout(idFrom(id))
  const name = score.series.name || score.title
  const text = writeCalendar(await seriesOf(own, score.series.name), asked.data, { name, writtenMs: Date.now() })
  return textAttachment(text, 'text/calendar', downloadName(name, '.ics'))
})
