// What README and docs say is held against the application: its commands are run as they stand there, in their order,
// what they write is read by others, and counts, settings, links and pictures are compared.
import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { MOVES } from '../src/core/score/moves'
import { FORMAT_NAMES } from '../src/core/score/formats'
import { LOOK_NAMES } from '../src/core/look/looks/family'
import { readSettings } from '../src/server/settings'

const ROOT = resolve(import.meta.dirname, '..')
const README = readFileSync(join(ROOT, 'README.md'), 'utf8')
const docs = [
  'README.md',
  ...readdirSync(join(ROOT, 'docs'), { recursive: true, encoding: 'utf8' }).map((name) => join('docs', name)),
].filter((name) => name.endsWith('.md'))

/** How many pictures a video has, as another reader counts them. */
function picturesIn(path: string): number {
  const count = ['-count_packets', '-select_streams', 'v:0', '-show_entries', 'stream=nb_read_packets']
  return Number(execFileSync('ffprobe', ['-v', 'error', ...count, '-of', 'csv=p=0', path], { encoding: 'utf8' }))
}

/** @param heading of a second-level part of the README. */
const partOf = (heading: string): string => README.split(/^## /m).find((part) => part.startsWith(`${heading}\n`)) ?? ''

describe('the commands of the README', () => {
  const folder = mkdtempSync(join(tmpdir(), 'jivet-docs-'))
  afterAll(() => rmSync(folder, { recursive: true }))
  const PLAN = 'Short\n2 rounds, 6s on 4s off, 5s between rounds\n- Lock-gate push\n- Keel hold\n'
  /** Where its timer sounds, in a film that begins three seconds early. */
  const CHANGES_S = [3, 9, 13, 19, 24, 30, 34, 40]
  const commands = partOf('Without the browser')
    .split('\n')
    .filter((line) => line.startsWith('    bin/jivet '))
    .map((line) => line.trim())

  beforeAll(() => {
    symlinkSync(join(ROOT, 'bin'), join(folder, 'bin'))
    const write = (name: string, text: string): void => writeFileSync(join(folder, name), text)
    write('description.txt', PLAN)
    for (const plan of ['plan.score.txt', 'plan.jivet.json', 'monday.jivet.json', 'tuesday.jivet.json'])
      expect(spawnSync('bin/jivet', ['convert', 'description.txt', plan], { cwd: folder }).status).toBe(0)
    write('plan.csv', 'section,round,kind,label,side,seconds\nMain,1,work,Jug lift,,30\n')
    const ftyp = (at: number): string => `between(t\\,${at}\\,${at + 0.3})`
    const tones = `0.5*sin(2*PI*1320*t)*(${CHANGES_S.map(ftyp).join('+')})`
    const film = (name: string, more: string[]): void =>
      void execFileSync('ffmpeg', [
        ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=42'],
        ...['-f', 'lavfi', '-i', `aevalsrc=${tones}:s=48000:d=42`, ...more, '-pix_fmt', 'yuv420p', join(folder, name)],
      ])
    film('session.mp4', [])
    film('first.mp4', ['-t', '21'])
    film('second.mp4', ['-ss', '21'])
    write(
      'cut.edl',
      '001  AX       V     C        00:00:03:00 00:00:20:00 01:00:00:00 01:00:17:00\n* FROM CLIP NAME: session.mp4\n',
    )
    const { score } = JSON.parse(readFileSync(join(folder, 'plan.jivet.json'), 'utf8')) as { score: unknown }
    const key = (at: number): string => `00000000-0000-4000-8000-00000000000${at}`
    const events = [
      { kind: 'start', key: key(1), atMs: 0, countInMs: 1000 },
      { kind: 'end', key: key(2), atMs: 42_000 },
    ]
    const head = { format: 'jivet-floor-log', version: 1, openedAt: '2026-12-01T10:00:00.000Z', rehearsal: false }
    write('session.floor.json', JSON.stringify({ ...head, score, events }))
  })

  it('are at least one for each that there is', () => {
    const known = [...execFileSync('bin/jivet', ['--help'], { encoding: 'utf8' }).matchAll(/^ {2}jivet (\w+)/gm)]
    const said = new Set(commands.map((line) => line.split(/\s+/)[1]))
    for (const [, name] of known) expect(said).toContain(name)
  })

  it('run as they stand there, in their order', { timeout: 600_000 }, () => {
    for (const line of commands) {
      // What is separated by a bar is a choice: each of them.
      const [, before, choices = ''] = /^(.* )(\w+(?:\|\w+)+)$/.exec(line) ?? []
      const calls = before ? choices.split('|').map((one) => before + one) : [line]
      for (const call of calls) {
        const { status, stderr } = spawnSync('sh', ['-c', call], { cwd: folder, encoding: 'utf8' })
        // A check has findings, and says so by its code.
        expect([call, status, status === 0 || line.includes(' check ') ? '' : stderr]).toEqual([
          call,
          line.includes(' check ') ? status : 0,
          '',
        ])
        const [, out = ''] = /--out (\S+)/.exec(call) ?? []
        if (/\.(?:mp4|mov)$/.test(out)) expect(picturesIn(join(folder, out)), call).toBeGreaterThan(100)
      }
    }
    expect(readFileSync(join(folder, 'series.ics'), 'utf8')).toMatch(/^BEGIN:VCALENDAR\r\n/)
    expect(readFileSync(join(folder, 'session.html'), 'utf8')).toMatch(/^<!doctype html>/i)
  })
})

describe('what the README counts', () => {
  it('is as many: moves, formats, looks', () => {
    expect(README).toContain('Two hundred and seventy-three moves')
    expect(MOVES).toHaveLength(273)
    expect(README).toContain(`${MOVES.filter(({ harder }) => harder).length} also a harder way`)
    expect(README).toContain(`${MOVES.filter(({ caution }) => caution).length} a caution`)
    const [, told = ''] = /\*\*Score\.\*\* ([\w-]+) formats/.exec(README) ?? []
    const inDocs = [...readFileSync(join(ROOT, 'docs/formats.md'), 'utf8').matchAll(/^### F\d+ /gm)].length
    // Talk, a break and a section once more are no formats of a session.
    expect([told, inDocs]).toEqual(['Twenty-one', FORMAT_NAMES.length - 3])
    for (const look of LOOK_NAMES) expect(README.toLowerCase()).toContain(look === 'linocut' ? 'printed block' : look)
  })
  it('is each setting that there is', () => {
    const told = [...README.matchAll(/^\| `([A-Z\d_]+)` \|/gm)].map(([, name = '']) => name)
    for (const name of Object.keys(readSettings()))
      expect(
        told.includes(name) || README.includes(`\`${name}\``) || README.includes(`\`${name.slice(0, 9)}...\``),
        name,
      ).toBe(true)
  })
})

describe('links and pictures', () => {
  it.each(docs)('%s leads nowhere that is not there', (name) => {
    const text = readFileSync(join(ROOT, name), 'utf8')
    for (const [, link = ''] of text.matchAll(/\]\(([^)\s#]+)[^)]*\)/g))
      if (!/^[a-z]+:/.test(link)) expect(existsSync(join(ROOT, dirname(name), link)), `${name}: ${link}`).toBe(true)
  })
  it('of each main view there is one, shown in the README', () => {
    for (const file of readdirSync(join(ROOT, 'docs/screenshots'))) expect(README).toContain(`docs/screenshots/${file}`)
  })
})
