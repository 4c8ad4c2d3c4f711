// A take heard by the real listeners and matched by the real model, held against its truth.
import { boundariesOf, tieKey } from '../../src/core/align/boundaries'
import { matchEvidence } from '../../src/core/align/sync'
import type { Evidence } from '../../src/core/evidence'
import { readCaptions } from '../../src/core/hear/captions'
import { Hearing } from '../../src/core/hear/hearing'
import { BandGatherer, likesOf } from '../../src/core/hear/likes'
import { callModel } from '../../src/engine/models'
import { RATE } from './sounds'
import type { Take } from './takes'

/** A tie is right within this of its truth: where a tone marks it, and where only a call does. */
export const BOUND_MS = { tone: 100, call: 400 }
export interface Tied {
  confidence: number
  boundMs: number
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

export const isRight = ({ errorMs, boundMs }: Tied): boolean => errorMs !== null && errorMs <= boundMs

const isMarked = (came: readonly number[] | undefined, { silent: { fromMs, toMs }, forgottenMs }: Take): boolean =>
  came?.some((atMs) => (atMs < fromMs || atMs >= toMs) && !forgottenMs.some((one) => Math.abs(one - atMs) < 1)) ?? false

/** What the real listeners hear in a sound, in order of time. */
export async function hear(sound: Float32Array): Promise<Evidence[]> {
  const hearing = new Hearing({ model: await callModel() })
  for (let at = 0; at < sound.length; at += RATE) hearing.push(sound.subarray(at, at + RATE))
  return hearing.finish()
}

function bandsOf(sound: Float32Array): Float32Array {
  const bands = new BandGatherer()
  for (let at = 0; at < sound.length; at += RATE) bands.push(sound.subarray(at, at + RATE))
  return bands.finish()
}

export async function judgeTake(take: Take): Promise<Outcome> {
  const { sound, captions, tap, segments, played, nothing } = take
  const started = process.cpuUsage()
  const read = captions === null ? [] : await readCaptions(captions)
  const likes = tap ? likesOf(bandsOf(sound), tap.footageMs, 'work') : []
  const evidence = [...(await hear(sound)), ...read, ...likes].sort((one, other) => one.atMs - other.atMs)
  const heard = process.cpuUsage(started)
  const { found, likeness } = matchEvidence(segments, evidence, played.footageMs, tap ? [tap] : [])
  const matched = process.cpuUsage(started)
  const truth = nothing ? new Map<string, number[]>() : played.truth
  const audible = boundariesOf(segments).filter((one) => one.audible)
  const names = new Set(audible.map(tieKey))
  const ties = found.flatMap((one): Tied[] => {
    if (!names.has(tieKey(one))) return []
    const came = truth.get(tieKey(one))
    const errorMs = came ? Math.min(...came.map((atMs) => Math.abs(one.footageMs - atMs))) : null
    return [
      {
        confidence: one.confidence,
        boundMs: one.evidence.some((kind) => kind === 'beep' || kind === 'chirp') ? BOUND_MS.tone : BOUND_MS.call,
        errorMs,
      },
    ]
  })
  const hearS = (heard.user + heard.system) / 1e6
  return {
    ...{ take, ties, likeness, hearS, matchS: (matched.user + matched.system) / 1e6 - hearS },
    changes: audible.filter((one) => isMarked(truth.get(tieKey(one)), take) && !(tap && tieKey(one) === tieKey(tap)))
      .length,
  }
}
