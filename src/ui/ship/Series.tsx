// The whole series as a calendar, for those who train along.
'use client'
import { useState, type ReactNode } from 'react'
import { shipTexts as words } from '@/core/words/en/ship'
import { PLAIN_LINK } from '../parts/Button'

const FIELD = 'min-h-9 border-b-2 border-rule bg-transparent px-1 text-base text-ink focus:border-ink'

export function Series({ id, name }: { id: string; name: string }): ReactNode {
  const [from, setFrom] = useState('')
  const [every, setEvery] = useState('1')
  const days = Number(every)
  const isRight = from !== '' && Number.isInteger(days) && days >= 1 && days <= 60
  return (
    <section className="border-t-2 border-rule pt-4">
      <h2 className="pb-1.5 text-2xl">{words.series}</h2>
      <p className="text-quiet">{words.seriesHint(name)}</p>
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <label className="flex flex-col text-[13px] text-quiet">
          {words.seriesFrom}
          <input
            type="datetime-local"
            value={from}
            onChange={(event) => setFrom(event.target.value)}
            className={FIELD}
          />
        </label>
        <label className="flex flex-col text-[13px] text-quiet">
          {words.seriesEvery}
          <input
            type="number"
            min={1}
            max={60}
            value={every}
            onChange={(event) => setEvery(event.target.value)}
            className={`${FIELD} w-20`}
          />
        </label>
        {isRight ? (
          <a
            className={PLAIN_LINK}
            href={`/api/workouts/${id}/calendar?${new URLSearchParams({ from, every }).toString()}`}
            download
          >
            {words.seriesDownload}
          </a>
        ) : (
          <span className="pb-2 text-sm text-quiet">{words.seriesWrong}</span>
        )}
      </div>
    </section>
  )
}
