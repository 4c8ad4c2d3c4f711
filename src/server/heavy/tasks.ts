// The heavy work that routes ask for, as pure functions by name: run in a thread beside the server, so that no answer
// waits for another's sums.
import { otherOrderOf, type OtherOrder } from '../../core/align/otherOrder'
import { matchReelLogged, type FloorAnswer } from '../../core/align/logged'
import { joinedReel, type ReelFile } from '../../core/align/reel'
import { matchEvidence, type FoundStitch, type Matched } from '../../core/align/sync'
import type { Tie } from '../../core/align/ties'
import { evidenceSchema, type EvidenceOf } from '../../core/evidence'
import { expand } from '../../core/expand/expand'
import { performanceOf, type FloorLog } from '../../core/floor/log'
import type { CutWishes, Filmed } from '../../core/cut/fit'
import { readCaptions, type CaptionEvidence } from '../../core/hear/captions'
import { likesOf } from '../../core/hear/likes'
import { watchedFilm, type WatchedFilm } from '../../core/proof/watchedFilm'
import { scoreSchema, type Score } from '../../core/score/score'
import type { Ms } from '../../core/units'
import { readPlan } from '../../engine/plan'

interface AlignInput {
  score: Score
  /** What was heard in each file of the reel, in its own time; hands are in the time of the whole. */
  files: readonly { evidence: readonly unknown[]; footageMs: Ms }[]
  hands: readonly Tie[]
  /** The record of the session on the floor, where there is one. */
  floor: Pick<FloorLog, 'score' | 'events'> | null
}

interface OrderInput extends Pick<AlignInput, 'score' | 'files'> {
  found: readonly FoundStitch[]
}

interface LikesInput {
  bands: Float32Array
  tapMs: Ms
  word: 'work' | 'rest'
}

const readFile = ({ evidence, footageMs }: AlignInput['files'][number]): ReelFile => ({
  evidence: evidence.map((one) => evidenceSchema.parse(one)),
  footageMs,
})

export const HEAVY = {
  /** Matches what was heard in a reel to a score; what hands tied holds. */
  align: ({ score, files: given, hands, floor }: AlignInput): Matched & FloorAnswer => {
    const { segments } = expand(score)
    const files = given.map(readFile)
    if (!floor) {
      return { ...matchEvidence(segments, joinedReel(files), hands), floor: null }
    }
    const { log, gone, ...matched } = matchReelLogged(segments, performanceOf(floor), files, hands)
    return { ...matched, floor: { log, gone } }
  },
  /** The order in which the blocks were filmed, where it is another than the written one. */
  otherOrder: ({ score, files, found }: OrderInput): OtherOrder | null =>
    otherOrderOf(score, files.map(readFile), found),
  /** What sounds like a tap, in the bands of a recording. */
  likes: ({ bands, tapMs, word }: LikesInput): EvidenceOf<'sample'>[] => likesOf(bands, tapMs, word),
  /** Calls and numbers in captions. */
  captions: ({ text }: { text: string }): Promise<CaptionEvidence[]> => readCaptions(text),
  /** Every cut of a film beside the others, and what is heard in the one that is chosen. */
  watch: ({ filmed, wishes }: { filmed: Filmed; wishes: CutWishes }): WatchedFilm => watchedFilm(filmed, wishes),
  /** Reads a plan file and holds it to the limits. */
  readPlan: ({ text, name }: { text: string; name: string }): Score => {
    const score = scoreSchema.parse(readPlan(new TextEncoder().encode(text), name))
    expand(score)
    return score
  },
}
export type HeavyTask = keyof typeof HEAVY
export type HeavyInput<Task extends HeavyTask> = Parameters<(typeof HEAVY)[Task]>[0]
export type HeavyOutput<Task extends HeavyTask> = Awaited<ReturnType<(typeof HEAVY)[Task]>>
