// The score being edited: every change is an undoable command (patches there and back), saved by itself, and kept in
// the browser with its history so that a reload, a crash or a silent server loses nothing.
'use client'
import { applyPatches, enablePatches, produceWithPatches, type Patch } from 'immer'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { giveKeys, withKeys } from '@/core/score/formats/keys'
import { scoreSchema, type Score } from '@/core/score/score'
import type { Version } from '@/core/version'
import { call } from '../api'
import { forgetWork, keepWork, keptWork } from '../parts/keptWork'
import { SaveQueue, type Begun, type SaveState } from '../parts/saveQueue'

enablePatches()

interface Command {
  forth: Patch[]
  back: Patch[]
}

export interface ScoreState {
  score: Score
  undo: Command[]
  redo: Command[]
  saveState: SaveState
  /** Why the last save was refused. */
  refusal: string
  edit: (recipe: (draft: Score) => void) => void
  undoOnce: () => void
  redoOnce: () => void
  /** Answers a stale save: with our score over theirs, or with theirs. */
  resolveStale: (keep: 'mine' | 'theirs') => Promise<void>
  /** Takes up history and unsaved work that this browser kept. */
  restore: () => Promise<void>
  /** Saves what is not saved, at once. */
  flush: () => Promise<void>
  /** The same for a page that is being left. */
  leave: () => void
}

interface Kept extends Begun {
  score: unknown
  undo: Command[]
  redo: Command[]
}

const MOST_HISTORY = 500

/** An edit after which every station and row has a key of its own; it is one command with what the recipe did. */
function editKeyed(score: Score, recipe: (draft: Score) => void): [next: Score, forth: Patch[], back: Patch[]] {
  const [next, forth, back] = produceWithPatches(score, recipe)
  const lacking = next.sections.flatMap((section, index) =>
    section !== score.sections[index] && withKeys(section) !== section ? [index] : [],
  )
  if (!lacking.length) return [next, forth, back]
  const [keyed, more, less] = produceWithPatches(next, (draft) => {
    for (const index of lacking) giveKeys(draft.sections[index] ?? {})
  })
  return [keyed, [...forth, ...more], [...less, ...back]]
}

export function createScoreStore(id: string, initial: Score, version: Version): StoreApi<ScoreState> {
  const keptAs = `score:${id}`
  const path = `/api/workouts/${id}/score`
  return createStore<ScoreState>((write, read) => {
    const queue: SaveQueue<Score> = new SaveQueue({
      saved: initial,
      version,
      read: () => read()?.score ?? initial,
      send: async ({ document: score, ...save }) =>
        (await call<Version>('PUT', path, { score, ...save }, { outlives: true })).revision,
      onState: (saveState, refusal) => write({ saveState, refusal }),
      keep: () => {
        const { score, undo, redo } = read()
        return keepWork(keptAs, { ...queue.begun(), score, undo, redo } satisfies Kept)
      },
    })
    const change = (score: Score, undo: Command[], redo: Command[]): void => {
      write({ score, undo: undo.slice(-MOST_HISTORY), redo })
      queue.changed()
    }

    return {
      score: initial,
      undo: [],
      redo: [],
      saveState: 'saved',
      refusal: '',
      edit(recipe) {
        const { score, undo } = read()
        const [next, forth, back] = editKeyed(score, recipe)
        if (forth.length) change(next, [...undo, { forth, back }], [])
      },
      undoOnce() {
        const { score, undo, redo } = read()
        const last = undo.at(-1)
        if (last) change(applyPatches(score, last.back), undo.slice(0, -1), [...redo, last])
      },
      redoOnce() {
        const { score, undo, redo } = read()
        const last = redo.at(-1)
        if (last) change(applyPatches(score, last.forth), [...undo, last], redo.slice(0, -1))
      },
      async resolveStale(choice) {
        const { score: theirs, ...now } = await call<Version & { score: Score }>('GET', path)
        if (choice === 'theirs') write({ score: theirs, undo: [], redo: [] })
        queue.adopt(theirs, now)
        await queue.flush()
      },
      async restore() {
        const kept = await keptWork<Kept>(keptAs)
        const score = scoreSchema.safeParse(kept?.score)
        if (!kept || !score.success || read().undo.length) return
        const { undo, redo, dirty } = kept
        if (!dirty && kept.revision !== version.revision) return forgetWork(keptAs)
        const follows = queue.takeUp(kept)
        if (follows || dirty) write({ undo, redo })
        if (!dirty) return
        write({ score: score.data })
        queue.changed()
        await queue.flush()
      },
      flush: () => queue.flush(),
      leave: () => queue.leave(),
    }
  })
}
