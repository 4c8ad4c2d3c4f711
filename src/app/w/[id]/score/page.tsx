import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { idFrom } from '@/server/http'
import { listMoves } from '@/server/moves'
import { pageTitle } from '@/server/pageTitle'
import { findWorkout } from '@/server/workouts'
import { ScoreView } from '@/ui/score/ScoreView'

export const generateMetadata = ({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> =>
  pageTitle('score', params)

export default async function ScorePage({ params }: { params: Promise<{ id: string }> }): Promise<ReactNode> {
  const [{ id, score, version }, ownMoves] = await Promise.all([findWorkout(idFrom((await params).id)), listMoves()])
  return <ScoreView key={id} id={id} score={score} version={version} ownMoves={ownMoves} />
}
