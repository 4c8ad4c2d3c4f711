'use client'
import { Printer } from 'lucide-react'
import type { ReactNode } from 'react'
import { Button } from '../parts/Button'
import { texts } from '@/core/words/en/screens'

/** Seen on screen only. */
export const PrintButton = (): ReactNode => (
  <Button weight="main" icon={<Printer size={17} />} className="ml-auto print:hidden" onClick={() => window.print()}>
    {texts.score.print}
  </Button>
)
