// Writes the workout file, the twin of `read/workoutFile`.
import type { Score } from '../score/score'

export function writeWorkoutFile(score: Score): string {
  return `${JSON.stringify({ format: 'jivet-workout', version: 1, score }, null, 2)}\n`
}
