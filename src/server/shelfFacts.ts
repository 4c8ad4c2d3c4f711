// What the shelf and the move library know of a score without reading it: columns and rows, written together with it.
import type { TransactionSql } from 'postgres'
import { tryExpand, type Unfolding } from '../core/expand/expand'
import { namesIn } from '../core/score/library'
import { scoreSchema, type Score } from '../core/score/score'
import { clipped } from '../core/text'

export type PlanState = 'empty' | 'planned' | 'beyond' | 'damaged'

export interface ShelfFacts {
  title: string
  totalMs: number
  workMs: number
  planState: PlanState
  /** Names of moves, one whatever its capitals. */
  moves: string[]
}

/** How a move's name is kept where it is looked up. */
export const moveKey = (name: string): string => name.trim().toLowerCase()

/** @param unfolding that of the score, where it is at hand. */
export function factsOf(score: Score, { expansion }: Unfolding = tryExpand(score)): ShelfFacts {
  return {
    title: score.title,
    totalMs: expansion?.totalMs ?? 0,
    workMs: expansion?.workMs ?? 0,
    planState: !expansion ? 'beyond' : score.sections.length ? 'planned' : 'empty',
    moves: [...new Set(namesIn(score).map(moveKey))].filter(Boolean),
  }
}

/** The same for whatever stands in a score's place. */
export function factsOfStored(document: unknown): ShelfFacts {
  const read = scoreSchema.safeParse(document)
  if (read.success) return factsOf(read.data)
  return { title: titleIn(document), totalMs: 0, workMs: 0, planState: 'damaged', moves: [] }
}

/** The title of a document that is no score any more. */
function titleIn(document: unknown): string {
  const title: unknown = typeof document === 'object' && document ? Reflect.get(document, 'title') : null
  return typeof title === 'string' ? clipped(title, 300) : ''
}

export async function writeFacts(tx: TransactionSql, workoutId: string, facts: ShelfFacts): Promise<void> {
  const { title, totalMs, workMs, planState, moves } = facts
  await tx`update workouts set ${tx({ title, total_ms: totalMs, work_ms: workMs, plan_state: planState })} where id = ${workoutId}`
  await tx`delete from workout_moves where workout_id = ${workoutId}`
  if (moves.length)
    await tx`insert into workout_moves select ${workoutId}::uuid, name from jsonb_array_elements_text(${tx.json(moves)}) as name`
}
