// Problems with what came from outside: data for machines, with the sentence for a creator.
import type { ProblemFact } from './facts'
import { problemSentence } from './words/en/problems'

export type ProblemCode = ProblemFact['code']

/** An error that a person can act on. Anything else thrown is a defect of ours. */
export class Problem extends Error {
  override readonly name = 'Problem'
  /** @param place the line, field or tool's last words that it is about. */
  constructor(
    readonly fact: ProblemFact,
    readonly place: string | null = null,
  ) {
    super(problemSentence(fact))
  }

  get code(): ProblemCode {
    return this.fact.code
  }
}
