import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { tryExpand } from '@/core/expand/expand'
import { idFrom } from '@/server/http'
import { progressOf } from '@/server/progress'
import { listStitches } from '@/server/stitches'
import { pageTitle } from '@/server/pageTitle'
import { findWorkout } from '@/server/workouts'
import { SyncView } from '@/ui/sync/SyncView'

export const generateMetadata = ({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> =>
  pageTitle('sync', params)

export default async function SyncPage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const workout = await findWorkout(idFrom((await params).id))
  const progress = await progressOf(workout.id)
  const tied = { reelKey: progress.reel.key, ...(await listStitches(workout.id)) }
  const segments = tryExpand(workout.score).expansion?.segments ?? []
  return (
    <SyncView key={workout.id} id={workout.id} segments={segments} progress={progress} tied={tied} mix={workout.mix} />
  )
}
