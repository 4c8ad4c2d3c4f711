// A setting of a workout: seen or heard at once, kept with it, and what the render uses.
'use client'
import { useCallback, useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import type { CueWishes } from '@/core/cue/wishes'
import type { Framing } from '@/core/cut/framing'
import type { LookWish } from '@/core/look/looks/family'
import type { Thumbnail } from '@/core/look/thumbnail'
import type { Proof } from '@/core/proof/proof'
import type { Mix } from '@/core/sound/mix'
import { call } from '../api'

interface Settings {
  mix: Mix
  look: LookWish
  framing: Framing
  cues: CueWishes
  proof: Proof
  thumbnail: Thumbnail
}

/** What is to be another; by what is there, where two changes may come before the next picture. */
type Change<Setting> = Partial<Setting> | ((before: Setting) => Partial<Setting>)

/** A slider is let go of before its level is kept. */
const SETTLED_MS = 400

export function useKept<Name extends keyof Settings>(
  workoutId: string,
  name: Name,
  kept: Settings[Name],
): [now: Settings[Name], change: (part: Change<Settings[Name]>) => void] {
  const [now, setNow] = useState(kept)
  const saved = useRef(kept)
  const latest = useRef(kept)
  const save = useCallback((): void => {
    if (latest.current === saved.current) return
    saved.current = latest.current
    void call('PUT', `/api/workouts/${workoutId}/${name}`, latest.current, { outlives: true }).catch((error: Error) =>
      toast.error(error.message),
    )
  }, [workoutId, name])
  useEffect(() => {
    latest.current = now
    const timer = setTimeout(save, SETTLED_MS)
    return () => clearTimeout(timer)
  }, [now, save])
  // Whoever leaves before it has settled loses nothing.
  useEffect(() => {
    window.addEventListener('pagehide', save)
    return () => {
      window.removeEventListener('pagehide', save)
      save()
    }
  }, [save])
  const change = useCallback(
    (part: Change<Settings[Name]>) =>
      setNow((before) => ({ ...before, ...(typeof part === 'function' ? part(before) : part) })),
    [],
  )
  return [now, change]
}
