// One row of the running sheet.
'use client'
import { GripVertical } from 'lucide-react'
import { memo, useRef, type KeyboardEvent, type MouseEvent, type ReactNode } from 'react'
import type { Cast } from '@/core/score/cast'
import { gapOf, setGap, setLabel, setLength, setSide } from '@/core/score/edits'
import type { SideRule } from '@/core/score/postures'
import type { Segment } from '@/core/score/segment'
import { formatClock, formatLength } from '@/core/time/clock'
import { countersOf, KIND_NAMES } from '@/core/words/en/names'
import { ChoiceField, LengthField, NameField } from '../parts/fields'
import type { Edit } from './edit'
import { scoreTexts } from '@/core/words/en/score'

const words = scoreTexts.sheet
export const ROW_PX = 40

interface Props {
  segment: Segment
  cast: Cast
  edit: Edit
  chosen: boolean
  selected: boolean
  onChoose: (segment: Segment, event: MouseEvent | KeyboardEvent) => void
  onShift: (segment: Segment, by: number) => void
}

export const SheetRow = memo(function SheetRow({
  segment,
  cast,
  edit,
  chosen,
  selected,
  onChoose,
  onShift,
}: Props): ReactNode {
  const work = segment.kind === 'work'
  const station = segment.origin?.station
  return (
    <div
      role="row"
      aria-rowindex={segment.row}
      aria-selected={chosen}
      data-row={segment.row}
      className={`sheet-grid h-full border-t border-rule tabular-nums ${chosen ? 'bg-chosen' : selected ? 'bg-land/20' : ''} ${work ? 'font-bold' : ''}`}
      onClick={(event) => {
        if (!(event.target as HTMLElement).closest('input, select, button')) onChoose(segment, event)
      }}
    >
      <Cell>{station && work && <Grip onMove={(rows) => onShift(segment, rows)} />}</Cell>
      <Cell className="text-right text-quiet">{segment.row}</Cell>
      <Cell className="text-right">{formatClock(segment.startMs)}</Cell>
      <Cell className="text-right">{formatClock(segment.startMs + segment.durationMs)}</Cell>
      <LengthCell segment={segment} edit={edit} />
      <Cell className="truncate text-[13.5px] font-medium text-quiet" full={countersOf(segment).join(', ')}>
        {countersOf(segment)
          .map((one) => one.replace(' of ', '/'))
          .join(', ')}
      </Cell>
      <LabelCell segment={segment} edit={edit} />
      <MoveCells segment={segment} cast={cast} edit={edit} />
    </div>
  )
})

function LengthCell({ segment, edit }: Pick<Props, 'segment' | 'edit'>): ReactNode {
  return (
    <Cell className="text-right">
      {segment.origin?.length ? (
        <LengthField
          label={words.columns.length}
          value={segment.durationMs}
          onChange={(ms) => edit((draft) => setLength(draft, segment, ms))}
          className="!w-full"
        />
      ) : (
        <span title={words.fixed} className="px-1.5 font-display text-xl">
          {segment.estimated ? '~' : ''}
          {formatLength(segment.durationMs)}
        </span>
      )}
    </Cell>
  )
}

/** Whether one name of the plan decides what a row is called. */
function isNamedHere({ id, kind, moves, origin }: Segment): boolean {
  if (moves.length > 1) return false
  if (kind === 'talk') return !id.includes('/demo/')
  return kind === 'break' || (kind === 'work' && Boolean(origin?.station))
}

function LabelCell({ segment, edit }: Pick<Props, 'segment' | 'edit'>): ReactNode {
  const { kind, label, reps, moves } = segment
  if (!isNamedHere(segment))
    return (
      <Cell className="truncate px-1.5" full={label}>
        {label || KIND_NAMES[kind]}
        {reps && moves.length < 2 ? ` x ${reps}` : ''}
      </Cell>
    )
  return (
    <Cell>
      <NameField
        label={words.columns.label}
        value={label}
        onChange={(text) => edit((draft) => setLabel(draft, segment, text))}
        offersMoves={kind === 'work'}
        placeholder={KIND_NAMES[kind]}
        wide
        className="w-full"
      />
    </Cell>
  )
}

/** Sides, gear and cues of a work; of anything else, its note. */
function MoveCells({ segment, cast, edit }: Pick<Props, 'segment' | 'cast' | 'edit'>): ReactNode {
  const { kind, note, side, origin } = segment
  if (kind !== 'work')
    return (
      <Cell className="col-span-3 flex items-center gap-3 truncate font-medium text-quiet" full={note}>
        <GapChoice segment={segment} edit={edit} />
        {note}
      </Cell>
    )
  const moves = segment.moves.map(cast)
  const gear = moves.flatMap((move) => move.gear).join(', ')
  const cues = moves.flatMap((move) => move.cue || []).join(', ')
  const rule: SideRule | '' = side === 'switch' ? 'halves' : (side ?? '')
  return (
    <>
      <Cell>
        {origin?.station && (
          <ChoiceField
            label={words.columns.side}
            value={rule}
            options={{ '': rule === '' ? '' : scoreTexts.own, ...scoreTexts.sides }}
            onChange={(next) => edit((draft) => setSide(draft, segment, next || null))}
            className="w-full"
          />
        )}
      </Cell>
      <Cell className="truncate font-medium" full={gear}>
        {gear}
      </Cell>
      <Cell className="truncate font-medium text-quiet" full={cues}>
        {cues}
      </Cell>
    </>
  )
}

/** Whether a rest lasts like the others, or has a length of its own. */
function GapChoice({ segment, edit }: Pick<Props, 'segment' | 'edit'>): ReactNode {
  if (!gapOf(segment) || !segment.origin?.length) return null
  const own = segment.origin.length.field[0] === 'gaps'
  return (
    <button
      type="button"
      aria-pressed={own}
      className={`min-h-7 border px-2 text-[13px] ${own ? 'border-ink bg-ink text-paper' : 'border-rule text-quiet hover:border-ink hover:text-ink'}`}
      onClick={() => edit((draft) => setGap(draft, segment, own ? null : segment.durationMs))}
    >
      {scoreTexts.onlyHere}
    </button>
  )
}

/** @param full what stands in it, for when it is cut off. */
function Cell({
  className = '',
  full,
  children,
}: {
  className?: string
  full?: string
  children: ReactNode
}): ReactNode {
  return (
    <span role="gridcell" className={`min-w-0 ${className}`} title={full || undefined}>
      {children}
    </span>
  )
}

/** Dragged by pointer in whole rows, or by Alt and the arrow keys. */
function Grip({ onMove }: { onMove: (stations: number) => void }): ReactNode {
  const from = useRef<number | null>(null)
  return (
    <button
      type="button"
      aria-label={scoreTexts.move}
      className="inline-grid h-9 w-7 cursor-grab touch-none place-items-center text-quiet hover:text-ink"
      onPointerDown={(event) => {
        from.current = event.clientY
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerUp={(event) => {
        const rows = from.current === null ? 0 : Math.round((event.clientY - from.current) / (ROW_PX * 2))
        from.current = null
        if (rows) onMove(rows)
      }}
      onKeyDown={(event) => {
        const way = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
        if (!way) return
        event.preventDefault()
        event.stopPropagation()
        onMove(way)
      }}
    >
      <GripVertical size={17} />
    </button>
  )
}
