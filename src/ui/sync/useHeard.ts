// What was heard in the files of a reel, fetched anew whenever the changes were looked for.
'use client'
import { useEffect, useState } from 'react'
import type { Evidence } from '@/core/evidence'
import { call } from '../api'

/** @param looks how often the changes were looked for: captions and likes of a tap may have come. */
export function useHeard(workoutId: string, looks: number): Evidence[] {
  const [heard, setHeard] = useState<Evidence[]>([])
  useEffect(() => {
    let here = true
    void call<Evidence[]>('GET', `/api/workouts/${workoutId}/evidence`)
      .then((evidence) => here && setHeard(evidence))
      .catch(() => {})
    return () => {
      here = false
    }
  }, [workoutId, looks])
  return heard
}
