// The keys of Watch.
'use client'
import { useEffect } from 'react'
import type { ShownSegment } from '@/core/cut/cut'
import type { Ms } from '@/core/units'
import { isShortcut } from '../parts/isTyping'
import type { Playing } from './usePlayer'
import type { Treatments } from './useTreatments'

const STEP_MS = 2000
/** A change this close before is the one that plays; the one before it is meant. */
const JUST_BEGUN_MS = 500

type Props = Playing & {
  shown: readonly ShownSegment[]
  /** Shows what plays from the next camera. */
  nextCamera: () => void
  /** Opens the proof, or closes it. */
  onProof: () => void
  /** Plays the whole, changes only, or two seconds round and round. */
  onMode: () => void
  onFull: () => void
} & Treatments

export function useWatchKeys(props: Props): void {
  const { clock, shown, toggle, seek, nextCamera, treat, mark, onProof, onMode, onFull } = props
  useEffect(() => {
    const now = (): Ms => clock.nowMs()
    const jump = (way: 1 | -1): void => {
      const starts = shown.map(({ startMs }) => startMs)
      const to = way > 0 ? starts.find((ms) => ms > now() + 50) : starts.findLast((ms) => ms < now() - JUST_BEGUN_MS)
      if (to !== undefined) seek(to)
    }
    const actions: Record<string, () => void> = {
      ' ': toggle,
      ArrowLeft: () => seek(now() - STEP_MS),
      ArrowRight: () => seek(now() + STEP_MS),
      ArrowUp: () => jump(-1),
      ArrowDown: () => jump(1),
      v: nextCamera,
      w: () => treat(null),
      s: () => treat('shortened'),
      x: () => treat('cut'),
      k: () => treat('covered'),
      d: mark,
      p: onProof,
      c: onMode,
      f: onFull,
    }
    const onKey = (event: KeyboardEvent): void => {
      const action = actions[event.key.length === 1 ? event.key.toLowerCase() : event.key]
      const pressed = event.key === ' ' && event.target instanceof HTMLButtonElement
      if (!action || !isShortcut(event) || event.ctrlKey || event.metaKey || pressed) return
      event.preventDefault()
      action()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [clock, shown, toggle, seek, nextCamera, treat, mark, onProof, onMode, onFull])
}
