import { headers } from 'next/headers'
import { notFound } from 'next/navigation'
import type { ReactNode } from 'react'
import { Problem } from '@/core/problem'
import { DEVICE_HEADER } from '@/server/access/entry'
import { idFrom } from '@/server/http'
import { newestPack } from '@/server/packs'
import { currentFootage } from '@/server/footage'
import { wasFilmedHere } from '@/server/sessions'
import { listStitches } from '@/server/stitches'
import { findWorkout } from '@/server/workouts'
import { Bar } from '@/ui/parts/Bar'

export const dynamic = 'force-dynamic'

export default async function WorkoutLayout({
  children,
  params,
}: {
  children: ReactNode
  params: Promise<{ id: string }>
}): Promise<ReactNode> {
  const { id } = await params
  const workout = await Promise.resolve()
    .then(() => findWorkout(idFrom(id)))
    .catch((error: unknown) => {
      if (error instanceof Problem && error.code === 'not-found') notFound()
      throw error
    })
  // A paired device has this floor, and no way from it.
  const paired = (await headers()).get(DEVICE_HEADER) !== null
  const [footage, pack, filmed] = await Promise.all([currentFootage(id), newestPack(id), wasFilmedHere(id)])
  const tied = footage ? (await listStitches(id)).stitches.length : 0
  const done = {
    score: workout.score.sections.length > 0,
    floor: filmed,
    sync: footage?.state === 'ready' && tied > 0,
    ship: pack !== null,
  }
  return (
    <div className="flex min-h-dvh flex-col">
      <Bar workout={{ id, title: workout.score.title, done }} floorOnly={paired} />
      {children}
    </div>
  )
}
