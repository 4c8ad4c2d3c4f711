import { lineSchema } from '@/core/cue/wishes'
import { Problem } from '@/core/problem'
import { bodyOf, route } from '@/server/http'
import { forgetRecording, keepRecording, recordedLines } from '@/server/recordings'

const MOST_BYTES = 16 * 1024 * 1024

function lineOf(request: Request): string {
  const line = lineSchema.safeParse(new URL(request.url).searchParams.get('line'))
  if (!line.success) throw new Problem({ code: 'bad-document', what: 'request', field: 'line', reason: 'no line' })
  return line.data
}

/** Which lines were recorded, and how long each is. */
export const GET = route(async () => Response.json({ lines: Object.fromEntries(await recordedLines()) }))

/** A line in the coach's own voice; the body is a sound file of any kind. */
export const PUT = route(async (request) => {
  const line = lineOf(request)
  const ms = await keepRecording(line, bodyOf(request, MOST_BYTES), request.signal)
  return Response.json({ ms })
})

export const DELETE = route(async (request) => {
  await forgetRecording(lineOf(request))
  return new Response(null, { status: 204 })
})
