import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { z } from 'zod'
import { tryExpand } from '@/core/expand/expand'
import { stretchesOf } from '@/core/look/terrain'
import { isStorable } from '@/core/text'
import { texts } from '@/core/words/en/screens'
import {
  countRemoved,
  SHELF_ORDERS,
  shelfPage,
  WHOLE_SHELF,
  type ShelfMark,
  type ShelfQuestion,
} from '@/server/workouts'
import { Shelf } from '@/ui/shelf/Shelf'

export const dynamic = 'force-dynamic'
export const metadata: Metadata = { title: { absolute: `${texts.shelf.heading} · ${texts.brand}` } }

/** Anything else in the address is left out of account: the shelf begins at the newest. */
const questionSchema = z.object({
  search: z.string().max(200).refine(isStorable).catch(''),
  order: z.enum(SHELF_ORDERS).catch('changed'),
  removed: z
    .literal('yes')
    .transform(() => true)
    .catch(false),
})
/** A page of the shelf begins after this workout. */
const markSchema = z.object({ after: z.uuid(), from: z.string().max(400) })
const INSTANT = /^[\d :.+-]{10,40}$/

export default async function ShelfPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>
}): Promise<ReactNode> {
  const asked = await searchParams
  const question = questionSchema.parse(asked)
  const mark = markOf(asked, question)
  const { entries, next } = await shelfPage(mark, question)
  const way = (more: Record<string, string>): string => `/?${new URLSearchParams({ ...addressOf(question), ...more })}`
  return (
    <Shelf
      workouts={entries.map(({ score, updatedAt, ...entry }) => ({
        ...entry,
        updatedAt: updatedAt.toISOString(),
        stretches: score ? stretchesOf(tryExpand(score).expansion?.segments ?? []) : [],
      }))}
      question={question}
      removed={await countRemoved()}
      first={mark === null ? null : way({})}
      older={next && way({ after: next.id, from: next.value })}
    />
  )
}

function markOf(asked: Record<string, string | string[] | undefined>, { order }: ShelfQuestion): ShelfMark | null {
  const { data } = markSchema.safeParse(asked)
  if (!data) return null
  const fits = order === 'changed' ? INSTANT.test(data.from) : order === 'title' || /^\d{1,15}$/.test(data.from)
  return fits ? { id: data.after, value: data.from } : null
}

/** What differs from the whole shelf. */
const addressOf = ({ search, order, removed }: ShelfQuestion): Record<string, string> => ({
  ...(search ? { search } : {}),
  ...(order === WHOLE_SHELF.order ? {} : { order }),
  ...(removed ? { removed: 'yes' } : {}),
})
