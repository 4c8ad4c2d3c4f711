import type { ReactNode } from 'react'
import { Trouble } from '@/ui/parts/Trouble'
import { texts } from '@/core/words/en/screens'

export default function NotFound(): ReactNode {
  return <Trouble heading={texts.trouble.lost} />
}
