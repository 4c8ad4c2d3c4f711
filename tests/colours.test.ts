// Colours, as players make them of what is rendered: those that were filmed, however they were written, and those that
// are drawn.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { USUAL_LOOK } from '../src/core/look/looks/family'
import { OVERLAY } from '../src/core/look/palette'
import { thumbnailSchema } from '../src/core/look/thumbnail'
import type { Purpose } from '../src/core/render/purpose'
import { USUAL_MIX } from '../src/core/sound/mix'
import { circuit, score, station } from '../src/core/testing'
import { probeFootage } from '../src/engine/probe'
import { makeProxy } from '../src/engine/proxy'
import { renderVideo } from '../src/engine/render'
import { thumbnailOf } from '../src/engine/thumbnail'
import { verifyVideo } from '../src/engine/verify'
import { alsoEvery } from './every'

const folder = mkdtempSync(join(tmpdir(), 'jivet-colours-'))
afterAll(() => rmSync(folder, { recursive: true }))
const at = (name: string): string => join(folder, name)
const ffmpeg = (...args: string[]): Buffer => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])

type Colour = readonly number[]
const colourOf = (hex: string): Colour => [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16))
const FILMED = '#30c050'
const HD = '1280x720',
  SD = '640x360'

/** A film of one colour, 8 s, whose properties say no more than `said`. */
interface Written {
  size: string
  matrix: string
  range?: 'tv' | 'pc'
  format?: string
  said?: string[]
}
const said = (space: string): string[] => ['-colorspace', space, '-color_primaries', space, '-color_trc', space]
const FULL = ['-color_range', 'pc']
const FILMS = {
  'tagged as television of today': { size: HD, matrix: 'bt709', said: said('bt709') },
  'large, of which nothing is said': { size: HD, matrix: 'bt709' },
  'small, of which nothing is said': { size: SD, matrix: 'bt601' },
  'large, tagged as television of old': { size: HD, matrix: 'bt601', said: said('smpte170m') },
  'in full range': { size: HD, matrix: 'bt709', range: 'pc', format: 'yuvj420p', said: [...said('bt709'), ...FULL] },
  'with 10 bits': { size: HD, matrix: 'bt709', format: 'yuv420p10le', said: said('bt709') },
  'in red, green and blue': { size: HD, matrix: 'bt709', format: 'rgb24' },
} satisfies Record<string, Written>

function film(name: string, { size, matrix, range = 'tv', format = 'yuv420p', said = [] }: Written): string {
  const written = format === 'rgb24' ? [] : ['-vf', `scale=out_color_matrix=${matrix}:out_range=${range}`]
  ffmpeg(
    ...['-f', 'lavfi', '-i', `color=c=${FILMED.replace('#', '0x')}:s=${size}:r=5:d=8,format=gbrp`, ...written],
    ...['-pix_fmt', format, '-c:v', format === 'rgb24' ? 'libx264rgb' : 'libx264'],
    ...['-preset', 'ultrafast', '-crf', '8', ...said, at(name)],
  )
  return at(name)
}

/** A place of a video, as a player shows it that goes by what it says, and else by its size. */
function seen(video: string, seconds: number, x: number, y: number): Colour {
  const asked = ['-v', 'error', '-show_entries', 'stream=height,color_space', '-of', 'json', video]
  type Told = { streams: [{ height: number; color_space?: string }] }
  const told = JSON.parse(execFileSync('ffprobe', asked).toString()) as Told
  const { height, color_space: space = '' } = told.streams[0]
  const matrix = { bt709: 'bt709', smpte170m: 'bt601' }[space] ?? (height > 576 ? 'bt709' : 'bt601')
  const filter = `crop=4:4:iw*${x}:ih*${y}:exact=1,scale=in_color_matrix=${matrix},format=rgb24`
  const bytes = ffmpeg('-ss', String(seconds), '-i', video, '-frames:v', '1', '-vf', filter, '-f', 'rawvideo', '-')
  return [...bytes.subarray(0, 3)]
}
const isLike = (found: Colour, hex: string): void => {
  const off = colourOf(hex).map((one, part) => Math.abs(one - (found[part] ?? NaN)))
  expect(Math.max(...off), `${found.join(',')} for ${colourOf(hex).join(',')}`).toBeLessThanOrEqual(6)
}

const { segments } = expand(
  score(circuit({ rounds: 1, leadInMs: 1000, workMs: 6000, stations: [station('Jug lift')] })),
)
async function rendered(films: string[], purpose: Purpose, out: string) {
  const reel = await Promise.all(films.map(async (path) => ({ path, facts: await probeFootage(path) })))
  const tie = { segmentId: segments[0]!.id, edge: 'start' as const, footageMs: 0 }
  const lengthMs = reel.reduce((sum, { facts }) => sum + facts.durationMs, 0)
  const job = { reel, ...followed(segments, [tie], lengthMs) }
  const { changes, sound } = await renderVideo({ ...job, purpose, out })
  const found = await verifyVideo(out, { cut: job.cut, look: USUAL_LOOK, mix: USUAL_MIX, changes, ...sound })
  expect(found.faults.filter(({ kind }) => kind === 'count' || kind === 'picture')).toEqual([])
  expect(found.counts.checked).toBeGreaterThan(4)
  return job
}

const SHOWN: (keyof typeof FILMS)[] = [
  'large, tagged as television of old',
  'in full range',
  ...alsoEvery('tagged as television of today', 'large, of which nothing is said', 'small, of which nothing is said'),
  ...alsoEvery('with 10 bits', 'in red, green and blue'),
]
it.each(SHOWN)('are right in a video, its proxy and its thumbnail of footage %s', async (name) => {
  const path = film('film.mp4', FILMS[name])
  const job = await rendered([path], 'host', at('video.mp4'))
  isLike(seen(at('video.mp4'), 4, 0.9, 0.1), FILMED)
  isLike(seen(at('video.mp4'), 4, 0.06, 0.79), OVERLAY.land)
  await makeProxy(path, at('proxy.mp4'), job.reel[0]!.facts)
  isLike(seen(at('proxy.mp4'), 4, 0.9, 0.1), FILMED)
  const wish = { ...thumbnailSchema.parse({ atMs: 4000 }), text: '' }
  const picture = await loadImage(Buffer.from(await thumbnailOf(job, wish, AbortSignal.timeout(60_000))))
  const surface = createCanvas(picture.width, picture.height).getContext('2d')
  surface.drawImage(picture, 0, 0)
  isLike([...surface.getImageData(picture.width * 0.9, 20, 1, 1).data].slice(0, 3), FILMED)
})

it('stay as they are where a video becomes so small that players would take them for others', async () => {
  await rendered([film('film.mp4', FILMS['large, of which nothing is said'])], 'small', at('small.mp4'))
  isLike(seen(at('small.mp4'), 4, 0.9, 0.1), FILMED)
  isLike(seen(at('small.mp4'), 4, 0.06, 0.79), OVERLAY.land)
})

it('are right in each of several files that are written otherwise', async () => {
  const films = [
    film('one.mp4', FILMS['tagged as television of today']),
    film('two.mp4', FILMS['large, tagged as television of old']),
    film('three.mp4', FILMS['small, of which nothing is said']),
  ]
  await rendered(films, 'host', at('several.mp4'))
  for (const seconds of [4, 12, 20]) isLike(seen(at('several.mp4'), seconds, 0.9, 0.1), FILMED)
})
