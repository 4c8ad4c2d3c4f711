// Probing and rendering of footage as cameras really make it: made here by ffmpeg, judged by decoding.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, truncateSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Cut, ShownSegment } from '../src/core/cut/cut'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { Problem } from '../src/core/problem'
import { USUAL_MIX, type Mix } from '../src/core/sound/mix'
import { circuit, score, station } from '../src/core/testing'
import { gatherEvidence } from '../src/engine/gather'
import { listenTo } from '../src/engine/listen'
import { makeProxy } from '../src/engine/proxy'
import { probeFootage, type FootageFacts } from '../src/engine/probe'
import { renderVideo } from '../src/engine/render'
import type { RenderJob } from '../src/engine/renderJob'
import { framesThatChange, probe } from './e2e/decode'

const folder = mkdtempSync(join(tmpdir(), 'jivet-engine-'))
afterAll(() => rmSync(folder, { recursive: true }))
const at = (name: string): string => join(folder, name)
const ffmpeg = (...args: string[]): void => void execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])
const picture = (size: string, rate: string, seconds = 6): string[] => [
  '-f',
  'lavfi',
  '-i',
  `color=c=gray:s=${size}:r=${rate}:d=${seconds}`,
]
const sound = (rate = 44_100, seconds = 6): string[] => ['-f', 'lavfi', '-i', `sine=f=300:r=${rate}:d=${seconds}`]

/** How loud one pitch is in a tenth of a second of a file's sound from an instant on. */
function levelAt(path: string, hz: number, fromMs: number): number {
  const rate = 48_000
  const bytes = execFileSync(
    'ffmpeg',
    [...['-v', 'error', '-i', path, '-vn', '-ac', '1', '-ar', String(rate)], ...['-f', 'f32le', 'pipe:1']],
    { maxBuffer: 1 << 28 },
  )
  const samples = new Float32Array(new Uint8Array(bytes).buffer)
  let real = 0,
    imaginary = 0
  for (let index = 0; index < rate / 10; index++) {
    const sample = samples[Math.round((fromMs * rate) / 1000) + index] ?? 0
    real += sample * Math.cos((2 * Math.PI * hz * index) / rate)
    imaginary += sample * Math.sin((2 * Math.PI * hz * index) / rate)
  }
  return Math.hypot(real, imaginary)
}

beforeAll(() => {
  ffmpeg(
    ...picture('641x361', '30000/1001'),
    ...sound(),
    '-pix_fmt',
    'yuv444p',
    '-c:v',
    'libx264',
    '-c:a',
    'aac',
    at('odd.mkv'),
  )
  ffmpeg(...picture('640x360', '25'), '-c:v', 'libx264', '-pix_fmt', 'yuv420p', at('silent.mp4'))
  ffmpeg(...picture('640x360', '25'), ...sound(), '-c:v', 'libvpx', '-c:a', 'libvorbis', at('deck.webm'))
  ffmpeg(...sound(), '-c:a', 'aac', at('onlysound.m4a'))
  ffmpeg(
    ...picture('320x240', '30', 20),
    ...sound(48_000, 20),
    '-c:v',
    'libx264',
    '-c:a',
    'aac',
    '-f',
    'mpegts',
    at('whole.ts'),
  )
  ffmpeg('-i', at('silent.mp4'), '-c', 'copy', '-metadata:s:v:0', 'rotate=90', at('turned.mp4'))
})

const problemOf = (path: string): Promise<unknown> =>
  probeFootage(path).then(
    () => 'fine',
    (error: unknown) => (error instanceof Problem ? error.code : error),
  )

describe('probing', () => {
  it('tells size as displayed, rate, streams and whether a browser plays it', async () => {
    expect(await probeFootage(at('odd.mkv'))).toMatchObject({
      width: 640,
      height: 360,
      rate: { num: 30_000, den: 1001 },
      audioRate: 44_100,
      browserPlayable: false,
      brokenEnd: false,
    })
    expect(await probeFootage(at('turned.mp4'))).toMatchObject({
      width: 360,
      height: 640,
      browserPlayable: true,
      audioCodec: null,
    })
    expect(await probeFootage(at('deck.webm'))).toMatchObject({ videoCodec: 'vp8', browserPlayable: true })
  })
  it('refuses what is no footage, each with its own sentence', async () => {
    writeFileSync(at('empty.mp4'), '')
    writeFileSync(at('note.mp4'), 'A kettle is not a video.\n'.repeat(50))
    writeFileSync(at('bytes.mp4'), Buffer.from(Array.from({ length: 9000 }, (_, index) => (index * 7919) % 251)))
    ffmpeg(...picture('64x64', '1', 1), '-frames:v', '1', at('still.png'))
    expect(await problemOf(at('empty.mp4'))).toBe('empty-file')
    expect(await problemOf(at('note.mp4'))).toBe('not-video')
    expect(await problemOf(at('bytes.mp4'))).toBe('not-video')
    expect(await problemOf(at('still.png'))).toBe('not-video')
    expect(await problemOf(at('onlysound.m4a'))).toBe('no-picture')
  })
  it('tells a broken end from a whole file', async () => {
    const cut = at('cut.mp4')
    writeFileSync(cut, readFileSync(at('silent.mp4')))
    truncateSync(cut, Math.floor(statSync(cut).size * 0.6))
    expect(await problemOf(cut)).toBe('broken-end')
    const early = at('early.mkv')
    ffmpeg('-i', at('whole.ts'), '-c', 'copy', early)
    truncateSync(early, Math.floor(statSync(early).size * 0.5))
    const facts = await probeFootage(early)
    expect(facts.brokenEnd).toBe(true)
    expect(facts.durationMs).toBeLessThan(15_000)
  })
})

describe('hearing and proxies', () => {
  it('hears from picture time 0 on, and reports a sound that cannot be decoded', async () => {
    const { soundMs, peaks } = await listenTo(at('odd.mkv'), await probeFootage(at('odd.mkv')))
    expect(Math.abs(soundMs - 6000)).toBeLessThan(60)
    expect(peaks).toHaveLength(4)
    await expect(listenTo(at('silent.mp4'), await probeFootage(at('silent.mp4')))).rejects.toMatchObject({
      code: 'tool-failed',
    })
  })
  it('gathers what a sound tells where the picture cannot be watched, and says so', async () => {
    const facts = await probeFootage(at('deck.webm'))
    const { evidence, peaks, blind } = await gatherEvidence(at('onlysound.m4a'), { ...facts, audioCodec: 'aac' })
    expect(blind?.code).toBe('tool-failed')
    expect(peaks).not.toBeNull()
    expect(evidence.filter(({ kind }) => kind === 'motion')).toEqual([])
  })
  it('watches a film without sound, and ends both readers where one is ended', async () => {
    const silent = await gatherEvidence(at('silent.mp4'), await probeFootage(at('silent.mp4')))
    expect(silent).toMatchObject({ peaks: null, deaf: null, blind: null })
    const facts = await probeFootage(at('odd.mkv'))
    const ended = new AbortController()
    const options = { signal: ended.signal, onProgress: () => ended.abort() }
    await expect(gatherEvidence(at('odd.mkv'), facts, options)).rejects.toMatchObject({ code: 'cancelled' })
  })
  it('makes a copy that browsers play, of the same length', async () => {
    await makeProxy(at('odd.mkv'), at('proxy.mp4'), await probeFootage(at('odd.mkv')))
    const facts = await probeFootage(at('proxy.mp4'))
    expect(facts.browserPlayable).toBe(true)
    expect(Math.abs(facts.durationMs - 6006)).toBeLessThan(70)
  })
  it('stops at once when cancelled', async () => {
    const halt = new AbortController()
    const work = makeProxy(at('whole.ts'), at('stopped.mp4'), await probeFootage(at('whole.ts')), {
      signal: halt.signal,
    })
    halt.abort()
    await expect(work).rejects.toMatchObject({ code: 'cancelled' })
  })
})

describe('rendering', () => {
  const { segments } = expand(
    score(
      circuit({
        leadInMs: 1000,
        workMs: 3000,
        restMs: 1500,
        stations: [station('Jug lift', { sideRule: 'alternate' })],
      }),
    ),
  )
  const filmed = (facts: FootageFacts): { cut: Cut; shown: ShownSegment[] } => {
    return followed(segments, [{ segmentId: 'main/lead', edge: 'start', footageMs: 0 }], facts.durationMs)
  }
  const filmedAt = async (name: string): Promise<Pick<RenderJob, 'reel' | 'cut' | 'shown'>> => {
    const facts = await probeFootage(at(name))
    return { reel: [{ path: at(name), facts }], ...filmed(facts) }
  }
  const render = async (name: string): Promise<string> => {
    const out = at(`${name}.out.mp4`)
    await renderVideo({ ...(await filmedAt(name)), out })
    return out
  }
  it('keeps size, rate and length of odd, turned and silent footage', async () => {
    const odd = probe(await render('odd.mkv'))
    expect(odd.video).toMatchObject({ width: 640, height: 360, rate: '30000/1001', codec: 'h264' })
    expect(Math.abs(odd.audio.durationMs - odd.video.durationMs)).toBeLessThan(34)
    const turned = probe(await render('turned.mp4'))
    expect(turned.video).toMatchObject({ width: 360, height: 640, rate: '25/1' })
    expect(turned.audio.codec).toBe('aac')
    expect(turned.video.frames).toBe(150)
  })
  it('changes the count on the first frame at or after each boundary, at 25 frames a second', async () => {
    const out = await render('silent.mp4')
    // Block of a 640x360 picture: 25 x 22 hundredths of 360, at the foot. Lead 1; 3 2 1; rest 1.5 s shows 2 then 1;
    // then nothing.
    expect(await framesThatChange(out, { x: 14, y: 284, width: 70, height: 70 }, 3)).toEqual([
      25, 50, 75, 100, 113, 138,
    ])
  })
  it('sounds footage and cues as loud as they were set in Watch, and no cue where they are switched off', async () => {
    const job = await filmedAt('deck.webm')
    const render = async (mix: Mix): Promise<{ voice: number; cue: number }> => {
      const out = at('mixed.mp4')
      await renderVideo({ ...job, mix, out })
      // The footage hums at 300 Hz, a go begins at 990 Hz when the lead-in ends.
      return { voice: levelAt(out, 300, 200), cue: levelAt(out, 990, 1020) }
    }
    const asIs: Mix = { ...USUAL_MIX, target: 'asIs', cueLu: 0 }
    const usual = await render(asIs)
    const quiet = await render({ ...asIs, voice: 0.25, cueLu: -6 })
    const off = await render({ ...asIs, cuesOn: false })
    expect(quiet.voice / usual.voice).toBeCloseTo(0.25, 1)
    expect(quiet.cue / usual.cue).toBeCloseTo(0.5, 1)
    expect(off.cue).toBeLessThan(usual.cue / 20)
    expect(off.voice / usual.voice).toBeCloseTo(1, 1)
  })
  it.each([0, 100, 300, 900])('leaves nothing behind when it is cancelled after %i ms', async (afterMs) => {
    const halt = new AbortController()
    const work = renderVideo({
      ...(await filmedAt('whole.ts')),
      out: at('halted.mp4'),
      scratch: folder,
      signal: halt.signal,
    })
    setTimeout(() => halt.abort(), afterMs)
    await expect(work).rejects.toMatchObject({ code: 'cancelled' })
    expect(execFileSync('ls', [folder]).toString()).not.toContain('jivet-render-')
  })
})
