// The same plan in another length: a few ways that come near it, each with its sum and what it changes.
'use client'
import { useMemo, useState, type ReactNode } from 'react'
import { mergeInto } from '@/core/score/merge'
import type { Score } from '@/core/score/score'
import { lengthOf, versionsOf, type Version, type VersionChange } from '@/core/score/versions'
import { formatClock, formatLength, parseMinutes } from '@/core/time/clock'
import { MINUTE, SECOND, type Ms } from '@/core/units'
import { scoreTexts } from '@/core/words/en/score'
import { TypedField } from '../parts/fields'
import { Sheet } from '../parts/Sheet'
import type { Edit } from './edit'
import { CheckField } from '../parts/CheckField'

const words = scoreTexts.otherLength
/** What is asked for where nothing is promised: so much less. */
const SHORTER: Ms = 5 * MINUTE

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  score: Score
  edit: Edit
}

export function OtherLength({ open, onOpenChange, ...props }: Props): ReactNode {
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.heading} hint={words.hint(props.score.promiseOf)} wide>
      <Form {...props} onDone={() => onOpenChange(false)} />
    </Sheet>
  )
}

function Form({ score, edit, onDone }: Pick<Props, 'score' | 'edit'> & { onDone: () => void }): ReactNode {
  const nowMs = useMemo(() => lengthOf(score), [score])
  const [goalMs, setGoalMs] = useState(() => firstGoal(score, nowMs))
  const [promises, setPromises] = useState(true)
  const versions = useMemo(() => versionsOf(score, goalMs), [score, goalMs])
  const take = (version: Version): void => {
    edit((draft) => {
      mergeInto(draft, structuredClone(version.score))
      if (promises) draft.promiseMs = goalMs
    })
    onDone()
  }
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-end gap-x-8 gap-y-2">
        <p>
          <span className="block text-[13px] text-quiet">{words.now}</span>
          <span className="font-display text-3xl tabular-nums">{formatClock(nowMs)}</span>
        </p>
        <TypedField<Ms>
          label={words.wanted}
          showLabel
          value={goalMs}
          write={formatLength}
          read={(text) => {
            const ms = parseMinutes(text)
            return ms && ms > 0 ? ms : null
          }}
          complaint={scoreTexts.badLength}
          onChange={setGoalMs}
          onTyped={setGoalMs}
          className="w-28 text-right font-display text-3xl"
        />
        <CheckField label={words.promise} on={promises} onChange={setPromises} />
      </div>
      <ul className="flex flex-col gap-2" aria-label={words.ways}>
        {versions.map((version) => (
          <li key={version.way}>
            <button
              type="button"
              className="flex w-full flex-col gap-0.5 border-l-8 border-water bg-pale px-4 py-2.5 text-left hover:border-ink"
              onClick={() => take(version)}
            >
              <span className="flex flex-wrap items-baseline gap-x-4">
                <span className="text-lg font-bold">{words.wayNames[version.way]}</span>
                <span className="font-display text-2xl tabular-nums">{formatClock(version.totalMs)}</span>
                <span className="text-quiet">{words.off(version.totalMs - goalMs)}</span>
              </span>
              <span className="text-[14px] text-quiet">{version.changes.map(told).join(' · ')}</span>
            </button>
          </li>
        ))}
      </ul>
      {!versions.length && <p>{words.none}</p>}
    </div>
  )
}

const firstGoal = ({ promiseMs }: Score, nowMs: Ms): Ms => {
  if (promiseMs !== null && Math.abs(promiseMs - nowMs) > 30 * SECOND) return promiseMs
  return Math.max(MINUTE, Math.round((nowMs - SHORTER) / MINUTE) * MINUTE)
}

function told({ section, field, from, to }: VersionChange): string {
  const write = (value: number): string => (field.endsWith('Ms') ? formatLength(value) : String(value))
  const name = scoreTexts.fields[field] ?? field
  return `${section ? `${section}: ` : ''}${name.toLowerCase()} ${write(from)} → ${write(to)}`
}
