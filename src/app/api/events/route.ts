import { onChange } from '@/server/changes'
import { route } from '@/server/http'

export const dynamic = 'force-dynamic'

const KEEP_ALIVE_MS = 15_000
/** A reader that leaves so many lines unread is gone, or asks again. */
const MOST_UNREAD = 1000

/**
 * Server-sent events, one stream for all tabs of a browser: the id of each workout whose footage, jobs or video
 * changed, or `all` where changes may have been missed, as at the beginning.
 */
export const GET = route(async (request) => {
  const encoder = new TextEncoder()
  let close = (): void => {}
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      let open = true
      const say = (text: string): void => {
        if (!open) return
        if ((controller.desiredSize ?? 0) < -MOST_UNREAD) return close()
        controller.enqueue(encoder.encode(text))
      }
      const alive = setInterval(() => say(': still here\n\n'), KEEP_ALIVE_MS)
      let stop = (): void => {}
      close = () => {
        if (!open) return
        open = false
        clearInterval(alive)
        stop()
        try {
          controller.close()
        } catch {
          /* a reader that has gone away has closed it already */
        }
      }
      if (request.signal.aborted) return close()
      request.signal.addEventListener('abort', close, { once: true })
      try {
        stop = await onChange((workoutId) => say(`data: ${workoutId ?? 'all'}\n\n`))
      } catch (error) {
        // The database is away: the page asks again.
        clearInterval(alive)
        open = false
        throw error
      }
      // Closed while we waited: what was begun is ended here.
      if (!open) return stop()
      say('data: all\n\n')
    },
    cancel: () => close(),
  })
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  })
})
