// Encoders in hardware. There is none where tests run, so a SIMULATED one encodes (demo/encoder); what ffmpeg's own are
// told is held against what it knows of them.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, afterEach, describe, expect, it, vi } from 'vitest'
import { companionOf } from '../src/core/cut/companion'
import { expand } from '../src/core/expand/expand'
import { USUAL_LOOK } from '../src/core/look/looks/family'
import { USUAL_MIX } from '../src/core/sound/mix'
import { circuit, score, station } from '../src/core/testing'
import { ChunkStore } from '../src/engine/chunkStore'
import { encodersFor, IN_HARDWARE } from '../src/engine/encoding'
import { isTrusted } from '../src/engine/hardware'
import { chunkKeys, picturePlan } from '../src/engine/picturePlan'
import { renderVideo } from '../src/engine/render'
import { verifyRendered } from '../src/engine/verifyRendered'

const REAL_PATH = process.env.PATH ?? ''

/** What is found here from now on. */
function simulate(encoder: string, fault = ''): void {
  // A tool is given no more of the environment than its paths: what is simulated stands in the tool's own place.
  const place = mkdtempSync(join(tmpdir(), 'jivet-encoder-'))
  places.push(place)
  const set = `SIMULATED_ENCODER='${encoder}' SIMULATED_FAULT='${fault}'`
  const script = `#!/bin/sh\n${set} exec '${resolve('demo/encoder/ffmpeg')}' "$@"\n`
  writeFileSync(join(place, 'ffmpeg'), script, { mode: 0o755 })
  vi.stubEnv('PATH', `${place}:${REAL_PATH}`)
}
const places: string[] = []
afterAll(() => places.forEach((place) => rmSync(place, { recursive: true })))

/** As a process does that has just begun. */
const anew = () => {
  vi.resetModules()
  return import('../src/engine/hardware')
}
const encoderHere = async () => (await anew()).encoderHere()

afterEach(() => {
  vi.unstubAllEnvs()
})

describe('An encoder in hardware', () => {
  it.each(IN_HARDWARE)('is told only what ffmpeg knows of it: %s', (encoder) => {
    const told = execFileSync('ffmpeg', ['-hide_banner', '-h', `encoder=${encoder}`], { encoding: 'utf8' })
    const { picture } = encodersFor('host', encoder)
    // These are of every encoder.
    const common = new Set(['-c:v', '-b:v', '-bf', '-profile:v', '-pix_fmt'])
    for (const [at, option] of picture.entries()) {
      if (!option.startsWith('-') || common.has(option)) continue
      expect(told).toMatch(new RegExp(`^ +${option} +<`, 'm'))
      if (/^[a-z]/i.test(picture[at + 1]!)) expect(told).toMatch(new RegExp(`^ +${picture[at + 1]} +\\d`, 'm'))
    }
  })

  it('is looked for only where it is asked for, and the first that does as it should encodes', async () => {
    simulate('h264_vaapi')
    expect(await encoderHere()).toBeUndefined()
    vi.stubEnv('JIVET_ENCODER', 'hardware')
    expect(await encoderHere()).toBe('h264_vaapi')
    simulate('h264_nvenc')
    expect(await encoderHere()).toBe('h264_nvenc')
    simulate('none')
    expect(await encoderHere()).toBeUndefined()
  })

  it.each(['coarse', 'ungrouped'])('is not trusted where what it makes is %s', async (fault) => {
    simulate('h264_nvenc', fault)
    expect(await isTrusted('h264_nvenc')).toBe(false)
  })

  it('leaves to the processor what has to be as good as can be, or has more than 8 bits', async () => {
    for (const purpose of ['master', 'hdr'] as const)
      expect(encodersFor(purpose, 'h264_nvenc')).toEqual(encodersFor(purpose))
    simulate('h264_nvenc')
    vi.stubEnv('JIVET_ENCODER', 'hardware')
    const { encoderFor } = await anew()
    expect(await encoderFor('draft')).toBe('h264_nvenc')
    // So nobody is told that it was hardware.
    expect(await encoderFor('master')).toBeUndefined()
  })

  it.each(IN_HARDWARE)(
    'renders in parts that fit and are found right, kept under keys of their own: %s',
    async (encoder) => {
      simulate(encoder)
      const folder = mkdtempSync(join(tmpdir(), 'jivet-hardware-'))
      try {
        const plan = score(
          circuit({ workMs: 6000, restMs: 6000, stations: [station('Jug lift'), station('Keel hold')] }),
        )
        const drawn = { reel: [], ...companionOf(expand(plan).segments), look: USUAL_LOOK, viewing: plan }
        const job = { ...drawn, purpose: 'draft' as const, encoder }
        const store = new ChunkStore(join(folder, 'chunks'), 1e9)
        const out = join(folder, 'out.mp4')
        const rendered = await renderVideo({ ...job, out }, { store })
        expect(rendered.chunks.length).toBeGreaterThan(1)
        const about = { cut: job.cut, look: USUAL_LOOK, mix: USUAL_MIX }
        expect((await verifyRendered(out, about, rendered, { store })).faults).toEqual([])
        const usual = { ...drawn, purpose: 'draft' as const }
        const keys = await chunkKeys(usual, picturePlan(usual))
        for (const key of rendered.keys!.chunks) expect(keys).not.toContain(key)
      } finally {
        rmSync(folder, { recursive: true })
      }
    },
  )
})
