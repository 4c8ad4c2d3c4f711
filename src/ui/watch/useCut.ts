// How the footage is cut: kept with the workout, and what the render uses. The cut is made where the evidence is.
'use client'
import { useRouter } from 'next/navigation'
import { useCallback, useState } from 'react'
import { toast } from 'sonner'
import type { CutWishes } from '@/core/cut/fit'
import { call } from '../api'

export function useCut(
  workoutId: string,
  kept: CutWishes,
): { wishes: CutWishes; change: (part: Partial<CutWishes>) => void } {
  const router = useRouter()
  const [wishes, setWishes] = useState(kept)
  const change = useCallback(
    (part: Partial<CutWishes>) => {
      const next = { ...wishes, ...part }
      setWishes(next)
      void call('PUT', `/api/workouts/${workoutId}/cut`, next)
        .then(() => router.refresh())
        .catch((error: Error) => {
          setWishes(wishes)
          toast.error(error.message)
        })
    },
    [workoutId, wishes, router],
  )
  return { wishes, change }
}
