// The changes in order, each with where it is and how that is known: the list to work through. Only those in sight are
// drawn.
'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import { AudioLines, ChevronLeft, ChevronRight, Ear, Shuffle, X } from 'lucide-react'
import { useEffect, useMemo, useRef, type ReactNode } from 'react'
import { tieKey } from '@/core/align/boundaries'
import { formatInstant } from '@/core/time/clock'
import { nameOf, roundOf } from '@/core/words/en/names'
import { texts } from '@/core/words/en/screens'
import { IconButton } from '../parts/Button'
import type { Change } from './changes'
import type { Stitching } from './useStitching'

const words = texts.sync
const ROW_PX = 41
/** The chosen one has its tools below it. */
const CHOSEN_PX = 83

type Working = Pick<
  Stitching,
  | 'changes'
  | 'chosen'
  | 'frameMs'
  | 'choose'
  | 'nudge'
  | 'hearAround'
  | 'remove'
  | 'todos'
  | 'listed'
  | 'onlyTodo'
  | 'setOnlyTodo'
  | 'confirm'
  | 'nextCandidate'
  | 'notDone'
  | 'roundNotDone'
  | 'likeThis'
>

interface Props {
  on: Working
  /** What is done with many at once. */
  children: ReactNode
}

export function ChangeList({ on, children }: Props): ReactNode {
  const { changes, chosen, listed, todos } = on
  const hanging = useMemo(() => new Map(todos.map((todo) => [tieKey(todo), todo.changes])), [todos])
  const shown = listed.indexOf(chosen)
  const scroller = useRef<HTMLDivElement>(null)
  // The compiler leaves this component alone: the virtual list's functions change under the same name.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: listed.length,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => (index === shown ? CHOSEN_PX : ROW_PX),
    overscan: 8,
  })
  useEffect(() => {
    rows.measure()
    if (shown >= 0) rows.scrollToIndex(shown, { align: 'auto' })
  }, [rows, shown, listed])
  return (
    <>
      <div className="flex items-center">
        <Which on={on} />
        <span className="ml-auto flex">{children}</span>
      </div>
      <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto border-t-4 border-ink bg-pale">
        {!listed.length && <p className="p-4 text-quiet">{words.nothingToDo}</p>}
        <ol aria-label={words.all} className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((item) => {
            const place = listed[item.index] ?? -1
            const change = changes[place]
            if (!change) return null
            const active = place === chosen
            return (
              <li
                key={tieKey(change)}
                aria-current={active}
                aria-posinset={item.index + 1}
                aria-setsize={listed.length}
                data-origin={change.origin}
                data-change={tieKey(change)}
                className={`absolute inset-x-0 top-0 border-b border-rule ${active ? 'on-land' : ''}`}
                style={{ height: item.size, transform: `translateY(${item.start}px)` }}
              >
                <Row
                  change={change}
                  active={active}
                  hangs={on.onlyTodo ? (hanging.get(tieKey(change)) ?? 0) : 0}
                  onChoose={() => on.choose(place)}
                />
                {active && <Tools change={change} on={on} />}
              </li>
            )
          })}
        </ol>
      </div>
    </>
  )
}

/** All changes, or those that are to do. */
function Which({ on }: { on: Working }): ReactNode {
  const { onlyTodo, setOnlyTodo, changes, todos } = on
  return (
    <div role="radiogroup" aria-label={words.which} className="flex gap-1">
      {([false, true] as const).map((only) => (
        <button
          key={String(only)}
          type="button"
          role="radio"
          aria-checked={onlyTodo === only}
          onClick={() => setOnlyTodo(only)}
          className={`min-h-9 px-4 font-bold tabular-nums ${onlyTodo === only ? 'bg-ink text-paper' : 'text-ink hover:bg-chosen'}`}
        >
          {only ? words.todo(todos.length) : words.everything(changes.length)}
        </button>
      ))}
    </div>
  )
}

interface RowProps {
  change: Change
  active: boolean
  /** How many changes hang on it; 0 where that is not told. */
  hangs: number
  onChoose: () => void
}

function Row({ change, active, hangs, onChoose }: RowProps): ReactNode {
  return (
    <button
      type="button"
      data-choose="change"
      onClick={onChoose}
      className="grid h-10 w-full grid-cols-[6.5rem_1fr_auto] items-center gap-3 px-3 text-left"
    >
      <span className="font-display text-xl tabular-nums">{formatInstant(change.footageMs)}</span>
      <span className="min-w-0 truncate">
        <b>{nameOf(change.segment)}</b> {change.edge === 'start' ? words.start : words.end}
        <span className={active ? '' : 'text-quiet'}>
          {' '}
          {[roundOf(change.segment), hangs > 1 ? words.hangs(hangs) : ''].filter(Boolean).join(', ')}
        </span>
      </span>
      <OriginMark origin={change.origin} />
    </button>
  )
}

function Tools({ change, on }: { change: Change; on: Working }): ReactNode {
  const { frameMs, nudge } = on
  const frame = `${Math.round(frameMs)} ms`
  const fine = 'h-9 px-1.5 font-bold tabular-nums whitespace-nowrap hover:bg-print hover:text-land'
  return (
    <div className="flex items-center gap-1 overflow-x-auto px-2 pb-1.5">
      <IconButton label={`${words.earlier} ${words.nudgeFrame} (${frame})`} onClick={() => nudge(-frameMs)}>
        <ChevronLeft size={18} />
      </IconButton>
      <IconButton label={`${words.later} ${words.nudgeFrame} (${frame})`} onClick={() => nudge(frameMs)}>
        <ChevronRight size={18} />
      </IconButton>
      <button
        type="button"
        aria-label={`${words.earlier} ${words.nudgeTen}`}
        onClick={() => nudge(-10)}
        className={fine}
      >
        &minus;10 ms
      </button>
      <button type="button" aria-label={`${words.later} ${words.nudgeTen}`} onClick={() => nudge(10)} className={fine}>
        +10 ms
      </button>
      <IconButton label={words.around} onClick={on.hearAround}>
        <Ear size={18} />
      </IconButton>
      <IconButton label={words.likeThis} disabled={change.origin !== 'hand'} onClick={on.likeThis}>
        <AudioLines size={18} />
      </IconButton>
      <button type="button" className={fine} onClick={on.confirm}>
        {words.confirm}
      </button>
      <IconButton label={words.candidate} onClick={on.nextCandidate}>
        <Shuffle size={17} />
      </IconButton>
      <button type="button" className={fine} disabled={change.edge === 'end'} onClick={on.notDone}>
        {words.notDone}
      </button>
      {change.segment.round !== null && (
        <button type="button" className={fine} disabled={change.edge === 'end'} onClick={on.roundNotDone}>
          {words.roundNotDone}
        </button>
      )}
      <IconButton
        label={words.remove}
        disabled={change.origin === 'reckoned'}
        onClick={() => on.remove(change)}
        className="ml-auto"
      >
        <X size={18} />
      </IconButton>
    </div>
  )
}

/** A line as the thread is drawn, and the word for it: never the mark alone. */
function OriginMark({ origin }: { origin: Change['origin'] }): ReactNode {
  const dash = origin === 'reckoned' ? '2 4' : origin === 'unsure' ? '6 4' : undefined
  return (
    <span className="flex w-24 items-center gap-2 text-sm">
      <svg width="22" height="6" aria-hidden="true">
        <path
          d="M0 3h22"
          stroke="currentColor"
          strokeWidth={origin === 'reckoned' || origin === 'unsure' ? 2 : 4}
          strokeDasharray={dash}
        />
      </svg>
      {words[origin]}
    </span>
  )
}
