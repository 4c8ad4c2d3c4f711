// What a session came to: what really happened, against the plan that was run.
'use client'
import Link from 'next/link'
import type { ReactNode } from 'react'
import { reportOf, type ReportRow } from '@/core/floor/report'
import type { FloorLog } from '@/core/floor/log'
import { formatLength } from '@/core/time/clock'
import { floorTexts } from '@/core/words/en/floor'
import { nameOf, roundOf } from '@/core/words/en/names'
import { PLAIN_LINK } from '../parts/Button'

const words = floorTexts.report

interface Props {
  workoutId: string
  sessionId: string
  log: FloorLog
}

export function FloorReport({ workoutId, sessionId, log }: Props): ReactNode {
  const { rows, plannedMs, reallyMs, longest } = reportOf(log)
  const missing = rows.filter(({ reallyMs: done }) => done === null).length
  return (
    <main id="content" tabIndex={-1} className="mx-auto w-full max-w-6xl flex-1 px-6 py-8">
      <h1 className="text-5xl">{floorTexts.over}</h1>
      <p className="mt-2 text-xl">
        {words.sum(formatLength(plannedMs), formatLength(seconds(reallyMs)))}{' '}
        {longest
          ? words.longest(
              nameOf(longest.segment),
              formatLength(seconds(longest.reallyMs ?? 0)),
              formatLength(longest.segment.durationMs),
            )
          : words.asPlanned}{' '}
        {missing > 0 && words.notDoneCount(missing)}
      </p>
      <div className="mt-5 flex flex-wrap gap-3">
        {!log.rehearsal && (
          <Link
            href={`/w/${workoutId}/sync`}
            className="cut-block inline-flex min-h-10 items-center bg-land px-5 font-bold text-print hover:brightness-105"
          >
            {words.toSync}
          </Link>
        )}
        <Link href={`/w/${workoutId}/floor`} className={PLAIN_LINK}>
          {words.newOne}
        </Link>
        <a href={`/api/sessions/${sessionId}/log`} download className={PLAIN_LINK}>
          {words.download}
        </a>
      </div>
      <div className="mt-6 overflow-x-auto">
        <table className="w-full border-collapse text-left">
          <thead>
            <tr className="border-b-2 border-ink">
              {[words.what, words.planned, words.really, words.off, words.ended].map((head, column) => (
                <th
                  key={head}
                  scope="col"
                  className={`py-2 pr-4 font-bold ${column > 0 && column < 4 ? 'text-right' : ''}`}
                >
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <Row key={row.key} row={row} />
            ))}
          </tbody>
        </table>
      </div>
    </main>
  )
}

/** To tenths of a second: that is how well a press knows it. */
const seconds = (ms: number): number => Math.round(ms / 100) * 100

function Row({ row }: { row: ReportRow }): ReactNode {
  const { segment, take, reallyMs, heldMs, endedBy, mark, notes, stands } = row
  const planned = segment.pace === 'fixed' || segment.pace === 'range' ? segment.durationMs : null
  const off = planned !== null && reallyMs !== null ? seconds(reallyMs - planned) : null
  return (
    <tr className={`border-b border-rule align-top ${stands ? '' : 'text-quiet'}`}>
      <td className="py-2 pr-4">
        <span className={segment.kind === 'work' ? 'font-bold' : ''}>{nameOf(segment)}</span>
        <span className="text-quiet"> {[roundOf(segment), words.takes(take)].filter(Boolean).join(', ')}</span>
        {notes.map((note, index) => (
          <span key={index} className="block text-sm">
            {note}
          </span>
        ))}
      </td>
      <td className="py-2 pr-4 text-right tabular-nums">{planned === null ? '' : formatLength(planned)}</td>
      <td className="py-2 pr-4 text-right tabular-nums">{reallyMs === null ? '' : formatLength(seconds(reallyMs))}</td>
      <td className={`py-2 pr-4 text-right tabular-nums ${off !== null && Math.abs(off) >= 2000 ? 'font-bold' : ''}`}>
        {off === null || off === 0 ? '' : `${off > 0 ? '+' : ''}${formatLength(off)}`}
      </td>
      <td className="py-2">
        {[
          endedBy ? floorTexts.endedBy[endedBy] : words.notDone,
          heldMs ? words.heldFor(formatLength(seconds(heldMs))) : '',
          mark ? floorTexts.marked[mark] : '',
        ]
          .filter(Boolean)
          .join(', ')}
      </td>
    </tr>
  )
}
