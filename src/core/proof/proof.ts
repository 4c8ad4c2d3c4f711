// What somebody has checked of a workout, and noted at an instant of it.
import { z } from 'zod'
import type { ShownSegment } from '../cut/cut'
import type { Ms } from '../units'
import type { WatchedChange } from './changes'

const noteSchema = z.object({
  id: z.string().min(1).max(100),
  /** Where it was made, told by the interval, so that it stays with it. */
  segmentId: z.string().max(300),
  offsetMs: z.number().int(),
  text: z.string().trim().min(1).max(2000),
})
export type ProofNote = z.infer<typeof noteSchema>

export const proofSchema = z.object({
  /** Signatures of the changes that were found right, by their ids. */
  checked: z.record(z.string().max(300), z.string().max(40)).default({}),
  notes: noteSchema.array().max(1000).default([]),
})
export type Proof = z.infer<typeof proofSchema>

/** `asked` was checked once, and is not any more what it was. */
export type CheckState = 'open' | 'checked' | 'asked'

export function stateOf({ checked }: Pick<Proof, 'checked'>, { id, signature }: WatchedChange): CheckState {
  const known = checked[id]
  return known === undefined ? 'open' : known === signature ? 'checked' : 'asked'
}

/** Where a note stands in the output; null where its interval is gone. */
export function placeOf(note: ProofNote, shown: readonly ShownSegment[]): Ms | null {
  const laid = shown.find(({ segment }) => segment.id === note.segmentId)
  return laid ? Math.max(0, laid.startMs + note.offsetMs) : null
}

/** Windows of the output around changes, joined where they meet: what is played where only changes are. */
export function windowsAround(
  changes: readonly { atMs: Ms }[],
  aroundMs: Ms,
  outMs: Ms,
): { fromMs: Ms; untilMs: Ms }[] {
  const windows: { fromMs: Ms; untilMs: Ms }[] = []
  for (const { atMs } of changes) {
    const fromMs = Math.max(0, atMs - aroundMs),
      untilMs = Math.min(outMs, atMs + aroundMs)
    const last = windows.at(-1)
    if (last && fromMs <= last.untilMs) last.untilMs = Math.max(last.untilMs, untilMs)
    else windows.push({ fromMs, untilMs })
  }
  return windows
}
