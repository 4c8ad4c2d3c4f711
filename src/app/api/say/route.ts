import { z } from 'zod'
import { Problem } from '@/core/problem'
import { spoken } from '@/engine/speech'
import { theDoor } from '@/server/access/door'
import { FROM_HEADER } from '@/server/access/entry'
import { route } from '@/server/http'

const textSchema = z.string().trim().min(1).max(300)

/** A line for the coach's ear, spoken. The same line sounds the same for ever. */
export const GET = route(async (request) => {
  const waitMs = (await theDoor())?.sayings.waitFor(request.headers.get(FROM_HEADER) ?? '', performance.now()) ?? 0
  if (waitMs > 0) throw new Problem({ code: 'tries-too-many', waitMs })
  const text = textSchema.safeParse(new URL(request.url).searchParams.get('text'))
  if (!text.success)
    throw new Problem({ code: 'bad-document', what: 'request', field: 'text', reason: 'no line to say' })
  const wave = await spoken(text.data, request.signal)
  return new Response(new Uint8Array(wave), {
    headers: { 'content-type': 'audio/wav', 'cache-control': 'private, max-age=86400, immutable' },
  })
})
