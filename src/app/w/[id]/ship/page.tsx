import type { ReactNode } from 'react'
import { boundariesOf, tieKey } from '@/core/align/boundaries'
import { expand } from '@/core/expand/expand'
import { idFrom } from '@/server/http'
import { progressOf } from '@/server/progress'
import { listStitches } from '@/server/stitches'
import { findWorkout } from '@/server/workouts'
import { ShipView } from '@/ui/ship/ShipView'

export default async function ShipPage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const workout = await findWorkout(idFrom((await params).id))
  const [progress, stitches] = await Promise.all([progressOf(workout.id), listStitches(workout.id)])
  const boundaries = boundariesOf(expand(workout.score).segments).filter((boundary) => boundary.audible)
  const tied = new Set(stitches.map((stitch) => tieKey(stitch)))
  const open = boundaries.filter((boundary) => !tied.has(tieKey(boundary))).length
  return (
    <ShipView
      id={workout.id}
      progress={progress}
      hasScore={boundaries.length > 0}
      hasStitches={stitches.length > 0}
      openChanges={open}
    />
  )
}
