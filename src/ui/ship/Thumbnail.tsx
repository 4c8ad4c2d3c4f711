// The picture that stands for the video, chosen and written on, as large as it is and as small as lists show it.
'use client'
import { useEffect, useState, type ReactNode } from 'react'
import { SMALLEST_WIDTH, type Thumbnail as Wish } from '@/core/look/thumbnail'
import { formatClock } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { shipTexts as words } from '@/core/words/en/ship'
import { fetchMade } from '../api'
import { ChoiceField } from '../parts/fields'
import { PLAIN_LINK } from '../parts/Button'
import { useKept } from '../parts/useKept'

interface Props {
  id: string
  kept: Wish
  /** What its words are where nobody wrote any. */
  title: string
  /** Of the video. */
  lengthMs: Ms
  /** Another one where another picture may be shown at the same instant. */
  of: string
}

export function Thumbnail({ id, kept, title, lengthMs, of }: Props): ReactNode {
  const [wish, change] = useKept(id, 'thumbnail', kept)
  const made = useMade(id, wish, of)
  const atMs = wish.atMs ?? lengthMs / 3
  return (
    <section aria-label={words.thumbnail} className="border-t-4 border-ink bg-pale p-4">
      <h3 className="text-2xl">{words.thumbnail}</h3>
      <p className="pb-3 text-quiet">{words.thumbnailHint}</p>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-3">
        <label className="flex min-w-52 grow flex-col text-[13px] text-quiet">
          {words.thumbnailAt} {formatClock(atMs)}
          <input
            type="range"
            min={0}
            max={Math.max(0, Math.floor(lengthMs / 1000) - 1)}
            value={Math.round(atMs / 1000)}
            onChange={(event) => change({ atMs: Number(event.target.value) * 1000 })}
            className="h-9 accent-(--color-ink)"
          />
        </label>
        <label className="flex min-w-52 grow flex-col text-[13px] text-quiet">
          {words.thumbnailText}
          <input
            value={wish.text ?? title}
            maxLength={120}
            onChange={(event) => change({ text: event.target.value })}
            className="min-h-9 border-b-2 border-rule bg-transparent px-1 text-base text-ink focus:border-ink"
          />
        </label>
        <ChoiceField
          label={words.thumbnailSize}
          showLabel
          value={wish.size}
          options={words.thumbnailSizes}
          onChange={(size) => change({ size })}
        />
        <ChoiceField
          label={words.thumbnailPlace}
          showLabel
          value={wish.place}
          options={words.thumbnailPlaces}
          onChange={(place) => change({ place })}
        />
        <ChoiceField
          label={words.thumbnailTone}
          showLabel
          value={wish.tone}
          options={words.thumbnailTones}
          onChange={(tone) => change({ tone })}
        />
      </div>
      {made.state === 'made' && (
        <>
          <div className="flex flex-wrap items-end gap-5 py-4">
            <img src={made.url} alt={wish.text ?? title} className="max-h-72 w-auto max-w-full" />
            <img src={made.url} alt="" width={SMALLEST_WIDTH} className="h-auto" />
          </div>
          <a className={PLAIN_LINK} href={`/api/workouts/${id}/thumbnail?${queryOf(wish)}&download`} download>
            {words.thumbnailDownload}
          </a>
        </>
      )}
      {made.state === 'failed' && (
        <p role="alert" className="pt-3 text-signal">
          {made.reason}
        </p>
      )}
    </section>
  )
}

type Made = { state: 'waiting' } | { state: 'made'; url: string } | { state: 'failed'; reason: string }

/** Whoever drags the slider is done with it. */
const SETTLED_MS = 250

const queryOf = ({ atMs, text, size, place, tone }: Wish): string =>
  new URLSearchParams({
    ...{ size, place, tone },
    ...(atMs === null ? {} : { atMs: String(atMs) }),
    ...(text === null ? {} : { text }),
  }).toString()

/** The one before stays until the next is there. */
function useMade(id: string, wish: Wish, of: string): Made {
  const [made, setMade] = useState<Made>({ state: 'waiting' })
  const query = queryOf(wish)
  useEffect(() => {
    const halt = new AbortController()
    const make = async (): Promise<void> => {
      const response = await fetchMade(`/api/workouts/${id}/thumbnail?${query}`, halt.signal)
      const url = URL.createObjectURL(await response.blob())
      setMade({ state: 'made', url })
    }
    const timer = setTimeout(
      () =>
        void make().catch((error: Error) => halt.signal.aborted || setMade({ state: 'failed', reason: error.message })),
      SETTLED_MS,
    )
    return () => {
      clearTimeout(timer)
      halt.abort()
    }
  }, [id, query, of])
  const url = made.state === 'made' ? made.url : null
  useEffect(() => () => void (url && URL.revokeObjectURL(url)), [url])
  return made
}
