// Writes what the network for coaches' calls is trained on: scenes of 24 s with their labels, as bands of sound.
//   npx tsx training/scenes.ts FOLDER [scenes] [first]
// features.f32: frames of 40 floats, 2,400 a scene. labels.u8: one byte for every 40 ms, 600 a scene: which call.
// sounding.u8: the same, one bit for somebody who speaks and one for music.
import { closeSync, mkdirSync, openSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import { pick, seededRandom } from '../demo/camera/random'
import { resampled } from '../demo/camera/wave'
import { hum, levelOf, mix, RATE, tone } from '../demo/takes/sounds'
import { speak } from '../demo/takes/speech'
import { HEARD, LANGUAGES, NUMBERS } from '../demo/takes/wordings'
import { CALLS, type Call } from '../src/core/evidence'
import { CALL_STEP_MS } from '../src/core/hear/calls'
import { MEL_BANDS, MelListener } from '../src/core/hear/mel'
import { bodyNoise, trainingMusic, trainingRoom } from './sounds'
import { trainingVoice } from './voices'
import { trainingCall } from './wordings'

const SCENE_S = 24
const STEPS = (SCENE_S * 1000) / CALL_STEP_MS
const FRAMES = SCENE_S * 100
/** A step this near to a call is one; further off, up to the second number, it counts as neither. */
const MARK_MS = 70
const EITHER_MS = 180
const EITHER = 255
const SPEECH_BIT = 1,
  MUSIC_BIT = 2

const [folder = '', count = '1000', first = '0'] = process.argv.slice(2)
type Random = () => number

interface Spoken {
  voice: Float32Array
  marks: { atMs: number; call: Call }[]
}

/** The coach: calls with and without a count-in, sentences, sets counted aloud. */
function coach(language: (typeof LANGUAGES)[number], random: Random): Spoken {
  const voice = trainingVoice(language, random)
  const words = HEARD[language]
  const out = new Float32Array(SCENE_S * RATE)
  const marks: Spoken['marks'] = []
  // The same throat, a little longer or shorter.
  const size = 0.85 + random() * 0.35
  const says = (text: string, atMs: number): number => {
    const line = resampled(speak(text, voice, join(folder, 'spoken')), size)
    mix(out, line, atMs, 0.7 + random() * 0.6)
    return atMs + (line.length / RATE) * 1000
  }
  const counts = NUMBERS[language]
  let atMs = random() * 2500
  while (atMs < SCENE_S * 1000) {
    const what = random()
    if (what < 0.27) {
      const beatMs = 850 + random() * 300
      const from = pick([3, 3, 3, 5, 2], random)
      for (let left = from; left > 0; left--, atMs += beatMs)
        says(counts[left - 1] ?? '', atMs + (random() - 0.5) * 120)
      atMs = calls(random() < 0.55 ? 'work' : 'rest', atMs + (random() - 0.5) * 120)
    } else if (what < 0.55)
      atMs = calls(pick(['work', 'rest', 'work', 'rest', 'ten', 'next', 'half'] as const, random), atMs)
    else if (what < 0.68) {
      const beatMs = 500 + random() * 1900
      const down = random() < 0.25
      const most = 3 + Math.floor(random() * 6)
      for (let at = 1; at <= most; at++, atMs += beatMs) says(counts[down ? most - at : at - 1] ?? '', atMs)
    } else atMs = says(pick(words.chat, random), atMs)
    atMs += random() < 0.4 ? 60 + random() * 250 : 300 - Math.log(1 - random()) * 1200
  }
  return { voice: out, marks }

  function calls(call: Call, at: number): number {
    marks.push({ atMs: at, call })
    return says(trainingCall(language, call, random), at)
  }
}

interface Scene {
  sound: Float32Array
  marks: Spoken['marks']
  sounding: Uint8Array
}

function sceneOf(seed: number): Scene {
  const random = seededRandom(seed)
  const language = random() < 0.4 ? 'en' : pick(LANGUAGES, random)
  const { voice, marks } = coach(language, random)
  const length = voice.length
  const said = Float32Array.from(voice)
  let dry = voice
  if (random() < 0.25)
    for (let atMs = random() * 5000; atMs < SCENE_S * 1000; atMs += 300 + random() * 2500)
      mix(dry, bodyNoise(random), atMs, 0.1 + random() * 0.5)
  if (random() < 0.3) addTimer(dry, random)
  if (random() < 0.45) dry = trainingRoom(dry, random)
  const out = hum(length, 10 ** (-3.2 + random() * 1.6), seed + 5)
  mix(out, dry, 0, 1)
  if (random() < 0.15) {
    // Somebody else in the room, further away. What they call marks nothing, but nobody could tell.
    const other = HEARD[random() < 0.5 ? language : pick(LANGUAGES, random)]
    const theirs = trainingVoice(language, random)
    for (let atMs = random() * 5000; atMs < SCENE_S * 1000; atMs += 1500 + random() * 5000) {
      const line = speak(pick(other.chat, random), theirs, join(folder, 'spoken'))
      const gain = 0.15 + random() * 0.35
      mix(out, line, atMs, gain)
      mix(said, line, atMs, gain)
    }
  }
  let played: Float32Array = new Float32Array(length)
  if (random() < 0.6) {
    const song = trainingMusic(length, random)
    const belowDb = -4 + random() * 20
    const gain = (0.1 * 10 ** (-belowDb / 20)) / Math.max(1e-4, levelOf(song))
    played = random() < 0.4 ? inPart(song, random) : song
    mix(out, played, 0, gain)
  }
  const music = soundingOf(played, MUSIC_BIT, HOLD_MUSIC)
  const sounding = soundingOf(said, SPEECH_BIT, HOLD_SPEECH).map((bit, step) => bit | (music[step] ?? 0))
  return { sound: recorded(out, random), marks, sounding }
}

/** Begins or ends within the scene. */
function inPart(song: Float32Array, random: Random): Float32Array {
  const at = Math.round((0.2 + 0.6 * random()) * song.length)
  const begins = random() < 0.5
  const fade = (0.02 + random() * 1.5) * RATE
  return song.map((sample, index) => {
    const off = begins ? index - at : at - index
    return sample * Math.max(0, Math.min(1, off / fade))
  })
}

/** Steps that a pause is heard as going on: between words, between notes. */
const HOLD_SPEECH = 6,
  HOLD_MUSIC = 20
const FAINT = 0.03

/** `bit` in each step in which this sounds, or sounded just before and will again. */
function soundingOf(sound: Float32Array, bit: number, hold: number): Uint8Array {
  const step = (RATE * CALL_STEP_MS) / 1000
  const levels = Float64Array.from({ length: STEPS }, (_, at) => levelOf(sound.subarray(at * step, (at + 1) * step)))
  const most = levels.reduce((high, level) => Math.max(high, level), 0)
  const bits = new Uint8Array(STEPS)
  let last = -Infinity
  levels.forEach((level, at) => {
    if (!most || level < FAINT * most) return
    bits.fill(bit, at - last <= hold ? last : at, at + 1)
    last = at
  })
  return bits
}

/** Beeps alone call nothing: one now and then, or counts of three and their marks. */
function addTimer(out: Float32Array, random: Random): void {
  const hz = 600 + random() * 3000,
    gain = 0.05 + random() * 0.3,
    counts = random() < 0.6
  const short = tone(hz * pick([1, 1, 0.75, 0.5], random), 50 + random() * 150),
    mark = tone(hz, 80 + random() * 600)
  for (let atMs = random() * 8000; atMs < SCENE_S * 1000; atMs += pick([1000, 5000, 10_000, 15_000], random)) {
    mix(out, mark, atMs, gain)
    if (counts) for (const left of [3, 2, 1]) mix(out, short, atMs - left * 1000, gain)
  }
}

/** Through a microphone: louder or softer, now and then dull, thin or clipped. */
function recorded(sound: Float32Array, random: Random): Float32Array {
  const gain = 10 ** (-0.9 + random() * 1.3)
  const dull = random() < 0.3 ? 0.25 + random() * 0.5 : 1,
    thin = random() < 0.3 ? 0.02 + random() * 0.08 : 0
  let low = 0,
    base = 0
  return sound.map((sample) => {
    low += dull * (sample - low)
    base += thin * (low - base)
    return Math.max(-1, Math.min(1, gain * (low - base)))
  })
}

function labelsOf(marks: Spoken['marks']): Uint8Array {
  const labels = new Uint8Array(STEPS)
  for (let step = 0; step < STEPS; step++)
    for (const { atMs, call } of marks) {
      const off = Math.abs((step + 0.5) * CALL_STEP_MS - atMs)
      if (off <= MARK_MS) labels[step] = 1 + CALLS.indexOf(call)
      else if (off <= EITHER_MS && !labels[step]) labels[step] = EITHER
    }
  return labels
}

mkdirSync(folder, { recursive: true })
const features = openSync(join(folder, `features.${first}.f32`), 'w'),
  labels = openSync(join(folder, `labels.${first}.u8`), 'w'),
  soundings = openSync(join(folder, `sounding.${first}.u8`), 'w')
for (let scene = 0; scene < Number(count); scene++) {
  const { sound, marks, sounding } = sceneOf(900_000 + Number(first) + scene)
  const frames = new Float32Array(FRAMES * MEL_BANDS)
  let frame = 0
  const listener = new MelListener((bands) => {
    frames.set(bands, frame++ * MEL_BANDS)
  })
  listener.push(sound)
  writeSync(features, new Uint8Array(frames.buffer))
  writeSync(labels, labelsOf(marks))
  writeSync(soundings, sounding)
}
closeSync(features)
closeSync(labels)
closeSync(soundings)
