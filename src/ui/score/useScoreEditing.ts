// The score being edited: its store, what it unfolds into, and what is judged of it.
'use client'
import { useRouter } from 'next/navigation'
import { produce } from 'immer'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { mendOf, type Judgement, type ToldFinding } from '@/core/check/check'
import { tryExpand, type Unfolding } from '@/core/expand/expand'
import { setLength } from '@/core/score/edits'
import { libraryOf, withLibrary } from '@/core/score/library'
import { mergeInto } from '@/core/score/merge'
import type { Move } from '@/core/score/move'
import type { Score } from '@/core/score/score'
import type { Expansion, Segment } from '@/core/score/segment'
import type { Ms } from '@/core/units'
import type { Version } from '@/core/version'
import { isBeingTyped } from '../parts/isTyping'
import type { Edit } from './edit'
import { createScoreStore, type ScoreState } from './scoreStore'
import { useJudgement } from './useJudgement'
import { whenLeft } from '../parts/whenLeft'

export interface ScoreEditing {
  state: ScoreState
  score: Score
  edit: Edit
  /** A whole score read from the shorthand takes the place of this one, as a small command. */
  replace: (read: Score) => void
  /** While an edge is dragged the length is shown, not kept. */
  resize: (segment: Segment, durationMs: Ms | null, done: boolean) => void
  /** What is shown: the score, or the one that a dragged edge would make. */
  expansion: Expansion
  problem: Unfolding['problem']
  /** Null until the score was judged. */
  judgement: Judgement<ToldFinding> | null
  /** Applies the mend of a finding, where the score still has it. */
  mend: (findingId: string) => void
  library: Move[]
}

interface Props {
  id: string
  score: Score
  version: Version
  ownMoves: Move[]
}

export function useScoreEditing({ id, score: initial, version, ownMoves }: Props): ScoreEditing {
  const [store] = useState(() => createScoreStore(id, initial, version))
  const state = useStore(store)
  const { score } = state
  const [preview, setPreview] = useState<Score | null>(null)
  const { unfolded, expansion } = useExpansion(preview ?? score)
  const judgement = useJudgement(unfolded.score)
  const library = useMemo(() => libraryOf(ownMoves), [ownMoves])
  useKeeping(store)
  useUndoKeys(state)

  /** Every edit takes along the facts of the creator's own moves that it names, so that the score can stand alone. */
  const edit: Edit = useCallback(
    (recipe) =>
      store.getState().edit((draft) => {
        recipe(draft)
        withLibrary(draft, ownMoves)
      }),
    [store, ownMoves],
  )
  const mend = useCallback(
    (findingId: string) => {
      const found = mendOf(store.getState().score, findingId)
      if (found) edit(found.apply)
    },
    [edit, store],
  )
  const replace = (read: Score): void =>
    store.getState().edit((draft) => {
      const whole = structuredClone(read)
      withLibrary(whole, ownMoves)
      mergeInto(draft, whole)
    })
  const resize: ScoreEditing['resize'] = (segment, durationMs, done) => {
    if (!done) {
      if (durationMs !== null) setPreview(produce(score, (draft) => setLength(draft, segment, durationMs)))
      return
    }
    setPreview(null)
    if (durationMs !== null && durationMs !== segment.durationMs) edit((draft) => setLength(draft, segment, durationMs))
  }
  const { problem } = unfolded.result
  return { state, score, edit, replace, resize, expansion, problem, judgement, mend, library }
}

/** Takes up what this browser kept, and saves before the page is left. */
function useKeeping(store: ReturnType<typeof createScoreStore>): void {
  const router = useRouter()
  useEffect(() => {
    void store.getState().restore()
    const stop = whenLeft(store.getState().leave)
    return () => {
      stop()
      // The page that follows was asked for before this save; it is asked for again.
      if (store.getState().saveState !== 'saved')
        void store
          .getState()
          .flush()
          .then(() => router.refresh())
    }
  }, [store, router])
}

function useUndoKeys({ undoOnce, redoOnce }: ScoreState): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || isBeingTyped(event)) return
      event.preventDefault()
      if (event.shiftKey) redoOnce()
      else undoOnce()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [undoOnce, redoOnce])
}

const NOTHING: Expansion = {
  segments: [],
  totalMs: 0,
  workMs: 0,
  restMs: 0,
  estimated: false,
  minMs: 0,
  maxMs: 0,
  workoutMs: 0,
}

/**
 * The score with what it unfolds into; `expansion` is, while it is too long to unfold, the last that could be shown.
 */
function useExpansion(score: Score): { unfolded: { score: Score; result: Unfolding }; expansion: Expansion } {
  const last = useRef(NOTHING)
  const unfolded = useMemo(() => ({ score, result: tryExpand(score) }), [score])
  const { expansion } = unfolded.result
  useEffect(() => {
    if (expansion) last.current = expansion
  }, [expansion])
  // eslint-disable-next-line react-hooks/refs -- the last good picture stands in while the score cannot be unfolded
  return { unfolded, expansion: expansion ?? last.current }
}
