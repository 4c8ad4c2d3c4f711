// What is heard, judged by decoding it: our meter against ffmpeg's, and a rendered mix with voice, ducking and limiter.
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { cueSheet, linesIn, type CueAsk } from '../src/core/cue/cues'
import { USUAL_CUES } from '../src/core/cue/wishes'
import { asPlanned } from '../src/core/cut/cut'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { readShorthand } from '../src/core/shorthand/read'
import { energiesOf, integrated, levelOf } from '../src/core/sound/loudness'
import { bedOf, fadeAt } from '../src/core/sound/music'
import { USUAL_MIX, type Mix } from '../src/core/sound/mix'
import { truePeakOf } from '../src/core/sound/truePeak'
import { linesAloud } from '../src/engine/lines'
import { probeFootage } from '../src/engine/probe'
import { makePiece } from '../src/engine/music'
import type { PieceFile } from '../src/engine/renderJob'
import { renderVideo } from '../src/engine/render'
import { STEMS, writeStem, type Stem } from '../src/engine/stems'
import { saidAloud, waveMs, waveSamples } from '../src/engine/voices'
import { findCue, samplesOf, SAMPLE_RATE } from './e2e/decode'
import { alsoEvery } from './every'

const folder = mkdtempSync(join(tmpdir(), 'jivet-sound-'))
afterAll(() => rmSync(folder, { recursive: true }))
const at = (name: string): string => join(folder, name)
const ffmpeg = (...args: string[]): void => void execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])

/** ffmpeg's own meter. */
function metered(file: string): { lufs: number; peakDb: number } {
  const { stderr } = spawnSync(
    'ffmpeg',
    ['-nostats', '-i', file, '-map', '0:a', '-af', 'ebur128=peak=true', '-f', 'null', '-'],
    { encoding: 'utf8' },
  )
  const summary = stderr.slice(stderr.lastIndexOf('Summary'))
  const number = (name: RegExp): number => Number(name.exec(summary)?.[1])
  return { lufs: number(/I:\s+(-?[\d.]+) LUFS/), peakDb: number(/Peak:\s+(-?[\d.]+) dBFS/) }
}

describe('our meter', () => {
  it.each([
    ['a tone', 48_000, 1, 'sine=f=440:d=12:sample_rate=48000,volume=0.3'],
    ['noise', 44_100, 1, 'anoisesrc=d=12:c=pink:a=0.4:seed=4:sample_rate=44100'],
    ['bursts', 48_000, 1, "aevalsrc='0.6*sin(2*PI*900*t)*lt(mod(t,2),0.3)+0.004*sin(2*PI*200*t)':d=20:s=48000"],
    ['two channels', 48_000, 2, "aevalsrc='0.5*sin(2*PI*330*t)|0.1*sin(2*PI*2500*t)*gt(mod(t,3),1)':d=15:s=48000"],
  ])('agrees with ffmpeg on %s', (name, rate, channels, source) => {
    const file = at(`${name}.wav`)
    ffmpeg('-f', 'lavfi', '-i', source, '-c:a', 'pcm_f32le', file)
    const raw = execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-f', 'f32le', 'pipe:1'], { maxBuffer: 2 ** 28 })
    const samples = new Float32Array(new Uint8Array(raw).buffer)
    const { lufs, peakDb } = metered(file)
    expect(Math.abs((integrated(energiesOf(samples, rate, channels)) ?? 0) - lufs)).toBeLessThanOrEqual(0.1)
    expect(Math.abs(levelOf(truePeakOf(samples, channels)) - peakDb)).toBeLessThanOrEqual(0.3)
  })
})

describe('a voice', () => {
  it.each(['flite', 'espeak'] as const)('%s says a line: trimmed, and the same each time', async (voice) => {
    const wave = await saidAloud(voice, 'Next: Jug lift, left')
    const samples = waveSamples(wave)
    expect(waveMs(wave)).toBeGreaterThan(700)
    expect(waveMs(wave)).toBeLessThan(3000)
    expect(Math.abs((integrated(energiesOf(samples, 48_000)) ?? 0) + 20)).toBeLessThan(0.5)
    // No silence longer than a breath at either end.
    const loud = samples.findIndex((one) => Math.abs(one) > 0.01)
    expect(loud / 48).toBeLessThan(80)
    expect(Buffer.compare(wave, await saidAloud(voice, 'Next: Jug lift, left'))).toBe(0)
  })
  it('of the coach says what was recorded, and nothing else', async () => {
    const file = at('own.wav')
    writeFileSync(file, await saidAloud('flite', 'Halfway'))
    const { lengths } = await linesAloud('own', ['Halfway', 'Last one'], { recordings: new Map([['Halfway', file]]) })
    expect([...lengths.keys()]).toEqual(['Halfway'])
  })
})

describe('a rendered mix', () => {
  const TEXT =
    'circuit Main: 1 round, 20 on, 10 off, lead 5, last rest dropped\n  Jug lift (sides alternate)\n  Keel hold\n'
  const { score } = readShorthand(TEXT)
  const { segments, totalMs } = expand(score)
  const film = at('film.mp4')
  beforeAll(() => {
    // A coach that hums at 250 Hz, louder and softer, with a peak near full scale now and then.
    const hum = '0.09*sin(2*PI*250*t)*(0.6+0.4*sin(2*PI*t/7))+0.8*sin(2*PI*180*t)*lt(mod(t,17),0.02)'
    ffmpeg(
      ...['-f', 'lavfi', '-i', `color=c=gray:s=320x180:r=25:d=${totalMs / 1000}`],
      ...['-f', 'lavfi', '-i', `aevalsrc='${hum}':d=${totalMs / 1000}:s=48000`],
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-c:a', 'aac', '-b:a', '192k', film],
    )
  })
  const rendered = async (
    name: string,
    mix: Partial<Mix>,
    cueAsk: CueAsk,
    music: PieceFile[] = [],
  ): Promise<string> => {
    const facts = await probeFootage(film)
    const { cut, shown } = followed(
      segments,
      [{ segmentId: segments[0]!.id, edge: 'start', footageMs: 0 }],
      facts.durationMs,
    )
    const out = at(name)
    await renderVideo({ reel: [{ path: film, facts }], cut, shown, out, mix: { ...USUAL_MIX, ...mix }, music, cueAsk })
    return out
  }
  const wishes = { ...USUAL_CUES, voice: 'flite' as const }
  const sheetOf = async (): Promise<ReturnType<typeof cueSheet>> => {
    const { shown } = followed(segments, [{ segmentId: segments[0]!.id, edge: 'start', footageMs: 0 }], totalMs)
    const { lengths } = await linesAloud('flite', linesIn(shown, { wishes }))
    return cueSheet(shown, { wishes, lineMs: lengths })
  }

  it.each([['host', -14], ['broadcast', -23], ...alsoEvery(['quieter', -16])] as const)(
    'is as loud as is asked for %s, and never above -1 dBTP',
    async (target, wanted) => {
      const { lufs, peakDb } = metered(await rendered(`${target}.mp4`, { target }, { wishes }))
      expect(Math.abs(lufs - wanted)).toBeLessThanOrEqual(0.5)
      expect(peakDb).toBeLessThanOrEqual(-1)
    },
  )
  it('has each tone within ten milliseconds of its instant', async () => {
    const samples = samplesOf(await rendered('tones.mp4', { voice: 0 }, {}))
    const { shown } = followed(segments, [{ segmentId: segments[0]!.id, edge: 'start', footageMs: 0 }], totalMs)
    for (const { atMs, sound } of cueSheet(shown).cues) {
      if (!sound || atMs + 200 > totalMs) continue
      const { offMs, match } = findCue(samples, sound, atMs)
      expect([Math.abs(offMs) <= 10, match > 0.8], `${sound} at ${atMs}: ${offMs} ms, ${match}`).toEqual([true, true])
    }
  })
  it('says each line where it was laid, with the footage down under it by as much as was asked', async () => {
    const loud = samplesOf(await rendered('ducked.mp4', { target: 'asIs', duckDb: 12, cueLu: -12 }, { wishes }))
    const plain = samplesOf(await rendered('plain.mp4', { target: 'asIs', cuesOn: false }, { wishes }))
    const { cues } = await sheetOf()
    const said = cues.filter((cue) => cue.line !== null && cue.lengthMs > 500)
    expect(said.length).toBeGreaterThan(1)
    for (const { atMs, lengthMs, line } of said) {
      const middle = atMs + lengthMs / 2
      const down = levelAt(loud, 250, middle) - levelAt(plain, 250, middle)
      expect(down, `"${line}" at ${atMs}`).toBeLessThan(-9)
      expect(down, `"${line}" at ${atMs}`).toBeGreaterThan(-14)
    }
    const away = 9000
    expect(Math.abs(levelAt(loud, 250, away) - levelAt(plain, 250, away))).toBeLessThan(0.3)
  })
  it('has music under it from change to change, evened, down under what is said', async () => {
    // A piece that is far too loud, and begins late.
    const brought = at('brought.wav')
    ffmpeg(
      ...['-f', 'lavfi', '-i', "aevalsrc='0.9*sin(2*PI*620*t)|0.9*sin(2*PI*620*t)':d=14:s=44100"],
      ...['-af', 'adelay=800:all=1', brought],
    )
    const path = at('piece.flac')
    const ms = await makePiece(brought, path)
    expect(Math.abs(ms - 14_000)).toBeLessThan(30)
    const piece = { hash: 'a'.repeat(64), name: 'Hum', ms, path }
    const music = { pieces: [], lu: -6 }
    const out = await rendered('music.mp4', { target: 'asIs', duckDb: 12, cueLu: -12, music }, { wishes }, [piece])
    const samples = samplesOf(out)
    const { cues } = await sheetOf()
    const parts = bedOf(asPlanned(segments), [ms])
    expect(parts.length).toBeGreaterThan(2)
    const level = (time: number): number => levelAt(samples, 620, time)
    const said = cues.filter((cue) => cue.line !== null)
    const isQuiet = (time: number): boolean =>
      said.every(({ atMs, lengthMs }) => time < atMs - 700 || time > atMs + lengthMs + 1000)
    const times = Array.from({ length: Math.floor(totalMs / 250) - 4 }, (_, step) => 500 + step * 250)
    const clear = times.filter(
      (time) => isQuiet(time) && fadeAt(parts, time - 260) === 1 && fadeAt(parts, time + 260) === 1,
    )
    expect(clear.length).toBeGreaterThan(8)
    const levels = clear.map(level)
    expect(Math.max(...levels) - Math.min(...levels)).toBeLessThan(0.6)
    const line = said.find(({ atMs, lengthMs }) => lengthMs > 500 && fadeAt(parts, atMs) === 1)!
    expect(level(line.atMs + line.lengthMs / 2) - levels[0]!).toBeLessThan(-9)
    // Before a piece that is broken off is followed by the next, it is gone.
    const broken = parts.find(({ fades }) => fades)!
    expect(levelAt(samples, 620, broken.outMs + broken.lengthMs - 250)).toBeLessThan(levels[0]! - 12)
  })
})

describe('the parts of a mix', () => {
  it('are each as long as the whole, and together are the whole', async () => {
    const { segments } = expand(readShorthand('straight Main: 8 on, gap 2\n  Squat\n  Lunge\n').score)
    const film = at('hum.mp4'),
      piece = at('hum.flac')
    ffmpeg(
      ...['-f', 'lavfi', '-i', 'color=c=gray:s=160x96:r=25:d=18', '-f', 'lavfi', '-i', 'sine=f=250:d=18:r=48000'],
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-af', 'volume=0.2', '-c:a', 'aac', film],
    )
    ffmpeg(...['-f', 'lavfi', '-i', 'sine=f=620:d=12:r=48000', '-ac', '2', piece])
    const facts = await probeFootage(film)
    const { cut, shown } = followed(
      segments,
      [{ segmentId: segments[0]!.id, edge: 'start', footageMs: 0 }],
      facts.durationMs,
    )
    // So soft that the limiter has nothing to do.
    const mix = { ...USUAL_MIX, target: 'asIs' as const, cueLu: -6 }
    const music = [{ hash: 'b'.repeat(64), name: 'Hum', ms: 12_000, path: piece }]
    const job = { reel: [{ path: film, facts }], cut, shown, mix, music }
    const signal = new AbortController().signal
    const parts = new Map<Stem, Float32Array>()
    for (const stem of STEMS) {
      const out = at(`${stem}.flac`)
      await writeStem({ ...job, out }, { stem, ending: 'flac', folder, signal })
      parts.set(stem, samplesOf(out))
    }
    const [whole, ...others] = STEMS.map((stem) => parts.get(stem)!)
    const length = Math.round((cut.outMs * SAMPLE_RATE) / 1000)
    for (const samples of parts.values()) expect(samples.length).toBe(length)
    for (const samples of others) expect(samples.some((one) => Math.abs(one) > 0.002)).toBe(true)
    const worst = whole!.reduce(
      (most, one, at) => Math.max(most, Math.abs(one - others.reduce((sum, part) => sum + part[at]!, 0))),
      0,
    )
    // Three roundings to 16 bits.
    expect(worst).toBeLessThan(3 / 32_768)
  })
})

/** The level of a pitch around an instant, in dB, over half a second. */
function levelAt(samples: Float32Array, hz: number, ms: number): number {
  const from = Math.round(((ms - 250) / 1000) * SAMPLE_RATE)
  let real = 0,
    imaginary = 0
  for (let index = 0; index < SAMPLE_RATE / 2; index++) {
    const value = samples[from + index] ?? 0
    real += value * Math.cos((2 * Math.PI * hz * index) / SAMPLE_RATE)
    imaginary += value * Math.sin((2 * Math.PI * hz * index) / SAMPLE_RATE)
  }
  return levelOf(Math.hypot(real, imaginary) / (SAMPLE_RATE / 4))
}
