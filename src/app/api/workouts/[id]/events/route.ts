import { sql } from '@/server/db'
import { idFrom, route } from '@/server/http'
import { CHANGES } from '@/server/jobs'
import { progressOf } from '@/server/progress'
import { findWorkout } from '@/server/workouts'

export const dynamic = 'force-dynamic'

const KEEP_ALIVE_MS = 15_000

/** Server-sent events: the workout's footage, jobs and newest pack, whole, at once and after every change. */
export const GET = route<{ id: string }>(async (request, { id }) => {
  const { id: workoutId } = await findWorkout(idFrom(id))
  const encoder = new TextEncoder()
  let close = (): void => {}
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      let open = true
      const say = (text: string): void => {
        if (open) controller.enqueue(encoder.encode(text))
      }
      const tell = async (): Promise<void> => say(`data: ${JSON.stringify(await progressOf(workoutId))}\n\n`)
      const listening = await sql().listen(CHANGES, (changed) => {
        if (changed === workoutId) void tell().catch(() => close())
      })
      const alive = setInterval(() => say(': still here\n\n'), KEEP_ALIVE_MS)
      close = () => {
        if (!open) return
        open = false
        clearInterval(alive)
        void listening.unlisten().catch(() => {})
        try {
          controller.close()
        } catch {
          /* a reader that has gone away has closed it already */
        }
      }
      request.signal.addEventListener('abort', close, { once: true })
      await tell()
    },
    cancel: () => close(),
  })
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  })
})
