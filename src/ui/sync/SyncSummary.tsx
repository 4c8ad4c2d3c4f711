// How much is tied, and what the fitted clock says.
import type { ReactNode } from 'react'
import type { SyncSummary as Summary } from '@/core/align/sync'
import { texts } from '@/core/words/en/screens'
import type { Change } from './changes'

const words = texts.sync
const whole = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0, signDisplay: 'exceptZero' })
const seconds = new Intl.NumberFormat('en-GB', {
  style: 'unit',
  unit: 'second',
  unitDisplay: 'narrow',
  minimumFractionDigits: 2,
  maximumFractionDigits: 2,
})

export function SyncSummary({ changes, summary }: { changes: Change[]; summary: Summary }): ReactNode {
  const tied = changes.filter((change) => change.origin !== 'reckoned').length
  return (
    <div data-testid="sync-summary">
      <p className="font-display text-3xl leading-none">{words.tied(tied, changes.length)}</p>
      {tied > 1 && (
        <p className="pt-1 text-quiet tabular-nums">
          {words.clock(whole.format(summary.driftPpm))} · {words.worst} {seconds.format(summary.worstErrorMs / 1000)}
        </p>
      )}
    </div>
  )
}
