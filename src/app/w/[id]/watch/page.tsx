import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { tryExpand } from '@/core/expand/expand'
import { idFrom } from '@/server/http'
import { progressOf } from '@/server/progress'
import { listStitches } from '@/server/stitches'
import { pageTitle } from '@/server/pageTitle'
import { findWorkout } from '@/server/workouts'
import { WatchView } from '@/ui/watch/WatchView'

export const generateMetadata = ({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> =>
  pageTitle('watch', params)

export default async function WatchPage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const workout = await findWorkout(idFrom((await params).id))
  const { footage } = await progressOf(workout.id)
  return (
    <WatchView
      key={workout.id}
      id={workout.id}
      segments={tryExpand(workout.score).expansion?.segments ?? []}
      counting={{ count: workout.score.count, countOf: workout.score.countOf }}
      mix={workout.mix}
      stitches={footage ? (await listStitches(footage.id)).stitches : []}
      footage={footage}
    />
  )
}
