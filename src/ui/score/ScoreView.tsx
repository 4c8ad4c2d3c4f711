// The score: totals and terrain in sight, three readings of the same plan below, findings beside them.
'use client'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { AudioWaveform, BookOpen, ClipboardPaste, Library, Printer, Redo2, Target, Undo2 } from 'lucide-react'
import { DropdownMenu, Tabs } from 'radix-ui'
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { produce } from 'immer'
import { useStore } from 'zustand'
import { judge } from '@/core/check/check'
import { tryExpand, type Unfolding } from '@/core/expand/expand'
import { castOf } from '@/core/score/cast'
import { setLength } from '@/core/score/edits'
import { mergeInto } from '@/core/score/merge'
import type { Move } from '@/core/score/move'
import { libraryOf, withLibrary } from '@/core/score/library'
import type { Score } from '@/core/score/score'
import type { Expansion, Segment } from '@/core/score/segment'
import { Button, IconButton } from '../parts/Button'
import { NameField } from '../parts/fields'
import { isTyping } from '../parts/isTyping'
import { Sheet } from '../parts/Sheet'
import { texts } from '../texts'
import { AddSection } from './AddSection'
import { Balance } from './Balance'
import { BeatPlanner } from './BeatPlanner'
import { Findings } from './Findings'
import { sectionToAdd } from './newPart'
import { PastePlan } from './PastePlan'
import { Needs, Rules } from './Rules'
import { createScoreStore, type SaveState } from './scoreStore'
import { Sections, type Edit } from './Sections'
import { SheetReading } from './SheetReading'
import { ShorthandReading } from './ShorthandReading'
import { SolvePromise } from './SolvePromise'
import { TerrainPanel } from './TerrainPanel'
import { Totals } from './Totals'
import { scoreTexts as words } from './texts'

const READINGS = ['sections', 'sheet', 'shorthand', 'balance'] as const
type Reading = (typeof READINGS)[number]
type Dialog = 'solve' | 'paste' | 'rules' | 'needs' | 'beat' | null

interface Props {
  id: string
  score: Score
  revision: number
  ownMoves: Move[]
}

export function ScoreView({ id, score: initial, revision, ownMoves }: Props): ReactNode {
  const router = useRouter()
  const [store] = useState(() => createScoreStore(id, initial, revision))
  const state = useStore(store)
  const { score, undoOnce, redoOnce } = state
  const [preview, setPreview] = useState<Score | null>(null)
  const [selected, setSelected] = useState<string | null>(null)
  const [reading, setReading] = useState<Reading>('sections')
  const [dialog, setDialog] = useState<Dialog>(null)
  const { unfolded, expansion } = useExpansion(preview ?? score)
  const { problem } = unfolded.result
  // Judged after the picture: a keystroke waits for neither.
  const judged = useDeferredValue(unfolded)
  const judgement = useMemo(() => judge(judged.score, judged.result), [judged])
  const library = useMemo(() => libraryOf(ownMoves), [ownMoves])
  const cast = useMemo(() => castOf(score.moves), [score.moves])
  const byId = useMemo(() => new Map(expansion.segments.map((segment) => [segment.id, segment])), [expansion])
  const chosen = selected === null ? null : (byId.get(selected) ?? null)

  /** Every edit takes along the facts of the creator's own moves that it names, so that the score can stand alone. */
  const edit: Edit = useCallback(
    (recipe) =>
      store.getState().edit((draft) => {
        recipe(draft)
        withLibrary(draft, ownMoves)
      }),
    [store, ownMoves],
  )

  useEffect(() => {
    void store.getState().restore()
    const leave = (): void => void store.getState().flush()
    window.addEventListener('pagehide', leave)
    return () => {
      window.removeEventListener('pagehide', leave)
      // The page that follows was asked for before this save; it is asked for again.
      if (store.getState().saveState !== 'saved')
        void store
          .getState()
          .flush()
          .then(() => router.refresh())
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

  const resize = (segment: Segment, durationMs: number | null, done: boolean): void => {
    if (done) {
      setPreview(null)
      if (durationMs !== null && durationMs !== segment.durationMs)
        edit((draft) => setLength(draft, segment, durationMs))
    } else if (durationMs !== null) setPreview(produce(score, (draft) => setLength(draft, segment, durationMs)))
  }
  const selectFromText = (sectionKey: string, station: readonly (string | number)[] | null): void => {
    const wanted = station ? JSON.stringify(station) : null
    const found = expansion.segments.find(
      (segment) =>
        segment.sectionKey === sectionKey && (wanted === null || JSON.stringify(segment.origin?.station) === wanted),
    )
    if (found) setSelected(found.id)
  }
  /** Selects what a finding is about, and brings its section into sight; the sheet and the shorthand follow by themselves. */
  const showWhere = (id: string): void => {
    setSelected(id)
    const key = byId.get(id)?.sectionKey
    if (key !== undefined)
      document.querySelector(`[data-section="${CSS.escape(key)}"]`)?.scrollIntoView({ block: 'nearest' })
  }
  const empty = score.sections.length === 0
  const openDialog =
    (which: Dialog) =>
    (open: boolean): void =>
      setDialog(open ? which : null)

  return (
    <main className="flex flex-1 flex-col">
      <div className="sticky top-0 z-20 flex items-end gap-x-6 bg-paper px-6 py-2.5 max-lg:flex-wrap">
        <h1 className="sr-only">{score.title || words.untitled}</h1>
        <div className="min-w-56 flex-1 font-display text-[32px]">
          <NameField
            label={texts.shelf.name}
            value={score.title}
            onChange={(title) =>
              edit((draft) => {
                draft.title = title
              })
            }
            wide
            className="w-full !border-transparent py-0.5 text-ellipsis hover:!border-rule"
            placeholder={words.untitled}
          />
        </div>
        <Totals
          expansion={expansion}
          promiseMs={score.promiseMs}
          onPromise={(promiseMs) =>
            edit((draft) => {
              draft.promiseMs = promiseMs
            })
          }
        />
        <div className="flex flex-col items-end">
          <span className="flex">
            <IconButton label={`${words.undo} (Ctrl Z)`} disabled={!state.undo.length} onClick={undoOnce}>
              <Undo2 size={19} />
            </IconButton>
            <IconButton label={`${words.redo} (Ctrl Shift Z)`} disabled={!state.redo.length} onClick={redoOnce}>
              <Redo2 size={19} />
            </IconButton>
          </span>
          <SaveLine state={state.saveState} refusal={state.refusal} />
        </div>
      </div>
      {problem && (
        <p role="alert" className="bg-signal px-6 py-2 text-paper">
          {problem} {words.tooLong}
        </p>
      )}
      <TerrainPanel expansion={expansion} selected={selected} onSelect={setSelected} onResize={resize} cast={cast} />
      <div className="flex flex-wrap gap-2 px-6 pt-4">
        <AddSection
          main={empty}
          onAdd={(format) =>
            edit((draft) => {
              draft.sections.push(sectionToAdd(draft, format))
            })
          }
        />
        <Button icon={<Target size={17} />} onClick={() => setDialog('solve')}>
          {words.fromPromise}
        </Button>
        <Button icon={<ClipboardPaste size={17} />} onClick={() => setDialog('paste')}>
          {words.paste}
        </Button>
        <Button weight="bare" icon={<BookOpen size={17} />} onClick={() => setDialog('rules')}>
          {words.wordsAndRules}
        </Button>
        <Button weight="bare" icon={<AudioWaveform size={17} />} onClick={() => setDialog('beat')}>
          {words.beat}
        </Button>
        <PrintMenu id={id} />
        <Link
          href="/moves"
          className="inline-flex min-h-10 items-center gap-2 px-3 font-bold hover:bg-ink hover:text-paper"
        >
          <Library size={17} />
          {words.moves.way}
        </Link>
      </div>
      <div className="grid flex-1 grid-cols-[minmax(0,1fr)_330px] gap-7 px-6 pt-4 pb-8 max-lg:grid-cols-1">
        <Tabs.Root value={reading} onValueChange={(value) => setReading(value as Reading)} className="min-w-0">
          <Tabs.List className="mb-4 flex border-b-4 border-ink" aria-label={words.readingsLabel}>
            {READINGS.map((one) => (
              <Tabs.Trigger
                key={one}
                value={one}
                className="min-h-10 px-5 font-display text-xl hover:bg-ink/10 data-[state=active]:bg-ink data-[state=active]:text-paper"
              >
                {words.readings[one]}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="sections" tabIndex={-1}>
            {empty && <p className="pb-5 text-lg text-quiet">{words.empty}</p>}
            <Sections score={score} edit={edit} expansion={expansion} selected={chosen} library={library} />
          </Tabs.Content>
          <Tabs.Content value="sheet" tabIndex={-1}>
            <SheetReading score={score} expansion={expansion} edit={edit} selected={selected} onSelect={setSelected} />
            <datalist id="moves">
              {library.map((move) => (
                <option key={move.name} value={move.name} />
              ))}
            </datalist>
          </Tabs.Content>
          <Tabs.Content value="shorthand" tabIndex={-1}>
            <ShorthandReading
              score={score}
              library={library}
              selected={chosen}
              onSelect={selectFromText}
              onRead={(read) =>
                store.getState().edit((draft) => {
                  const whole = structuredClone(read)
                  withLibrary(whole, ownMoves)
                  mergeInto(draft, whole)
                })
              }
            />
          </Tabs.Content>
          <Tabs.Content value="balance" tabIndex={-1}>
            <Balance score={score} expansion={expansion} />
          </Tabs.Content>
        </Tabs.Root>
        <Findings
          judgement={judgement}
          edit={edit}
          onSelect={showWhere}
          onNeeds={() => setDialog('needs')}
          empty={empty}
        />
      </div>
      <SolvePromise
        open={dialog === 'solve'}
        onOpenChange={openDialog('solve')}
        score={score}
        totalMs={expansion.totalMs}
        edit={edit}
      />
      <PastePlan open={dialog === 'paste'} onOpenChange={openDialog('paste')} edit={edit} empty={empty} />
      <Rules open={dialog === 'rules'} onOpenChange={openDialog('rules')} score={score} edit={edit} />
      <Needs open={dialog === 'needs'} onOpenChange={openDialog('needs')} score={score} edit={edit} />
      <BeatPlanner open={dialog === 'beat'} onOpenChange={openDialog('beat')} expansion={expansion} edit={edit} />
      <Sheet
        open={state.saveState === 'stale'}
        onOpenChange={() => {}}
        mustAnswer
        title={words.stale}
        hint={words.staleText}
      >
        <div className="flex justify-end gap-3">
          <Button onClick={() => void state.resolveStale('theirs')}>{words.takeTheirs}</Button>
          <Button weight="main" onClick={() => void state.resolveStale('mine')}>
            {words.keepMine}
          </Button>
        </div>
      </Sheet>
    </main>
  )
}

function PrintMenu({ id }: { id: string }): ReactNode {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button weight="bare" icon={<Printer size={17} />}>
          {words.print}
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-40 border-t-8 border-land bg-paper p-2 shadow-2xl"
        >
          {(
            [
              ['sheet', words.printSheet],
              ['board', words.printBoard],
            ] as const
          ).map(([as, label]) => (
            <DropdownMenu.Item key={as} asChild>
              <a
                href={`/w/${id}/print?as=${as}`}
                target="_blank"
                rel="noreferrer"
                className="flex min-h-9 items-center px-3 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-paper"
              >
                {label}
              </a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

const NOTHING: Expansion = { segments: [], totalMs: 0, workMs: 0, restMs: 0, estimated: false }

/** The score with what it unfolds into; `expansion` is, while it is too long to unfold, the last that could be shown. */
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

function SaveLine({ state, refusal }: { state: SaveState; refusal: string }): ReactNode {
  const shown: Record<SaveState, string> = {
    saved: words.saved,
    saving: words.saving,
    unsaved: words.unsaved,
    offline: words.offline,
    stale: words.stale,
    refused: words.refused(refusal),
  }
  return (
    <p
      role="status"
      data-testid="save-state"
      className={`max-w-52 min-w-20 text-right text-[13px] leading-tight ${['offline', 'stale', 'refused'].includes(state) ? 'text-signal' : 'text-quiet'}`}
    >
      {shown[state]}
    </p>
  )
}
