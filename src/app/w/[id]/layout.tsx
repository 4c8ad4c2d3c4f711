import { headers } from 'next/headers'
import { notFound } from 'next/navigation'
import type { ReactNode } from 'react'
import { Problem } from '@/core/problem'
import { DEVICE_HEADER } from '@/server/access/entry'
import { idFrom } from '@/server/http'
import { findWorkout } from '@/server/workouts'
import { doneOf } from '@/server/workoutState'
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
  return (
    <div className="flex min-h-dvh flex-col">
      <Bar workout={{ id, title: workout.score.title, done: await doneOf(id) }} floorOnly={paired} />
      {children}
    </div>
  )
}
