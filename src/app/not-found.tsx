import type { ReactNode } from 'react'
import { Trouble } from '@/ui/parts/Trouble'
import { texts } from '@/ui/texts'

export default function NotFound(): ReactNode {
  return <Trouble heading={texts.trouble.lost} />
}
