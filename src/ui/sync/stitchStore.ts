// The stitches being edited: whole lists, undoable, saved as they change. Ties that cannot hold are refused here.
'use client'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { tieKey, type BoundaryName } from '@/core/align/boundaries'
import { holdingTies, withHandTie, type Stitch, type Tie } from '@/core/align/ties'
import type { ProblemFact } from '@/core/facts'
import type { Segment } from '@/core/score/segment'
import type { Ms } from '@/core/units'
import { texts } from '@/core/words/en/screens'
import { call, CallError } from '../api'

/** What became of a tie by hand: how many heard ties it took the place of, or why it was refused. */
export type HandOutcome = { dropped: number; problem: null } | { problem: ProblemFact }

export interface StitchState {
  stitches: Stitch[]
  past: Stitch[][]
  future: Stitch[][]
  problem: string | null
  /** Ties by hand stay; what was heard stands beside them where it can. */
  setHeard: (heard: readonly Stitch[]) => void
  put: (tie: Tie) => HandOutcome
  remove: (boundary: BoundaryName) => void
  undoOnce: () => void
  redoOnce: () => void
}

interface Editing {
  footageId: string
  segments: readonly Segment[]
  footageMs: Ms
  stitches: Stitch[]
  revision: number
  onSaved: () => void
}

const RETRY_AFTER_MS = 3000

export function createStitchStore(editing: Editing): StoreApi<StitchState> {
  const { footageId, segments, footageMs, onSaved } = editing
  let { revision, stitches: saved } = editing
  let saving = false
  return createStore<StitchState>((write, read) => {
    const save = async (): Promise<void> => {
      const { stitches } = read()
      if (saving || stitches === saved) return
      saving = true
      try {
        const body = { stitches, revision }
        revision = (await call<{ revision: number }>('PUT', `/api/footage/${footageId}/stitches`, body)).revision
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
    const change = (stitches: Stitch[]): void => {
      write({ stitches, past: [...read().past.slice(-200), read().stitches], future: [] })
      void save()
    }
    const step = (from: 'past' | 'future', to: 'past' | 'future'): void => {
      const target = read()[from].at(-1)
      if (!target) return
      write({ [from]: read()[from].slice(0, -1), [to]: [...read()[to], read().stitches], stitches: target })
      void save()
    }
    return {
      stitches: editing.stitches,
      past: [],
      future: [],
      problem: null,
      setHeard(heard) {
        const hands = read().stitches.filter((one) => one.origin === 'hand')
        const held = new Set(hands.map(tieKey))
        const all = [...hands, ...heard.filter((one) => !held.has(tieKey(one)))]
        change(holdingTies(segments, all, footageMs).map(({ tie }) => tie))
      },
      put(tie) {
        const result = withHandTie(segments, read().stitches, tie, footageMs)
        if (result.problem) return { problem: result.problem }
        change(result.ties)
        return { dropped: result.dropped, problem: null }
      },
      remove: (boundary) => change(read().stitches.filter((one) => tieKey(one) !== tieKey(boundary))),
      undoOnce: () => step('past', 'future'),
      redoOnce: () => step('future', 'past'),
    }
  })
}
