// The floor as it is seen from the mat: the whole window, in letters as large as its distance wants. Nothing here
// decides what is shown; `core/floor/board` does.
'use client'
import { useRef, type ReactNode } from 'react'
import type { Board } from '@/core/floor/board'
import { fontPxFor, readableFrom, setInto, type SetText } from '@/core/look/reading'
import { FONTS } from '@/core/look/palette'
import { formatClock } from '@/core/time/clock'
import { floorTexts as words } from '@/core/words/en/floor'
import { useFonts, useSize } from '../parts/useCanvas'

const GROUNDS: Record<Board['ground'], string> = {
  work: 'bg-land text-print dark:bg-paper dark:text-land',
  rest: 'bg-deep text-on-bar',
  ready: 'bg-pale text-ink dark:bg-bar',
}

interface Props {
  board: Board
  /** From how many metres it is to be read. */
  metres: number
  /** Heart beats a minute; null where none are told. */
  beats: number | null
  /** The press of the whole stage; null where it does nothing. */
  onPress: (() => void) | null
  /** What the press does, in a word. */
  pressed: string
}

export function Stage({ board, metres, beats, onPress, pressed }: Props): ReactNode {
  const frame = useRef<HTMLDivElement>(null)
  const { width, height } = useSize(frame)
  const ready = useFonts()
  const sizes = sizesFor(metres, width, height)
  return (
    <div
      ref={frame}
      className={`relative flex min-h-0 flex-1 select-none overflow-hidden ${GROUNDS[board.ground]}`}
      data-testid="stage"
      data-ground={board.ground}
      data-count={board.count ?? ''}
      data-label={board.label}
      data-phase={board.phase}
    >
      {onPress && (
        <button
          type="button"
          aria-label={pressed}
          className="absolute inset-0 z-10 outline-offset-[-6px]"
          onClick={onPress}
        />
      )}
      {ready && width > 0 && (
        <>
          <Staff board={board} />
          <div className="flex min-w-0 flex-1 flex-col font-display leading-none">
            <Head board={board} beats={beats} px={sizes.look} width={width} />
            <Middle board={board} {...{ sizes, width, height, metres }} />
            <Foot board={board} px={sizes.look} width={width} />
          </div>
        </>
      )}
    </div>
  )
}

interface Sizes {
  count: number
  glance: number
  look: number
}

/** What the distance wants, as far as the window has room for it beside the rest. */
function sizesFor(metres: number, width: number, height: number): Sizes {
  return {
    count: Math.min(fontPxFor('count', metres) * 1.6, width * (height > width ? 0.7 : 0.3), height * 0.62),
    glance: fontPxFor('glance', metres) * 1.5,
    look: Math.min(fontPxFor('look', metres), height * 0.1, width * 0.055),
  }
}

const WIDTHS = new Map<string, number>()
/** Width of a line in the display face at font size 1. */
function widthOf(line: string): number {
  const known = WIDTHS.get(line)
  if (known !== undefined) return known
  const pen = document.createElement('canvas').getContext('2d')
  if (!pen) return line.length * 0.5
  pen.font = `400 100px "${FONTS.display}"`
  const width = pen.measureText(line).width / 100
  WIDTHS.set(line, width)
  return width
}

/** How much of the interval is left, as a tide that goes out; a notch marks halfway. */
function Staff({ board }: { board: Board }): ReactNode {
  return (
    <div className="relative w-[5vw] max-w-20 shrink-0 border-r-4 border-current/25" aria-hidden>
      {board.left !== null && (
        <div className="absolute inset-x-0 bottom-0 bg-current" style={{ height: `${board.left * 100}%` }} />
      )}
      <div className="absolute top-1/2 right-0 left-full h-1 w-6 bg-current" />
    </div>
  )
}

interface HeadProps extends Pick<Props, 'board' | 'beats'> {
  px: number
  width: number
}

function Head({ board, beats, px, width }: HeadProps): ReactNode {
  const times = `${words.timeIn(formatClock(board.inMs))}, ${words.timeLeft(formatClock(board.leftMs), board.leftIsGuess)}`
  const counters = [...board.counters, beats === null ? '' : words.beatsOnStage(beats)].filter(Boolean).join(', ')
  const size = Math.min(px, (width * 0.86) / (widthOf(counters) + widthOf(times.replace(/\d/g, '0')) + 1))
  return (
    <p className="flex items-baseline justify-between gap-6 px-[2.5vw] pt-[1.5vh]" style={{ fontSize: size }}>
      <span className="whitespace-nowrap">{counters}</span>
      <span className="ml-auto whitespace-nowrap tabular-nums">{times}</span>
    </p>
  )
}

interface MiddleProps {
  board: Board
  sizes: Sizes
  width: number
  height: number
  metres: number
}

function Middle({ board, sizes, width, height, metres }: MiddleProps): ReactNode {
  const upright = height > width
  const count = countText(board.count)
  const countPx = Math.min(sizes.count, (width * (upright ? 0.8 : 0.36)) / Math.max(1.2, widthOf(count)))
  const aside = upright ? 0 : Math.max(width * 0.2, widthOf(count) * countPx)
  const room = { width: width * 0.84 - aside, height: height * (upright ? 0.26 : 0.36) }
  const name = setInto(nameOf(board), { ...room, mostPx: sizes.glance, leading: 1 }, widthOf)
  const detail = detailOf(board)
  const detailPx = Math.min(sizes.look * 1.1, room.width / Math.max(1, widthOf(detail)))
  return (
    <div
      className={`flex min-h-0 flex-1 items-center gap-[2.5vw] px-[2.5vw] ${upright ? 'flex-col justify-center text-center' : ''}`}
    >
      {board.count !== null && (
        <p className="shrink-0 tabular-nums" style={{ fontSize: countPx, minWidth: aside }} data-testid="floor-count">
          {count}
        </p>
      )}
      <div className="min-w-0">
        <Name text={name} metres={metres} />
        {board.side && (
          <p
            className={`mt-[1vh] flex items-center gap-[1vw] ${upright ? 'justify-center' : ''}`}
            style={{ fontSize: Math.min(sizes.glance, name.px) }}
          >
            <Pennant side={board.side} />
            {SIDES[board.side]}
          </p>
        )}
        {detail && (
          <p className="mt-[1vh] whitespace-nowrap" style={{ fontSize: detailPx }}>
            {detail}
          </p>
        )}
        {board.ground === 'work' && board.way === 'down' && (
          <p className={`mt-[1vh] ${board.pastHalf ? '' : 'invisible'}`} style={{ fontSize: detailPx }}>
            {words.halfway}
          </p>
        )}
      </div>
    </div>
  )
}

const SIDES = { left: 'left', right: 'right', both: 'both sides' } as const

const countText = (count: number | null): string =>
  count === null ? '' : count < 600 ? String(count) : formatClock(count * 1000)

const nameOf = ({ phase, label }: Board): string =>
  phase === 'ended' ? words.over : phase === 'countingIn' ? `${words.phases.countingIn}: ${label}` : label

function detailOf({ phase, waits, details, way, ground }: Board): string {
  if (phase === 'holding') return words.phases.holding
  if (waits && way === 'up' && ground !== 'work') return words.opened
  return [...details, ...(waits ? [words.waits] : [])].join(', ')
}

function Name({ text, metres }: { text: SetText; metres: number }): ReactNode {
  const from = readableFrom('glance', text.px)
  return (
    <>
      <p style={{ fontSize: text.px }}>
        {text.lines.map((line, index) => (
          <span key={index} className="block whitespace-nowrap">
            {line}
          </span>
        ))}
      </p>
      {from < metres - 0.05 && text.lines.join('') && (
        <p className="relative z-20 mt-1 font-text text-sm font-bold" data-testid="too-small">
          {words.tooSmall(from.toFixed(1))}
        </p>
      )}
    </>
  )
}

/** Points to the side that works, beside its word. */
function Pennant({ side }: { side: 'left' | 'right' | 'both' }): ReactNode {
  const points = { left: '40,4 4,20 40,36', right: '4,4 40,20 4,36', both: '4,20 20,6 20,34' }[side]
  return (
    <svg viewBox={side === 'both' ? '0 0 60 40' : '0 0 44 40'} className="h-[0.7em]" fill="currentColor" aria-hidden>
      <polygon points={points} />
      {side === 'both' && <polygon points="56,20 40,6 40,34" />}
    </svg>
  )
}

function Foot({ board, px, width }: { board: Board; px: number; width: number }): ReactNode {
  const { next } = board
  if (board.phase === 'ended') return null
  const text = next ? [`${words.next}: ${next.label}`, ...next.details].join(', ') : words.last
  const length = next?.lengthMs ? formatClock(next.lengthMs) : ''
  const size = Math.min(px, (width * 0.84) / (widthOf(text) + widthOf(length) + 1.2))
  return (
    <p
      className="flex items-baseline justify-between gap-6 border-t-4 border-current/25 px-[2.5vw] py-[1.6vh]"
      style={{ fontSize: size }}
      data-testid="floor-next"
    >
      <span className="whitespace-nowrap">{text}</span>
      <span className="whitespace-nowrap tabular-nums">{length}</span>
    </p>
  )
}
