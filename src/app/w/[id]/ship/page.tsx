import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { boundariesOf, tieKey } from '@/core/align/boundaries'
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
  const changes = boundariesOf(segments).filter((boundary) => boundary.audible)
  const tied = new Set(stitches.map(tieKey))
  return (
    <ShipView
      id={workout.id}
      progress={progress}
      hasScore={changes.length > 0}
      hasStitches={stitches.length > 0}
      openChanges={changes.filter((boundary) => !tied.has(tieKey(boundary))).length}
      scoreRevision={workout.version.revision}
    />
  )
}
