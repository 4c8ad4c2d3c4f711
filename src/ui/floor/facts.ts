// What a page of the floor is given by the server.

export type { SessionFacts } from '@/server/sessions'

/** One that is over, as it is listed. */
export interface SessionBefore {
  id: string
  /** ISO 8601. */
  openedAt: string
  rehearsal: boolean
}
