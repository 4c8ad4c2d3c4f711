// What this browser was last told about its floor: how it sounds, from how far it is read. Kept here, as another room
// has another loudspeaker.
'use client'
import { useCallback, useState } from 'react'
import { z } from 'zod'
import { CHIRP_VOICES } from '@/core/sound/chirp'

const wishesSchema = z.object({
  rehearsal: z.boolean().default(false),
  speed: z.enum(['1', '2', '4']).default('1'),
  countInS: z.enum(['5', '10', '20']).default('10'),
  metres: z.enum(['1', '2', '3', '4']).default('3'),
  cues: z.number().min(0).max(1).default(0.8),
  ear: z.number().min(0).max(1).default(0.8),
  chirps: z.enum(['off', ...CHIRP_VOICES]).default('plain'),
  /** The simulated heart-rate strap is worn. */
  strap: z.boolean().default(false),
  /** The caution was read. */
  understood: z.boolean().default(false),
})
export type FloorWishes = z.infer<typeof wishesSchema>

const PLACE = 'jivet-floor-wishes'

function keptWishes(): FloorWishes {
  try {
    const kept = wishesSchema.safeParse(JSON.parse(localStorage.getItem(PLACE) ?? '{}'))
    return kept.success ? kept.data : wishesSchema.parse({})
  } catch {
    return wishesSchema.parse({})
  }
}

export function useFloorWishes(): { wishes: FloorWishes; change: (part: Partial<FloorWishes>) => void } {
  const [wishes, setWishes] = useState(keptWishes)
  const change = useCallback((part: Partial<FloorWishes>) => {
    setWishes((before) => {
      const next = { ...before, ...part }
      try {
        localStorage.setItem(PLACE, JSON.stringify(next))
      } catch {
        /* a browser that keeps nothing asks again next time */
      }
      return next
    })
  }, [])
  return { wishes, change }
}
