// The move library: search and filter on the left, one move with all its fields on the right. What was typed of a move
// and not saved waits for it while another is looked at.
'use client'
import { useCallback, useMemo, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { MoveProblem } from '@/core/read/moveFile'
import { libraryOf } from '@/core/score/library'
import { moveSchema, type Move } from '@/core/score/move'
import { moveSentence } from '@/core/words/en/problems'
import { scoreTexts } from '@/core/words/en/score'
import { call, CallError } from '../api'
import { Bar } from '../parts/Bar'
import { EMPTY_FILTER, filterMoves, type MoveFilter } from './filterMoves'
import { MoveEditor } from './MoveEditor'
import { MoveFiles } from './MoveFiles'
import { MoveFilters } from './MoveFilters'
import { MoveList } from './MoveList'
import type { MoveDraft } from './useMoveForm'

const words = scoreTexts.moves
/** Stands for a move that has no name yet; no name begins with a blank. */
const NEW = ' new'
const PROBLEMS_SHOWN = 50

export function MovesView({ initial }: { initial: Move[] }): ReactNode {
  const [own, setOwn] = useState(initial)
  const [filter, setFilter] = useState<MoveFilter>(EMPTY_FILTER)
  const [chosen, setChosen] = useState<string | null>(null)
  const [problems, setProblems] = useState<MoveProblem[]>([])
  const { drafts, onDraft } = useDrafts(chosen)
  const ownNames = useMemo(() => new Set(own.map((move) => move.name.toLowerCase())), [own])
  const all = useMemo(() => libraryOf(own), [own])
  const tags = useMemo(() => [...new Set(all.flatMap((move) => move.tags))].sort(), [all])
  const shown = useMemo(() => filterMoves(all, filter, ownNames), [all, filter, ownNames])
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
    <div className="flex h-dvh flex-col">
      <Bar />
      <main className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(420px,46%)] max-md:grid-cols-1">
        <section className="flex min-h-0 flex-col border-r-4 border-ink px-6 pt-4">
          <div className="flex items-baseline gap-4">
            <h1 className="text-4xl">{words.heading}</h1>
            <span className="text-quiet tabular-nums" role="status">
              {words.count(shown.length, all.length)}
            </span>
          </div>
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
        <section className="min-h-0 overflow-y-auto px-7 py-4">
          {current ? (
            <MoveEditor
              key={chosen}
              move={current}
              isNew={isNew}
              isOwn={!isNew && isOwn(current)}
              draft={drafts.get(chosen ?? '') ?? null}
              onDraft={onDraft}
              onSaved={(moves, name) => {
                setOwn(moves)
                setChosen(name)
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
