// What is done of a workout, asked for again on every way to another step and whenever the server tells of a change.
'use client'
import { useEffect, useState } from 'react'
import type { Done } from '@/server/workoutState'
import { call } from '../api'
import { onChanges } from './changes'

/** @param initial what the page was made with. @param path where on the way the page is. */
export function useDone(initial: { id: string; done: Done } | undefined, path: string): Done | undefined {
  const [done, setDone] = useState(initial?.done)
  const id = initial?.id
  useEffect(() => {
    if (!id) return
    let isGone = false
    const ask = (): void =>
      // Where the server is away, or does not tell a paired device, what was known stays.
      void call<Done>('GET', `/api/workouts/${id}/done`)
        .then((now) => !isGone && setDone(now))
        .catch(() => undefined)
    ask()
    const stop = onChanges((changed) => (changed === id || changed === 'all') && ask())
    return () => {
      isGone = true
      stop()
    }
  }, [id, path])
  return done
}
