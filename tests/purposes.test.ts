// Videos for each purpose, of footage in high dynamic range, and the overlay alone: each decoded and looked at.
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createCanvas } from '@napi-rs/canvas'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { QUICK_AAC } from '../demo/quickFilm'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { USUAL_LOOK } from '../src/core/look/looks/family'
import type { Surface } from '../src/core/look/surface'
import { drawThumbnail, TEXT_PLACES, TEXT_SIZES, thumbnailSchema } from '../src/core/look/thumbnail'
import { registerFonts } from '../src/engine/fonts'
import { PURPOSES, sizeFor } from '../src/core/render/purpose'
import { circuit, score, station } from '../src/core/testing'
import { USUAL_MIX } from '../src/core/sound/mix'
import { holdPictures } from '../src/engine/heldPictures'
import { probeFootage } from '../src/engine/probe'
import { makeProxy } from '../src/engine/proxy'
import { ChunkStore } from '../src/engine/chunkStore'
import { renderVideo } from '../src/engine/render'
import { verifyRendered } from '../src/engine/verifyRendered'
import { verifyVideo } from '../src/engine/verify'
import { FILMS } from './e2e/jivet'

const folder = mkdtempSync(join(tmpdir(), 'jivet-purposes-'))
afterAll(() => rmSync(folder, { recursive: true }))
const at = (name: string): string => join(folder, name)
const ffmpeg = (...args: string[]): Buffer => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])
const probe = (file: string, entries: string): string[] =>
  execFileSync('ffprobe', ['-v', 'error', '-show_entries', `stream=${entries}`, '-of', 'csv=p=0', at(file)])
    .toString()
    .split('\n')
    .filter(Boolean)

/** Grey, six seconds of white, and grey; tagged and encoded as HLG, in which white for text lies at 75 %. */
const GREY = 0.38,
  WHITE = 0.75
beforeAll(() => {
  ffmpeg(
    ...['-t', '23', '-i', join(FILMS, 'deck-hours.mp4'), '-vf', 'fps=15,scale=896:504'],
    ...['-c:v', 'libx264', '-preset', 'ultrafast', at('film.mp4')],
  )
  const level = (share: number): string => String(Math.round(64 + share * 876))
  for (const [name, transfer] of [
    ['hlg', 'arib-std-b67'],
    ['pq', 'smpte2084'],
  ] as const)
    ffmpeg(
      ...['-f', 'lavfi', '-i', 'color=c=black:s=320x180:r=25:d=21,format=yuv420p10le'],
      ...['-f', 'lavfi', '-i', 'sine=440:d=21'],
      ...['-vf', `geq=lum='if(between(T,6,12),${level(WHITE)},${level(GREY)})':cb=512:cr=512`],
      ...['-c:v', 'libx265', '-preset', 'ultrafast', '-x265-params', 'log-level=none', ...QUICK_AAC],
      ...['-color_primaries', 'bt2020', '-color_trc', transfer, '-colorspace', 'bt2020nc', at(`${name}.mp4`)],
    )
})

const PLAN = score(
  circuit({ leadInMs: 3000, workMs: 7000, restMs: 4000, stations: [station('Jug lift'), station('Keel hold')] }),
)
async function jobOf(film: string) {
  const { segments } = expand(PLAN)
  const facts = await probeFootage(at(film))
  const tie = { segmentId: segments[0]!.id, edge: 'start' as const, footageMs: 0 }
  return { reel: [{ path: at(film), facts }], ...followed(segments, [tie], facts.durationMs) }
}

describe('a video', () => {
  it('for each purpose has its size, and is found to be as planned', async () => {
    const bytes: Record<string, number> = {}
    const job = await jobOf('film.mp4')
    for (const purpose of PURPOSES.filter((one) => one !== 'hdr')) {
      const out = at(`${purpose}.mp4`)
      const { changes, sound } = await renderVideo({ ...job, purpose, out })
      const told = await verifyVideo(out, { cut: job.cut, look: USUAL_LOOK, mix: USUAL_MIX, changes, ...sound })
      expect(told.faults.filter(({ kind }) => kind !== 'loudness' && kind !== 'peak')).toEqual([])
      expect(told.counts.checked).toBeGreaterThan(20)
      const { width, height } = sizeFor(job.reel[0]!.facts, purpose)
      expect(probe(`${purpose}.mp4`, 'codec_name,width,height,nb_frames')[0]).toBe(`h264,${width},${height},345`)
      bytes[purpose] = statSync(out).size
    }
    expect(bytes.small).toBeLessThan(bytes.phone!)
    expect(bytes.phone).toBeLessThan(bytes.host!)
    expect(bytes.host).toBeLessThan(bytes.master!)
  })
  it('of footage in high dynamic range shows white as white and grey as grey, and says that it is BT.709', async () => {
    const job = await jobOf('hlg.mp4')
    expect(job.reel[0]!.facts).toMatchObject({ hdr: 'hlg', browserPlayable: false })
    await renderVideo({ ...job, out: at('mapped.mp4') })
    await makeProxy(at('hlg.mp4'), at('proxy.mp4'), job.reel[0]!.facts)
    for (const file of ['mapped.mp4', 'proxy.mp4']) {
      expect(probe(file, 'pix_fmt,color_space,color_transfer,color_primaries')[0]).toBe('yuv420p,bt709,bt709,bt709')
      const lumaAt = (seconds: number): number =>
        ffmpeg('-ss', String(seconds), '-i', at(file), '-frames:v', '1', '-vf', 'crop=20:20:150:20,format=gray', ...RAW)
          .subarray(0, 400)
          .reduce((sum, luma) => sum + luma / 400, 0)
      // Left as they were written they would be 97 and 191: white text in a grey room would be dull.
      const [grey, white] = [lumaAt(2), lumaAt(9)]
      console.log(`${file}: grey ${grey.toFixed(0)}, white ${white.toFixed(0)} of 255`)
      expect(Math.abs(white - 234)).toBeLessThan(4)
      expect(Math.abs(grey - 108)).toBeLessThan(4)
    }
  })
  it.each(['hlg', 'pq'] as const)('is kept in the range that it was filmed in: %s', async (hdr) => {
    const job = await jobOf(`${hdr}.mp4`)
    const out = at(`kept-${hdr}.mp4`)
    const asked = { ...job, purpose: 'hdr' as const, out }
    const store = new ChunkStore(at(`chunks-${hdr}`), 1e9)
    const rendered = await renderVideo(asked, { store })
    expect(rendered.chunks.length).toBeGreaterThan(1)
    const told = await verifyRendered(out, { cut: job.cut, look: USUAL_LOOK, mix: USUAL_MIX }, rendered, { store })
    expect(told.faults.filter(({ kind }) => !['loudness', 'peak', 'frozen'].includes(kind))).toEqual([])
    expect(told.counts.checked).toBeGreaterThan(18)
    const tags = 'codec_name,codec_tag_string,pix_fmt,color_space,color_transfer,color_primaries,nb_frames'
    const transfer = { hlg: 'arib-std-b67', pq: 'smpte2084' }[hdr]
    expect(probe(`kept-${hdr}.mp4`, tags)[0]).toBe(`hevc,hvc1,yuv420p10le,bt2020nc,${transfer},bt2020,525`)
    // What was filmed stays as bright as it was, where nothing is laid over it; text is as bright as white should be.
    const levelAt = (file: string, seconds: number, crop: string): number => {
      const picture = ['-ss', String(seconds), '-i', at(file), '-frames:v', '1', '-vf', `crop=${crop},format=gray10le`]
      const bytes = ffmpeg(...picture, ...RAW)
      return Math.max(...Array.from({ length: bytes.length / 2 }, (_, pixel) => bytes.readUInt16LE(pixel * 2)))
    }
    const film = '20:20:150:20'
    const [was, is] = [levelAt(`${hdr}.mp4`, 9, film), levelAt(`kept-${hdr}.mp4`, 9, film)]
    expect(Math.abs(was - is)).toBeLessThan(8)
    // Text where the film is darker than it.
    const text = levelAt(`kept-${hdr}.mp4`, 4, '320:60:0:120')
    console.log(`${hdr}: film ${was}, kept ${is}, text ${text} of 1023`)
    // Reference white: 58 % of PQ, 75 % of HLG (ITU-R BT.2408), in the full range that grey is told in.
    expect(Math.abs(text / 1023 - { hlg: 0.75, pq: 0.58 }[hdr])).toBeLessThan(0.04)
  })
  it('is not pretended to be in a high range that it was not filmed in', async () => {
    const job = await jobOf('film.mp4')
    await expect(renderVideo({ ...job, purpose: 'hdr', out: at('no.mp4') })).rejects.toMatchObject({ code: 'not-hdr' })
  })
  it('that is black for a while, or stands still, is said to be', async () => {
    const holds = 'gte(t,8)*lte(t,11)'
    const dead = (name: string, filter: string): Buffer =>
      ffmpeg('-i', at('film.mp4'), '-vf', `scale=448:252,${filter}`, '-c:a', 'copy', at(name))
    dead('dark.mp4', `drawbox=t=fill:c=black:enable='${holds}'`)
    dead('held.mp4', 'loop=loop=150:size=1:start=75,trim=end=23')
    const deadIn = async (film: string) => {
      const job = await jobOf(film)
      const { changes, sound } = await renderVideo({ ...job, out: at('dead.mp4') })
      const { faults } = await verifyVideo(at('dead.mp4'), {
        ...{ cut: job.cut, look: USUAL_LOOK, mix: USUAL_MIX, changes },
        ...sound,
      })
      return faults.filter(({ kind }) => kind === 'black' || kind === 'frozen')
    }
    expect(await deadIn('dark.mp4')).toMatchObject([{ kind: 'black', atMs: 8000, found: 3067 }])
    const [frozen, ...others] = await deadIn('held.mp4')
    expect([frozen?.kind, others]).toEqual(['frozen', []])
    // Something may have held still before.
    expect(frozen!.atMs).toBeLessThanOrEqual(5000)
    expect(frozen!.atMs! + frozen!.found).toBeGreaterThanOrEqual(14_900)
  })
})
const RAW = ['-f', 'rawvideo', 'pipe:1']

describe('words on a thumbnail', () => {
  it('are 8 pixels high or more where it is as small as lists show it, and never leave it', () => {
    registerFonts()
    const words = fc.oneof(
      fc.constantFrom('W'.repeat(120), 'WWWWW '.repeat(20), 'Lantern 🏮 reach', 'x'),
      fc.string({ unit: 'grapheme', maxLength: 120 }),
    )
    const sizes = [
      { width: 1280, height: 720 },
      { width: 720, height: 1280 },
      { width: 720, height: 720 },
    ]
    fc.assert(
      fc.property(
        ...([
          words,
          fc.constantFrom(...TEXT_SIZES),
          fc.constantFrom(...TEXT_PLACES),
          fc.constantFrom(...sizes),
        ] as const),
        (text, size, place, picture) => {
          // With a frame around it that has to stay as it is.
          const canvas = createCanvas(picture.width, picture.height)
          const surface = canvas.getContext('2d')
          const wish = thumbnailSchema.parse({ size, place })
          const capital = drawThumbnail(surface as unknown as Surface, picture, { ...wish, text })
          if (!text.trim()) {
            expect(capital).toBeNull()
            return
          }
          expect(capital).toBeGreaterThanOrEqual(8)
          const { data } = surface.getImageData(0, 0, picture.width, 10)
          expect(data.every((one) => one === 0)).toBe(true)
          const right = surface.getImageData(picture.width - 10, 0, 10, picture.height).data
          expect(right.every((one) => one === 0)).toBe(true)
        },
      ),
      { numRuns: 40 },
    )
  })
})

describe('the overlay alone', () => {
  const jivet = (...args: string[]) => spawnSync('bin/jivet', args, { encoding: 'utf8' })
  const plan = at('plan.score.txt')
  beforeAll(() => {
    const text = 'circuit Main: 1 round, 4 on, 3 off, lead 3, last rest dropped\n  Jug lift\n  Keel hold\n'
    writeFileSync(plan, text)
    for (const out of ['alone.mov', 'alone.webm', 'pictures', 'under.mp4']) {
      const only = out === 'under.mp4' ? [] : ['--only', 'overlay']
      const told = jivet('render', plan, ...only, '--out', at(out))
      expect([out, told.stderr, told.status]).toEqual([out, '', 0])
    }
  })
  /** Each picture as alpha and luma. */
  const decoded = (input: string[]): { alpha: Buffer; luma: Buffer }[] => {
    const filter =
      '[0:v]format=yuva420p,split[a][b];[a]alphaextract[alpha];[b]format=yuva420p,extractplanes=y[luma];[luma][alpha]vstack'
    const size = 320 * 180
    const bytes = execFileSync(
      'ffmpeg',
      [
        '-v',
        'error',
        ...input,
        '-filter_complex',
        `[0:v]scale=320:180:flags=neighbor[0s];${filter.replace('[0:v]', '[0s]')}`,
        ...RAW,
      ],
      { maxBuffer: 1e9 },
    )
    return Array.from({ length: bytes.length / (2 * size) }, (_, at) => ({
      luma: bytes.subarray(2 * at * size, (2 * at + 1) * size),
      alpha: bytes.subarray((2 * at + 1) * size, (2 * at + 2) * size),
    }))
  }
  /** How many pixels are another. */
  const unlike = (one: Buffer, other: Buffer): number => {
    let count = 0
    for (let place = 0; place < one.length; place++) if (Math.abs(one[place]! - other[place]!) > 60) count++
    return count
  }
  const INPUTS = {
    mov: ['-i', at('alone.mov')],
    webm: ['-c:v', 'libvpx-vp9', '-i', at('alone.webm')],
    pictures: ['-framerate', '30', '-i', at('pictures/overlay-%06d.png')],
  }
  let known: Record<string, ReturnType<typeof decoded>> | null = null
  const seen = () =>
    (known ??= Object.fromEntries(Object.entries(INPUTS).map(([kind, input]) => [kind, decoded(input)])))
  it('is as long as a video of the same, of its size, and is seen through where nothing stands', () => {
    const frames = 14 * 30
    expect(readdirSync(at('pictures'))).toHaveLength(frames)
    expect(probe('alone.mov', 'codec_name,profile,width,height,nb_frames')[0]).toBe(`prores,4444,1280,720,${frames}`)
    for (const all of Object.values(seen())) {
      expect(all).toHaveLength(frames)
      const { alpha } = all[100]!
      expect(alpha[20 * 320 + 160]).toBe(0)
      expect(Math.max(...alpha)).toBe(255)
    }
  })
  it('changes on the very pictures on which a video of the same does', () => {
    const changesOf = (pictures: readonly Buffer[]): number[] =>
      pictures.flatMap((one, at) => {
        const before = pictures[at - 1]
        return before && unlike(one, before) > 20 ? [at] : []
      })
    const [mov, webm, pictures] = Object.values(seen()).map((all) => changesOf(all.map(({ luma }) => luma)))
    expect(mov!.length).toBeGreaterThanOrEqual(12)
    expect(webm).toEqual(mov)
    expect(pictures).toEqual(mov)
    const gray = ['-vf', 'scale=320:180:flags=neighbor,format=yuv420p,extractplanes=y', ...RAW]
    const under = execFileSync('ffmpeg', ['-v', 'error', '-i', at('under.mp4'), ...gray], { maxBuffer: 1e9 })
    const size = 320 * 180
    const whole = Array.from({ length: under.length / size }, (_, one) => under.subarray(one * size, (one + 1) * size))
    expect(changesOf(whole)).toEqual(mov)
  })
  it('holds pictures at rates that are no whole number, in any order, for as long as they stand', async () => {
    const rate = { num: 24_000, den: 1001 }
    const steps = 'color=c=black:s=64x64:r=24000/1001,format=gray,geq=lum=40+N*60,format=yuva444p10le'
    ffmpeg(
      ...['-f', 'lavfi', '-i', steps, '-frames:v', '3', '-c:v', 'prores_ks', '-profile:v', '4444'],
      ...['-video_track_timescale', '24000', at('steps.mov')],
    )
    const shown = [2, 2, 0, 1, 1, 1, 0, ...Array<number>(200).fill(2)]
    await holdPictures(at('steps.mov'), shown, rate)
    const luma = ffmpeg('-i', at('steps.mov'), '-vf', 'scale=1:1:flags=area,format=gray', ...RAW)
    expect([...luma].map((one) => Math.round((one - 40) / 60))).toEqual(shown)
    const facts = await probeFootage(at('steps.mov'))
    expect(facts.rate).toEqual(rate)
    expect(facts.durationMs).toBeCloseTo((shown.length * 1001) / 24, 0)
    expect(probe('steps.mov', 'r_frame_rate,avg_frame_rate,nb_frames')[0]).toBe('24000/1001,24000/1001,207')
  })
  it('is found wherever it is sought, and nothing is wrong in it', () => {
    for (const kind of ['mov', 'webm'] as const) {
      const input = INPUTS[kind]
      for (const frame of [45, 240]) {
        const [found] = decoded(['-ss', String(frame / 30), '-t', '0.2', ...input])
        const { luma, alpha } = seen()[kind]![frame]!
        expect([frame, unlike(found!.luma, luma), unlike(found!.alpha, alpha)]).toEqual([frame, 0, 0])
      }
      const told = spawnSync('ffmpeg', ['-v', 'warning', '-xerror', ...input, '-f', 'null', '-'], { encoding: 'utf8' })
      expect([told.status, told.stderr]).toEqual([0, ''])
    }
  })
  it('takes no more room as a movie or as pictures than its changes do', () => {
    // A picture of it has tens of thousands of bytes.
    expect(statSync(at('alone.mov')).size).toBeLessThan(30 * 60_000)
    expect(statSync(at('alone.webm')).size).toBeLessThan(30 * 30_000)
    const inodes = new Set(readdirSync(at('pictures')).map((name) => statSync(join(at('pictures'), name)).ino))
    expect(inodes.size).toBeLessThan(30)
  })
  it('is not written over what is there, nor in a form that is not known', () => {
    const overlay = (...more: string[]) => {
      const { status, stderr } = jivet('render', plan, ...more)
      return [status, stderr.split('\n')[0]]
    }
    expect(overlay('--only', 'overlay', '--out', at('pictures'))).toEqual([
      1,
      `jivet: ${at('pictures')}: This is there already, and is not written over.`,
    ])
    expect(overlay('--only', 'overlay', '--out', at('alone.avi'))[0]).toBe(2)
    expect(overlay('--only', 'sound', '--out', at('alone.mov'))[0]).toBe(2)
    expect(overlay('--for', 'cinema', '--out', at('any.mp4'))[0]).toBe(2)
    expect(readdirSync(folder).filter((name) => name.includes('.part'))).toEqual([])
  })
})
