'use client'
import type { ReactNode } from 'react'
import { Trouble } from '@/ui/parts/Trouble'
import { texts } from '@/core/words/en/screens'

export default function ErrorPage({ reset }: { reset: () => void }): ReactNode {
  return <Trouble heading={texts.trouble.heading} retry={reset} />
}
