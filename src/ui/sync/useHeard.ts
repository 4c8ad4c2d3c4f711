// What was heard in a footage, fetched once, as rows below its sound.
'use client'
import { useEffect, useState } from 'react'
import type { Evidence } from '@/core/evidence'
import { heardRows, type HeardRow } from '@/core/look/heardRows'
import type { FootageProgress } from '@/server/progress'
import { call } from '../api'

export function useHeard({ id, hasPeaks }: FootageProgress): HeardRow[] {
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
  }, [id, hasPeaks])
  return rows
}
