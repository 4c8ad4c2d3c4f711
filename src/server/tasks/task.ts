import type { Share } from '../../core/units'

/** What every task is handed beside its job. */
export interface TaskContext {
  signal: AbortSignal
  /** Tells how much is done, 0 to 1. */
  onShare: (share: Share) => void
}
