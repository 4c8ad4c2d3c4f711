/** What every task is handed beside its job. */
export interface TaskContext {
  signal: AbortSignal
  /** Tells how much is done, 0 to 1. */
  onShare: (share: number) => void
}
