// The headless command as scripts call it: real files, real exit codes, and the beep pass held against the truth file.
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import type { SyncResult } from '../src/core/align/sync'
import { FILM, FILMS, truthOf } from './e2e/jivet'

const PLAN = 'demo/deck-hours.jivet.json'
const folder = mkdtempSync(join(tmpdir(), 'jivet-cli-'))
afterAll(() => rmSync(folder, { recursive: true }))

function jivet(...args: string[]): { code: number | null; out: string; err: string } {
  const { status, stdout, stderr } = spawnSync('bin/jivet', args, { encoding: 'utf8', maxBuffer: 2 ** 28 })
  return { code: status, out: stdout, err: stderr }
}

const write = (name: string, content: string | Buffer): string => {
  const path = join(folder, name)
  writeFileSync(path, content)
  return path
}

describe('expand and export', () => {
  it('gives segments and totals as JSON, and a table that expands to the same', () => {
    const { code, out } = jivet('expand', PLAN, '--json')
    const plan = JSON.parse(out) as { totalMs: number; workMs: number; restMs: number; segments: { id: string }[] }
    expect(code).toBe(0)
    expect([plan.totalMs, plan.workMs, plan.restMs, plan.segments.length]).toEqual([200_000, 120_000, 55_000, 14])
    const table = write('plan.csv', jivet('expand', PLAN, '--csv').out)
    expect(JSON.parse(jivet('expand', table, '--json').out)).toMatchObject({ totalMs: 200_000, workMs: 120_000, restMs: 55_000 })
  })
  it('exports captions, chapters and a table', () => {
    expect(jivet('export', PLAN, '--as', 'vtt').out).toMatch(/^WEBVTT\n\n/)
    expect(jivet('export', PLAN, '--as', 'chapters').out).toMatch(/^0:00 Welcome aboard\n0:17 Main, Round 1 of 2\n/)
    expect(jivet('export', PLAN, '--as', 'csv').out.split('\n')[0]).toBe('section,round,kind,label,side,seconds')
  })
  it('writes the cue track as a WAV that ffprobe reads', () => {
    const out = join(folder, 'track.wav')
    expect(jivet('track', PLAN, '--out', out).code).toBe(0)
    const facts = execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'stream=codec_name,sample_rate,channels,duration', '-of', 'csv=p=0', out]).toString().trim()
    expect(facts).toBe('pcm_s16le,48000,1,201.000000')
  })
})

describe('the beep pass', () => {
  const sync = (film: string): SyncResult => JSON.parse(jivet('sync', PLAN, film, '--json').out) as SyncResult
  const marked = (film: string) => truthOf(film).boundaries.filter((one) => one.footageMs > 0)

  it('ties every boundary of the beeped film within 40 ms of the truth', () => {
    const { stitches, missing, summary } = sync(FILM)
    expect(missing).toEqual([])
    for (const boundary of marked(FILM)) {
      const stitch = stitches.find((one) => one.segmentId === boundary.segmentId && one.edge === boundary.edge)
      expect(Math.abs((stitch?.footageMs ?? Infinity) - boundary.footageMs), boundary.segmentId).toBeLessThanOrEqual(40)
    }
    expect(summary.driftPpm).toBeGreaterThan(0)
  })
  it('reports as missing, not as found, what lies where the beeps were removed', () => {
    const film = join(FILMS, 'deck-hours-gap.mp4')
    const { stitches, missing } = sync(film)
    const silent = marked(film).filter((one) => one.silent).map((one) => one.segmentId)
    expect(silent.length).toBeGreaterThanOrEqual(3)
    expect(missing).toEqual(silent)
    for (const boundary of marked(film).filter((one) => !one.silent)) {
      const stitch = stitches.find((one) => one.segmentId === boundary.segmentId)
      expect(Math.abs((stitch?.footageMs ?? Infinity) - boundary.footageMs), boundary.segmentId).toBeLessThanOrEqual(40)
    }
    expect(stitches).toHaveLength(marked(film).length - silent.length)
  })
})

describe('what is wrong is said in one line', () => {
  const text = write('note.txt', 'A kettle is not a video.\n')
  const empty = write('empty.mp4', '')
  const badTable = write('bad.csv', 'section,round,kind,label,side,seconds\nMain,1,work,Jug lift,,-5\n')
  it.each([
    [['expand'], 2, /expected 1 file/],
    [['dance', PLAN], 2, /no command "dance"/],
    [['expand', PLAN, '--frob'], 2, /--frob/],
    [['export', PLAN, '--as', 'papyrus'], 2, /papyrus/],
    [['render', PLAN, FILM], 2, /--out/],
    [['expand', 'nowhere.csv'], 1, /nowhere\.csv: There is no such file/],
    [['expand', badTable], 1, /bad\.csv: line 2: Found "-5" in seconds/],
    [['expand', text], 1, /\.jivet\.json nor \.csv/],
    [['hear', text], 1, /not a video/],
    [['hear', empty], 1, /empty/],
    [['hear', 'nowhere.mp4'], 1, /no such file/],
  ])('%j', (args, code, message) => {
    const result = jivet(...args)
    expect(result.code).toBe(code)
    expect(result.err.split('\n')[0]).toMatch(message)
    expect(result.err).not.toMatch(/\n\s+at /)
    if (code === 1) expect(result.err.trim().split('\n')).toHaveLength(1)
  })
  it('leaves no half-written file when the render fails', () => {
    const out = join(folder, 'never.mp4')
    expect(jivet('render', PLAN, text, '--out', out).code).toBe(1)
    expect(() => readFileSync(out)).toThrow()
  })
  it('is code 3 when the machine lacks ffmpeg', () => {
    const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'bin/cli.ts', 'hear', FILM], { env: { ...process.env, PATH: '/nowhere' } })
    expect(status).toBe(3)
  })
})
