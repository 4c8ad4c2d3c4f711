// Totals and promise, always in sight while the score is edited.
'use client'
import { useEffect, useState, type ReactNode } from 'react'
import { promiseSlackMs } from '@/core/check/promise'
import { promisedLength, type Score } from '@/core/score/score'
import type { Expansion } from '@/core/score/segment'
import { formatClock, formatLength, parseMinutes } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { OptionalLengthField } from '../parts/fields'
import { texts } from '@/core/words/en/screens'

const words = texts.score
const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })

export function Totals({
  expansion,
  promise,
  onPromise,
}: {
  expansion: Expansion
  promise: Pick<Score, 'promiseMs' | 'promiseOf'>
  onPromise: (ms: Ms | null) => void
}): ReactNode {
  const { totalMs, workoutMs, workMs, restMs } = expansion
  const { promiseMs, promiseOf } = promise
  return (
    <div className="flex shrink-0 items-end gap-x-6 max-lg:order-2 max-lg:w-full max-lg:flex-wrap" data-testid="totals">
      <dl className="flex flex-wrap items-end gap-x-6 max-md:gap-x-4">
        <Figure label={totalLabel(expansion)} value={formatClock(totalMs)} large />
        {workoutMs !== totalMs && <Figure label={words.workout} value={formatClock(workoutMs)} />}
        <Figure label={words.work} value={formatClock(workMs)} />
        <Figure label={words.rest} value={formatClock(restMs)} />
        <Figure label={words.ratio} value={ratioOf(workMs, restMs)} />
        <EndTime totalMs={totalMs} />
      </dl>
      <div className="flex items-end gap-3 pl-2 max-md:pl-0">
        <OptionalLengthField
          label={promiseOf === 'workout' ? words.promiseWorkout : words.promise}
          showLabel
          value={promiseMs}
          placeholder="none"
          read={parseMinutes}
          onChange={onPromise}
          className="!w-24"
        />
        <span className="max-w-24 pb-1.5 leading-tight">
          {promiseMs === null ? (
            <span className="text-quiet">{words.promiseNone}</span>
          ) : (
            <PromiseKept promiseMs={promiseMs} totalMs={promisedLength(promise, expansion)} />
          )}
        </span>
      </div>
    </div>
  )
}

/** How far the total may be off, where it holds guesses. */
function totalLabel({ estimated, minMs, maxMs }: Expansion): string {
  if (!estimated) return words.total
  const least = formatClock(minMs)
  return `${words.total}, ${maxMs === null ? words.atLeast(least) : words.between(least, formatClock(maxMs))}`
}

function Figure({ label, value, large = false }: { label: string; value: string; large?: boolean }): ReactNode {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-[13px] text-quiet">{label}</dt>
      <dd className={`font-display tabular-nums ${large ? 'text-5xl leading-none' : 'text-[27px] leading-none'}`}>
        {value}
      </dd>
    </div>
  )
}

/** Kept within 5 % or a minute, whichever is larger, as viewers read a round number. */
function PromiseKept({ promiseMs, totalMs }: { promiseMs: Ms; totalMs: Ms }): ReactNode {
  const off = totalMs - promiseMs
  if (Math.abs(off) <= promiseSlackMs(promiseMs)) return <span>{words.kept}</span>
  const by = formatLength(Math.round(Math.abs(off) / 1000) * 1000)
  return <span className="font-bold text-signal">{off > 0 ? words.over(by) : words.under(by)}</span>
}

/** The clock is read after the page has arrived: the server's minute need not be the reader's. */
function EndTime({ totalMs }: { totalMs: Ms }): ReactNode {
  const [now, setNow] = useState<number | null>(null)
  useEffect(() => {
    const tick = (): void => setNow(Date.now())
    tick()
    const timer = setInterval(tick, 20_000)
    return () => clearInterval(timer)
  }, [])
  return <Figure label={words.ends} value={now === null ? '--:--' : clock.format(now + totalMs)} />
}

/** "2 : 1", or with one decimal where it does not come out even. */
export function ratioOf(workMs: Ms, restMs: Ms): string {
  if (!workMs || !restMs) return restMs ? '0 : 1' : workMs ? '1 : 0' : '-'
  const ratio = workMs / restMs
  const tidy = (value: number): string => String(Math.round(value * 10) / 10)
  return ratio >= 1 ? `${tidy(ratio)} : 1` : `1 : ${tidy(1 / ratio)}`
}
