// What was checked, and what is asked next.
'use client'
import { useCallback, useMemo } from 'react'
import { watchedChanges, type Watched, type WatchedChange } from '@/core/proof/changes'
import { stateOf, type CheckState, type Proof } from '@/core/proof/proof'
import { newKey } from '../parts/newKey'
import { useKept } from '../parts/useKept'
import type { VideoClock } from '../parts/useVideoClock'

interface Props extends Watched {
  workoutId: string
  kept: Proof
  clock: VideoClock
}

export interface CheckedChange extends WatchedChange {
  state: CheckState
}

export interface Proofing {
  proof: Proof
  changes: readonly CheckedChange[]
  check: (change: WatchedChange, right: boolean) => void
  note: (text: string) => void
  done: (noteId: string) => void
}

export function useProof({ workoutId, kept, cut, shown, overlay, cues, rate, marks, clock }: Props): Proofing {
  const [proof, change] = useKept(workoutId, 'proof', kept)
  const watched = useMemo(
    () => watchedChanges({ cut, shown, overlay, cues, rate, marks }),
    [cut, shown, overlay, cues, rate, marks],
  )
  const changes = useMemo(() => watched.map((one) => ({ ...one, state: stateOf(proof, one) })), [watched, proof])
  const check = useCallback(
    ({ id, signature }: WatchedChange, right: boolean) =>
      change(({ checked: { [id]: _, ...others } }) => ({ checked: right ? { ...others, [id]: signature } : others })),
    [change],
  )
  const note = useCallback(
    (text: string) => {
      const nowMs = clock.nowMs()
      const at = shown.findLast(({ startMs }) => startMs <= nowMs) ?? shown[0]
      if (!at || !text.trim()) return
      const offsetMs = Math.round(nowMs - at.startMs)
      const kept = { id: newKey(), segmentId: at.segment.id, offsetMs, text: text.trim() }
      change(({ notes }) => ({ notes: [...notes, kept] }))
    },
    [change, clock, shown],
  )
  const done = useCallback(
    (noteId: string) => change(({ notes }) => ({ notes: notes.filter(({ id }) => id !== noteId) })),
    [change],
  )
  return { proof, changes, check, note, done }
}
