// The one question that a real conflict leaves: whose version stays.
'use client'
import type { ReactNode } from 'react'
import { texts } from '@/core/words/en/screens'
import { Button } from './Button'
import { Sheet } from './Sheet'

const words = texts.stale

interface Props {
  open: boolean
  /** What was changed elsewhere, as a sentence. */
  hint: string
  onAnswer: (keep: 'mine' | 'theirs') => Promise<void>
}

export function StaleDialog({ open, hint, onAnswer }: Props): ReactNode {
  return (
    <Sheet open={open} onOpenChange={() => {}} mustAnswer title={words.title} hint={hint}>
      <div className="flex justify-end gap-3">
        <Button onClick={() => void onAnswer('theirs')}>{words.takeTheirs}</Button>
        <Button weight="main" onClick={() => void onAnswer('mine')}>
          {words.keepMine}
        </Button>
      </div>
    </Sheet>
  )
}
