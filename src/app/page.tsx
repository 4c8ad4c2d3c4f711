import type { ReactNode } from 'react'
import { z } from 'zod'
import { tryExpand } from '@/core/expand/expand'
import { stretchesOf } from '@/core/look/terrain'
import { shelfPage, type ShelfMark } from '@/server/workouts'
import { Shelf } from '@/ui/shelf/Shelf'

export const dynamic = 'force-dynamic'

/** A page of the shelf begins after this workout; anything else in the address begins at the newest. */
const markSchema = z.object({ after: z.uuid(), since: z.string().regex(/^[\d :.+-]{10,40}$/) })

export default async function ShelfPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>
}): Promise<ReactNode> {
  const asked = markSchema.safeParse(await searchParams)
  const mark: ShelfMark | null = asked.success ? { id: asked.data.after, updatedAt: asked.data.since } : null
  const { entries, next } = await shelfPage(mark)
  return (
    <Shelf
      workouts={entries.map(({ score, updatedAt, ...entry }) => ({
        ...entry,
        updatedAt: updatedAt.toISOString(),
        stretches: score ? stretchesOf(tryExpand(score).expansion?.segments ?? []) : [],
      }))}
      older={next && `/?${new URLSearchParams({ after: next.id, since: next.updatedAt }).toString()}`}
      isFirst={mark === null}
    />
  )
}
