import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { texts } from '@/core/words/en/screens'
import { listMoves } from '@/server/moves'
import { MovesView } from '@/ui/moves/MovesView'

export const dynamic = 'force-dynamic'
export const metadata: Metadata = { title: texts.score.moves.heading }

export default async function MovesPage(): Promise<ReactNode> {
  return <MovesView initial={await listMoves()} />
}
