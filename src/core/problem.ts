// Problems with what came from outside, as data. The sentence is for a creator; the code is for machines.

export type ProblemCode =
  | 'bad-json'
  | 'bad-document'
  | 'bad-header'
  | 'bad-cell'
  | 'empty-plan'
  | 'too-long'
  | 'too-many'
  | 'not-video'
  | 'empty-file'
  | 'no-picture'
  | 'no-sound'
  | 'broken-end'
  | 'too-large'
  | 'bad-name'
  | 'not-found'
  | 'stale'
  | 'conflict'
  | 'forbidden'
  | 'bad-request'
  | 'disk-full'
  | 'tool-failed'
  | 'tool-missing'
  | 'not-stitched'
  | 'cancelled'
  | 'busy'

/** An error that a person can act on. Anything else thrown is a defect of ours. */
export class Problem extends Error {
  override readonly name = 'Problem'
  constructor(
    readonly code: ProblemCode,
    message: string,
    readonly place: string | null = null,
  ) {
    super(message)
  }
}
