// From the minutes that are promised to the few plans that come nearest, each with its sum.
'use client'
import { useMemo, useState, type ReactNode } from 'react'
import { SOLVABLE, stationsOf, type FormatName } from '@/core/score/formats'
import { MOVES } from '@/core/score/moves'
import { aroundFormat, freshKey, type Score } from '@/core/score/score'
import { msToFill, solvePromise, type Solution } from '@/core/score/solve'
import { formatLength, parseMinutes } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { scoreTexts } from '@/core/words/en/score'
import { Button } from '../parts/Button'
import { ChoiceField, CountField, TypedField } from '../parts/fields'
import { Sheet } from '../parts/Sheet'
import type { Edit } from './edit'
import { CheckField } from '../parts/CheckField'

const words = scoreTexts.solve
const FORMATS = [...SOLVABLE.keys()]
const FIRST = FORMATS[0]
const FORMAT_LABELS = Object.fromEntries(FORMATS.map((name) => [name, scoreTexts.formats[name][0]]))

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  score: Score
  totalMs: Ms
  edit: Edit
}

export function SolvePromise({ open, onOpenChange, ...props }: Props): ReactNode {
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.heading} hint={words.hint} wide>
      <Form {...props} onDone={() => onOpenChange(false)} />
    </Sheet>
  )
}

function Form({
  score,
  totalMs,
  edit,
  onDone,
}: Omit<Props, 'open' | 'onOpenChange'> & { onDone: () => void }): ReactNode {
  const [ms, setMs] = useState(() => msToFill(score, totalMs))
  const [format, setFormat] = useState<FormatName | undefined>(FIRST)
  const [moves, setMoves] = useState(5)
  const [promise, setPromise] = useState(score.promiseMs === null && score.sections.length === 0)
  const solutions = useMemo(
    () => (format ? solvePromise({ totalMs: ms, format, moves }, aroundFormat(score, format, 'nothing')) : []),
    [ms, format, moves, score],
  )
  if (!format) return null
  const take = (solution: Solution): void => {
    edit((draft) => {
      addSolved(draft, solution, format)
      if (promise) draft.promiseMs = ms
    })
    onDone()
  }
  const over = score.promiseMs !== null && totalMs >= score.promiseMs && score.sections.length > 0
  return (
    <div>
      {over && <p className="pb-4">{words.usedUp(formatLength(totalMs), formatLength(score.promiseMs ?? 0))}</p>}
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <TypedField
          label={words.minutes}
          showLabel
          value={ms}
          write={(value) => (value % 60_000 ? formatLength(value) : String(value / 60_000))}
          read={(text) => parseMinutes(text) || null}
          complaint={scoreTexts.badLength}
          onChange={setMs}
          className="w-24 text-right font-display text-xl"
        />
        <ChoiceField
          label={words.format}
          showLabel
          value={format}
          options={FORMAT_LABELS as Record<FormatName, string>}
          onChange={setFormat}
        />
        <CountField label={words.moves} showLabel value={moves} low={1} high={40} onChange={setMoves} />
      </div>
      <Solutions solutions={solutions} format={format} onTake={take} />
      <CheckField className="mt-4" label={words.setPromise} on={promise} onChange={setPromise} />
    </div>
  )
}

/** Puts a solved section at the end of a score, with moves of the library and a name that is free. */
function addSolved(draft: Score, { section }: Solution, format: FormatName): void {
  const named = structuredClone(section)
  stationsOf(named).forEach((station, index) => {
    station.label = MOVES[index % MOVES.length]?.name ?? station.label
  })
  const name = draft.sections.some((one) => one.name === 'Main') ? scoreTexts.formats[format][0] : 'Main'
  const keys = draft.sections.map((one) => one.key)
  draft.sections.push({ ...named, key: freshKey(name, keys), name, above: draft.sections.length ? [''] : [] })
}

interface SolutionsProps {
  solutions: readonly Solution[]
  format: FormatName
  onTake: (solution: Solution) => void
}

function Solutions({ solutions, format, onTake }: SolutionsProps): ReactNode {
  const { fields } = scoreTexts
  const solve = SOLVABLE.get(format)
  const heads = [solve?.times, solve?.work, solve?.rest].map((field) => (field ? fields[field] : ''))
  if (!solutions.length) return <p className="pt-4">{words.none}</p>
  return (
    <table className="mt-5 w-full text-left tabular-nums">
      <thead>
        <tr className="border-b-4 border-ink text-[13px] text-quiet">
          {[...heads, words.columns[3], words.columns[4], ''].map((label, index) =>
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
                onClick={() => onTake(one)}
              >
                {words.take}
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
