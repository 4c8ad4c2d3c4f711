import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { boundariesOf, openBoundaries } from '@/core/align/boundaries'
import { tryExpand } from '@/core/expand/expand'
import { idFrom } from '@/server/http'
import { progressOf } from '@/server/progress'
import { listStitches } from '@/server/stitches'
import { pageTitle } from '@/server/pageTitle'
import { findWorkout } from '@/server/workouts'
import { ShipView } from '@/ui/ship/ShipView'

export const generateMetadata = ({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> =>
  pageTitle('ship', params)

export default async function ShipPage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const workout = await findWorkout(idFrom((await params).id))
  const progress = await progressOf(workout.id)
  const { stitches } = await listStitches(workout.id)
  const segments = tryExpand(workout.score).expansion?.segments ?? []
  return (
    <ShipView
      id={workout.id}
      progress={progress}
      hasScore={boundariesOf(segments).some(({ audible }) => audible)}
      hasStitches={stitches.length > 0}
      openChanges={openBoundaries(segments, stitches).length}
      scoreRevision={workout.version.revision}
      title={workout.score.title}
      series={workout.score.series.name}
      thumbnail={workout.thumbnail}
    />
  )
}
