// The move library: search and filter on the left, one move with all its fields on the right. What was typed of a move
// and not saved waits for it while another is looked at.
'use client'
import { Undo2 } from 'lucide-react'
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode, type RefObject } from 'react'
import { toast } from 'sonner'
import type { MoveProblem } from '@/core/read/moveFile'
import { libraryOf } from '@/core/score/library'
import { moveSchema, type Move } from '@/core/score/move'
import { moveSentence } from '@/core/words/en/problems'
import { scoreTexts } from '@/core/words/en/score'
import { call, CallError } from '../api'
import { Bar } from '../parts/Bar'
import { IconButton } from '../parts/Button'
import { isTyping } from '../parts/isTyping'
import { EMPTY_FILTER, filterMoves, type MoveFilter } from './filterMoves'
import { MoveEditor } from './MoveEditor'
import { MoveFiles } from './MoveFiles'
import { MoveFilters } from './MoveFilters'
import { MoveList } from './MoveList'
import type { MoveDraft, WayBack } from './useMoveForm'

const words = scoreTexts.moves
/** Stands for a move that has no name yet; no name begins with a blank. */
const NEW = ' new'
const PROBLEMS_SHOWN = 50

export function MovesView({ initial }: { initial: Move[] }): ReactNode {
  const [own, setOwn] = useState(initial)
  const [filter, setFilter] = useState<MoveFilter>(EMPTY_FILTER)
  const [chosen, setChosen] = useState<string | null>(null)
  const [problems, setProblems] = useState<MoveProblem[]>([])
  const { undo, onDone, canUndo } = useUndo(setOwn, setChosen)
  const { drafts, onDraft } = useDrafts(chosen)
  const ownNames = useMemo(() => new Set(own.map((move) => move.name.toLowerCase())), [own])
  const all = useMemo(() => libraryOf(own), [own])
  const tags = useMemo(() => [...new Set(all.flatMap((move) => move.tags))].sort(), [all])
  const shown = useMemo(() => filterMoves(all, filter, ownNames), [all, filter, ownNames])
  const editor = useEditorInSight(chosen)
  const isNew = chosen === NEW
  const current = isNew ? moveSchema.parse({ name: 'x' }) : (all.find((move) => move.name === chosen) ?? null)
  const isOwn = (move: Move): boolean => ownNames.has(move.name.toLowerCase())

  const bringIn = async (picked: File): Promise<void> => {
    interface Answer {
      taken: number
      problems: MoveProblem[]
      moves: Move[]
    }
    try {
      const body = { text: await picked.text(), name: picked.name }
      const answer = await call<Answer>('POST', '/api/moves/import', body)
      setOwn(answer.moves)
      setProblems(answer.problems)
      toast(words.imported(answer.taken))
    } catch (error) {
      toast.error(`${words.failed}${error instanceof CallError ? error.message : String(error)}`)
    }
  }
  return (
    <div className="flex h-dvh flex-col max-md:h-auto">
      <Bar />
      <main
        id="content"
        tabIndex={-1}
        className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(420px,46%)] max-md:grid-cols-1"
      >
        <section className="flex min-h-0 flex-col border-r-4 border-ink px-6 pt-4 max-md:h-[85dvh] max-md:border-r-0 max-md:px-3">
          <Head shown={shown.length} all={all.length} onUndo={canUndo ? undo : null} />
          <MoveFilters filter={filter} tags={tags} onFilter={setFilter} />
          <MoveList
            moves={shown}
            current={chosen}
            isOwn={isOwn}
            isUnsaved={(move) => drafts.has(move.name)}
            onChoose={(move) => setChosen(move.name)}
          />
          <MoveFiles moves={shown} onNew={() => setChosen(NEW)} onFile={(picked) => void bringIn(picked)} />
          <Refused problems={problems} />
        </section>
        <section
          ref={editor}
          className="min-h-0 overflow-y-auto px-7 py-4 max-md:border-t-4 max-md:border-ink max-md:px-3"
        >
          {current ? (
            <MoveEditor
              key={chosen}
              move={current}
              isNew={isNew}
              isOwn={!isNew && isOwn(current)}
              draft={drafts.get(chosen ?? '') ?? null}
              onDraft={onDraft}
              onSaved={(moves, name, back) => {
                setOwn(moves)
                setChosen(name)
                if (back) onDone(back)
              }}
              onCancel={() => setChosen(null)}
            />
          ) : (
            <p className="pt-8 text-lg text-quiet">{words.choose}</p>
          )}
        </section>
      </main>
    </div>
  )
}

/** On a phone the move stands below the list: it is brought into sight when one is chosen. */
function useEditorInSight(chosen: string | null): RefObject<HTMLElement | null> {
  const editor = useRef<HTMLElement>(null)
  useEffect(() => {
    if (chosen !== null && matchMedia('(max-width: 767px)').matches) editor.current?.scrollIntoView()
  }, [chosen])
  return editor
}

/** @param onUndo null where nothing can be undone. */
function Head({ shown, all, onUndo }: { shown: number; all: number; onUndo: (() => void) | null }): ReactNode {
  return (
    <div className="flex items-baseline gap-4">
      <h1 className="text-4xl">{words.heading}</h1>
      <span className="text-quiet tabular-nums" role="status">
        {words.count(shown, all)}
      </span>
      <IconButton
        label={`${scoreTexts.undo} (Ctrl Z)`}
        className="ml-auto"
        disabled={!onUndo}
        onClick={() => onUndo?.()}
      >
        <Undo2 size={19} />
      </IconButton>
    </div>
  )
}

interface Undo {
  canUndo: boolean
  undo: () => void
  onDone: (back: WayBack) => void
}

/** Changes of the library, each with its way back; Ctrl Z goes it where nothing is being typed. */
function useUndo(setOwn: (moves: Move[]) => void, setChosen: (name: string | null) => void): Undo {
  const [ways, setWays] = useState<readonly WayBack[]>([])
  const undo = useCallback(() => {
    const last = ways.at(-1)
    if (!last) return
    setWays(ways.slice(0, -1))
    void last().then(
      ({ moves, name }) => {
        setOwn(moves)
        setChosen(name)
      },
      (error: unknown) => toast.error(`${words.failed}${error instanceof CallError ? error.message : String(error)}`),
    )
  }, [ways, setOwn, setChosen])
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || isTyping(event)) return
      event.preventDefault()
      undo()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [undo])
  const onDone = useCallback((back: WayBack) => setWays((before) => [...before, back]), [])
  return { canUndo: ways.length > 0, undo, onDone }
}

interface Drafts {
  /** By the name that the move is kept under. */
  drafts: ReadonlyMap<string, MoveDraft>
  onDraft: (draft: MoveDraft | null) => void
}

function useDrafts(name: string | null): Drafts {
  const [drafts, setDrafts] = useState<ReadonlyMap<string, MoveDraft>>(new Map())
  const onDraft = useCallback(
    (draft: MoveDraft | null) =>
      setDrafts((before) => {
        if (name === null || (!draft && !before.has(name))) return before
        const after = new Map(before)
        if (draft) after.set(name, draft)
        else after.delete(name)
        return after
      }),
    [name],
  )
  return { drafts, onDraft }
}

function Refused({ problems }: { problems: readonly MoveProblem[] }): ReactNode {
  if (!problems.length) return null
  return (
    <div role="alert" className="mb-3 max-h-32 overflow-y-auto bg-signal p-3 text-paper">
      <b>{words.refused(problems.length)}</b>
      <ul>
        {problems.slice(0, PROBLEMS_SHOWN).map(({ place, fact }) => (
          <li key={place}>{moveSentence(place, fact)}</li>
        ))}
      </ul>
    </div>
  )
}
