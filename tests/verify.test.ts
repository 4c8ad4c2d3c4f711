// A rendered video is decoded and checked: a right one passes, and each way of being wrong is found and named.
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Verified } from '../src/core/proof/verify'

const folder = mkdtempSync(join(tmpdir(), 'jivet-verify-'))
afterAll(() => rmSync(folder, { recursive: true }))
const at = (name: string): string => join(folder, name)
const ffmpeg = (...args: string[]): void => void execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])
const jivet = (...args: string[]) => spawnSync('bin/jivet', args, { encoding: 'utf8' })

const PLAN =
  'circuit Main: 1 round, 8 on, 4 off, lead 3, last rest dropped\n  Jug lift (sides alternate)\n  Keel hold\n'
beforeAll(() => {
  writeFileSync(at('plan.score.txt'), PLAN)
  expect(jivet('render', at('plan.score.txt'), '--out', at('right.mp4')).status).toBe(0)
})
const verified = (video: string, plan = 'plan.score.txt', ...more: string[]): Verified & { status: number | null } => {
  const { stdout, status } = jivet('verify', at(video), at(plan), '--json', ...more)
  return { ...(JSON.parse(stdout) as Verified), status }
}
const kinds = ({ faults }: Verified): string[] => [...new Set(faults.map(({ kind }) => kind))]

it('finds nothing wrong with a video that is right', () => {
  const told = verified('right.mp4')
  expect(told).toMatchObject({ ok: true, status: 0, faults: [], counts: { worstFrames: 0 } })
  // Every second of 3+8+4+8, and every tone but those at the very edges.
  expect(told.counts.checked).toBe(23)
  expect(told.cues.checked).toBeGreaterThan(10)
  expect(told.cues.worstMs).toBeLessThanOrEqual(1)
  expect(Math.abs((told.loudness.lufs ?? 0) + 14)).toBeLessThanOrEqual(0.5)
})
it('finds sound that is late, and how late', () => {
  ffmpeg(
    '-i',
    at('right.mp4'),
    '-itsoffset',
    '0.04',
    '-i',
    at('right.mp4'),
    '-map',
    '0:v',
    '-map',
    '1:a',
    '-c:v',
    'copy',
    '-af',
    'aresample=async=1:first_pts=0',
    at('late.mp4'),
  )
  const told = verified('late.mp4')
  expect(told.status).toBe(1)
  expect(kinds(told)).toContain('cue')
  expect(told.faults.filter(({ kind }) => kind === 'cue').every(({ found }) => Math.abs(found - 40) <= 2)).toBe(true)
})
it('finds a picture that is late', () => {
  ffmpeg('-i', at('right.mp4'), '-vf', 'tpad=start=4:start_mode=clone', '-c:a', 'copy', at('behind.mp4'))
  const told = verified('behind.mp4')
  expect(told.faults.filter(({ kind }) => kind === 'count').every(({ found }) => found === 4 || found === 6)).toBe(true)
  expect(kinds(told)).toContain('count')
})
it('finds that it is of another plan, or of another look', () => {
  writeFileSync(at('other.score.txt'), PLAN.replace('8 on', '9 on'))
  expect(kinds(verified('right.mp4', 'other.score.txt'))).toEqual(expect.arrayContaining(['length', 'count']))
  expect(verified('right.mp4', 'plan.score.txt', '--look', 'slate').ok).toBe(false)
})
it('is told by the video with which look it was made, in which shape and for what, and by the plan alone without', () => {
  const other = ['--look', 'slate', '--shape', 'upright', '--for', 'phone']
  expect(jivet('render', at('plan.score.txt'), '--out', at('slate.mp4'), ...other).status).toBe(0)
  expect(verified('slate.mp4')).toMatchObject({ ok: true, faults: [] })
  ffmpeg('-i', at('slate.mp4'), '-c', 'copy', at('bare.mp4'))
  expect(verified('bare.mp4').ok).toBe(false)
  expect(verified('bare.mp4', 'plan.score.txt', '--look', 'slate').ok).toBe(true)
  // Another reader goes over all of it, to its last byte.
  ffmpeg('-xerror', '-err_detect', 'explode', '-i', at('slate.mp4'), '-f', 'null', '-')
})
it('finds tones that are not there, and a level that is wrong', () => {
  ffmpeg('-i', at('right.mp4'), '-c:v', 'copy', '-af', 'volume=0:enable=between(t\\,10\\,17)', at('hushed.mp4'))
  const hushed = verified('hushed.mp4')
  expect(
    hushed.faults.filter(({ kind }) => kind === 'unheard').every(({ atMs }) => atMs! > 9900 && atMs! < 17_100),
  ).toBe(true)
  expect(kinds(hushed)).toContain('unheard')
  ffmpeg('-i', at('right.mp4'), '-c:v', 'copy', '-af', 'volume=-6dB', at('quiet.mp4'))
  expect(kinds(verified('quiet.mp4'))).toEqual(['loudness'])
})
it('says what is wrong with the call or the file, in one line', () => {
  writeFileSync(at('no.mp4'), 'no video')
  for (const args of [
    [at('no.mp4'), at('plan.score.txt')],
    [at('gone.mp4'), at('plan.score.txt')],
    [at('right.mp4'), at('gone.score.txt')],
  ]) {
    const { status, stderr } = jivet('verify', ...args)
    expect([status, stderr.trim().split('\n').length]).toEqual([1, 1])
  }
  expect(jivet('verify', at('right.mp4')).status).toBe(2)
})
