// Long work: what it is, how far it is, how long it will take, and a way to stop it.
'use client'
import { Progress } from 'radix-ui'
import type { ReactNode } from 'react'
import { formatClock } from '@/core/time/clock'
import { texts } from '@/core/words/en/screens'
import { Button } from './Button'

interface Props {
  label: string
  share: number | null
  leftMs?: number | null
  /** How many times as fast as it plays. */
  speed?: number | null
  onCancel?: () => void
}

export function ProgressLine({ label, share, leftMs = null, speed = null, onCancel }: Props): ReactNode {
  // All of it is the end, and then this line is gone.
  const percent = share === null ? null : Math.min(99, Math.floor(share * 100))
  return (
    <div className="flex items-center gap-5">
      <div className="flex-1">
        <p className="flex justify-between gap-4 pb-1.5" role="status">
          <span className="font-bold">{label}</span>
          <span className="whitespace-nowrap tabular-nums">
            {percent !== null && `${percent} %`}
            {speed !== null && `, ${texts.ship.speed(speed)}`}
            {leftMs !== null && `, ${texts.ship.left(formatClock(Math.max(1000, leftMs)))}`}
          </span>
        </p>
        <Progress.Root value={percent} className="h-4 overflow-hidden border-2 border-ink bg-pale">
          <Progress.Indicator className="h-full bg-land transition-[width]" style={{ width: `${percent ?? 4}%` }} />
        </Progress.Root>
      </div>
      {onCancel && <Button onClick={onCancel}>{texts.ship.cancel}</Button>}
    </div>
  )
}
