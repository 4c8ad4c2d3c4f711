// The score as rows in time: edited in place, chosen by the handful, moved by grip or keyboard, copied to and from a
// spreadsheet. Only the rows in sight are drawn.
'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import { ChevronDown, ChevronRight } from 'lucide-react'
import { useEffect, useMemo, useRef, type ReactNode } from 'react'
import { castOf } from '@/core/score/cast'
import type { Score } from '@/core/score/score'
import type { Expansion } from '@/core/score/segment'
import { formatClock } from '@/core/time/clock'
import { scoreTexts } from '@/core/words/en/score'
import type { Edit } from './edit'
import { ROW_PX, SheetRow } from './SheetRow'
import { SheetToolbar } from './SheetToolbar'
import { useSheet, type Line, type Sheet } from './useSheet'

const words = scoreTexts.sheet
const COLUMNS = 1 + Object.keys(words.columns).length
const NUMERIC: ReadonlySet<string> = new Set(['number', 'start', 'end', 'length'])

interface Props {
  score: Score
  expansion: Expansion
  edit: Edit
  selected: string | null
  onSelect: (id: string) => void
}

export function SheetReading({ score, expansion, edit, selected, onSelect }: Props): ReactNode {
  const { segments } = expansion
  const cast = useMemo(() => castOf(score.moves), [score.moves])
  const sheet = useSheet({ segments, edit, selected, onSelect })
  return (
    <div onKeyDown={sheet.onKeyDown} onCopy={sheet.onCopy} onPaste={sheet.onPaste}>
      <SheetToolbar sheet={sheet} />
      <div role="grid" aria-label={scoreTexts.readings.sheet} aria-rowcount={segments.length} aria-multiselectable>
        <div role="row" className="sheet-grid border-b-4 border-ink text-[13px] text-quiet">
          <span role="columnheader">
            <span className="sr-only">{words.order}</span>
          </span>
          {Object.entries(words.columns).map(([name, label]) => (
            <span key={name} role="columnheader" className={NUMERIC.has(name) ? 'text-right' : ''}>
              {label}
            </span>
          ))}
        </div>
        {!segments.length && <p className="py-6 text-quiet">{words.empty}</p>}
        <Rows
          sheet={sheet}
          selected={selected}
          row={(segment) => (
            <SheetRow
              segment={segment}
              cast={cast}
              edit={edit}
              chosen={sheet.isChosen(segment.id)}
              selected={segment.id === selected}
              onChoose={sheet.choose}
              onShift={sheet.shift}
            />
          )}
        />
      </div>
    </div>
  )
}

interface RowsProps {
  sheet: Sheet
  selected: string | null
  row: (segment: Extract<Line, { kind: 'row' }>['segment']) => ReactNode
}

function Rows({ sheet, selected, row }: RowsProps): ReactNode {
  const { lines } = sheet
  const scroller = useRef<HTMLDivElement>(null)
  // The compiler leaves this component alone: the virtual list's functions change under the same name.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  })
  // Whatever was selected elsewhere comes into sight.
  const selectedLine = useMemo(
    () => lines.findIndex((line) => line.kind === 'row' && line.segment.id === selected),
    [lines, selected],
  )
  useEffect(() => {
    if (selectedLine >= 0) rows.scrollToIndex(selectedLine, { align: 'auto' })
  }, [selectedLine, rows])
  return (
    <div
      ref={scroller}
      role="rowgroup"
      tabIndex={0}
      className="max-h-[calc(100dvh-190px)] min-h-48 overflow-y-auto bg-pale select-none focus-visible:outline-2 focus-visible:outline-ink"
    >
      <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
        {rows.getVirtualItems().map((item) => {
          const line = lines[item.index]
          if (!line) return null
          return (
            <div
              key={item.key}
              className="absolute top-0 left-0 w-full"
              style={{ height: ROW_PX, transform: `translateY(${item.start}px)` }}
            >
              {line.kind === 'section' ? <SectionLine line={line} onFold={sheet.fold} /> : row(line.segment)}
            </div>
          )
        })}
      </div>
    </div>
  )
}

interface SectionLineProps {
  line: Extract<Line, { kind: 'section' }>
  onFold: (key: string) => void
}

function SectionLine({ line, onFold }: SectionLineProps): ReactNode {
  return (
    <div role="row" className="h-full">
      <span role="gridcell" aria-colspan={COLUMNS}>
        <button
          type="button"
          className="flex h-full w-full items-center gap-2 border-t-2 border-ink bg-paper px-3 text-left font-display text-xl"
          aria-expanded={!line.folded}
          onClick={() => onFold(line.key)}
        >
          {line.folded ? <ChevronRight size={17} /> : <ChevronDown size={17} />}
          {line.name || scoreTexts.untitled}
          <span className="ml-auto font-text text-sm tabular-nums">
            {line.count} · {formatClock(line.ms)}
          </span>
        </button>
      </span>
    </div>
  )
}
