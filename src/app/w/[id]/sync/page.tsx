import type { ReactNode } from 'react'
import { tryExpand } from '@/core/expand/expand'
import { idFrom } from '@/server/http'
import { progressOf } from '@/server/progress'
import { listStitches } from '@/server/stitches'
import { findWorkout } from '@/server/workouts'
import { SyncView } from '@/ui/sync/SyncView'

export default async function SyncPage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const workout = await findWorkout(idFrom((await params).id))
  const [progress, stitches] = await Promise.all([progressOf(workout.id), listStitches(workout.id)])
  return (
    <SyncView
      key={workout.id}
      id={workout.id}
      segments={tryExpand(workout.score).expansion?.segments ?? []}
      progress={progress}
      stitches={stitches}
      revision={workout.stitchRevision}
    />
  )
}
