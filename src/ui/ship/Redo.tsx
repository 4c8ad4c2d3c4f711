// How much a new render would have to make.
'use client'
import { useEffect, useState, type ReactNode } from 'react'
import type { Redo } from '@/server/redo'
import type { Purpose } from '@/core/render/purpose'
import { shipTexts } from '@/core/words/en/ship'
import { call } from '../api'

/** @param of another where something has changed: then it is asked again. */
export function RedoLine({ id, purpose, of }: { id: string; purpose: Purpose; of: string }): ReactNode {
  const [told, setTold] = useState<{ of: string; redo: Redo } | null>(null)
  useEffect(() => {
    let isWanted = true
    // Where it is not known nothing is said: the render itself says why it cannot be.
    void call<Redo>('GET', `/api/workouts/${id}/render?for=${purpose}`)
      .then((redo) => isWanted && setTold({ of: `${purpose} ${of}`, redo }))
      .catch(() => undefined)
    return () => {
      isWanted = false
    }
  }, [id, purpose, of])
  return told?.of === `${purpose} ${of}` ? <p className="text-quiet">{shipTexts.redo(told.redo)}</p> : null
}
