// The stitches being edited: whole lists, undoable, saved as they change.
'use client'
import { createStore, type StoreApi } from 'zustand/vanilla'
import type { StoredStitch } from '@/server/stitches'
import { call, CallError } from '../api'
import { texts } from '../texts'

export interface StitchState {
  stitches: StoredStitch[]
  past: StoredStitch[][]
  future: StoredStitch[][]
  problem: string | null
  set: (stitches: StoredStitch[]) => void
  put: (segmentId: string, edge: 'start' | 'end', footageMs: number) => void
  remove: (segmentId: string, edge: 'start' | 'end') => void
  undoOnce: () => void
  redoOnce: () => void
}

const RETRY_AFTER_MS = 3000

export function createStitchStore(
  workoutId: string,
  initial: StoredStitch[],
  initialRevision: number,
  onSaved: () => void,
): StoreApi<StitchState> {
  let revision = initialRevision
  let saved = initial
  let saving = false
  return createStore<StitchState>((write, read) => {
    const save = async (): Promise<void> => {
      const { stitches } = read()
      if (saving || stitches === saved) return
      saving = true
      try {
        revision = (
          await call<{ revision: number }>('PUT', `/api/workouts/${workoutId}/stitches`, { stitches, revision })
        ).revision
        saved = stitches
        write({ problem: null })
        onSaved()
      } catch (error) {
        const stale = error instanceof CallError && error.code === 'stale'
        write({ problem: stale ? texts.sync.stale : (error as Error).message })
        if (!stale) setTimeout(() => void save(), RETRY_AFTER_MS)
        return
      } finally {
        saving = false
      }
      void save()
    }
    const change = (stitches: StoredStitch[]): void => {
      write({ stitches, past: [...read().past.slice(-200), read().stitches], future: [] })
      void save()
    }
    const others = (segmentId: string, edge: string): StoredStitch[] =>
      read().stitches.filter((one) => one.segmentId !== segmentId || one.edge !== edge)
    const step = (from: 'past' | 'future', to: 'past' | 'future'): void => {
      const target = read()[from].at(-1)
      if (!target) return
      write({ [from]: read()[from].slice(0, -1), [to]: [...read()[to], read().stitches], stitches: target })
      void save()
    }
    return {
      stitches: initial,
      past: [],
      future: [],
      problem: null,
      set: change,
      put: (segmentId, edge, footageMs) =>
        change([
          ...others(segmentId, edge),
          { segmentId, edge, footageMs: Math.max(0, Math.round(footageMs)), confidence: 1, evidence: ['hand'] },
        ]),
      remove: (segmentId, edge) => change(others(segmentId, edge)),
      undoOnce: () => step('past', 'future'),
      redoOnce: () => step('future', 'past'),
    }
  })
}
