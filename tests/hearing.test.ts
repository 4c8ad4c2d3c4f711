// Recordings without a timer of the score, heard by the real engine and matched to scores that they do not belong to:
// no tie is sure. What is played here is played by nobody: spoken by flite, or summed from sines and noise.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { matchEvidence } from '../src/core/align/sync'
import { expand } from '../src/core/expand/expand'
import { readShorthand } from '../src/core/shorthand/read'
import { listenTo } from '../src/engine/listen'
import { EVERY } from './every'

const RATE = 16_000
const folder = mkdtempSync(join(tmpdir(), 'jivet-hearing-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const SCORES = {
  circuit: 'circuit Main: 4 rounds, 40 on, 20 off, 1:00 between\n  Jug lift; Keel hold; Rope pull\n',
  short: 'circuit Main: 8 rounds, 20 on, 10 off\n  Jug lift\n',
  ladder: 'ladder Main: 6 rungs, 10 from, 5 step\n  Squat\n',
  uneven:
    'table Main: 40/20 then 35/15 then 30/25 then 45/10 rounds, 1:00 between, last rest dropped\n  Jug lift; Keel hold\n',
}
type ScoreName = keyof typeof SCORES
const segmentsOf = (name: ScoreName) => expand(readShorthand(SCORES[name]).score).segments

type Sound = (add: (fromS: number, lengthS: number, wave: (t: number) => number) => void, seconds: number) => void

const tone =
  (hz: number, level = 0.3) =>
  (t: number): number =>
    level * Math.sin(2 * Math.PI * hz * t)
/** A struck bell: partials that are no multiples of each other, dying away. */
const bell =
  (hz: number) =>
  (t: number): number =>
    Math.exp(-3 * t) * [1, 2.76, 5.4].reduce((sum, partial, at) => sum + tone(hz * partial, 0.3 / (at + 1))(t), 0)
const every = (stepS: number, wave: (t: number) => number, lengthS = 0.4, fromS = 3): Sound => {
  return (add, seconds) => {
    for (let at = fromS; at < seconds - lengthS; at += stepS) add(at, lengthS, wave)
  }
}
/** Notes of a scale in strict time, always in the same order. */
const tune = (bpm: number, scale: readonly number[]): Sound => {
  return (add, seconds) => {
    const beat = 60 / bpm
    for (let at = 0, note = 0; at < seconds - beat; at += beat, note++)
      add(at, beat * 0.8, tone(scale[(note * 3) % scale.length] ?? 440, 0.2))
  }
}
/** The timer of a score: three short tones and a long one before every change. */
const timerOf = (name: ScoreName, fromS: number): Sound => {
  return (add, seconds) => {
    for (const { startMs } of segmentsOf(name)) {
      const at = fromS + startMs / 1000
      if (at > seconds - 1) return
      for (const before of [3, 2, 1]) if (at > before) add(at - before, 0.08, tone(1500))
      add(at, 0.4, tone(2000))
    }
  }
}

/** What is played, and the scores that it is none of. */
const PLAYED: [what: string, sound: Sound, others: ScoreName[]][] = [
  ['a kitchen chime every minute', every(60, bell(880)), ['circuit', 'short', 'ladder', 'uneven']],
  ['a chime every twenty seconds', every(20, tone(1760)), ['circuit', 'ladder', 'uneven']],
  ['a chime every ten seconds', every(10, tone(1320)), ['circuit', 'short', 'ladder', 'uneven']],
  ['a lorry in reverse', every(1, tone(1250), 0.5), ['circuit', 'short', 'ladder', 'uneven']],
  [
    'two bells that take turns',
    (add, s) => [every(14, bell(660))(add, s), every(14, bell(990), 0.4, 10)(add, s)],
    ['circuit', 'short', 'ladder', 'uneven'],
  ],
  [
    'a message now and then',
    (add) => [7, 31, 38, 95, 160, 171, 260].forEach((at) => add(at, 0.3, tone(2093))),
    ['circuit', 'short', 'ladder', 'uneven'],
  ],
  ['a slow tune', tune(60, [440, 494, 554, 659, 740]), ['circuit', 'short', 'ladder', 'uneven']],
  ['a brisk tune', tune(128, [523, 587, 659, 784, 880]), ['circuit', 'short', 'ladder', 'uneven']],
  [
    'a tune with a high note at every fourth bar',
    (add, s) => [tune(120, [392, 440, 523])(add, s), every(8, tone(1568), 0.5)(add, s)],
    ['circuit', 'short', 'ladder', 'uneven'],
  ],
  ['the timer of a short circuit', timerOf('short', 4), ['circuit', 'ladder', 'uneven']],
  ['the timer of a long circuit', timerOf('circuit', 9), ['short', 'ladder', 'uneven']],
  ['the timer of a ladder', timerOf('ladder', 2), ['circuit', 'short', 'uneven']],
  ['the timer of a table', timerOf('uneven', 15), ['circuit', 'short', 'ladder']],
]
const SPOKEN = {
  'a coach who counts': Array.from({ length: 30 }, () => 'Three, two, one, and go. Keep it up, long and low.').join(
    ' ',
  ),
  'a coach who tells a tale': Array.from(
    { length: 20 },
    (_, at) => `We moored beside lock number ${at + 1}, and the kettle was on before the rope was tied.`,
  ).join(' '),
  'a coach who calls each change': Array.from(
    { length: 25 },
    (_, at) => `Station ${(at % 3) + 1}. Switch sides. Rest.`,
  ).join(' '),
}

let seed = 11
const noise = (): number => {
  seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0
  return seed / 2 ** 31 - 1
}

function play(sound: Sound, seconds: number): Float32Array {
  const out = Float32Array.from({ length: seconds * RATE }, () => 0.004 * noise())
  sound((fromS, lengthS, wave) => {
    const from = Math.round(fromS * RATE)
    for (let at = 0; at < lengthS * RATE; at++) out[from + at] = (out[from + at] ?? 0) + wave(at / RATE)
  }, seconds)
  return out
}

const encode = (name: string, input: string[]): string => {
  const path = join(folder, `${name.replaceAll(' ', '-')}.wav`)
  execFileSync('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...input, '-ac', '1', '-ar', String(RATE), path])
  return path
}
const recorded = (name: string, samples: Float32Array): string => {
  const raw = join(folder, 'raw.f32')
  writeFileSync(raw, Buffer.from(samples.buffer))
  return encode(name, ['-f', 'f32le', '-ac', '1', '-ar', String(RATE), '-i', raw])
}
const spoken = (name: string, text: string): string => {
  const raw = join(folder, 'spoken.wav')
  execFileSync('flite', ['-voice', 'slt', '-t', text, '-o', raw])
  return encode(name, ['-i', raw])
}

const RECORDINGS: [what: string, make: () => string, others: ScoreName[]][] = [
  ...PLAYED.map(([what, sound, others]): (typeof RECORDINGS)[number] => [
    what,
    () => recorded(what, play(sound, 200)),
    others,
  ]),
  ...Object.entries(SPOKEN).map(([what, text]): (typeof RECORDINGS)[number] => [
    what,
    () => spoken(what, text),
    ['circuit', 'short', 'ladder', 'uneven'],
  ]),
]

/** Half of them, which is what `npm test` has time for; with `JIVET_EVERY=1` all. */
const HEARD = RECORDINGS.filter((_, at) => at % 2 === 0 || EVERY)

describe('sixteen recordings', () => {
  beforeAll(() => expect(RECORDINGS).toHaveLength(16))

  it.each(HEARD)('%s gives no sure tie with a score that it is none of', async (_, make, others) => {
    const { evidence } = await listenTo(make(), { durationMs: 330_000, zeroS: 0 })
    for (const name of others) {
      const sure = matchEvidence(segmentsOf(name), { evidence, footageMs: 330_000 }).found.filter(
        ({ confidence }) => confidence >= 0.9,
      )
      expect([name, sure]).toEqual([name, []])
    }
  })
  it('are heard: the timer of a table ties its own score, most of it for sure', async () => {
    const { evidence } = await listenTo(recorded('own', play(timerOf('uneven', 15), 600)), {
      durationMs: 600_000,
      zeroS: 0,
    })
    const stitches = matchEvidence(segmentsOf('uneven'), { evidence, footageMs: 600_000 }).found
    expect(stitches.length).toBeGreaterThan(10)
    expect(stitches.filter(({ confidence }) => confidence >= 0.9).length).toBeGreaterThan(stitches.length / 2)
  })
})
