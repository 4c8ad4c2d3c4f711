// How much is tied, and what the fitted clock says.
import type { ReactNode } from 'react'
import type { SyncResult } from '@/core/align/sync'
import { formatInstant } from '@/core/time/clock'
import { texts } from '../texts'
import type { Change } from './ChangeList'

const words = texts.sync
const whole = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0, signDisplay: 'exceptZero' })

export function SyncSummary({ changes, summary }: { changes: Change[]; summary: SyncResult['summary'] }): ReactNode {
  const tied = changes.filter((change) => change.origin !== 'reckoned').length
  return (
    <div data-testid="sync-summary">
      <p className="font-display text-3xl leading-none">{words.tied(tied, changes.length)}</p>
      {tied > 1 && <p className="pt-1 text-quiet tabular-nums">{words.clock(whole.format(summary.driftPpm))} · {words.worst} {formatInstant(summary.worstErrorMs)} s</p>}
    </div>
  )
}
