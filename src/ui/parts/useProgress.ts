// Follows a workout's footage, jobs and pack: asked for whenever the server tells of a change.
'use client'
import { useEffect, useState } from 'react'
import type { Progress } from '@/server/progress'
import { call } from '../api'
import { onChanges } from './changes'

const AGAIN_AFTER_MS = 2000

export function useProgress(workoutId: string, initial: Progress): Progress {
  const [progress, setProgress] = useState(initial)
  useEffect(() => {
    let asking = false,
      askAgain = false,
      gone = false
    const ask = async (): Promise<void> => {
      askAgain = asking
      if (asking || gone) return
      asking = true
      try {
        const now = await call<Progress>('GET', `/api/workouts/${workoutId}/progress`)
        if (!gone) setProgress(now)
      } catch {
        // The server may be starting again.
        setTimeout(() => void ask(), AGAIN_AFTER_MS)
      }
      asking = false
      if (askAgain) void ask()
    }
    const stop = onChanges((changed) => {
      if (changed === workoutId || changed === 'all') void ask()
    })
    // What happened between the page's making and its listening.
    void ask()
    return () => {
      gone = true
      stop()
    }
  }, [workoutId])
  return progress
}
