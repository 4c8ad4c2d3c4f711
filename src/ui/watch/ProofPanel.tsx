// Countdown truth: every change with what is seen, sounded and filmed there, and whether somebody found it right.
'use client'
import { Check, RotateCcw, StickyNote } from 'lucide-react'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { AROUND_MS, type WatchedChange } from '@/core/proof/changes'
import { placeOf } from '@/core/proof/proof'
import type { ShownSegment } from '@/core/cut/cut'
import { formatClock } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { nameOf } from '@/core/words/en/names'
import { proofTexts as words } from '@/core/words/en/proof'
import { Button, IconButton } from '../parts/Button'
import { CheckField } from '../parts/CheckField'
import { useSteps, type VideoClock } from '../parts/useVideoClock'
import type { CheckedChange, Proofing } from './useProof'

/** A seek lands on a picture, and the clock goes in steps. */
const SLACK_MS: Ms = 300
/** Farther than this from where it should be, it is marked. */
const NOTICED_MS: Ms = 50

interface Props {
  proofing: Proofing
  shown: readonly ShownSegment[]
  clock: VideoClock
  /** What is seen and heard stands as it is going to stand. */
  isReady: boolean
  /** Plays what is around an instant. */
  onGo: (outMs: Ms) => void
}

const titleOf = ({ segment }: WatchedChange): string => (segment ? nameOf(segment) : words.end)

export function ProofPanel({ proofing, shown, clock, isReady, onGo }: Props): ReactNode {
  const { changes, check } = proofing
  const [onlyOpen, setOnlyOpen] = useState(false)
  const nowMs = useSteps(clock, 100)
  const [askedId, setAskedId] = useState<string | null>(null)
  // What was gone to is meant for as long as what is around it plays; else what has just been.
  const asked = changes.find(({ id, atMs }) => id === askedId && Math.abs(nowMs - atMs) <= AROUND_MS + SLACK_MS)
  const current = asked ?? changes.findLast(({ atMs }) => atMs <= nowMs) ?? changes[0]
  const go = ({ id, atMs }: WatchedChange): void => {
    setAskedId(id)
    onGo(atMs)
  }
  const checked = changes.filter(({ state }) => state === 'checked').length
  const right = (): void => {
    if (!current || !isReady) return
    check(current, true)
    const next = changes.find(({ atMs, state }) => atMs > current.atMs && state !== 'checked')
    if (next) go(next)
  }
  useEnter(right)
  const hasFilm = changes.some(({ filmed }) => filmed !== null)
  const rows = onlyOpen ? changes.filter((one) => one.state !== 'checked' || one === current) : changes
  return (
    <aside
      aria-label={words.heading}
      className="flex min-h-0 w-[372px] shrink-0 flex-col border-l-4 border-ink bg-paper max-lg:w-full max-lg:border-t-4 max-lg:border-l-0"
    >
      <div className="px-4 pt-3 pb-2">
        <h2 className="flex items-baseline gap-3 text-2xl">
          {words.heading}
          <span className="font-text text-sm font-medium text-quiet">
            {checked === changes.length ? words.allChecked : words.progress(checked, changes.length)}
          </span>
        </h2>
        <span className="mt-1 block h-1.5 bg-rule">
          <span
            className="block h-full bg-water"
            style={{ width: `${(100 * checked) / Math.max(1, changes.length)}%` }}
          />
        </span>
        <p className="mt-2 text-sm text-quiet">{words.hint}</p>
      </div>
      <ul className="min-h-0 flex-1 divide-y divide-rule overflow-y-auto border-y-2 border-ink max-lg:max-h-[40vh]">
        {rows.map((change) => (
          <ChangeRow
            key={change.id}
            change={change}
            hasFilm={hasFilm}
            isCurrent={change === current}
            onGo={() => go(change)}
            onAgain={() => check(change, false)}
          />
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2">
        <Button
          weight="main"
          icon={<Check size={18} strokeWidth={3.5} />}
          title={words.rightHint}
          disabled={!isReady}
          onClick={right}
        >
          {isReady ? words.right : words.notReady}
        </Button>
        <CheckField label={words.only} on={onlyOpen} onChange={setOnlyOpen} />
      </div>
      <Notes proofing={proofing} shown={shown} onGo={onGo} />
    </aside>
  )
}

/** Enter checks what plays, also on the row that was just gone to; any other button or field has it for itself. */
function useEnter(act: () => void): void {
  const latest = useRef(act)
  useEffect(() => {
    latest.current = act
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key !== 'Enter' || !(event.target instanceof Element)) return
      if (event.target !== document.body && !event.target.closest(CHOSEN_ROW)) return
      event.preventDefault()
      latest.current()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}

/** The way to what plays already. */
const CHOSEN_ROW = 'li[aria-current] > [data-goes]'

interface RowProps {
  change: CheckedChange
  /** Whether anything was heard of the film that marks a change. */
  hasFilm: boolean
  isCurrent: boolean
  onGo: () => void
  onAgain: () => void
}

function ChangeRow({ change, hasFilm, isCurrent, onGo, onAgain }: RowProps): ReactNode {
  const { atMs, seenMs, soundedMs, filmed, doubts, state } = change
  const row = useRef<HTMLLIElement>(null)
  useEffect(() => {
    if (isCurrent) row.current?.scrollIntoView({ block: 'nearest' })
  }, [isCurrent])
  const name = titleOf(change)
  return (
    <li
      ref={row}
      aria-current={isCurrent || undefined}
      className={`flex items-start gap-2 py-1.5 pr-2 pl-3 ${isCurrent ? 'bg-chosen' : ''}`}
    >
      <button type="button" data-goes className="flex min-h-9 flex-1 gap-2 text-left" onClick={onGo}>
        <span className="w-12 shrink-0 font-display text-xl tabular-nums">{formatClock(atMs)}</span>
        <span className="flex-1">
          <span className="block leading-tight font-bold">{name}</span>
          <span className="flex flex-wrap gap-x-3 text-sm tabular-nums">
            <Distance label={words.seen} ms={seenMs === null ? null : seenMs - atMs} />
            <Distance label={words.sounded} ms={soundedMs === null ? null : soundedMs - atMs} />
            {hasFilm && <Distance label={words.filmed} ms={filmed && filmed.atMs - atMs} />}
          </span>
          {doubts.length > 0 && (
            <span className="block text-sm font-bold text-signal">
              {doubts.map((doubt) => words.doubts[doubt]).join(', ')}
            </span>
          )}
          {state === 'asked' && <span className="block text-sm font-bold">{words.states.asked}</span>}
        </span>
      </button>
      {state === 'checked' ? (
        <IconButton label={`${words.again}: ${name}`} className="group" onClick={onAgain}>
          <Check size={20} strokeWidth={3.5} className="group-hover:hidden" aria-label={words.states.checked} />
          <RotateCcw size={18} className="hidden group-hover:block" />
        </IconButton>
      ) : (
        <span className="grid size-9 place-items-center" title={words.states[state]}>
          <span className={`size-3 border-2 border-ink ${state === 'asked' ? 'bg-signal' : ''}`} />
        </span>
      )}
    </li>
  )
}

function Distance({ label, ms }: { label: string; ms: Ms | null }): ReactNode {
  const isFar = ms !== null && Math.abs(ms) > NOTICED_MS
  return (
    <span className={ms === null ? 'text-quiet' : ''}>
      {label}{' '}
      <span className={isFar ? 'font-bold text-signal' : ''}>{ms === null ? words.nothing : words.off(ms)}</span>
    </span>
  )
}

function Notes({ proofing: { proof, note, done }, shown, onGo }: Omit<Props, 'clock' | 'isReady'>): ReactNode {
  const [draft, setDraft] = useState('')
  const keep = (): void => {
    note(draft)
    setDraft('')
  }
  return (
    <div className="border-t-2 border-ink px-4 py-2">
      <form
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          keep()
        }}
      >
        <StickyNote size={18} className="shrink-0" aria-hidden />
        <input
          aria-label={words.noteLabel}
          placeholder={words.note}
          value={draft}
          maxLength={2000}
          className="min-h-9 min-w-0 flex-1 border-b-2 border-rule bg-transparent px-1.5 focus:border-ink focus:bg-pale"
          onChange={(event) => setDraft(event.target.value)}
        />
        <Button weight="bare" disabled={!draft.trim()} onClick={keep}>
          {words.keep}
        </Button>
      </form>
      {proof.notes.length > 0 && (
        <ul aria-label={words.notes} className="mt-1 max-h-28 divide-y divide-rule overflow-y-auto">
          {proof.notes.map((one) => {
            const atMs = placeOf(one, shown)
            return (
              <li key={one.id} className="flex items-center gap-2">
                <button
                  type="button"
                  disabled={atMs === null}
                  className="min-h-9 flex-1 text-left disabled:text-quiet"
                  onClick={() => atMs !== null && onGo(atMs)}
                >
                  {atMs !== null && <b className="mr-2 tabular-nums">{formatClock(atMs)}</b>}
                  {one.text}
                </button>
                <IconButton label={words.noteDone(one.text)} onClick={() => done(one.id)}>
                  <Check size={18} />
                </IconButton>
              </li>
            )
          })}
        </ul>
      )}
    </div>
  )
}
