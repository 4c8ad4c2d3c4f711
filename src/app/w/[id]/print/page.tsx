import type { ReactNode } from 'react'
import { idFrom } from '@/server/http'
import { findWorkout } from '@/server/workouts'
import { PrintView } from '@/ui/print/PrintView'

export default async function PrintPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>
  searchParams: Promise<{ as?: string }>
}): Promise<ReactNode> {
  const { score } = await findWorkout(idFrom((await params).id))
  return <PrintView score={score} as={(await searchParams).as === 'board' ? 'board' : 'sheet'} />
}
