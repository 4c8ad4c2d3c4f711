// A change of the score being edited: one command to undo.
import type { Score } from '@/core/score/score'

export type Edit = (recipe: (draft: Score) => void) => void
