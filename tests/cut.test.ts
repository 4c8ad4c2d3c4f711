// Cuts of films that tell their own time: each picture is as grey as its number says, and the pitch rises as time goes
// by. What is rendered is decoded, and each picture and each stretch of sound has to be the one that the cut names.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { companionOf } from '../src/core/cut/companion'
import { sourceMsIn, type Cut } from '../src/core/cut/cut'
import { aimAt } from '../src/core/cut/framing'
import { inFiles, SpanList } from '../src/core/cut/spans'
import { expand } from '../src/core/expand/expand'
import { readShorthand } from '../src/core/shorthand/read'
import { probeFootage } from '../src/engine/probe'
import { renderVideo } from '../src/engine/render'
import { probe, samplesOf } from './e2e/decode'

const folder = mkdtempSync(join(tmpdir(), 'jivet-cut-'))
afterAll(() => rmSync(folder, { recursive: true }))
const at = (name: string): string => join(folder, name)

const FILM_MS = 8000
const GREY_FROM = 25
/** Grey levels a picture of 25 a second; the right half counts the other way round. */
const greyAt = (ms: number): number => GREY_FROM + Math.floor((ms + 0.5) / 40)
const HZ_FROM = 400,
  HZ_A_SECOND = 200

function film(name: string, fps: string, from = 0): void {
  const second = `(${from}+T)`
  const grey = `floor(${GREY_FROM}+${second}*25+0.0125)`
  const pitch = `2*PI*(${HZ_FROM}*t+${HZ_A_SECOND / 2}*t*t+${HZ_A_SECOND * from}*t)`
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `color=c=black:s=160x96:r=${fps}:d=${FILM_MS / 1000},format=yuv420p`],
    ...['-f', 'lavfi', '-i', `aevalsrc='0.4*sin(${pitch})':s=48000:d=${FILM_MS / 1000}`],
    ...['-vf', `geq=lum='if(lt(X,80),${grey},255-${grey})':cb=128:cr=128`],
    ...['-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '8', '-g', '50', '-c:a', 'aac', '-b:a', '160k', at(name)],
  ])
}

beforeAll(() => {
  film('first.mp4', '25')
  film('second.mp4', '25', 8)
}, 300_000)

/** The mean grey of the left and of the right of each picture. */
function greys(file: string): { left: number; right: number }[] {
  const size = { width: 160, height: 96 }
  const bytes = execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-f', 'rawvideo', '-pix_fmt', 'yuv420p', 'pipe:1'], {
    maxBuffer: 1 << 28,
  })
  const frame = size.width * size.height * 1.5
  const mean = (from: number, left: number): number => {
    let sum = 0
    for (let y = 4; y < 40; y++) for (let x = left; x < left + 40; x++) sum += bytes[from + y * size.width + x]!
    return sum / (36 * 40)
  }
  return Array.from({ length: bytes.length / frame }, (_, n) => ({
    left: mean(n * frame, 20),
    right: mean(n * frame, 100),
  }))
}

/** The film's instant that a stretch of sound about an instant is from, by its pitch; null where it is silent. */
function heardMs(samples: Float32Array, aboutMs: number): number | null {
  const rate = 48_000,
    half = 0.02 * rate
  const middle = Math.round((aboutMs * rate) / 1000)
  const crossings: number[] = []
  let level = 0
  for (let index = middle - half; index < middle + half; index++) {
    const one = samples[index]!,
      next = samples[index + 1]!
    level = Math.max(level, Math.abs(one))
    if (one <= 0 && next > 0) crossings.push(index + -one / (next - one))
  }
  if (level < 0.05) return null
  const hz = ((crossings.length - 1) * rate) / (crossings.at(-1)! - crossings[0]!)
  return ((hz - HZ_FROM) / HZ_A_SECOND) * 1000
}

async function rendered(cut: Cut, files = ['first.mp4', 'second.mp4']): Promise<string> {
  const reel = await Promise.all(files.map(async (name) => ({ path: at(name), facts: await probeFootage(at(name)) })))
  const out = at('out.mp4')
  await renderVideo({ reel, cut, shown: [], out })
  return out
}

it('shows and sounds each instant that the cut names: leaps, mirrors, held pictures, cards, slowed stretches, two files', async () => {
  const list = new SpanList()
  list.show({ fromMs: 1000, toMs: 2030, segmentId: null, why: 'filmed' })
  list.show({ fromMs: 4000, toMs: 4505, segmentId: null, why: 'shortened' })
  list.hold(6000, 490, { segmentId: null })
  list.card(400, null)
  list.show({ fromMs: 3000, toMs: 3600, segmentId: null, why: 'reused', mirrored: true })
  list.show({ fromMs: 5000, toMs: 5700, lengthMs: 1190, segmentId: null, why: 'slowed' })
  // Over the border of the two files, and back into the first.
  list.show({ fromMs: 7500, toMs: 8800, segmentId: null, why: 'filmed' })
  list.show({ fromMs: 7, toMs: 1007, segmentId: null, why: 'filmed' })
  const cut = inFiles(list.cut, [FILM_MS, FILM_MS])
  const out = await rendered(cut)
  expect(probe(out).video).toMatchObject({ frames: Math.round(cut.outMs / 40), width: 160, height: 96, rate: '25/1' })
  expect(Math.abs(probe(out).audio.durationMs - cut.outMs)).toBeLessThan(1)

  const pictures = greys(out)
  const samples = samplesOf(out)
  for (const span of list.cut.spans) {
    for (let frame = Math.ceil(span.outMs / 40 + 0.5); (frame + 0.5) * 40 < span.outMs + span.lengthMs; frame++) {
      const ms = span.fromMs + (frame * 40 - span.outMs) * span.rate
      const picture = pictures[frame]!
      if (span.source === 'card') expect([picture.left < 45, picture.right < 45]).toEqual([true, true])
      else {
        const [own, other] = span.mirrored ? [picture.right, picture.left] : [picture.left, picture.right]
        // A grey level is a picture: none is off by more than the one that rounding allows.
        expect(Math.abs(own - greyAt(ms)), `picture ${frame}`).toBeLessThan(1.6)
        expect(Math.abs(other - (255 - greyAt(ms)))).toBeLessThan(1.6)
      }
    }
    for (let ms = 45; ms < span.lengthMs - 45; ms += 50) {
      const heard = heardMs(samples, span.outMs + ms)
      if (typeof span.source === 'string') expect(heard).toBeNull()
      // What slows sound takes short pieces of it twice: nothing is further off than such a piece is long.
      else {
        const offMs = heard! - span.fromMs - ms * span.rate
        expect(Math.abs(offMs), `sound at ${span.outMs + ms}`).toBeLessThan(span.rate === 1 ? 6 : 50)
      }
    }
  }
}, 300_000)

it('counts from where a file’s own clock begins', async () => {
  // A stream that was recorded in the middle of something: its first picture is at 1.4 s and more.
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', at('first.mp4'), '-c', 'copy', '-f', 'mpegts', at('late.ts')])
  const late = await probeFootage(at('late.ts'))
  expect(late.zeroS).toBeGreaterThan(1)
  const list = new SpanList()
  list.show({ fromMs: 3000, toMs: 4000, segmentId: null, why: 'filmed' })
  list.show({ fromMs: 200, toMs: 1200, segmentId: null, why: 'filmed' })
  const out = await rendered(list.cut, ['late.ts'])
  const pictures = greys(out),
    samples = samplesOf(out)
  // In the stream the picture begins a moment after the sound, which is where its time begins.
  for (const ms of [100, 500, 900, 1100, 1500, 1900]) {
    const filmedMs = (ms < 1000 ? 3000 + ms : 200 + ms - 1000) - late.soundFromMs
    expect(Math.abs(heardMs(samples, ms)! - filmedMs), `sound at ${ms}`).toBeLessThan(26)
  }
  for (const frame of [2, 12, 23, 27, 37, 48]) {
    const ms = (frame < 25 ? 3000 + frame * 40 : 200 + (frame - 25) * 40) - late.pictureFromMs
    expect(Math.abs(pictures[frame]!.left - greyAt(ms)), `picture ${frame}`).toBeLessThan(2)
  }
}, 300_000)

it('refuses a cut that shows nothing', async () => {
  await expect(rendered({ outMs: 0, spans: [] })).rejects.toMatchObject({ code: 'cut-empty' })
})

it('puts another rate, another size and silence into the first file’s form', async () => {
  film('other.mp4', '30000/1001', 8)
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-i', at('other.mp4'), '-an', '-vf', 'scale=320:240', '-c:v', 'libx264', at('silent.mp4')],
  ])
  const list = new SpanList()
  list.show({ fromMs: 6000, toMs: 9000, segmentId: null, why: 'filmed' })
  list.show({ fromMs: 1000, toMs: 2000, segmentId: null, why: 'filmed' })
  const out = await rendered(inFiles(list.cut, [FILM_MS, FILM_MS]), ['first.mp4', 'silent.mp4'])
  expect(probe(out).video).toMatchObject({ frames: 100, width: 160, height: 96 })
  const samples = samplesOf(out)
  expect([1000, 2500, 3500].map((ms) => heardMs(samples, ms)).map((ms) => ms && Math.round(ms / 100))).toEqual([
    70,
    null,
    15,
  ])
  const pictures = greys(out)
  for (const frame of [10, 40, 60, 70, 90]) {
    const ms = frame < 75 ? 6000 + frame * 40 : 1000 + frame * 40 - 3000
    expect(Math.abs(pictures[frame]!.left - greyAt(ms))).toBeLessThan(2.5)
  }
}, 300_000)

/** Dark on the left, bright on the right: where one becomes the other says what part of the picture is shown. */
const BORDER = 80
function halves(name: string): void {
  const source = `color=c=0x202020:s=160x96:r=25:d=4,format=yuv420p,drawbox=x=${BORDER}:w=80:h=96:t=fill:c=0xe0e0e0`
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', source, '-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '4'],
    at(name),
  ])
}

/** Of each picture, the column from which on it is bright, or is dark again. */
function borders(file: string, width: number, height: number): { at: number; isMirrored: boolean }[] {
  const bytes = execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-f', 'rawvideo', '-pix_fmt', 'gray', 'pipe:1'], {
    maxBuffer: 1 << 28,
  })
  return Array.from({ length: bytes.length / (width * height) }, (_, picture) => {
    const row = bytes.subarray(picture * width * height + 20 * width).subarray(0, width)
    const bright = row.reduce((count, grey) => count + (grey > 128 ? 1 : 0), 0)
    const isMirrored = row[2]! > row[width - 3]!
    return { at: isMirrored ? bright : width - bright, isMirrored }
  })
}

it('shows the part of the picture that its keys look at, in each picture, slowed and mirrored stretches too', async () => {
  halves('halves.mp4')
  const list = new SpanList()
  list.show({ fromMs: 0, toMs: 1200, segmentId: null, why: 'filmed' })
  list.show({ fromMs: 1200, toMs: 1800, lengthMs: 1200, segmentId: null, why: 'slowed' })
  list.show({ fromMs: 400, toMs: 1000, segmentId: null, why: 'reused', mirrored: true })
  list.hold(1500, 400, { segmentId: null })
  const aims = [
    { atMs: 200, at: 0.25 },
    { atMs: 1000, at: 0.75 },
    { atMs: 1800, at: 0.5 },
  ]
  const reel = [{ path: at('halves.mp4'), facts: await probeFootage(at('halves.mp4')) }]
  const out = at('framed.mp4')
  await renderVideo({ reel, cut: list.cut, shown: [], out, framing: { shape: 'square', aims: [aims] } })
  expect(probe(out).video).toMatchObject({ width: 96, height: 96, frames: Math.round(list.cut.outMs / 40) })
  const seen = borders(out, 96, 96)
  list.cut.spans.forEach((span) => {
    for (
      let picture = Math.round(span.outMs / 40);
      picture < Math.round((span.outMs + span.lengthMs) / 40);
      picture++
    ) {
      const wanted = BORDER - aimAt(aims, sourceMsIn(span, picture * 40)) * (160 - 96)
      const found = seen[picture]!
      expect(found.isMirrored, `picture ${picture}`).toBe(span.mirrored)
      expect(Math.abs(found.at - (span.mirrored ? 96 - wanted : wanted)), `picture ${picture}`).toBeLessThanOrEqual(1.5)
    }
  })
})

it('is drawn upright where there is no footage', async () => {
  const { cut, shown } = companionOf(expand(readShorthand('straight Main: 2 on\n  Squat\n').score).segments)
  const out = at('upright.mp4')
  await renderVideo({ reel: [], cut, shown, out, framing: { shape: 'upright', aims: [] } })
  expect(probe(out).video).toMatchObject({ width: 720, height: 1280, frames: 60 })
})
