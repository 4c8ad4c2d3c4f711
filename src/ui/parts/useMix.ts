// The levels of footage and cues: heard at once, kept with the workout, and what the render uses.
'use client'
import { useCallback, useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import type { Mix } from '@/core/sound/mix'
import { call } from '../api'

/** A slider is let go of before its level is kept. */
const SETTLED_MS = 400

export function useMix(workoutId: string, kept: Mix): { mix: Mix; change: (part: Partial<Mix>) => void } {
  const [mix, setMix] = useState(kept)
  const saved = useRef(kept)
  useEffect(() => {
    if (mix === saved.current) return
    const save = (): void => {
      saved.current = mix
      void call('PUT', `/api/workouts/${workoutId}/mix`, mix).catch((error: Error) => toast.error(error.message))
    }
    const timer = setTimeout(save, SETTLED_MS)
    return () => clearTimeout(timer)
  }, [workoutId, mix])
  const change = useCallback((part: Partial<Mix>) => setMix((now) => ({ ...now, ...part })), [])
  return { mix, change }
}
