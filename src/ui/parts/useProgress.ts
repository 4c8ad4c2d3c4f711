// Follows a workout's footage, jobs and pack by server-sent events; the browser reconnects by itself.
'use client'
import { useEffect, useState } from 'react'
import type { Progress } from '@/server/progress'

export function useProgress(workoutId: string, initial: Progress): Progress {
  const [progress, setProgress] = useState(initial)
  useEffect(() => {
    const source = new EventSource(`/api/workouts/${workoutId}/events`)
    source.onmessage = (event: MessageEvent<string>) => setProgress(JSON.parse(event.data) as Progress)
    return () => source.close()
  }, [workoutId])
  return progress
}
