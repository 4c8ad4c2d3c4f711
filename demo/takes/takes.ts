// Simulated sessions with their truth, by class, split and number: the same number always gives the same take. Tune
// and test have plans, pitches, tunes, rooms and voices of their own.
import { boundariesOf, tieKey } from '../../src/core/align/boundaries'
import { expand } from '../../src/core/expand/expand'
import type { Tie } from '../../src/core/align/ties'
import type { Segment } from '../../src/core/score/segment'
import { readShorthand } from '../../src/core/shorthand/read'
import { chirpSound, type ChirpVoice } from '../../src/core/sound/chirp'
import { seededRandom } from '../camera/random'
import { addCoach, captionsOf, coachOf } from './coach'
import { throughFile, throughMicrophone, throughSpeaker } from './phone'
import { NO_FAULTS, play, type Faults, type Played } from './play'
import { chime, hum, inRoom, levelOf, mix, music, RATE, tone } from './sounds'
import { speak, VOICE_LEVEL, type Voice } from './speech'
import type { Language } from './wordings'

export type Split = 'tune' | 'test'

interface Kind {
  /** What sounds at the changes. */
  timer: 'counted' | 'single' | 'none'
  noise: readonly ('music' | 'talk' | 'room' | 'chime' | 'sentence')[]
  faults?: Partial<Faults> | 'many'
  /** Share of the session in which the timer was too far away. */
  unheard?: number
  /** The plan that is matched is another one than was done. */
  otherPlan?: boolean
  /** Nothing may be sure. */
  nothing?: boolean
  /** Somebody runs the session by voice: counts down to changes, or only calls them. */
  coach?: 'counts' | 'calls'
  language?: Language
  /** Captions came with the footage; the voice itself is not on it. */
  captions?: boolean
  /** Somebody ties one beginning of work by hand, in the middle, and its likes are looked for. */
  tap?: boolean
  /** Music is this far below the voice. */
  musicBelowDb?: number
  /** The floor's chirps, 10 dB below all else, through a phone's loudspeaker, a room, a microphone and a file. */
  chirps?: ChirpVoice
}

export const KINDS = {
  'counted beeps': { timer: 'counted', noise: [] },
  'one beep a change': { timer: 'single', noise: [] },
  'beeps in a room': { timer: 'single', noise: ['room'] },
  'beeps under music': { timer: 'counted', noise: ['music'] },
  'beeps under speech and music': { timer: 'counted', noise: ['music', 'talk'] },
  'one beep under music': { timer: 'single', noise: ['music'] },
  'breaks run over': { timer: 'counted', noise: ['talk'], faults: { overrunMs: 25_000, driftPpm: 300 } },
  'a station skipped': { timer: 'counted', noise: ['talk'], faults: { skipped: 1, overrunMs: 15_000 } },
  'a station repeated': { timer: 'counted', noise: ['talk'], faults: { repeated: 1, overrunMs: 15_000 } },
  'timer restarted': { timer: 'counted', noise: ['talk'], faults: { restarts: 2, driftPpm: -200 } },
  'filmed in part': { timer: 'counted', noise: ['talk'], faults: { missedStart: 0.3, missedEnd: 0.2 } },
  'timer heard in part': { timer: 'single', noise: ['talk'], faults: { overrunMs: 15_000 }, unheard: 0.5 },
  'many faults': { timer: 'counted', noise: ['talk', 'room'], faults: 'many' },
  'counted aloud': { timer: 'none', noise: [], coach: 'counts' },
  'called, not counted': { timer: 'none', noise: [], coach: 'calls' },
  'counted in a room': { timer: 'none', noise: ['room'], coach: 'counts' },
  'counted, music 4 dB below': { timer: 'none', noise: ['music'], coach: 'counts', musicBelowDb: 4 },
  'counted, music as loud': { timer: 'none', noise: ['music'], coach: 'counts', musicBelowDb: 0 },
  'counted in Spanish': { timer: 'none', noise: [], coach: 'counts', language: 'es' },
  'counted in German': { timer: 'none', noise: [], coach: 'counts', language: 'de' },
  'counted in French': { timer: 'none', noise: [], coach: 'counts', language: 'fr' },
  'counted, breaks run over': {
    ...{ timer: 'none', noise: [], coach: 'counts' },
    faults: { overrunMs: 25_000, driftPpm: 300 },
  },
  'counted, a station skipped': {
    timer: 'none',
    noise: [],
    coach: 'counts',
    faults: { skipped: 1, overrunMs: 15_000 },
  },
  'counted in Italian, one tap': { timer: 'none', noise: [], coach: 'counts', language: 'it', tap: true },
  'music as loud, one tap': { timer: 'none', noise: ['music'], coach: 'counts', musicBelowDb: 0, tap: true },
  'captions, music only': { timer: 'none', noise: ['music'], coach: 'counts', captions: true },
  'beeps and a coach who counts': { timer: 'counted', noise: [], coach: 'counts' },
  'another session, counted': { timer: 'none', noise: [], coach: 'counts', otherPlan: true, nothing: true },
  'another session': { timer: 'counted', noise: ['talk'], otherPlan: true, nothing: true },
  'no cues, talk': { timer: 'none', noise: ['talk'], nothing: true },
  'no cues, music': { timer: 'none', noise: ['music', 'talk'], nothing: true },
  'a chime': { timer: 'none', noise: ['talk', 'chime'], nothing: true },
  'one sentence again and again': { timer: 'none', noise: ['sentence'], nothing: true },
  'chirps, plain': { timer: 'none', noise: ['music', 'talk'], chirps: 'plain', faults: 'many' },
  'chirps, faint': { timer: 'none', noise: ['music', 'talk'], chirps: 'faint', faults: 'many' },
  'chirps of another session': {
    ...{ timer: 'none', noise: ['music', 'talk'], chirps: 'plain', otherPlan: true, nothing: true },
  },
} as const satisfies Record<string, Kind>
export type KindName = keyof typeof KINDS

export interface Take {
  name: string
  kind: KindName
  /** Nothing in this take marks a change of its plan: no tie may be sure. */
  nothing: boolean
  segments: readonly Segment[]
  played: Played
  /** The stretch in which the timer was too far away to be heard. */
  silent: { fromMs: number; toMs: number }
  sound: Float32Array
  /** As WebVTT. */
  captions: string | null
  /** One tie by hand. */
  tap: Tie | null
  /** Changes that nobody called and no timer marked. */
  forgottenMs: number[]
  /** Where somebody speaks, in any order. */
  spokenMs: Span[]
}
interface Span {
  fromMs: number
  toMs: number
}

const VOICES: Record<Split, readonly Voice[]> = { tune: ['flite:kal', 'flite:awb'], test: ['flite:slt', 'flite:rms'] }
const LINES: Record<Split, readonly string[]> = {
  tune: [
    'Keep the jug close to you.',
    'Breathe out on the way up, shoulders down.',
    'Nearly there, you are doing fine.',
    'Knees over your toes.',
    'Slow and long, look ahead of you.',
  ],
  test: [
    'Long back, and push the deck away.',
    'If it is too much, leave the jug out.',
    'The Second Kettle rocks a little today.',
    'Soft landing, quiet feet.',
    'Shake out your arms and stay with me.',
  ],
}
const SEED_OF: Record<Split, number> = { tune: 10_000, test: 20_000 }

/** @param folder where spoken lines are kept. */
export function makeTake(kind: KindName, split: Split, number: number, folder: string): Take {
  const seed = SEED_OF[split] + Object.keys(KINDS).indexOf(kind) * 100 + number
  const random = seededRandom(seed)
  const about: Kind = KINDS[kind]
  const done = expand(readShorthand(planText(random)).score).segments
  const matched = about.otherPlan ? expand(readShorthand(planText(random)).score).segments : done
  const played = play(done, faultsOf(about, random), seed)
  const fromMs = HEARD_FROM * played.footageMs
  const silent = { fromMs, toMs: fromMs + (about.unheard ?? 0) * played.footageMs }
  const spoken = soundOf({ done, played, silent, about, split, seed, folder })
  return {
    name: `${kind} ${split} ${number}`,
    kind,
    nothing: about.nothing ?? false,
    segments: matched,
    played,
    silent,
    ...spoken,
    tap: about.tap ? tapIn(played, spoken.forgottenMs) : null,
  }
}

/** The beginning of work in the middle of what was called. */
function tapIn({ stretches }: Played, forgottenMs: readonly number[]): Tie | null {
  const works = stretches.filter(
    ({ segment, startMs }) => segment.kind === 'work' && !forgottenMs.some((one) => Math.abs(one - startMs) < 1),
  )
  const middle = works[Math.floor(works.length / 2)]
  return middle ? { segmentId: middle.segment.id, edge: 'start', footageMs: Math.round(middle.startMs) } : null
}

/** Of a kind of take; drawn where it has many. */
export function faultsOf({ faults = {} }: Partial<Kind>, random: () => number): Faults {
  if (faults !== 'many') return { ...NO_FAULTS, driftPpm: (random() - 0.5) * 200, ...faults }
  return {
    overrunMs: 20_000,
    ...(random() < 0.5 ? { skipped: 1, repeated: 0 } : { skipped: 0, repeated: 1 }),
    restarts: random() < 0.5 ? 1 : 0,
    missedStart: random() < 0.3 ? 0.15 : 0,
    missedEnd: random() < 0.3 ? 0.15 : 0,
    driftPpm: (random() - 0.5) * 600,
  }
}

const MOVES = [
  'Jug lift',
  'Lock-gate push',
  'Tiller twist',
  'Pump-out hop',
  'Deck-rail squat',
  'Keel hold',
  'Windlass turn',
  'Bilge crawl',
]

/** A plan of six to fourteen minutes. */
export function planText(random: () => number): string {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)] as T
  const moves = (count: number): string => MOVES.slice(0, count).join('; ')
  const talk = `talk Welcome: about ${pick([10, 20, 40])}\n`
  const lead = pick(['', ', lead 5', ', lead 10'])
  const main = pick([
    () =>
      `circuit Main: ${pick([2, 3])} rounds, ${pick([20, 30, 35, 40, 45])} on, ${pick([10, 15, 20, 30])} off, ${pick([30, 45, 60, 90])} between${lead}\n  ${moves(pick([3, 4, 5, 6]))}\n`,
    () =>
      `stations Main: ${pick([2, 3])} sets, ${pick([30, 40])} on, ${pick([15, 20])} off\n  ${moves(pick([3, 4]))}\n`,
    () => `ladder Main: 5 rungs, from ${pick([15, 20])}, step ${pick([5, 10])}\n  Deck-rail squat\n`,
    () =>
      `circuit One: 2 rounds, ${pick([30, 40])} on, ${pick([10, 20])} off, 45 between\n  ${moves(3)}\nbreak Water: 60\ncircuit Two: 2 rounds, ${pick([20, 45])} on, ${pick([15, 25])} off\n  ${moves(4)}\n`,
  ])()
  return `${talk}${main}talk Goodbye: about 10\n`
}

const HEARD_FROM = 0.3

interface Sounding extends Pick<Take, 'played' | 'silent'> {
  done: readonly Segment[]
  about: Kind
  split: Split
  seed: number
  folder: string
}

function soundOf({
  done,
  played,
  silent,
  about,
  split,
  seed,
  folder,
}: Sounding): Pick<Take, 'sound' | 'captions' | 'forgottenMs' | 'spokenMs'> {
  let captions: string | null = null,
    forgottenMs: number[] = []
  const spokenMs: Span[] = []
  const says = (line: Float32Array, atMs: number, gain: number): void => {
    mix(out, line, atMs, gain)
    spokenMs.push({ fromMs: atMs, toMs: atMs + (line.length / RATE) * 1000 })
  }
  const random = seededRandom(seed + 1)
  const length = Math.round((played.footageMs / 1000) * RATE)
  const endMs = played.footageMs
  const tones = new Float32Array(length)
  addTimer(tones, { played, silent, about }, random)
  const heardAs = about.noise.includes('room') ? inRoom(tones, 0.4 + random() * 0.7, 1) : tones
  const out = hum(length, 0.01 + random() * 0.02, seed + 2)
  mix(out, heardAs, 0, 0.06 + random() * 0.15)
  if (about.coach) {
    const coach = coachOf(split, about.language ?? 'en', about.coach === 'counts', random)
    const dry = new Float32Array(length)
    const said = addCoach(dry, played.stretches, coach, { random, folder })
    if (about.timer === 'none') forgottenMs = said.forgottenMs
    if (about.captions) captions = captionsOf(said, random)
    else {
      mix(out, about.noise.includes('room') ? inRoom(dry, 0.3 + random() * 0.5, 0.7) : dry, 0, 1)
      spokenMs.push(...said.lines)
    }
  }
  if (about.noise.includes('music')) {
    const song = music(length, seed + 3)
    const level =
      about.musicBelowDb === undefined ? 0.04 + random() * 0.06 : VOICE_LEVEL * 10 ** (-about.musicBelowDb / 20)
    mix(out, song, 0, level / levelOf(song))
  }
  const voice = VOICES[split][seed % 2] ?? 'flite:kal'
  if (about.noise.includes('talk'))
    for (let atMs = random() * 6000; atMs < endMs; atMs += 3000 + random() * 9000) {
      const line = LINES[split][Math.floor(random() * LINES[split].length)] ?? ''
      says(speak(line, voice, folder), atMs, 0.25 + random() * 0.3)
    }
  if (about.noise.includes('sentence')) {
    const line = speak(LINES[split][0] ?? '', voice, folder)
    for (let atMs = 12_000; atMs < endMs; atMs += endMs / 4.5) says(line, atMs, 0.4)
  }
  if (about.noise.includes('chime')) {
    const struck = chime(700 + random() * 900, 1800)
    for (let atMs = random() * 20_000; atMs < endMs; atMs += 20_000) mix(out, struck, atMs, 0.2)
  }
  const sound = about.chirps ? withChirps(out, { done, played, voice: about.chirps }) : out
  return { sound, captions, forgottenMs, spokenMs }
}

const CHIRPS_BELOW_DB = 10

/** At each change the floor sounds its place in the score. */
function withChirps(
  out: Float32Array,
  { done, played, voice }: { done: readonly Segment[]; played: Played; voice: ChirpVoice },
): Float32Array {
  const places = new Map(boundariesOf(done).map((boundary, at) => [tieKey(boundary), at]))
  const chirps = new Float32Array(out.length)
  const sounds = (code: number, atMs: number): void => mix(chirps, chirpSound(code, voice, RATE), atMs, 1)
  const last = played.stretches.at(-1)
  for (const { segment, startMs } of played.stretches)
    sounds((places.get(tieKey({ segmentId: segment.id, edge: 'start' })) ?? 0) + 1, startMs)
  if (last) sounds(places.size, last.endMs)
  const heard = inRoom(throughSpeaker(chirps), 0.5, 0.8)
  mix(out, heard, 0, (levelOf(out) * 10 ** (-CHIRPS_BELOW_DB / 20)) / levelOf(heard))
  return throughFile(throughMicrophone(out))
}

/** Counts of three and a longer, higher mark; or the mark alone. */
function addTimer(
  out: Float32Array,
  { played, silent, about }: Pick<Sounding, 'played' | 'silent' | 'about'>,
  random: () => number,
): void {
  if (about.timer === 'none') return
  const markHz = 900 + random() * 2200
  const mark = tone(markHz, 180 + random() * 350)
  const count = tone(markHz * (random() < 0.5 ? 1 : 0.75), 60 + random() * 60)
  const sounds = (atMs: number, sound: Float32Array): void => {
    if (atMs < silent.fromMs || atMs >= silent.toMs) mix(out, sound, atMs, 1)
  }
  const { stretches } = played
  stretches.forEach(({ segment, startMs, endMs }, at) => {
    if (segment.kind === 'talk') return
    if (stretches[at - 1]?.segment.kind === 'talk') sounds(startMs, mark)
    sounds(endMs, mark)
    if (about.timer === 'counted') for (const before of [3000, 2000, 1000]) sounds(endMs - before, count)
  })
}
