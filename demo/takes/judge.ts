// A take heard by the real listeners and matched by the real model, held against its truth.
import { boundariesOf, tieKey } from '../../src/core/align/boundaries'
import { matchEvidence } from '../../src/core/align/sync'
import { ToneListener } from '../../src/core/hear/tones'
import { RATE } from './sounds'
import type { Take } from './takes'

/** A tie is right within this of its truth. */
export const BOUND_MS = 100
/** A tie is sure from here on. */
export const SURE = 0.9

export interface Tied {
  confidence: number
  /** Null where the change never came, or was not filmed. */
  errorMs: number | null
}
export interface Outcome {
  take: Take
  /** Changes that could be heard. */
  changes: number
  ties: Tied[]
  likeness: number
  hearS: number
  matchS: number
}

export const isRight = ({ errorMs }: Tied): boolean => errorMs !== null && errorMs <= BOUND_MS

const isHeard = (came: readonly number[] | undefined, { fromMs, toMs }: Take['silent']): boolean =>
  came?.some((atMs) => atMs < fromMs || atMs >= toMs) ?? false

export function judgeTake(take: Take): Outcome {
  const { sound, segments, played, silent, nothing } = take
  const listener = new ToneListener()
  const started = process.cpuUsage()
  for (let at = 0; at < sound.length; at += RATE) listener.push(sound.subarray(at, at + RATE))
  const evidence = listener.finish()
  const heard = process.cpuUsage(started)
  const { found, likeness } = matchEvidence(segments, evidence, played.footageMs)
  const matched = process.cpuUsage(started)
  const truth = nothing ? new Map<string, number[]>() : played.truth
  const ties = found.map((one): Tied => {
    const came = truth.get(tieKey(one))
    const errorMs = came ? Math.min(...came.map((atMs) => Math.abs(one.footageMs - atMs))) : null
    return { confidence: one.confidence, errorMs }
  })
  const hearS = (heard.user + heard.system) / 1e6
  return {
    ...{ take, ties, likeness, hearS, matchS: (matched.user + matched.system) / 1e6 - hearS },
    changes: boundariesOf(segments).filter((one) => isHeard(truth.get(tieKey(one)), silent)).length,
  }
}
