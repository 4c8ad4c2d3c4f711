// Music, rooms and noises that coaches are trained against. Those of the takes that are measured are made otherwise, in
// demo/takes/sounds.ts.
import { mix, RATE } from '../demo/takes/sounds'

type Random = () => number

const note = (lengthMs: number, at: (seconds: number, turn: number) => number): Float32Array =>
  new Float32Array(Math.round((lengthMs / 1000) * RATE)).map((_, index, { length }) => {
    const seconds = index / RATE
    return Math.min(1, seconds * 200, ((length - index) / RATE) * 60) * at(seconds, 2 * Math.PI * seconds)
  })

const saw = (phase: number): number => 2 * (phase - Math.floor(phase + 0.5))

const TIMBRES: readonly ((hz: number, random: Random) => (seconds: number, turn: number) => number)[] = [
  (hz) => (_, turn) => Math.sin(hz * turn),
  (hz) => (seconds) => 0.5 * Math.sign(saw(hz * seconds)),
  (hz) => (seconds) => 0.7 * saw(hz * seconds) + 0.3 * saw(hz * 1.006 * seconds),
  (hz) => (seconds, turn) => Math.exp(-seconds * 6) * Math.sin(hz * turn + 2 * Math.sin(2 * hz * turn)),
  (hz) => (seconds, turn) => Math.sin(hz * turn + 5 * Math.sin(5.5 * turn) * Math.min(1, seconds)),
]

/** A sung vowel: a buzz through two resonances that glide. */
function vowel(hz: number, lengthMs: number, random: Random): Float32Array {
  const first = 300 + random() * 600,
    second = 900 + random() * 1500,
    glide = 0.7 + random() * 0.6
  const source = note(lengthMs, (seconds) => saw(hz * seconds + 0.3 * Math.sin(2 * Math.PI * 5.2 * seconds)))
  return resonated(resonated(source, first, first * glide), second, second * glide).map((sample) => sample * 0.6)
}

function resonated(sound: Float32Array, fromHz: number, toHz: number): Float32Array {
  const out = new Float32Array(sound.length)
  const radius = 0.97
  for (let index = 0; index < sound.length; index++) {
    const hz = fromHz + ((toHz - fromHz) * index) / sound.length
    const turn = 2 * radius * Math.cos((2 * Math.PI * hz) / RATE)
    out[index] = 0.12 * (sound[index] ?? 0) + turn * (out[index - 1] ?? 0) - radius * radius * (out[index - 2] ?? 0)
  }
  return out
}

const SCALES = [
  [0, 2, 4, 5, 7, 9, 11],
  [0, 2, 3, 5, 7, 8, 10],
  [0, 3, 5, 6, 7, 10, 12],
  [0, 2, 4, 7, 9, 12, 14],
]

/** Some layers out of drums, bass, chords, leads, arpeggios and a singer, each with a pattern of its own. */
export function trainingMusic(length: number, random: Random): Float32Array {
  const out = new Float32Array(length)
  const stepMs = 60_000 / (60 + random() * 120) / 4
  const root = 55 * 2 ** random()
  const scale = SCALES[Math.floor(random() * SCALES.length)] ?? []
  const steps = Math.ceil(((length / RATE) * 1000) / stepMs)
  const hzOf = (octave: number, degree: number): number =>
    root * 2 ** (octave + (scale[degree % scale.length] ?? 0) / 12)
  const known = new Map<string, Float32Array>()
  const sound = (name: string, make: () => Float32Array): Float32Array => {
    const made = known.get(name) ?? make()
    known.set(name, made)
    return made
  }
  const layer = (density: number, gain: number, make: (degree: number) => [string, () => Float32Array]): void => {
    const pattern = Array.from({ length: 32 }, () => (random() < density ? Math.floor(random() * 7) : -1))
    for (let step = 0; step < steps; step++) {
      const degree = pattern[step % (random() < 0.5 ? 16 : 32)] ?? -1
      if (degree >= 0) mix(out, sound(...make(degree)), step * stepMs, gain)
    }
  }
  const struck = (hz: number, fade: number, noise: number) => (): Float32Array =>
    note(
      220,
      (seconds, turn) => Math.exp(-seconds * fade) * (Math.sin(hz * turn) * (1 - noise) + noise * (random() * 2 - 1)),
    )
  if (random() < 0.8) {
    const every = random() < 0.5 ? 4 : 8
    for (let step = 0; step < steps; step += every)
      mix(out, sound('kick', struck(45 + random() * 30, 14, 0.05)), step * stepMs, 0.5)
    layer(0.15, 0.25, () => ['snare', struck(180, 22, 0.7)])
    layer(0.5, 0.1, () => ['hat', struck(4000, 50, 0.95)])
  }
  const pitched = (name: string, octave: number, lengthSteps: number, [gain, density]: [number, number]): void => {
    const timbre = TIMBRES[Math.floor(random() * TIMBRES.length)] ?? TIMBRES[0]
    if (timbre)
      layer(density, gain, (degree) => [
        `${name}${degree}`,
        () => note(stepMs * lengthSteps, timbre(hzOf(octave, degree), random)),
      ])
  }
  if (random() < 0.7) pitched('bass', 0, 2, [0.25, 0.4])
  if (random() < 0.6)
    for (const voice of ['a', 'b', 'c']) pitched(`chord${voice}`, 1 + Math.floor(random() * 2), 12, [0.06, 0.12])
  if (random() < 0.7) pitched('lead', 2 + Math.floor(random() * 3), 1 + random() * 3, [0.12, 0.35])
  if (random() < 0.4) pitched('arpeggio', 3, 1, [0.08, 0.9])
  if (random() < 0.45)
    layer(0.2, 0.3, (degree) => [
      `sung${degree}`,
      () => vowel(hzOf(1 + Math.floor(random() * 2), degree), stepMs * (2 + random() * 5), random),
    ])
  return out
}

/** A room as a few hundred reflections at random, ever weaker. */
export function trainingRoom(dry: Float32Array, random: Random): Float32Array {
  const out = Float32Array.from(dry)
  const seconds = 0.2 + random() * 0.8
  const wet = 0.05 + random() * 0.15
  for (let tap = 0; tap < 120; tap++) {
    const after = 0.004 + random() * seconds * 0.7
    const gain = wet * 10 ** ((-3 * after) / seconds) * (random() < 0.5 ? -1 : 1)
    const delay = Math.round(after * RATE)
    for (let index = delay; index < dry.length; index++)
      out[index] = (out[index] ?? 0) + gain * (dry[index - delay] ?? 0)
  }
  return out
}

/** A foot that lands, or a breath. */
export function bodyNoise(random: Random): Float32Array {
  if (random() < 0.6)
    return note(
      150,
      (seconds, turn) => Math.exp(-seconds * 35) * (Math.sin((40 + 40 * random()) * turn) + 0.4 * (random() * 2 - 1)),
    )
  const lengthMs = 300 + random() * 700
  let held = 0
  return note(lengthMs, (seconds) => {
    held += 0.4 * (random() * 2 - 1 - held)
    return held * Math.sin((Math.PI * seconds * 1000) / lengthMs)
  })
}
