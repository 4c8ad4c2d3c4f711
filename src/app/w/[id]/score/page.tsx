import type { ReactNode } from 'react'
import { findWorkout } from '@/server/workouts'
import { ScoreView } from '@/ui/score/ScoreView'

export default async function ScorePage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const { id, score, scoreRevision } = await findWorkout((await params).id)
  return <ScoreView key={id} id={id} score={score} revision={scoreRevision} />
}
