// What was heard in a footage, fetched anew whenever the changes were looked for, as rows below its sound.
'use client'
import { useEffect, useState } from 'react'
import type { Evidence } from '@/core/evidence'
import { heardRows, type HeardRow } from '@/core/look/heardRows'
import type { FootageProgress } from '@/server/progress'
import { call } from '../api'

/** @param looks how often the changes were looked for: captions and likes of a tap may have come. */
export function useHeard({ id, hasPeaks }: FootageProgress, looks: number): HeardRow[] {
  const [rows, setRows] = useState<HeardRow[]>([])
  useEffect(() => {
    if (!hasPeaks) return
    let here = true
    void call<Evidence[]>('GET', `/api/footage/${id}/evidence`)
      .then((evidence) => here && setRows(heardRows(evidence)))
      .catch(() => {})
    return () => {
      here = false
    }
  }, [id, hasPeaks, looks])
  return rows
}
