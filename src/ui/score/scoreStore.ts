// The score being edited: every change is an undoable command (patches there and back), saved by itself, and kept in
// the browser with its history so that a reload, a crash or a silent server loses nothing.
'use client'
import { del, get, set } from 'idb-keyval'
import { applyPatches, enablePatches, produceWithPatches, type Patch } from 'immer'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { giveKeys, withKeys } from '@/core/score/formats/keys'
import { scoreSchema, type Score } from '@/core/score/score'
import { call, CallError } from '../api'

enablePatches()

interface Command {
  forth: Patch[]
  back: Patch[]
}

/** `refused`: the server will not have this score, and says why; the next change is tried again. */
export type SaveState = 'saved' | 'saving' | 'unsaved' | 'offline' | 'stale' | 'refused'

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
}

interface Kept {
  revision: number
  dirty: boolean
  score: unknown
  undo: Command[]
  redo: Command[]
}

const SAVE_AFTER_MS = 500
const RETRY_AFTER_MS = 3000
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

// One closure holds what one store remembers beside its state: the revision, what is saved, the save under way.
// eslint-disable-next-line max-lines-per-function
export function createScoreStore(id: string, initial: Score, initialRevision: number): StoreApi<ScoreState> {
  let revision = initialRevision
  let saved = initial
  let timer: ReturnType<typeof setTimeout> | undefined
  let saving: Promise<void> | null = null
  const keptAs = `score:${id}`

  // eslint-disable-next-line max-lines-per-function
  return createStore<ScoreState>((write, read) => {
    const isDirty = (): boolean => read().score !== saved
    const keep = (): void => {
      const { score, undo, redo } = read()
      const kept: Kept = { revision, dirty: isDirty(), score, undo, redo }
      void set(keptAs, kept).catch(() => {})
    }
    const schedule = (delay = SAVE_AFTER_MS): void => {
      clearTimeout(timer)
      timer = setTimeout(() => void save(), delay)
    }
    const save = async (): Promise<void> => {
      clearTimeout(timer)
      if (saving) await saving
      if (!isDirty() || read().saveState === 'stale') return
      saving = attempt().finally(() => {
        saving = null
      })
      await saving
    }
    const attempt = async (): Promise<void> => {
      const { score } = read()
      write({ saveState: 'saving' })
      try {
        revision = (await call<{ revision: number }>('PUT', `/api/workouts/${id}/score`, { score, revision })).revision
        saved = score
        write({ saveState: isDirty() ? 'unsaved' : 'saved' })
        if (isDirty()) schedule()
      } catch (error) {
        const saveState = stateAfter(error)
        write({ saveState, refusal: saveState === 'refused' && error instanceof Error ? error.message : '' })
        if (saveState === 'offline') schedule(RETRY_AFTER_MS)
      }
      keep()
    }
    const change = (score: Score, undo: Command[], redo: Command[]): void => {
      write({
        score,
        undo: undo.slice(-MOST_HISTORY),
        redo,
        saveState: read().saveState === 'stale' ? 'stale' : 'unsaved',
      })
      keep()
      schedule()
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
        const theirs = await call<{ score: Score; revision: number }>('GET', `/api/workouts/${id}/score`)
        revision = theirs.revision
        if (choice === 'mine') {
          saved = theirs.score
          write({ saveState: 'unsaved' })
          return save()
        }
        saved = theirs.score
        write({ score: theirs.score, undo: [], redo: [], saveState: 'saved' })
        keep()
      },
      async restore() {
        const kept = await get<Kept>(keptAs).catch(() => undefined)
        const score = scoreSchema.safeParse(kept?.score)
        if (!kept || !score.success || read().undo.length) return
        const unchangedThere = kept.revision === revision
        if (unchangedThere) write({ undo: kept.undo, redo: kept.redo })
        if (kept.dirty) {
          revision = kept.revision
          write({ score: score.data, undo: kept.undo, redo: kept.redo, saveState: 'unsaved' })
          schedule(0)
        } else if (!unchangedThere) await del(keptAs)
      },
      flush: save,
    }
  })
}

/** A server that is silent or stumbles is asked again; one that says no is not. */
function stateAfter(error: unknown): SaveState {
  const code = error instanceof CallError ? error.code : 'offline'
  return code === 'stale' ? 'stale' : code === 'offline' || code === 'tool-failed' ? 'offline' : 'refused'
}
