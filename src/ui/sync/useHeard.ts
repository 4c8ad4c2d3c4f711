// What was heard in the files of a reel, fetched anew whenever the changes were looked for, as rows below its sound.
'use client'
import { useEffect, useState } from 'react'
import type { Evidence } from '@/core/evidence'
import { heardRows, type HeardRow } from '@/core/look/heardRows'
import { call } from '../api'

/** @param looks how often the changes were looked for: captions and likes of a tap may have come. */
export function useHeard(workoutId: string, looks: number): HeardRow[] {
  const [rows, setRows] = useState<HeardRow[]>([])
  useEffect(() => {
    let here = true
    void call<Evidence[]>('GET', `/api/workouts/${workoutId}/evidence`)
      .then((evidence) => here && setRows(heardRows(evidence)))
      .catch(() => {})
    return () => {
      here = false
    }
  }, [workoutId, looks])
  return rows
}
