// Sessions of which only the evidence is made, as the listeners tell it, and no sound: thousands in the time of one
// take. They are for calibration; what the listeners really hear is measured with takes.
import { byTime, type Evidence } from '../../src/core/evidence'
import { expand } from '../../src/core/expand/expand'
import type { Segment } from '../../src/core/score/segment'
import { readShorthand } from '../../src/core/shorthand/read'
import { bellOf, seededRandom } from '../camera/random'
import { play, type Played } from './play'
import { faultsOf, KINDS, planText, type KindName } from './takes'

type Random = () => number

/** Kinds of takes whose faults are told. */
const FAULTY = [
  ...(['counted beeps', 'breaks run over', 'a station skipped', 'a station repeated', 'timer restarted'] as const),
  ...(['filmed in part', 'many faults'] as const),
] satisfies readonly KindName[]
export type Faulty = (typeof FAULTY)[number]
/** What marks the changes: a timer that counts, one that beeps once, or a coach. */
const MARKERS = ['counts', 'beeps', 'calls'] as const
export type Marker = (typeof MARKERS)[number]

export interface Told {
  faults: Faulty
  marker: Marker
  segments: readonly Segment[]
  played: Played
  /** What was heard, in order of time. */
  evidence: Evidence[]
  /** What would have been seen, in order of time. */
  movement: Evidence[]
}

/** @param number sessions are told apart by it: the same number always gives the same session. */
export function tell(number: number): Told {
  const random = seededRandom(seedOf(number))
  const { segments } = expand(readShorthand(planText(random)).score)
  return tellOf(segments, number, random)
}

const seedOf = (number: number): number => 5_000_000 + number

/** The same for a session of another plan. */
export function tellOf(segments: readonly Segment[], number: number, random = seededRandom(seedOf(number))): Told {
  const seed = seedOf(number)
  const faults = FAULTY[number % FAULTY.length] as Faulty
  const marker = MARKERS[Math.floor(number / FAULTY.length) % MARKERS.length] as Marker
  const played = play(segments, faultsOf(KINDS[faults], random), seed)
  const missed = random() < 0.5 ? 0.01 : 0.01 + random() * 0.3
  const evidence = marker === 'calls' ? callsIn(played, missed, random) : tonesIn(played, { marker, missed }, random)
  return {
    ...{ faults, marker, segments, played },
    ...{ evidence: within(evidence, played), movement: within(movementIn(played, seededRandom(seed + 1)), played) },
  }
}

const within = (evidence: readonly Evidence[], { footageMs }: Played): Evidence[] =>
  evidence.filter(({ atMs }) => atMs >= 0 && atMs < footageMs).sort(byTime)

/** Seven of ten stations begin and end with a leap, half a second late or so; in talks and breaks they come anyhow. */
function movementIn({ stretches }: Played, random: Random): Evidence[] {
  const leap = (atMs: number, begins: boolean): Evidence => ({
    ...{ kind: 'motion', atMs, spreadMs: 800, strength: 0.1 + 0.8 * random(), begins },
  })
  const bell = bellOf(random)
  return stretches.flatMap(({ segment: { kind }, startMs, endMs }) => {
    if (kind === 'work')
      return random() < 0.7 ? [leap(startMs + 400 + 500 * bell(), true), leap(endMs + 600 + 600 * bell(), false)] : []
    const leaps: Evidence[] = []
    if (kind === 'talk' || kind === 'break')
      for (let atMs = startMs; atMs < endMs; atMs += -Math.log(1 - random()) * 20_000)
        leaps.push(leap(atMs, random() < 0.5))
    return leaps
  })
}

/** Places of changes that a timer or a coach marks, and whether work begins there. */
function changesOf({ stretches }: Played): { atMs: number; work: boolean }[] {
  return stretches.flatMap(({ segment, startMs, endMs }, at) => {
    if (segment.kind === 'talk') return []
    const into = stretches[at + 1]?.segment.kind
    const end = { atMs: endMs, work: into === 'work' }
    return stretches[at - 1]?.segment.kind === 'talk' ? [{ atMs: startMs, work: segment.kind === 'work' }, end] : [end]
  })
}

function tonesIn(played: Played, { marker, missed }: { marker: Marker; missed: number }, random: Random): Evidence[] {
  const hz = 900 + random() * 2200
  const lower = random() < 0.5 ? hz : hz * 0.75
  const tones: Evidence[] = []
  const sounds = (atMs: number, pitch: number, durationMs: number): void => {
    if (random() < missed) return
    const strength = 0.5 + random() * 0.5
    tones.push({
      ...{ kind: 'beep', atMs: Math.max(0, atMs + random() * 4 - 2), spreadMs: 3, strength },
      ...{ hz: pitch * (1 + (random() - 0.5) * 0.004), durationMs },
    })
  }
  for (const { atMs } of changesOf(played)) {
    sounds(atMs, hz, 300)
    if (marker === 'counts') for (const left of [3, 2, 1]) sounds(atMs - left * 1000, lower, 80)
  }
  // Tones of music, or of whatever else.
  if (random() < 0.4)
    for (let atMs = 0; atMs < played.footageMs; atMs += -Math.log(1 - random()) * 12_000)
      sounds(atMs, 500 + random() * 3000, 60 + random() * 300)
  return tones
}

/** How far calls lie from the changes, and how clear they are, as takes of coaches are heard. */
function callsIn(played: Played, missed: number, random: Random): Evidence[] {
  const bell = bellOf(random)
  const call = (atMs: number, work: boolean, strength: number): Evidence => ({
    ...{ kind: 'word', word: work ? 'work' : 'rest', atMs: Math.max(0, atMs), spreadMs: 40, strength },
  })
  const clear = (): number => (random() < 0.85 ? 0.9 + random() * 0.1 : 0.1 + random() * 0.8)
  const calls = changesOf(played).flatMap(({ atMs, work }) =>
    random() < missed ? [] : [call(atMs + 60 + 65 * bell(), random() < 0.03 ? !work : work, clear())],
  )
  const everyMs = 20_000 + random() * 120_000
  for (let atMs = 0; atMs < played.footageMs; atMs += -Math.log(1 - random()) * everyMs)
    calls.push(call(atMs, random() < 0.5, 0.05 + 0.9 * random() ** 3))
  return calls
}
