// The score: totals and terrain in sight, sections below, each number edited in place.
'use client'
import { useRouter } from 'next/navigation'
import { Coffee, MessageCircle, Redo2, Repeat, Undo2 } from 'lucide-react'
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { useStore } from 'zustand'
import { expand } from '@/core/expand/expand'
import { Problem } from '@/core/problem'
import { newSection, type Section } from '@/core/score/formats'
import { freshKey, type Score } from '@/core/score/score'
import type { Expansion } from '@/core/score/segment'
import { Button, IconButton } from '../parts/Button'
import { NameField } from '../parts/fields'
import { isTyping } from '../parts/isTyping'
import { Sheet } from '../parts/Sheet'
import { texts } from '../texts'
import { createScoreStore, type SaveState } from './scoreStore'
import { Sections } from './Sections'
import { TerrainPanel } from './TerrainPanel'
import { Totals } from './Totals'

const words = texts.score

export function ScoreView({ id, score: initial, revision }: { id: string; score: Score; revision: number }): ReactNode {
  const router = useRouter()
  const [store] = useState(() => createScoreStore(id, initial, revision))
  const state = useStore(store)
  const { score, edit, undoOnce, redoOnce } = state
  const [selected, setSelected] = useState<string | null>(null)
  const { expansion, problem } = useExpansion(score)

  useEffect(() => {
    void store.getState().restore()
    const leave = (): void => void store.getState().flush()
    window.addEventListener('pagehide', leave)
    return () => {
      window.removeEventListener('pagehide', leave)
      // The page that follows was asked for before this save; it is asked for again.
      if (store.getState().saveState !== 'saved') void store.getState().flush().then(() => router.refresh())
    }
  }, [store, router])
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || isTyping(event)) return
      event.preventDefault()
      if (event.shiftKey) redoOnce()
      else undoOnce()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [undoOnce, redoOnce])

  const add = (format: 'circuit' | 'talk' | 'break', name: string): void => edit((draft) => {
    const keys = draft.sections.map((section) => section.key)
    draft.sections.push(newSection[format](freshKey(name, keys), name) as Section)
  })

  return (
    <main className="flex flex-1 flex-col">
      <div className="flex items-end gap-6 px-6 pt-4 pb-3">
        <div className="min-w-0 flex-1 font-display text-4xl">
          <NameField label={texts.shelf.name} value={score.title} onChange={(title) => edit((draft) => { draft.title = title })} wide className="w-full !border-transparent py-1 text-ellipsis hover:!border-rule" placeholder={words.untitled} />
        </div>
        <SaveLine state={state.saveState} />
        <div className="flex">
          <IconButton label={`${words.undo} (Ctrl Z)`} disabled={!state.undo.length} onClick={undoOnce}><Undo2 size={19} /></IconButton>
          <IconButton label={`${words.redo} (Ctrl Shift Z)`} disabled={!state.redo.length} onClick={redoOnce}><Redo2 size={19} /></IconButton>
        </div>
      </div>
      <Totals expansion={expansion} promiseMs={score.promiseMs} onPromise={(promiseMs) => edit((draft) => { draft.promiseMs = promiseMs })} />
      {problem && <p role="alert" className="bg-signal px-6 py-2 text-paper">{problem} {words.tooLong}</p>}
      <TerrainPanel expansion={expansion} selected={selected} onSelect={setSelected} />
      <div className="px-6 py-6">
        {!score.sections.length && <p className="pb-5 text-lg text-quiet">{words.empty}</p>}
        <Sections sections={score.sections} edit={edit} expansion={expansion} selected={selected} />
        <div className="mt-6 flex gap-3">
          <Button weight={score.sections.length ? 'plain' : 'main'} icon={<Repeat size={18} />} onClick={() => add('circuit', score.sections.some((section) => section.name === 'Main') ? 'Circuit' : 'Main')}>{words.addCircuit}</Button>
          <Button icon={<MessageCircle size={18} />} onClick={() => add('talk', score.sections.length ? 'Goodbye' : 'Welcome')}>{words.addTalk}</Button>
          <Button icon={<Coffee size={18} />} onClick={() => add('break', 'Break')}>{words.addBreak}</Button>
        </div>
      </div>
      <Sheet open={state.saveState === 'stale'} onOpenChange={() => {}} mustAnswer title={words.stale} hint={words.staleText}>
        <div className="flex justify-end gap-3">
          <Button onClick={() => void state.resolveStale('theirs')}>{words.takeTheirs}</Button>
          <Button weight="main" onClick={() => void state.resolveStale('mine')}>{words.keepMine}</Button>
        </div>
      </Sheet>
    </main>
  )
}

const NOTHING: Expansion = { segments: [], totalMs: 0, workMs: 0, restMs: 0, estimated: false }

/** The segments of the score; while it is too long to unfold, the last ones that could be, with the reason. */
function useExpansion(score: Score): { expansion: Expansion; problem: string | null } {
  const last = useRef(NOTHING)
  const result = useMemo(() => {
    try {
      return { expansion: expand(score), problem: null }
    } catch (error) {
      if (error instanceof Problem) return { expansion: null, problem: error.message }
      throw error
    }
  }, [score])
  useEffect(() => { if (result.expansion) last.current = result.expansion }, [result])
  // eslint-disable-next-line react-hooks/refs -- the last good picture stands in while the score cannot be unfolded
  return { expansion: result.expansion ?? last.current, problem: result.problem }
}

function SaveLine({ state }: { state: SaveState }): ReactNode {
  const shown: Record<SaveState, string> = { saved: words.saved, saving: words.saving, unsaved: words.unsaved, offline: words.offline, stale: words.stale }
  return <p role="status" className={`max-w-96 pb-2 text-right ${state === 'offline' || state === 'stale' ? 'text-signal' : 'text-quiet'}`}>{shown[state]}</p>
}
