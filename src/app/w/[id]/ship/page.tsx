import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { boundariesOf } from '@/core/align/boundaries'
import { tryExpand } from '@/core/expand/expand'
import { idFrom } from '@/server/http'
import { progressOf } from '@/server/progress'
import { pageTitle } from '@/server/pageTitle'
import { findWorkout } from '@/server/workouts'
import { leftToDo } from '@/server/workoutState'
import { ShipView } from '@/ui/ship/ShipView'

export const generateMetadata = ({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> =>
  pageTitle('ship', params)

export default async function ShipPage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const workout = await findWorkout(idFrom((await params).id))
  const progress = await progressOf(workout.id)
  const segments = tryExpand(workout.score).expansion?.segments ?? []
  return (
    <ShipView
      id={workout.id}
      progress={progress}
      hasScore={boundariesOf(segments).some(({ audible }) => audible)}
      leftToDo={await leftToDo(workout.id, workout.score)}
      scoreRevision={workout.version.revision}
      title={workout.score.title}
      series={workout.score.series.name}
      thumbnail={workout.thumbnail}
    />
  )
}
