// The waveform of a footage, fetched once.
'use client'
import { useEffect, useState } from 'react'
import { unpackPeaks, type PeakLevel } from '@/core/hear/peaks'
import type { FootageProgress } from '@/server/progress'

export function usePeaks(footage: FootageProgress): PeakLevel[] {
  const [levels, setLevels] = useState<PeakLevel[]>([])
  useEffect(() => {
    if (!footage.hasPeaks) return
    const halt = new AbortController()
    void fetch(`/api/footage/${footage.id}/peaks`, { signal: halt.signal })
      .then(async (response) => {
        if (response.ok) setLevels(unpackPeaks(new Uint8Array(await response.arrayBuffer())))
      })
      .catch(() => {})
    return () => halt.abort()
  }, [footage.id, footage.hasPeaks])
  return levels
}
