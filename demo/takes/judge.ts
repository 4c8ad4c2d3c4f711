// A take heard by the real listeners and matched by the real model, held against its truth.
import { boundariesOf, tieKey } from '../../src/core/align/boundaries'
import { matchEvidence } from '../../src/core/align/sync'
import { SURE } from '../../src/core/align/ties'
import { byTime, type Evidence, type EvidenceKind } from '../../src/core/evidence'
import { readCaptions } from '../../src/core/hear/captions'
import { Hearing } from '../../src/core/hear/hearing'
import { BandGatherer, likesOf } from '../../src/core/hear/likes'
import { callModel } from '../../src/engine/models'
import { offBy } from './play'
import { feed } from './sounds'
import type { Take } from './takes'

/** A tie is right within this of its truth: where a tone marks it, and where only a call does. */
export const BOUND_MS = { tone: 100, call: 400 }
export const boundOf = (evidence: readonly EvidenceKind[]): number =>
  evidence.some((kind) => kind === 'beep' || kind === 'chirp') ? BOUND_MS.tone : BOUND_MS.call

export interface Tied {
  confidence: number
  boundMs: number
  /** Null where the change never came, or was not filmed. */
  errorMs: number | null
}
/** A take as it was heard; its sound is not needed any more. */
export interface HeardTake {
  take: Omit<Take, 'sound'>
  /** In order of time. */
  evidence: Evidence[]
  hearS: number
}
export interface Outcome {
  /** Changes that could be heard. */
  changes: number
  ties: Tied[]
  likeness: number
  matchS: number
}

export const isRight = ({ errorMs, boundMs }: Tied): boolean => errorMs !== null && errorMs <= boundMs

const isMarked = (
  came: readonly number[] | undefined,
  { silent: { fromMs, toMs }, forgottenMs }: HeardTake['take'],
): boolean =>
  came?.some((atMs) => (atMs < fromMs || atMs >= toMs) && !forgottenMs.some((one) => Math.abs(one - atMs) < 1)) ?? false

/** What the real listeners hear in a sound, in order of time. */
export async function hear(sound: Float32Array): Promise<Evidence[]> {
  const hearing = new Hearing({ model: await callModel() })
  feed(hearing, sound)
  return hearing.finish()
}

function bandsOf(sound: Float32Array): Float32Array {
  const bands = new BandGatherer()
  feed(bands, sound)
  return bands.finish()
}

const secondsSince = (started: NodeJS.CpuUsage): number => {
  const { user, system } = process.cpuUsage(started)
  return (user + system) / 1e6
}

export async function hearTake({ sound, ...take }: Take): Promise<HeardTake> {
  const { captions, tap } = take
  const started = process.cpuUsage()
  const read = captions === null ? [] : await readCaptions(captions)
  const likes = tap ? likesOf(bandsOf(sound), tap.footageMs, 'work') : []
  const evidence = [...(await hear(sound)), ...read, ...likes].sort(byTime)
  return { take, evidence, hearS: secondsSince(started) }
}

export interface TieCounts {
  ties: number
  right: number
  sure: number
  /** Sure, and not right. */
  wrong: number
}

/** How a session of which the truth is known is tied by some evidence. @param evidence in order of time. */
export function countTies(
  { segments, played }: Pick<Take, 'segments' | 'played'>,
  evidence: readonly Evidence[],
): TieCounts {
  const { found } = matchEvidence(segments, { evidence, footageMs: played.footageMs })
  const right = found.filter((tie) => offBy(played, tie) <= boundOf(tie.evidence))
  const sure = found.filter(({ confidence }) => confidence >= SURE)
  const wrong = sure.filter((tie) => !right.includes(tie))
  return { ties: found.length, right: right.length, sure: sure.length, wrong: wrong.length }
}

export function judge({ take, evidence }: HeardTake): Outcome {
  const { tap, segments, played, nothing } = take
  const started = process.cpuUsage()
  const { found, likeness } = matchEvidence(segments, { evidence, footageMs: played.footageMs }, tap ? [tap] : [])
  const matchS = secondsSince(started)
  const truth = nothing ? new Map<string, number[]>() : played.truth
  const audible = boundariesOf(segments).filter((one) => one.audible)
  const names = new Set(audible.map(tieKey))
  const ties = found.flatMap((one): Tied[] => {
    if (!names.has(tieKey(one))) return []
    const off = offBy({ truth }, one)
    const { confidence } = one
    return [{ confidence, boundMs: boundOf(one.evidence), errorMs: Number.isFinite(off) ? off : null }]
  })
  return {
    ...{ ties, likeness, matchS },
    changes: audible.filter((one) => isMarked(truth.get(tieKey(one)), take) && !(tap && tieKey(one) === tieKey(tap)))
      .length,
  }
}
