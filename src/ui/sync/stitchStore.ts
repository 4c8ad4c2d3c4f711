// The stitches being edited: whole lists, undoable, saved as they change. Ties that cannot hold are refused here.
'use client'
import { z } from 'zod'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { tieKey, type BoundaryName } from '@/core/align/boundaries'
import { notDoneStitch, withNotDonePlaced } from '@/core/align/notDone'
import { holdingTies, stitchSchema, withHandTie, type Stitch, type Tie } from '@/core/align/ties'
import type { ProblemFact } from '@/core/facts'
import type { Segment } from '@/core/score/segment'
import type { Ms } from '@/core/units'
import type { Version } from '@/core/version'
import type { Stitches } from '@/server/stitches'
import { call } from '../api'
import { keepWork, keptWork } from '../parts/keptWork'
import { SaveQueue, type Begun, type SaveState } from '../parts/saveQueue'

/** What became of a tie by hand: how many heard ties it took the place of, or why it was refused. */
export type HandOutcome = { dropped: number; problem: null } | { problem: ProblemFact }

export interface StitchState {
  stitches: Stitch[]
  past: Stitch[][]
  future: Stitch[][]
  saveState: SaveState
  /** Why the last save was refused. */
  refusal: string
  /**
   * Ties by hand stay; what was heard stands beside them where it can. What was changed while it was being heard stays
   * as it was changed.
   * @param since the ties when the hearing began.
   */
  setHeard: (heard: readonly Stitch[], since: readonly Stitch[]) => void
  /** Says that segments were not done at all; what was heard of them goes. */
  leaveOut: (segmentIds: readonly string[]) => void
  /** Takes ties over that were made elsewhere, beside those by hand that there are. */
  takeOver: (ties: readonly Stitch[]) => void
  put: (tie: Tie) => HandOutcome
  remove: (boundary: BoundaryName) => void
  /** Takes away all that is meant; one step to undo. @returns how many. */
  forget: (which: (tie: Stitch) => boolean) => number
  /** The ties as they are at this moment. */
  now: () => readonly Stitch[]
  undoOnce: () => void
  redoOnce: () => void
  /** Answers a conflict: with our ties over theirs, or with theirs. */
  resolveStale: (keep: 'mine' | 'theirs') => Promise<void>
  /** Takes up unsaved ties that this browser kept. */
  restore: () => Promise<void>
  /** Sends what is not sent yet, as the page is being left. */
  leave: () => void
}

interface Editing extends Stitches {
  workoutId: string
  /** Another one where there are other files, or another order: their ties are others. */
  reelKey: string
  segments: readonly Segment[]
  footageMs: Ms
  onSaved: () => void
}

interface Kept extends Begun {
  stitches: unknown
}

export function createStitchStore(editing: Editing): StoreApi<StitchState> {
  const { workoutId, reelKey, segments, footageMs, onSaved, version } = editing
  const keptAs = `ties:${workoutId}:${reelKey}`
  const path = `/api/workouts/${workoutId}/stitches`
  return createStore<StitchState>((write, read) => {
    const queue: SaveQueue<Stitch[]> = new SaveQueue({
      saved: editing.stitches,
      version,
      read: () => read()?.stitches ?? editing.stitches,
      send: async ({ document: stitches, ...save }) =>
        (await call<Version>('PUT', path, { stitches, reel: reelKey, ...save }, { outlives: true })).revision,
      onState: (saveState, refusal) => write({ saveState, refusal }),
      keep: () => keepWork(keptAs, { ...queue.begun(), stitches: read().stitches } satisfies Kept),
      onSaved,
    })
    const show = (change: Partial<StitchState>): void => {
      write(change)
      queue.changed()
      void queue.flush()
    }
    const placed = (ties: readonly Stitch[]): Stitch[] => withNotDonePlaced(segments, ties, footageMs)
    const change = (ties: readonly Stitch[]): void => {
      const stitches = placed(ties)
      show({ stitches, past: [...read().past.slice(-200), read().stitches], future: [] })
    }
    /** Ties beside those that a hand made, or changed. */
    const beside = (ties: readonly Stitch[], changed: readonly string[]): void => {
      const { stitches } = read()
      const held = new Set([...handsOf(stitches).map(tieKey), ...changed])
      const isHeld = (one: Stitch): boolean => held.has(tieKey(one))
      const all = placed([...stitches.filter(isHeld), ...ties.filter((one) => !isHeld(one))])
      change(holdingTies(segments, all, footageMs).map(({ tie }) => tie))
    }
    const step = (from: 'past' | 'future', to: 'past' | 'future'): void => {
      const target = read()[from].at(-1)
      if (!target) return
      show({ [from]: read()[from].slice(0, -1), [to]: [...read()[to], read().stitches], stitches: target })
    }
    return {
      stitches: editing.stitches,
      past: [],
      future: [],
      saveState: 'saved',
      refusal: '',
      setHeard: (heard, since) => beside(heard, changedBetween(since, read().stitches)),
      leaveOut: (segmentIds) => change(leftOut(read().stitches, segmentIds)),
      takeOver: (ties) => beside(ties, []),
      put(tie) {
        const result = withHandTie(segments, read().stitches, tie, footageMs)
        if (result.problem) return { problem: result.problem }
        change(result.ties)
        return { dropped: result.dropped, problem: null }
      },
      remove: (boundary) => change(read().stitches.filter((one) => tieKey(one) !== tieKey(boundary))),
      forget(which) {
        const { stitches } = read()
        const kept = stitches.filter((one) => !which(one))
        if (kept.length < stitches.length) change(kept)
        return stitches.length - kept.length
      },
      now: () => read().stitches,
      undoOnce: () => step('past', 'future'),
      redoOnce: () => step('future', 'past'),
      async resolveStale(choice) {
        const { stitches: theirs, ...now } = await call<Version & { stitches: Stitch[] }>('GET', path)
        if (choice === 'theirs') write({ stitches: theirs, past: [], future: [] })
        queue.adopt(theirs, now)
        await queue.flush()
      },
      leave: () => queue.leave(),
      async restore() {
        const kept = await keptWork<Kept>(keptAs)
        const stitches = z.array(stitchSchema).safeParse(kept?.stitches)
        if (!kept?.dirty || !stitches.success || read().past.length) return
        queue.takeUp(kept)
        show({ stitches: stitches.data, past: [read().stitches] })
      },
    }
  })
}

function leftOut(ties: readonly Stitch[], segmentIds: readonly string[]): Stitch[] {
  const gone = new Set(segmentIds)
  const left = ties.filter(({ segmentId, edge }) => edge === 'end' || !gone.has(segmentId))
  return [...left, ...segmentIds.map(notDoneStitch)]
}

const handsOf = (ties: readonly Stitch[]): Stitch[] => ties.filter(({ origin }) => origin === 'hand')

/** Boundaries whose tie is not the one it was. */
function changedBetween(before: readonly Stitch[], now: readonly Stitch[]): string[] {
  const was = new Map(before.map((one) => [tieKey(one), one.footageMs]))
  const is = new Map(now.map((one) => [tieKey(one), one.footageMs]))
  return [...new Set([...was.keys(), ...is.keys()])].filter((key) => was.get(key) !== is.get(key))
}
