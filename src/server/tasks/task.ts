import type { Share } from '../../core/units'
import type { Db } from '../jobs'

/** What every task is handed beside its job. */
export interface TaskContext {
  signal: AbortSignal
  /** Tells how much is done, 0 to 1. */
  onShare: (share: Share) => void
  /** The claim of this attempt: its folder for work in progress is called so. */
  attempt: string
}

/** Writes what came of a task, in the transaction that ends its job. Until then nothing of it is seen. */
export type Finish = (tx: Db) => Promise<void>
