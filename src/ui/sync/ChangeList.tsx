// The changes in order, each with where it is and how that is known: the list to work through. Only those in sight are
// drawn.
'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import { ChevronLeft, ChevronRight, Ear, X } from 'lucide-react'
import { useEffect, useRef, type ReactNode } from 'react'
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

type Working = Pick<Stitching, 'changes' | 'chosen' | 'frameMs' | 'choose' | 'nudge' | 'hearAround' | 'remove'>

export function ChangeList({ on }: { on: Working }): ReactNode {
  const { changes, chosen } = on
  const scroller = useRef<HTMLDivElement>(null)
  // The compiler leaves this component alone: the virtual list's functions change under the same name.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: changes.length,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => (index === chosen ? CHOSEN_PX : ROW_PX),
    overscan: 8,
  })
  useEffect(() => {
    rows.measure()
    rows.scrollToIndex(chosen, { align: 'auto' })
  }, [rows, chosen])
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto border-t-4 border-ink bg-pale">
      <ol aria-label={words.all} className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map((item) => {
          const change = changes[item.index]
          if (!change) return null
          const active = item.index === chosen
          return (
            <li
              key={tieKey(change)}
              aria-current={active}
              aria-posinset={item.index + 1}
              aria-setsize={changes.length}
              data-origin={change.origin}
              className={`absolute inset-x-0 top-0 border-b border-rule ${active ? 'on-land' : ''}`}
              style={{ height: item.size, transform: `translateY(${item.start}px)` }}
            >
              <Row change={change} active={active} onChoose={() => on.choose(item.index)} />
              {active && <Tools change={change} on={on} />}
            </li>
          )
        })}
      </ol>
    </div>
  )
}

function Row({ change, active, onChoose }: { change: Change; active: boolean; onChoose: () => void }): ReactNode {
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
        <span className={active ? '' : 'text-quiet'}> {roundOf(change.segment)}</span>
      </span>
      <OriginMark origin={change.origin} />
    </button>
  )
}

function Tools({ change, on }: { change: Change; on: Working }): ReactNode {
  const { frameMs, nudge } = on
  const frame = `${Math.round(frameMs)} ms`
  const fine = 'h-9 px-2 font-bold tabular-nums hover:bg-print hover:text-land'
  return (
    <div className="flex items-center gap-1 px-2 pb-1.5">
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
