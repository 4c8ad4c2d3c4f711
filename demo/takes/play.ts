// What really happens in a simulated session, from a score and a seed: how long each stretch lasts, what is left out,
// what is done twice, when the timer is started again, and which part of it is filmed. The truth is written from it.
import { boundariesOf, tieKey } from '../../src/core/align/boundaries'
import type { Tie } from '../../src/core/align/ties'
import type { Segment } from '../../src/core/score/segment'
import type { Ms } from '../../src/core/units'
import { seededRandom } from '../camera/random'

export interface Faults {
  /** Breaks run over, by so much on average; 0 for a timer that runs through. */
  overrunMs: Ms
  /** Stations left out, and done twice. */
  skipped: number
  repeated: number
  /** The timer is started again so often in the middle of an interval. */
  restarts: number
  /** Share of the session that the camera missed at its beginning, and at its end. */
  missedStart: number
  missedEnd: number
  driftPpm: number
}

export const NO_FAULTS: Faults = {
  ...{ overrunMs: 0, skipped: 0, repeated: 0, restarts: 0, missedStart: 0, missedEnd: 0, driftPpm: 0 },
}

/** A stretch that was done: a segment of the score, or of one that is done again. */
export interface Stretch {
  segment: Segment
  startMs: Ms
  endMs: Ms
}

export interface Played {
  stretches: Stretch[]
  /**
   * When each boundary came, by its key, and again where its station was done twice; those that never came, or were not
   * filmed, are missing.
   */
  truth: Map<string, Ms[]>
  footageMs: Ms
}

/** @returns times on the recorder's clock, counted from the beginning of the footage. */
export function play(segments: readonly Segment[], faults: Faults, seed: number): Played {
  const random = seededRandom(seed)
  const rate = 1 + faults.driftPpm / 1e6
  const exponential = (meanMs: number): number => -Math.log(1 - random() * 0.999) * meanMs
  const order = orderOf(segments, faults, random)
  const restarts = new Set(
    chosen(
      order.filter(({ segment }) => segment.kind === 'work' || segment.kind === 'rest').map(({ at }) => at),
      faults.restarts,
      random,
    ),
  )
  const stretches: Stretch[] = []
  let clock = 3000 + random() * 15_000
  for (const { segment, again, at } of order) {
    const lengthMs = lastingMs(segment, random)
    const overMs = segment.kind === 'break' && faults.overrunMs && random() < 0.7 ? exponential(faults.overrunMs) : 0
    const lostMs = restarts.has(at) && !again ? (0.2 + 0.6 * random()) * segment.durationMs + exponential(6000) : 0
    const endMs = clock + (lengthMs + overMs + lostMs) * rate
    stretches.push({ segment, startMs: clock, endMs })
    clock = endMs
  }
  return filmed(segments, stretches, clock + 2000 + random() * 10_000, faults)
}

function lastingMs({ kind, pace, durationMs }: Segment, random: () => number): Ms {
  if (kind === 'talk' || pace === 'open') return durationMs * (0.4 + 1.6 * random())
  const bell = random() + random() + random() - 1.5
  return pace === 'own' ? durationMs * Math.exp(0.35 * bell) : durationMs
}

interface Done {
  segment: Segment
  at: number
  again: boolean
}

/** The order in which segments are done: all, but for stations that are forgotten or done twice with their rest. */
function orderOf(segments: readonly Segment[], faults: Faults, random: () => number): Done[] {
  const stations = segments.flatMap((segment, at) =>
    segment.kind === 'work' && segments[at + 1]?.kind === 'rest' ? [at] : [],
  )
  const skipped = new Set(chosen(stations.slice(1), faults.skipped, random))
  const left = stations.filter((one) => !skipped.has(one))
  const repeated = new Set(chosen(left, faults.repeated, random))
  const order: Done[] = []
  segments.forEach((segment, at) => {
    if (skipped.has(at) || skipped.has(at - 1)) return
    order.push({ segment, at, again: false })
    const work = segments[at - 1]
    if (work && repeated.has(at - 1))
      order.push({ segment: work, at: at - 1, again: true }, { segment, at, again: true })
  })
  return order
}

function chosen<T>(from: readonly T[], count: number, random: () => number): T[] {
  const left = [...from]
  return Array.from({ length: Math.min(count, left.length) }, () =>
    left.splice(Math.floor(random() * left.length), 1),
  ).flat()
}

function filmed(segments: readonly Segment[], stretches: readonly Stretch[], lengthMs: Ms, faults: Faults): Played {
  const fromMs = faults.missedStart * lengthMs,
    toMs = lengthMs - faults.missedEnd * lengthMs
  const truth = new Map<string, Ms[]>()
  const last = stretches.at(-1)
  for (const boundary of boundariesOf(segments)) {
    const came =
      boundary.edge === 'end'
        ? [last?.endMs ?? -1]
        : stretches.flatMap(({ segment, startMs }) => (segment.id === boundary.segmentId ? [startMs] : []))
    const seen = came.filter((atMs) => atMs >= fromMs && atMs < toMs).map((atMs) => atMs - fromMs)
    if (boundary.audible && seen.length) truth.set(tieKey(boundary), seen)
  }
  return {
    stretches: stretches.map((one) => ({ ...one, startMs: one.startMs - fromMs, endMs: one.endMs - fromMs })),
    truth,
    footageMs: Math.round(toMs - fromMs),
  }
}

/** How far a tie is from the nearest time that its change really came; infinite where it never did. */
export const offBy = ({ truth }: Pick<Played, 'truth'>, tie: Tie): Ms =>
  Math.min(Infinity, ...(truth.get(tieKey(tie)) ?? []).map((atMs) => Math.abs(atMs - tie.footageMs)))
