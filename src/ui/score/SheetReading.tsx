// The score as rows in time: edited in place, chosen by the handful, moved by grip or keyboard, copied to and from a
// spreadsheet. Only the rows in sight are drawn.
'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import { ChevronDown, ChevronRight } from 'lucide-react'
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
} from 'react'
import { toast } from 'sonner'
import { Problem } from '@/core/problem'
import { readIntervalTable, TABLE_HEADER } from '@/core/read/intervalTable'
import { castOf } from '@/core/score/cast'
import { removeMoves, setLabel, setLength, setSide, shiftMove } from '@/core/score/edits'
import { SIDE_RULES, type SideRule } from '@/core/score/postures'
import { freshKey, type Score } from '@/core/score/score'
import type { Expansion, Segment } from '@/core/score/segment'
import { formatClock, formatLength } from '@/core/time/clock'
import { writeIntervalTable } from '@/core/write/intervalTable'
import { countersOf, nameOf } from '@/core/write/wording'
import { Button } from '../parts/Button'
import { ChoiceField, LengthField, NameField } from '../parts/fields'
import { isTyping } from '../parts/isTyping'
import { toggled } from '../parts/toggled'
import type { Edit } from './Sections'
import { ROW_PX, SheetRow } from './SheetRow'
import { scoreTexts } from './texts'

const words = scoreTexts.sheet

const COLUMNS = 1 + Object.keys(words.columns).length

type Line =
  | { kind: 'section'; key: string; name: string; count: number; ms: number; folded: boolean }
  | { kind: 'row'; segment: Segment }

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
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set())
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const anchor = useRef<number | null>(null)
  const scroller = useRef<HTMLDivElement>(null)
  const lines = useMemo(() => linesOf(segments, folded), [segments, folded])
  // The compiler leaves this component alone: the virtual list's functions change under the same name.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  })
  const chosenSegments = useMemo(() => segments.filter((segment) => chosen.has(segment.id)), [segments, chosen])

  const choose = useCallback(
    (segment: Segment, event: Pick<MouseEvent | KeyboardEvent, 'shiftKey' | 'ctrlKey' | 'metaKey'>): void => {
      const at = segment.row - 1
      if (event.shiftKey && anchor.current !== null) {
        const [from, to] = [Math.min(anchor.current, at), Math.max(anchor.current, at)]
        setChosen(new Set(segments.slice(from, to + 1).map((one) => one.id)))
      } else if (event.ctrlKey || event.metaKey) {
        anchor.current = at
        setChosen((before) => toggled(before, segment.id))
      } else {
        anchor.current = at
        setChosen(new Set([segment.id]))
      }
      onSelect(segment.id)
    },
    [segments, onSelect],
  )

  const step = (by: number, event: KeyboardEvent): void => {
    const at = segments.findIndex((segment) => segment.id === selected)
    const next = segments[Math.min(segments.length - 1, Math.max(0, at + by))]
    if (!next) return
    choose(next, { shiftKey: event.shiftKey, ctrlKey: false, metaKey: false })
  }
  // Whatever was selected elsewhere comes into sight.
  const selectedLine = useMemo(
    () => lines.findIndex((line) => line.kind === 'row' && line.segment.id === selected),
    [lines, selected],
  )
  useEffect(() => {
    if (selectedLine >= 0) rows.scrollToIndex(selectedLine, { align: 'auto' })
  }, [selectedLine, rows])
  const shift = useCallback(
    (segment: Segment, by: number): void => edit((draft) => void shiftMove(draft, segment, by)),
    [edit],
  )

  const removeChosen = (): void => {
    edit((draft) =>
      removeMoves(
        draft,
        chosenSegments.filter((segment) => segment.kind === 'work' || segment.origin?.station),
      ),
    )
    setChosen(new Set())
  }
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>): void => {
    if (isTyping(event.nativeEvent)) return
    if (event.key === 'Delete' || event.key === 'Backspace') return removeChosen()
    if (event.key === 'Escape') return setChosen(new Set())
    const way = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
    if (!way) return
    event.preventDefault()
    const segment = segments.find((one) => one.id === selected)
    if (event.altKey && segment) shift(segment, way)
    else step(way, event)
  }
  const onCopy = (event: React.ClipboardEvent): void => {
    if (isField(event.target) || !chosenSegments.length) return
    event.preventDefault()
    copyInto(event.clipboardData, chosenSegments)
    toast(words.copied(chosenSegments.length))
  }
  const onPaste = (event: React.ClipboardEvent): void => {
    if (isField(event.target)) return
    event.preventDefault()
    try {
      const pasted = readPastedRows(event.clipboardData.getData('text/plain'))
      const after = segments.find((segment) => segment.id === selected)?.sectionKey
      edit((draft) => {
        const at = after ? draft.sections.findIndex((section) => section.key === after) + 1 : draft.sections.length
        for (const [index, section] of pasted.sections.entries())
          draft.sections.splice(at + index, 0, {
            ...section,
            key: freshKey(
              section.name,
              draft.sections.map((one) => one.key),
            ),
          })
      })
      toast(
        words.pasted(
          pasted.sections.reduce((sum, section) => sum + (section.format === 'list' ? section.rows.length : 0), 0),
        ),
      )
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      toast.error(`${words.badPaste}${error.place ? `${error.place}: ` : ''}${error.message}`)
    }
  }
  const forChosen = (change: (draft: Score, segment: Segment) => void): void =>
    edit((draft) => {
      for (const segment of chosenSegments) change(draft, segment)
    })
  const first = chosenSegments.find((segment) => segment.kind === 'work') ?? chosenSegments[0]

  return (
    <div onKeyDown={onKeyDown} onCopy={onCopy} onPaste={onPaste}>
      {chosen.size > 1 && first && (
        <div
          className="sticky top-[86px] z-10 mb-2 flex flex-wrap items-end gap-x-4 gap-y-1 on-land px-4 py-2"
          role="toolbar"
          aria-label={words.chosen(chosen.size)}
        >
          <b className="pb-2 tabular-nums">{words.chosen(chosenSegments.length)}</b>
          <LengthField
            label={words.setLength}
            showLabel
            value={first.durationMs}
            onChange={(ms) =>
              forChosen((draft, segment) => {
                if (segment.kind === first.kind) setLength(draft, segment, ms)
              })
            }
          />
          <ChoiceField
            label={words.setSides}
            showLabel
            value={'' as SideRule | ''}
            options={
              { '': '', ...Object.fromEntries(SIDE_RULES.map((rule) => [rule, scoreTexts.sides[rule]])) } as Record<
                SideRule | '',
                string
              >
            }
            onChange={(rule) => {
              if (rule) forChosen((draft, segment) => setSide(draft, segment, rule))
            }}
          />
          <NameField
            label={words.rename}
            showLabel
            value=""
            list="moves"
            onChange={(label) => {
              if (label.trim())
                forChosen((draft, segment) => {
                  if (segment.kind === 'work') setLabel(draft, segment, label)
                })
            }}
            className="w-44"
          />
          <Button weight="bare" onClick={removeChosen}>
            {words.remove}
          </Button>
          <Button weight="bare" className="ml-auto" onClick={() => setChosen(new Set())}>
            {words.clear}
          </Button>
        </div>
      )}
      <div role="grid" aria-label={scoreTexts.readings.sheet} aria-rowcount={segments.length} aria-multiselectable>
        <div role="row" className="sheet-grid border-b-4 border-ink text-[13px] text-quiet">
          <span role="columnheader">
            <span className="sr-only">{words.order}</span>
          </span>
          {Object.entries(words.columns).map(([name, label]) => (
            <span
              key={name}
              role="columnheader"
              className={
                name === 'number' || name === 'start' || name === 'end' || name === 'length' ? 'text-right' : ''
              }
            >
              {label}
            </span>
          ))}
        </div>
        {!segments.length && <p className="py-6 text-quiet">{words.empty}</p>}
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
                  style={{
                    position: 'absolute',
                    top: 0,
                    left: 0,
                    width: '100%',
                    height: ROW_PX,
                    transform: `translateY(${item.start}px)`,
                  }}
                >
                  {line.kind === 'section' ? (
                    <div role="row" className="h-full">
                      <span role="gridcell" aria-colspan={COLUMNS}>
                        <button
                          type="button"
                          className="flex h-full w-full items-center gap-2 border-t-2 border-ink bg-paper px-3 text-left font-display text-xl"
                          aria-expanded={!line.folded}
                          onClick={() => setFolded((before) => toggled(before, line.key))}
                        >
                          {line.folded ? <ChevronRight size={17} /> : <ChevronDown size={17} />}
                          {line.name || scoreTexts.untitled}
                          <span className="ml-auto font-text text-sm tabular-nums">
                            {line.count} · {formatClock(line.ms)}
                          </span>
                        </button>
                      </span>
                    </div>
                  ) : (
                    <SheetRow
                      segment={line.segment}
                      cast={cast}
                      edit={edit}
                      chosen={chosen.has(line.segment.id)}
                      selected={line.segment.id === selected}
                      onChoose={choose}
                      onShift={shift}
                    />
                  )}
                </div>
              )
            })}
          </div>
        </div>
      </div>
    </div>
  )
}

function linesOf(segments: readonly Segment[], folded: ReadonlySet<string>): Line[] {
  const lines: Line[] = []
  let open: Extract<Line, { kind: 'section' }> | undefined
  for (const segment of segments) {
    if (open?.key !== segment.sectionKey) {
      open = {
        kind: 'section',
        key: segment.sectionKey,
        name: segment.section,
        count: 0,
        ms: 0,
        folded: folded.has(segment.sectionKey),
      }
      lines.push(open)
    }
    open.count++
    open.ms += segment.durationMs
    if (!open.folded) lines.push({ kind: 'row', segment })
  }
  return lines
}

/** As a table for a spreadsheet, and as lines for a text. */
function copyInto(clipboard: DataTransfer, segments: readonly Segment[]): void {
  const csv = writeIntervalTable(segments)
  const cells = segments.map(({ section, round, kind, label, side, durationMs }) =>
    [section, round ?? '', kind, label, side ?? '', durationMs / 1000]
      .map((cell) => String(cell).replace(/[\t\r\n]/g, ' '))
      .join('\t'),
  )
  clipboard.setData('text/plain', [TABLE_HEADER.join('\t'), ...cells].join('\n'))
  clipboard.setData('text/csv', csv)
  clipboard.setData(
    'text/html',
    `<ol>${segments.map((segment) => `<li>${escapeHtml([nameOf(segment), formatLength(segment.durationMs), ...countersOf(segment)].join(', '))}</li>`).join('')}</ol>`,
  )
}

const isField = (target: EventTarget): boolean =>
  target instanceof HTMLElement && target.matches('input, select, textarea')

const escapeHtml = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')

/** Spreadsheets put tabs between cells; the header may be left out. */
function readPastedRows(text: string): Score {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .filter((line) => line.trim())
  const tabbed = lines[0]?.includes('\t') ?? false
  const table = tabbed
    ? lines.map((line) =>
        line
          .split('\t')
          .map((cell) => (/[",]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell))
          .join(','),
      )
    : lines
  const headed = table[0]?.toLowerCase().startsWith('section,') ?? false
  return readIntervalTable([...(headed ? [] : [TABLE_HEADER.join(',')]), ...table].join('\n'), '')
}
