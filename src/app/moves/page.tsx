import type { ReactNode } from 'react'
import { listMoves } from '@/server/moves'
import { MovesView } from '@/ui/moves/MovesView'

export const dynamic = 'force-dynamic'

export default async function MovesPage(): Promise<ReactNode> {
  return <MovesView initial={await listMoves()} />
}
