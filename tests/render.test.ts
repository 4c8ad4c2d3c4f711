// Videos in chunks: equal to what one pass gives, made again only where something else is shown, and kept as they come.
import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { QUICK_AAC } from '../demo/quickFilm'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { USUAL_LOOK } from '../src/core/look/looks/family'
import { USUAL_MIX } from '../src/core/sound/mix'
import { circuit, score, station } from '../src/core/testing'
import { ChunkStore } from '../src/engine/chunkStore'
import { probeFootage } from '../src/engine/probe'
import { renderVideo, type Chunked } from '../src/engine/render'
import type { RenderJob } from '../src/engine/renderJob'
import { chunkKeys, picturePlan } from '../src/engine/picturePlan'
import { renderRow } from '../src/engine/renderRow'
import { lookThrough } from '../src/engine/verify'
import { probe } from './e2e/decode'
import { FILMS } from './e2e/jivet'

const folder = mkdtempSync(join(tmpdir(), 'jivet-render-'))
afterAll(() => rmSync(folder, { recursive: true }))
const at = (name: string): string => join(folder, name)

beforeAll(() => {
  for (const [name, rate] of [
    ['thirty.mp4', '30'],
    ['film.mp4', '24000/1001'],
  ])
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-y', '-t', '62', '-i', join(FILMS, 'deck-hours.mp4')],
      ...['-vf', `scale=640:360,fps=${rate}`, '-c:v', 'libx264', '-preset', 'veryfast', '-crf', '16'],
      ...[...QUICK_AAC, at(name!)],
    ])
}, 600_000)

async function jobOf(film: string, labels: readonly string[], out: string): Promise<RenderJob> {
  const { segments } = expand(
    score(circuit({ leadInMs: 5000, workMs: 12_000, restMs: 6_000, stations: labels.map((label) => station(label)) })),
  )
  const facts = await probeFootage(at(film))
  const tie = { segmentId: segments[0]!.id, edge: 'start' as const, footageMs: 0 }
  return { reel: [{ path: at(film), facts }], ...followed(segments, [tie], facts.durationMs), out: at(out) }
}
const LABELS = ['Jug lift', 'Keel hold', 'Boom row']

/** When each picture is shown, in ticks of the stream, in order. */
const timesOf = (file: string): number[] =>
  execFileSync('ffprobe', [
    '-v',
    'error',
    '-select_streams',
    'v',
    '-show_entries',
    'packet=pts',
    '-of',
    'csv=p=0',
    file,
  ])
    .toString()
    .split('\n')
    .map(parseFloat)
    .filter(Number.isFinite)
    .sort((one, other) => one - other)

/** The least likeness of any two pictures of the same number, as signal to noise in dB. */
function leastPsnr(one: string, other: string): number {
  const stats = at('psnr.txt')
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-i', one, '-i', other],
    ...['-lavfi', `[0:v]settb=1/1000,setpts=N[a];[1:v]settb=1/1000,setpts=N[b];[a][b]psnr=stats_file=${stats}`],
    ...['-f', 'null', '-'],
  ])
  const all = [...readFileSync(stats, 'utf8').matchAll(/psnr_avg:(inf|[\d.]+)/g)].map(([, told]) =>
    told === 'inf' ? 100 : Number(told),
  )
  return Math.min(...all)
}

describe.each(['thirty.mp4', 'film.mp4'])('a video of %s in chunks', (film) => {
  let made: Awaited<ReturnType<typeof renderVideo>>
  const store = new ChunkStore(at(`chunks of ${film}`), 1e9)

  it('is the same picture by picture as in one pass, without one too many or too few at a joint', async () => {
    await renderVideo(await jobOf(film, LABELS, 'whole.mp4'))
    const job = await jobOf(film, LABELS, 'parts.mp4')
    // Each by itself, as if each were another machine's.
    const plan = picturePlan(job)
    const rendered = at('apart')
    const chunked: Chunked = {
      store,
      renderRows: async (rows) => {
        mkdirSync(rendered, { recursive: true })
        const keys = await chunkKeys(job, plan)
        for (const chunk of rows.flat())
          await renderRow(job, plan, [plan.chunks.find(({ first }) => first === chunk.first)!], {
            ...{ folder: rendered, signal: new AbortController().signal },
            onChunk: (own, path) => store.keep(keys[plan.chunks.indexOf(own)]!, path),
          })
      },
    }
    made = await renderVideo(job, chunked)
    expect(made.made).toBe(made.chunks.length)
    expect(made.chunks.length).toBeGreaterThan(6)
    const [whole, parts] = [probe(at('whole.mp4')), probe(at('parts.mp4'))]
    expect(parts.video).toEqual(whole.video)
    expect(parts.audio).toEqual(whole.audio)
    expect(Math.abs(parts.audio.durationMs - job.cut.outMs)).toBeLessThan(1)
    // Each change of the count on its very picture, the last ones among them, after which nothing is shown.
    const expected = { cut: job.cut, changes: made.changes, look: USUAL_LOOK, ...made.sound, mix: USUAL_MIX }
    const { turns } = await lookThrough(at('parts.mp4'), expected, {})
    expect(turns.length).toBeGreaterThan(40)
    expect(turns.filter(({ off }) => off !== 0)).toEqual([])
    const times = timesOf(at('parts.mp4'))
    expect(times[0]).toBe(0)
    const steps = new Set(times.slice(1).map((time, index) => time - times[index]!))
    expect([...steps]).toHaveLength(1)
    const least = leastPsnr(at('whole.mp4'), at('parts.mp4'))
    console.log(`${film}: the least like picture ${least} dB`)
    expect(least).toBeGreaterThanOrEqual(45)
  })
  it('is joined from what is there when it is asked for again, and has only what shows another word made again', async () => {
    const again = await renderVideo(await jobOf(film, LABELS, 'again.mp4'), { store })
    expect(again.made).toBe(0)
    const hashOf = (file: string): string =>
      execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-map', '0', '-c', 'copy', '-f', 'md5', '-']).toString()
    expect(hashOf(at('again.mp4'))).toBe(hashOf(at('parts.mp4')))
    const other = await renderVideo(await jobOf(film, ['Jug lift', 'Keel hold', 'Mast lean'], 'other.mp4'), { store })
    expect(other.made).toBeGreaterThan(0)
    expect(other.made).toBeLessThan(made.chunks.length / 2)
    expect(other.keys!.sound).toBe(made.keys!.sound)
  })
})

describe('what is kept', () => {
  it('is each chunk that was finished before a render was broken off', async () => {
    const store = new ChunkStore(at('broken off'), 1e9)
    const halt = new AbortController()
    const job = { ...(await jobOf('thirty.mp4', LABELS, 'broken.mp4')), signal: halt.signal }
    let kept = 0
    const keep = store.keep.bind(store)
    store.keep = async (key, path) => {
      await keep(key, path)
      if (++kept === 3) halt.abort()
    }
    await expect(renderVideo(job, { store })).rejects.toMatchObject({ code: 'cancelled' })
    const { made, chunks } = await renderVideo(await jobOf('thirty.mp4', LABELS, 'broken.mp4'), { store })
    expect(made).toBeLessThanOrEqual(chunks.length - 2)
    expect(probe(at('broken.mp4')).video.frames).toBe(chunks.reduce((total, { frames }) => total + frames, 0))
  })
  it('goes beyond its limit, the longest unused first, but never within an hour', async () => {
    const store = new ChunkStore(at('limited'), 2500)
    writeFileSync(at('part'), Buffer.alloc(1000))
    for (const key of ['one', 'two', 'three', 'four']) await store.keep(key, at('part'))
    expect(await store.sweep()).toBe(0)
    expect(await store.take('one', at('taken'))).toBe(true)
    expect(await store.take('none', at('none'))).toBe(false)
    const later = Date.now() + 3 * 3_600_000
    expect(await store.sweep(later)).toBe(2000)
    expect(readdirSync(at('limited')).sort()).toHaveLength(2)
    expect(readFileSync(at('taken'))).toHaveLength(1000)
  })
})
