// The moves that are shown: those in sight are drawn.
'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef, type ReactNode } from 'react'
import type { Move } from '@/core/score/move'
import { scoreTexts } from '@/core/words/en/score'

const words = scoreTexts.moves
const ROW_PX = 54

interface Props {
  moves: readonly Move[]
  current: string | null
  isOwn: (move: Move) => boolean
  /** Typed and not saved yet. */
  isUnsaved: (move: Move) => boolean
  onChoose: (move: Move) => void
}

export function MoveList({ moves, current, isOwn, isUnsaved, onChoose }: Props): ReactNode {
  const scroller = useRef<HTMLDivElement>(null)
  // eslint-disable-next-line react-hooks/incompatible-library -- as in the running sheet
  const rows = useVirtualizer({
    count: moves.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  })
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto border-t-4 border-ink bg-pale">
      {!moves.length && <p className="p-5 text-quiet">{words.none}</p>}
      <ul className="relative" style={{ height: rows.getTotalSize() }} aria-label={words.heading}>
        {rows.getVirtualItems().map((item) => {
          const move = moves[item.index]
          if (!move) return null
          const active = move.name === current
          const marks = [isOwn(move) && words.ownMark, isUnsaved(move) && words.unsavedMark].filter(Boolean)
          return (
            <li
              key={move.name}
              className="absolute top-0 w-full"
              style={{ height: ROW_PX, transform: `translateY(${item.start}px)` }}
            >
              <button
                type="button"
                aria-current={active}
                onClick={() => onChoose(move)}
                className={`flex h-full w-full flex-col justify-center border-b border-rule px-4 text-left ${active ? 'bg-land text-print' : 'hover:bg-ink/10'}`}
              >
                <span className="flex items-baseline gap-2 font-bold">
                  {move.name}
                  {marks.map((mark) => (
                    <span
                      key={String(mark)}
                      className={`border px-1.5 text-[12px] ${active ? 'border-print' : 'border-ink'}`}
                    >
                      {mark}
                    </span>
                  ))}
                </span>
                <span className={`truncate text-[13.5px] ${active ? '' : 'text-quiet'}`}>{aboutMove(move)}</span>
              </button>
            </li>
          )
        })}
      </ul>
    </div>
  )
}

const aboutMove = ({ posture, muscles, gear }: Move): string =>
  [scoreTexts.postures[posture], muscles.map((muscle) => scoreTexts.muscles[muscle]).join(', '), gear.join(', ')]
    .filter(Boolean)
    .join(' · ')
