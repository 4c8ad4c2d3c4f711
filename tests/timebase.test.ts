// One instant 0 of a footage for probe, hearing, proxy and render, whatever its container says of the starts of its
// streams: films with a flash and a tone at one instant, judged by decoding what comes out.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { followed } from '../src/core/cut/follow'
import { ofKind } from '../src/core/evidence'
import { expand } from '../src/core/expand/expand'
import { circuit, score } from '../src/core/testing'
import { listenTo } from '../src/engine/listen'
import { makeProxy } from '../src/engine/proxy'
import { probeFootage } from '../src/engine/probe'
import { renderVideo } from '../src/engine/render'
import { framesThatChange } from './e2e/decode'
import { alsoEvery } from './every'
import { USUAL_MIX } from '../src/core/sound/mix'

const folder = mkdtempSync(join(tmpdir(), 'jivet-timebase-'))
afterAll(() => rmSync(folder, { recursive: true }))
const at = (name: string): string => join(folder, name)
const ffmpeg = (...args: string[]): void => void execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])

/** Flash and tone come so long after the earlier of picture and sound begins. */
const TOGETHER_MS = 2500
const LATE_S = 0.5
const LENGTH_S = 5

/** A picture that is white for 0.2 s, and a sound with a tone of 0.3 s, each from its own `atS` on. */
function makeStreams(kind: 'mp4' | 'webm', atS: number, offset: string): void {
  const white = `between(t,${atS},${(atS + 0.2).toFixed(3)})`
  const [video, audio] =
    kind === 'mp4' ? [['libx264', '-pix_fmt', 'yuv420p'], ['aac']] : [['libvpx', '-pix_fmt', 'yuv420p'], ['libopus']]
  const picture = `color=c=gray:s=320x180:r=25:d=${LENGTH_S},drawbox=c=white:t=fill:enable='${white}'`
  ffmpeg('-f', 'lavfi', '-i', picture, '-c:v', ...video!, at(`only-picture-${offset}.${kind}`))
  const tone = `aevalsrc='if(between(t,${atS},${(atS + 0.3).toFixed(3)}),0.5*sin(2*PI*1500*t),0)':s=48000:d=${LENGTH_S}`
  ffmpeg('-f', 'lavfi', '-i', tone, '-c:a', ...audio!, at(`only-sound-${offset}.${kind}`))
}

const FILMS = [
  ['together.mp4', 'mp4', 0, 0],
  ['picture-late.mp4', 'mp4', LATE_S, 0],
  ['sound-late.mp4', 'mp4', 0, LATE_S],
  ...alsoEvery(['picture-late.mov', 'mp4', LATE_S, 0], ['sound-late.mov', 'mp4', 0, LATE_S]),
  ['picture-late.mkv', 'mp4', LATE_S, 0],
  ['sound-late.mkv', 'mp4', 0, LATE_S],
  ['picture-late.webm', 'webm', LATE_S, 0],
  ['sound-late.webm', 'webm', 0, LATE_S],
] as const

beforeAll(() => {
  for (const kind of ['mp4', 'webm'] as const) {
    makeStreams(kind, TOGETHER_MS / 1000, 'on')
    makeStreams(kind, TOGETHER_MS / 1000 - LATE_S, 'late')
  }
  for (const [name, kind, pictureS, soundS] of FILMS)
    ffmpeg(
      ...['-itsoffset', String(pictureS), '-i', at(`only-picture-${pictureS ? 'late' : 'on'}.${kind}`)],
      ...['-itsoffset', String(soundS), '-i', at(`only-sound-${soundS ? 'late' : 'on'}.${kind}`)],
      ...['-map', '0:v', '-map', '1:a', '-c', 'copy', at(name)],
    )
  // Frames that come when they please, with a picture that begins late.
  ffmpeg(
    ...['-i', at('picture-late.mkv'), '-vf', "select='not(mod(n,3))+between(n,45,60)'", '-fps_mode', 'vfr'],
    ...['-c:v', 'libx264', '-c:a', 'copy', at('irregular.mkv')],
  )
  // A container whose times do not begin at 0 at all.
  ffmpeg('-i', at('picture-late.mp4'), '-c', 'copy', '-output_ts_offset', '7.3', at('shifted.ts'))
})

/** When the picture turns white, in the video's own time, by its brightness frame by frame. */
function flashMs(path: string): number {
  const text = execFileSync('ffprobe', [
    ...['-v', 'error', '-f', 'lavfi', '-i', `movie=${path},crop=iw:ih/2:0:0,signalstats`],
    ...['-show_entries', 'frame=pts_time:frame_tags=lavfi.signalstats.YAVG', '-of', 'csv=p=0'],
  ]).toString()
  const first = text.split('\n').find((line) => Number(line.split(',')[1]) > 180)
  return Number(first?.split(',')[0]) * 1000
}

/** When the tone begins, in the video's own time. */
function toneMs(path: string): number {
  const filter = 'asetpts=PTS-STARTPTS,bandpass=f=1500:w=300'
  const bytes = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', path, '-vn', '-af', filter, '-ac', '1', '-ar', '48000', '-f', 'f32le', 'pipe:1'],
    { maxBuffer: 1 << 28 },
  )
  const samples = new Float32Array(new Uint8Array(bytes).buffer)
  return (samples.findIndex((sample) => Math.abs(sample) > 0.1) / 48_000) * 1000
}

describe.each([...FILMS.map(([name]) => name), 'irregular.mkv', 'shifted.ts'])('%s', (name) => {
  it('has flash and tone at one instant for whoever reads it', async () => {
    const path = at(name)
    const facts = await probeFootage(path)
    const { evidence } = await listenTo(path, facts)
    const [beep] = ofKind(evidence, 'beep')
    // Some containers take the 21 ms that prime a sound's decoder for sound; both streams then begin so much earlier.
    const heardMs = beep?.atMs ?? 0
    expect(Math.abs(heardMs - TOGETHER_MS), 'heard').toBeLessThan(25)

    await makeProxy(path, at('proxy.mp4'), facts)
    expect(Math.abs(flashMs(at('proxy.mp4')) - heardMs), 'flash of the proxy').toBeLessThanOrEqual(41)
    expect(Math.abs(toneMs(at('proxy.mp4')) - heardMs), 'tone of the proxy').toBeLessThan(25)

    const { segments } = expand(score(circuit({ workMs: 3000, restMs: 1000 })))
    const film = followed(segments, [{ segmentId: segments[0]!.id, edge: 'start', footageMs: 0 }], facts.durationMs)
    const mix = { ...USUAL_MIX, cuesOn: false, target: 'asIs' } as const
    await renderVideo({ reel: [{ path, facts }], ...film, mix, out: at('out.mp4') })
    expect(Math.abs(flashMs(at('out.mp4')) - heardMs), 'flash of the render').toBeLessThanOrEqual(41)
    expect(Math.abs(toneMs(at('out.mp4')) - heardMs), 'tone of the render').toBeLessThan(25)
  })
})

it('is played as it is only where every reader agrees on it', async () => {
  expect((await probeFootage(at('together.mp4'))).browserPlayable).toBe(true)
  for (const name of ['picture-late.mp4', 'sound-late.mp4', 'picture-late.webm', 'sound-late.webm'])
    expect((await probeFootage(at(name))).browserPlayable, name).toBe(false)
  expect(await probeFootage(at('picture-late.mp4'))).toMatchObject({ pictureFromMs: 500, soundFromMs: 0 })
})

it('holds the first picture until the others come, and the count goes on over it', async () => {
  const facts = await probeFootage(at('picture-late.mp4'))
  const { segments } = expand(score(circuit({ workMs: 1200, restMs: 800 })))
  const film = followed(segments, [{ segmentId: segments[0]!.id, edge: 'start', footageMs: 0 }], facts.durationMs)
  await renderVideo({ reel: [{ path: at('picture-late.mp4'), facts }], ...film, out: at('held.mp4') })
  // 2 seconds left turn to 1 at 0.2 s, while nothing was filmed yet: on the sixth picture of 25 a second.
  const changes = await framesThatChange(at('held.mp4'), { x: 8, y: 142, width: 34, height: 34 }, 3)
  expect(changes[0]).toBe(5)
})
