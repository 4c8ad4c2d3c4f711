// From the minutes that are promised to the few plans that come nearest, each with its sum.
'use client'
import { useMemo, useState, type ReactNode } from 'react'
import { stationsOf } from '@/core/score/formats'
import { aroundFormat, freshKey, type Score } from '@/core/score/score'
import { SOLVABLE, SOLVABLE_FORMATS, solvePromise, type Solution, type SolvableFormat } from '@/core/score/solve'
import { MOVES } from '@/core/score/moves'
import { formatLength, parseLength } from '@/core/time/clock'
import { Button } from '../parts/Button'
import { ChoiceField, CountField, TypedField } from '../parts/fields'
import { Sheet } from '../parts/Sheet'
import type { Edit } from './Sections'
import { scoreTexts } from './texts'

const words = scoreTexts.solve

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  score: Score
  totalMs: number
  edit: Edit
}

export function SolvePromise({ open, onOpenChange, score, totalMs, edit }: Props): ReactNode {
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.heading} hint={words.hint} wide>
      <Form
        score={score}
        spareMs={score.promiseMs === null ? 900_000 : Math.max(60_000, score.promiseMs - totalMs)}
        edit={edit}
        onDone={() => onOpenChange(false)}
      />
    </Sheet>
  )
}

function Form({
  score,
  spareMs,
  edit,
  onDone,
}: {
  score: Score
  spareMs: number
  edit: Edit
  onDone: () => void
}): ReactNode {
  const [ms, setMs] = useState(spareMs)
  const [format, setFormat] = useState<SolvableFormat>('circuit')
  const [moves, setMoves] = useState(5)
  const [promise, setPromise] = useState(score.promiseMs === null && score.sections.length === 0)
  const solutions = useMemo(() => {
    return solvePromise({ totalMs: ms, format, moves }, aroundFormat(score, format, false))
  }, [ms, format, moves, score])
  const take = ({ section }: Solution): void => {
    edit((draft) => {
      const key = freshKey(
        draft.sections.some((one) => one.name === 'Main') ? scoreTexts.formats[format][0] : 'Main',
        draft.sections.map((one) => one.key),
      )
      const named = structuredClone(section)
      stationsOf(named).forEach((station, index) => {
        station.label = MOVES[index % MOVES.length]?.name ?? station.label
      })
      draft.sections.push({
        ...named,
        key,
        name: draft.sections.some((one) => one.name === 'Main') ? scoreTexts.formats[format][0] : 'Main',
        above: draft.sections.length ? [''] : [],
      })
      if (promise) draft.promiseMs = ms
    })
    onDone()
  }
  return (
    <div>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <TypedField
          label={words.minutes}
          showLabel
          value={ms}
          write={(value) => (value % 60_000 ? formatLength(value) : String(value / 60_000))}
          read={(text) =>
            (/^\d+(\.\d+)?$/.test(text.trim()) ? parseLength(`${Number(text) * 60}`) : parseLength(text)) || null
          }
          complaint={scoreTexts.badLength}
          onChange={setMs}
          className="w-24 text-right font-display text-xl"
        />
        <ChoiceField
          label={words.format}
          showLabel
          value={format}
          options={
            Object.fromEntries(SOLVABLE_FORMATS.map((name) => [name, scoreTexts.formats[name][0]])) as Record<
              SolvableFormat,
              string
            >
          }
          onChange={setFormat}
        />
        <CountField label={words.moves} showLabel value={moves} low={1} high={40} onChange={setMoves} />
      </div>
      <table className="mt-5 w-full text-left tabular-nums">
        <thead>
          <tr className="border-b-4 border-ink text-[13px] text-quiet">
            {[
              scoreTexts.fields[SOLVABLE[format].times],
              scoreTexts.fields[SOLVABLE[format].work],
              SOLVABLE[format].rest ? scoreTexts.fields[SOLVABLE[format].rest as string] : '',
              words.columns[3],
              words.columns[4],
              '',
            ].map((label, index) =>
              label ? (
                <th key={index} className="py-1 font-medium">
                  {label}
                </th>
              ) : (
                <td key={index} />
              ),
            )}
          </tr>
        </thead>
        <tbody>
          {solutions.map((one, index) => (
            <tr key={index} className="border-b border-rule font-display text-xl">
              <td className="py-1">{one.times}</td>
              <td>{formatLength(one.workMs)}</td>
              <td>{one.restMs === null ? '' : formatLength(one.restMs)}</td>
              <td>{formatLength(one.totalMs)}</td>
              <td className="font-text text-base">
                {one.offMs === 0
                  ? words.exact
                  : words.off(`${one.offMs > 0 ? '+' : '-'}${formatLength(Math.abs(one.offMs))}`)}
              </td>
              <td className="text-right">
                <Button
                  weight={index === 0 ? 'main' : 'plain'}
                  className="!min-h-9 font-text text-base"
                  onClick={() => take(one)}
                >
                  {words.take}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {!solutions.length && <p className="pt-4">{words.none}</p>}
      <label className="mt-4 flex min-h-9 items-center gap-3">
        <input
          type="checkbox"
          className="size-5 accent-[var(--ink)]"
          checked={promise}
          onChange={(event) => setPromise(event.target.checked)}
        />
        {words.setPromise}
      </label>
    </div>
  )
}
