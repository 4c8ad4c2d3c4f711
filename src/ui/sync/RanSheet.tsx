// How the session ran against its plan: a chart, sums by kind, and each interval; also as a table to keep.
'use client'
import { ChartNoAxesColumn } from 'lucide-react'
import { useMemo, useState, type ReactNode } from 'react'
import { asDone } from '@/core/align/notDone'
import { driftOf, type Drift } from '@/core/align/drift'
import { remarksOn } from '@/core/align/remarks'
import type { Stitch } from '@/core/align/ties'
import { ofKind, type Evidence } from '@/core/evidence'
import type { Palette } from '@/core/look/palette'
import type { Segment } from '@/core/score/segment'
import { formatLength } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { remarkSentence } from '@/core/words/en/hearing'
import { KIND_NAMES, nameOf, roundOf } from '@/core/words/en/names'
import { texts } from '@/core/words/en/screens'
import { writeDriftTable } from '@/core/write/driftTable'
import { Button, IconButton } from '../parts/Button'
import { Drawn, type ChartConfig } from '../parts/Drawn'
import { Sheet } from '../parts/Sheet'
import { useTheme } from '../parts/useTheme'
import type { Stitching } from './useStitching'

const words = texts.sync

interface Props {
  on: Pick<Stitching, 'stitches' | 'footageMs'>
  segments: readonly Segment[]
  heard: readonly Evidence[]
  /** Cues are added to the footage's sound. */
  cuesOn: boolean
  onHushCues: () => void
}

export function RanSheet(props: Props): ReactNode {
  const [open, setOpen] = useState(false)
  return (
    <>
      <IconButton label={words.ran} onClick={() => setOpen(true)}>
        <ChartNoAxesColumn size={18} />
      </IconButton>
      <Sheet open={open} onOpenChange={setOpen} title={words.ran} hint={words.ranHint} wide>
        {open && <Remarks {...props} />}
        {open && <Ran segments={props.segments} stitches={props.on.stitches} />}
      </Sheet>
    </>
  )
}

function Remarks({ on: { stitches, footageMs }, segments, heard, cuesOn, onHushCues }: Props): ReactNode {
  const remarks = useMemo(() => {
    const done = asDone(segments, stitches)
    return remarksOn({ segments: done.segments, stitches: done.ties, said: ofKind(heard, 'said'), footageMs, cuesOn })
  }, [segments, stitches, heard, footageMs, cuesOn])
  if (!remarks.length) return null
  return (
    <ul aria-label={words.remarks} className="mb-5 grid gap-2 border-l-8 border-signal bg-pale px-5 py-3">
      {remarks.map((remark) => (
        <li key={remark.code} className="flex flex-wrap items-center justify-between gap-x-5">
          {remarkSentence(remark)}
          {remark.code === 'own-timer' && <Button onClick={onHushCues}>{words.hushCues}</Button>}
        </li>
      ))}
    </ul>
  )
}

function Ran({ segments, stitches }: { segments: readonly Segment[]; stitches: readonly Stitch[] }): ReactNode {
  const { palette } = useTheme()
  const drift = useMemo(() => driftOf(segments, stitches), [segments, stitches])
  const config = useMemo(() => chartOf(drift, palette), [drift, palette])
  if (!drift.rows.length) return <p className="text-lg">{words.ranNothing}</p>
  const table = `data:text/csv;charset=utf-8,${encodeURIComponent(writeDriftTable(drift))}`
  return (
    <>
      <Drawn label={words.ranChart} config={config} height={200} />
      <p className="pt-1 text-[13px] text-quiet">{words.ranChart}</p>
      <ul className="flex flex-wrap gap-x-6 pt-3">
        {drift.sums.map(({ kind, plannedMs, lastedMs }) => (
          <li key={kind}>{words.ranBy(KIND_NAMES[kind], tenths(plannedMs), tenths(lastedMs))}</li>
        ))}
      </ul>
      <a className="inline-flex min-h-11 items-center font-bold underline" href={table} download="how-it-ran.csv">
        {words.ranTable}
      </a>
      <table className="w-full border-collapse text-left">
        <thead>
          <tr className="border-b-2 border-ink">
            {words.ranColumns.map((name, column) => (
              <th key={name} scope="col" className={`py-1.5 pr-3 ${column ? 'text-right' : ''}`}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {drift.rows.map(({ segment, plannedMs, lastedMs, offMs, runningMs, isSure }) => (
            <tr key={segment.id} className={`border-b border-rule ${isSure ? '' : 'text-quiet'}`}>
              <td className="py-1 pr-3">
                <b>{nameOf(segment)}</b> <span className="text-quiet">{roundOf(segment)}</span>
              </td>
              <Figure text={plannedMs === null ? '' : tenths(plannedMs)} />
              <Figure text={`${tenths(lastedMs)}${isSure ? '' : ' ?'}`} />
              <Figure text={offMs === null ? '' : signed(offMs)} strong={offMs !== null && Math.abs(offMs) >= OFF_MS} />
              <Figure text={signed(runningMs)} />
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

/** An interval that strays more than this is worth a look. */
const OFF_MS: Ms = 500

const tenths = (ms: Ms): string => formatLength(Math.round(ms / 100) * 100)
const signed = (ms: Ms): string => `${ms >= 50 ? '+' : ''}${tenths(ms)}`

function Figure({ text, strong = false }: { text: string; strong?: boolean }): ReactNode {
  return <td className={`py-1 pr-3 text-right tabular-nums ${strong ? 'font-bold text-signal' : ''}`}>{text}</td>
}

function chartOf({ rows }: Drift, palette: Palette): ChartConfig {
  const ticks = { color: palette.ink, font: { family: 'Hanken Grotesk', size: 13 } }
  return {
    type: 'bar',
    data: {
      labels: rows.map(({ segment }) => nameOf(segment)),
      datasets: [
        {
          data: rows.map(({ offMs }) => (offMs ?? 0) / 1000),
          backgroundColor: rows.map(({ segment }) => (segment.kind === 'work' ? palette.land : palette.water)),
          borderColor: palette.ink,
          borderWidth: rows.length > 60 ? 0 : 1.5,
          maxBarThickness: 26,
        },
      ],
    },
    options: {
      responsive: true,
      maintainAspectRatio: false,
      animation: false,
      scales: {
        x: { ticks: { display: false }, grid: { display: false } },
        y: { ticks: { ...ticks, callback: (value) => `${value} s` }, grid: { color: `${palette.ink}22` } },
      },
      plugins: { legend: { display: false } },
    },
  }
}
