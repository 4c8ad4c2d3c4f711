import type { ReactNode } from 'react'
import { tryExpand } from '@/core/expand/expand'
import { stretchesOf } from '@/core/look/terrain'
import { listWorkouts } from '@/server/workouts'
import { Shelf } from '@/ui/shelf/Shelf'

export const dynamic = 'force-dynamic'

export default async function ShelfPage(): Promise<ReactNode> {
  const workouts = await listWorkouts()
  return (
    <Shelf
      workouts={workouts.map(({ id, score, isDemo, updatedAt }) => {
        const { segments, totalMs, workMs } = tryExpand(score).expansion ?? { segments: [], totalMs: 0, workMs: 0 }
        return {
          id,
          title: score.title,
          isDemo,
          updatedAt: updatedAt.toISOString(),
          totalMs,
          workMs,
          stretches: stretchesOf(segments),
        }
      })}
    />
  )
}
