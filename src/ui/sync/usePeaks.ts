// The waveforms of the files of a reel, each fetched once, end to end.
'use client'
import { useEffect, useState } from 'react'
import { joinedPeaks, unpackPeaks, type PeakLevel } from '@/core/hear/peaks'
import type { FootageProgress } from '@/server/progress'
import { lengthOf } from '../parts/ReelVideo'

export function usePeaks(files: readonly FootageProgress[]): PeakLevel[] {
  const [levels, setLevels] = useState<PeakLevel[]>([])
  useEffect(() => {
    const halt = new AbortController()
    const peaksOf = async ({ id, hasPeaks }: FootageProgress): Promise<PeakLevel[]> => {
      if (!hasPeaks) return []
      const response = await fetch(`/api/footage/${id}/peaks`, { signal: halt.signal })
      return response.ok ? unpackPeaks(new Uint8Array(await response.arrayBuffer())) : []
    }
    void Promise.all(files.map(peaksOf))
      .then((all) => setLevels(joinedPeaks(all, files.map(lengthOf))))
      .catch(() => {})
    return () => halt.abort()
  }, [files])
  return levels
}
