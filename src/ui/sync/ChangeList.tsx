// The changes in order, each with where it is and how that is known: the list to work through.
'use client'
import { ChevronLeft, ChevronRight, Ear, X } from 'lucide-react'
import { useEffect, useRef, type ReactNode } from 'react'
import { tieKey } from '@/core/align/boundaries'
import type { Segment } from '@/core/score/segment'
import { formatInstant } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { nameOf, roundOf } from '@/core/write/wording'
import { IconButton } from '../parts/Button'
import { texts } from '../texts'

const words = texts.sync

export interface Change {
  segmentId: string
  edge: 'start' | 'end'
  segment: Segment
  footageMs: Ms
  /** Where the fitted clock would have it. */
  plannedMs: Ms
  origin: 'hand' | 'beep' | 'unsure' | 'reckoned'
  confidence: number | null
}

interface Props {
  changes: Change[]
  chosen: number
  frameMs: number
  onChoose: (index: number) => void
  onNudge: (byMs: number) => void
  onHear: () => void
  onRemove: (change: Change) => void
}

export function ChangeList({ changes, chosen, frameMs, onChoose, onNudge, onHear, onRemove }: Props): ReactNode {
  const row = useRef<HTMLLIElement>(null)
  useEffect(() => {
    row.current?.scrollIntoView({ block: 'nearest' })
  }, [chosen])
  const frame = `${Math.round(frameMs)} ms`
  return (
    <ol className="min-h-0 flex-1 overflow-y-auto border-t-4 border-ink bg-pale" aria-label={words.all}>
      {changes.map((change, index) => {
        const active = index === chosen
        return (
          <li
            key={tieKey(change)}
            ref={active ? row : null}
            aria-current={active}
            data-origin={change.origin}
            className={`relative border-b border-rule ${active ? 'on-land' : ''}`}
          >
            <button
              type="button"
              data-choose="change"
              onClick={() => onChoose(index)}
              className="grid w-full grid-cols-[6.5rem_1fr_auto] items-center gap-3 px-3 py-1.5 text-left"
            >
              <span className="font-display text-xl tabular-nums">{formatInstant(change.footageMs)}</span>
              <span className="min-w-0 truncate">
                <b>{nameOf(change.segment)}</b> {change.edge === 'start' ? words.start : words.end}
                <span className={active ? '' : 'text-quiet'}> {roundOf(change.segment)}</span>
              </span>
              <OriginMark origin={change.origin} />
            </button>
            {active && (
              <div className="flex items-center gap-1 px-2 pb-1.5">
                <IconButton label={`${words.earlier} ${words.nudgeFrame} (${frame})`} onClick={() => onNudge(-frameMs)}>
                  <ChevronLeft size={18} />
                </IconButton>
                <IconButton label={`${words.later} ${words.nudgeFrame} (${frame})`} onClick={() => onNudge(frameMs)}>
                  <ChevronRight size={18} />
                </IconButton>
                <button
                  type="button"
                  aria-label={`${words.earlier} ${words.nudgeTen}`}
                  onClick={() => onNudge(-10)}
                  className="h-9 px-2 font-bold tabular-nums hover:bg-print hover:text-land"
                >
                  &minus;10 ms
                </button>
                <button
                  type="button"
                  aria-label={`${words.later} ${words.nudgeTen}`}
                  onClick={() => onNudge(10)}
                  className="h-9 px-2 font-bold tabular-nums hover:bg-print hover:text-land"
                >
                  +10 ms
                </button>
                <IconButton label={words.around} onClick={onHear}>
                  <Ear size={18} />
                </IconButton>
                <IconButton
                  label={words.remove}
                  disabled={change.origin === 'reckoned'}
                  onClick={() => onRemove(change)}
                  className="ml-auto"
                >
                  <X size={18} />
                </IconButton>
              </div>
            )}
          </li>
        )
      })}
    </ol>
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
