import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { tryExpand } from '@/core/expand/expand'
import { idFrom } from '@/server/http'
import { pageTitle } from '@/server/pageTitle'
import { findSession, floorLogOf, sessionFacts, sessionsBefore, sessionUnderWay, toldSince } from '@/server/sessions'
import { findWorkout } from '@/server/workouts'
import { FloorReport } from '@/ui/floor/FloorReport'
import { FloorView } from '@/ui/floor/FloorView'

export const generateMetadata = ({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> =>
  pageTitle('floor', params)

interface Props {
  params: Promise<{ id: string }>
  searchParams: Promise<Record<string, string | string[] | undefined>>
}

export default async function FloorPage({ params, searchParams }: Props): Promise<ReactNode> {
  const { id, score } = await findWorkout(idFrom((await params).id))
  const { session: shown, board } = await searchParams
  if (typeof shown === 'string') {
    const { workoutId } = await findSession(idFrom(shown))
    if (workoutId === id) return <FloorReport workoutId={id} sessionId={shown} log={await floorLogOf(shown)} />
  }
  const under = await sessionUnderWay(id)
  const { expansion } = tryExpand(score)
  const before = await sessionsBefore(id)
  return (
    <FloorView
      key={id}
      workoutId={id}
      planned={expansion && { totalMs: expansion.totalMs, estimated: expansion.estimated }}
      under={under && { session: sessionFacts(under), told: await toldSince(under.id, 0) }}
      before={before.map((one) => ({ ...one, openedAt: one.openedAt.toISOString() }))}
      wallBoard={board !== undefined}
    />
  )
}
