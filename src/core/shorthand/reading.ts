// What reading a shorthand text gives: a score, what was wrong with the text, and where each part stands in it.
import type { Score } from '../score/score'
import type { Path } from '../score/segment'
import type { ShorthandProblem } from './problems'

/** Where a part of the score stands in the text. */
export interface SpanOfScore {
  from: number
  to: number
  sectionKey: string
  station: Path | null
}

export interface ShorthandReading {
  score: Score
  problems: ShorthandProblem[]
  spans: SpanOfScore[]
}
