// What is written for other programs, read back by one that is not ours: ffmpeg's readers of captions and chapters.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { asPlanned, type ShownSegment } from '../src/core/cut/cut'
import { expand } from '../src/core/expand/expand'
import { circuit, score, station, talk } from '../src/core/testing'
import { writeAss } from '../src/core/write/ass'
import { captionsOf } from '../src/core/write/captions'
import { chaptersOf } from '../src/core/write/chapters'
import { EXPORTS } from '../src/core/write/exports'
import { writeFfmetadata } from '../src/core/write/ffmetadata'
import { writeMarkdown } from '../src/core/write/markdown'
import { writeSrt } from '../src/core/write/srt'
import { writeVtt } from '../src/core/write/vtt'

const folder = mkdtempSync(join(tmpdir(), 'jivet-exports-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** Names that formats stumble over: emoji, right to left, marks that mean something, three hundred letters. */
const NAMES = [
  'Jug lift 🫙 = 50; #1',
  'الركض على السطح',
  'Keel <b>hold</b> {\\an8} & more',
  'Lantern reach '.repeat(21).trim(),
]
const lane: ShownSegment[] = asPlanned(
  expand(
    score(
      talk('Welcome', 12_000),
      circuit({ rounds: 2, roundBreakMs: 15_000, stations: NAMES.map((name) => station(name)) }),
    ),
  ).segments,
).map((laid) => ({ ...laid, startMs: laid.startMs * 1.0007, endMs: laid.endMs * 1.0007 }))
const TITLE = 'Deck Hours 12; jug = gate #3 \\ 🛶'

interface Packet {
  pts_time: string
  duration_time: string
}

function read(name: string, text: string): { packets: Packet[]; plain: string } {
  const file = join(folder, name)
  writeFileSync(file, text)
  const { packets } = JSON.parse(
    execFileSync('ffprobe', ['-v', 'error', '-show_packets', '-of', 'json', file]).toString(),
  ) as { packets: Packet[] }
  const plain = execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-f', 'srt', 'pipe:1']).toString()
  return { packets, plain }
}

describe.each([
  ['vtt', (all: ShownSegment[]) => writeVtt(all), 0.0011],
  ['srt', (all: ShownSegment[]) => writeSrt(all), 0.0011],
  // Hundredths of a second are the finest that this format has.
  ['ass', (all: ShownSegment[]) => writeAss(all, TITLE), 0.0101],
] as const)('captions as %s', (format, write, grainS) => {
  it('are read with every caption, its times and its words', () => {
    const { packets, plain } = read(`captions.${format}`, write(lane))
    const wanted = captionsOf(lane)
    expect(packets).toHaveLength(wanted.length)
    packets.forEach(({ pts_time, duration_time }, at) => {
      const { fromMs, toMs } = wanted[at]!
      expect(Math.abs(Number(pts_time) - fromMs / 1000)).toBeLessThan(grainS)
      expect(Math.abs(Number(duration_time) - (toMs - fromMs) / 1000)).toBeLessThan(2 * grainS)
    })
    for (const words of ['Jug lift 🫙 = 50; #1', 'الركض على السطح', NAMES[3]!, 'hold', '& more', 'Round 2 of 2'])
      expect(plain).toContain(words)
  })
})

it('chapters and the title are read, whatever marks stand in them', () => {
  const named = lane.map((laid) => ({ ...laid, segment: { ...laid.segment, section: 'Main; deck = #1 \\ 🛶' } }))
  const file = join(folder, 'chapters.txt')
  writeFileSync(file, writeFfmetadata(named, TITLE))
  const told = JSON.parse(
    execFileSync('ffprobe', [
      ...['-v', 'error', '-f', 'ffmetadata', '-show_chapters', '-show_entries', 'format_tags', '-of', 'json', file],
    ]).toString(),
  ) as {
    chapters: { start_time: string; end_time: string; tags: { title: string } }[]
    format: { tags: { title: string } }
  }
  expect(told.format.tags.title).toBe(TITLE)
  const wanted = chaptersOf(named)
  expect(told.chapters.map(({ tags }) => tags.title)).toEqual(wanted.map(({ title }) => title))
  told.chapters.forEach(({ start_time, end_time }, at) => {
    expect(Number(start_time)).toBeCloseTo(wanted[at]!.atMs / 1000, 2)
    expect(Number(end_time)).toBeCloseTo((wanted[at + 1]?.atMs ?? lane.at(-1)!.endMs) / 1000, 2)
  })
})

it('a list has every interval once, and no mark that Markdown would take for its own', () => {
  const text = writeMarkdown(lane, TITLE)
  const rows = text.split('\n').filter((line) => line.startsWith('- '))
  expect(rows).toHaveLength(lane.filter(({ startMs, endMs }) => endMs > startMs).length)
  expect(text).toContain('# Deck Hours 12; jug = gate \\#3 \\\\ 🛶')
  expect(text).toContain('Keel \\<b\\>hold\\</b\\>')
  expect(text).toContain('الركض على السطح')
})

it('nothing is nothing in each of them', () => {
  for (const write of Object.values(EXPORTS)) expect(typeof write({ lane: [], title: '' })).toBe('string')
  expect([captionsOf([]), writeSrt([]), chaptersOf([])]).toEqual([[], '', []])
  expect(writeFfmetadata([], 'Empty')).toBe(';FFMETADATA1\ntitle=Empty\n')
  expect(writeAss([], 'Empty')).not.toContain('Dialogue')
})
