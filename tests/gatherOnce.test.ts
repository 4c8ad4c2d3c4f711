// What was gathered from a file is kept by its contents: found again at once, not for another file nor when damaged.
import { execFileSync } from 'node:child_process'
import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { QUICK_AAC } from '../demo/quickFilm'
import { contentHash } from '../src/engine/contentHash'
import { gatherOnce } from '../src/engine/gatherOnce'
import { probeFootage } from '../src/engine/probe'
import type { Gathered } from '../src/engine/gather'

const folder = mkdtempSync(join(tmpdir(), 'jivet-once-'))
const film = join(folder, 'film.mp4')
const before = process.env.XDG_CACHE_HOME
const tone = (path: string, hz: number): void => {
  const picture = ['-f', 'lavfi', '-i', 'color=c=gray:s=64x36:r=5:d=8']
  const sound = ['-f', 'lavfi', '-i', `aevalsrc='0.3*sin(2*PI*${hz}*t)*lt(mod(t,3),0.3)':s=16000:d=8`]
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...picture, ...sound, '-c:v', 'libx264', ...QUICK_AAC, path])
}
beforeAll(() => {
  process.env.XDG_CACHE_HOME = folder
  tone(film, 1500)
})
afterAll(() => {
  if (before === undefined) delete process.env.XDG_CACHE_HOME
  else process.env.XDG_CACHE_HOME = before
  rmSync(folder, { recursive: true, force: true })
})

/** With how many steps of progress it came: what is known comes in one. */
async function gather(path: string): Promise<{ gathered: Gathered; steps: number }> {
  let steps = 0
  const file = { path, hash: await contentHash(path) }
  const gathered = await gatherOnce(file, await probeFootage(path), { onProgress: () => steps++ })
  return { gathered, steps }
}
const kept = (): string[] =>
  readdirSync(join(folder, 'jivet')).flatMap((name) =>
    readdirSync(join(folder, 'jivet', name)).map((file) => join(folder, 'jivet', name, file)),
  )

it('is gathered once for one content, whatever the file is called', async () => {
  const first = await gather(film)
  expect(first.steps).toBeGreaterThan(1)
  expect(first.gathered.evidence.some(({ kind }) => kind === 'beep')).toBe(true)
  copyFileSync(film, join(folder, 'renamed.mp4'))
  const second = await gather(join(folder, 'renamed.mp4'))
  expect(second.steps).toBe(1)
  expect(second.gathered).toEqual(first.gathered)
})

it('is gathered for every other content', async () => {
  tone(join(folder, 'other.mp4'), 1900)
  const { gathered, steps } = await gather(join(folder, 'other.mp4'))
  expect(steps).toBeGreaterThan(1)
  expect(gathered.evidence.find(({ kind }) => kind === 'beep')).toMatchObject({
    hz: expect.closeTo(1900, -2) as number,
  })
  expect(kept()).toHaveLength(2)
})

it('is gathered anew where what was kept is damaged', async () => {
  for (const file of kept()) writeFileSync(file, readFileSync(file, 'utf8').slice(0, 99))
  const { steps } = await gather(film)
  expect(steps).toBeGreaterThan(1)
  expect((await gather(film)).steps).toBe(1)
})
