import { z } from 'zod'
import { lineSchema } from '@/core/cue/wishes'
import { Problem } from '@/core/problem'
import { lineAloud, spokenLengths } from '@/engine/lines'
import { readBody, route } from '@/server/http'
import { recordedLines, recordingFiles } from '@/server/recordings'

const voiceSchema = z.enum(['flite', 'espeak', 'own'])
const bodySchema = z.object({ voice: voiceSchema, lines: lineSchema.array().max(2000) })

/** How long lines last in a voice, in ms; of the coach's own, only what was recorded. */
export const POST = route(async (request) => {
  const { voice, lines } = await readBody(request, bodySchema)
  const lengths = voice === 'own' ? await recordedLines(lines) : await spokenLengths(voice, lines, request.signal)
  return Response.json({ lengths: Object.fromEntries(lengths) })
})

/** One line, as it is mixed. */
export const GET = route(async (request) => {
  const asked = new URL(request.url).searchParams
  const said = z.object({ voice: voiceSchema, text: lineSchema }).safeParse(Object.fromEntries(asked))
  if (!said.success)
    throw new Problem({ code: 'bad-document', what: 'request', field: 'text', reason: 'no line to say' })
  const { voice, text } = said.data
  const wave = await lineAloud(voice, text, { recordings: await recordingFiles(), signal: request.signal })
  if (!wave) throw new Problem({ code: 'not-found', what: 'file' })
  const kept = voice === 'own' ? 'no-store' : 'private, max-age=86400, immutable'
  return new Response(new Uint8Array(wave), { headers: { 'content-type': 'audio/wav', 'cache-control': kept } })
})
