// What is written for other programs, read back by one that is not ours: ffmpeg's readers of captions and chapters.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { QUICK_AAC, QUICK_PICTURE } from '../demo/quickFilm'
import { asPlanned, type ShownSegment } from '../src/core/cut/cut'
import { emptyScore } from '../src/core/score/score'
import { expand } from '../src/core/expand/expand'
import { circuit, score, station, talk } from '../src/core/testing'
import { frameOf, msAt } from '../src/core/time/timecode'
import { writeAss } from '../src/core/write/ass'
import { captionsOf } from '../src/core/write/captions'
import { chaptersOf, readChapters, writeChapters } from '../src/core/write/chapters'
import { EXPORTS } from '../src/core/write/exports'
import { writeFfmetadata } from '../src/core/write/ffmetadata'
import { writeMarkdown } from '../src/core/write/markdown'
import { writeSrt } from '../src/core/write/srt'
import { writeVtt } from '../src/core/write/vtt'
import { withSoftText } from '../src/engine/softText'

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
  for (const write of Object.values(EXPORTS))
    expect(typeof write({ lane: [], rate: { num: 30, den: 1 }, title: '', score: emptyScore('') })).toBe('string')
  expect([captionsOf([]), writeSrt([]), chaptersOf([])]).toEqual([[], '', []])
  expect(writeFfmetadata([], 'Empty')).toBe(';FFMETADATA1\ntitle=Empty\n')
  expect(writeAss([], 'Empty')).not.toContain('Dialogue')
})

describe.each([
  [{ num: 24_000, den: 1001 }, ':'],
  [{ num: 25, den: 1 }, ':'],
  [{ num: 30_000, den: 1001 }, ';'],
] as const)('edit lists at %o', (rate, mark) => {
  const shown = lane.filter(({ startMs, endMs }) => endMs > startMs)
  it('as EDL have an event for each interval, end to end, in timecode that keeps up with the clock', () => {
    const text = EXPORTS.edl({ lane, title: TITLE, rate, score: emptyScore(TITLE) })
    expect(text).toContain(`FCM: ${mark === ';' ? 'DROP' : 'NON-DROP'} FRAME`)
    const events = text.split('\n').flatMap((line) => {
      const found = /^(\d{3})\s+AX\s+B\s+C\s+(\S+) (\S+) (\S+) (\S+)$/.exec(line)
      return found ? [found.slice(1)] : []
    })
    expect(events).toHaveLength(shown.length)
    let last = 0
    events.forEach(([number, from, to, recordFrom, recordTo], at) => {
      expect([Number(number), from, to]).toEqual([at + 1, recordFrom, recordTo])
      const [begins, ends] = [frameOf(from ?? '', rate), frameOf(to ?? '', rate)]
      expect(begins).toBe(last)
      expect(Math.abs(msAt(ends ?? 0, rate) - shown[at]!.endMs)).toBeLessThan(22)
      last = ends ?? -1
    })
    for (const name of NAMES) expect(text).toContain(`* FROM CLIP NAME: ${name}`)
  })
  it('as OpenTimelineIO have a clip for each, as long as it is, and a marker for each section', () => {
    const {
      tracks,
      OTIO_SCHEMA: schema,
      name,
    } = JSON.parse(EXPORTS.otio({ lane, title: TITLE, rate, score: emptyScore(TITLE) })) as Timeline
    expect([schema, name]).toEqual(['Timeline.1', TITLE])
    const clips = tracks.children[0]!.children
    expect(clips.map((clip) => clip.OTIO_SCHEMA)).toEqual(shown.map(() => 'Clip.2'))
    let at = 0
    for (const { source_range: range } of clips) {
      expect(range.start_time.value).toBe(at)
      expect(range.start_time.rate).toBeCloseTo(rate.num / rate.den, 9)
      at += range.duration.value
    }
    expect(Math.abs(msAt(at, rate) - lane.at(-1)!.endMs)).toBeLessThan(22)
    expect(clips.flatMap(({ markers }) => markers.map((marker) => marker.name))).toEqual(['Welcome', 'Main'])
  })
})

interface Timeline {
  OTIO_SCHEMA: string
  name: string
  tracks: {
    children: {
      children: {
        OTIO_SCHEMA: string
        source_range: { start_time: { value: number; rate: number }; duration: { value: number } }
        markers: { name: string }[]
      }[]
    }[]
  }
}

it('captions and chapters go into a video without it being encoded again', async () => {
  const video = join(folder, 'video.mp4'),
    out = join(folder, 'out.mp4')
  const lengthMs = Math.round(lane.at(-1)!.endMs)
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `color=c=gray:s=160x96:r=10:d=${lengthMs / 1000}`],
    ...['-f', 'lavfi', '-i', `sine=d=${lengthMs / 1000}`, ...QUICK_PICTURE, ...QUICK_AAC, video],
  ])
  const chapters = readChapters(writeChapters(lane))
  expect(chapters).toEqual(chaptersOf(lane).map(({ atMs, title }) => ({ atMs: Math.floor(atMs / 1000) * 1000, title })))
  await withSoftText({ video, lengthMs, title: TITLE, captions: writeVtt(lane), chapters, out, folder })
  const told = JSON.parse(
    execFileSync('ffprobe', [
      '-v',
      'error',
      '-show_streams',
      '-show_chapters',
      '-show_format',
      '-of',
      'json',
      out,
    ]).toString(),
  ) as {
    streams: { codec_name: string }[]
    chapters: { start_time: string; tags: { title: string } }[]
    format: { tags: { title: string } }
  }
  expect(told.streams.map(({ codec_name: codec }) => codec)).toEqual(
    expect.arrayContaining(['h264', 'aac', 'mov_text']),
  )
  expect(told.chapters.map(({ start_time: at, tags }) => [Number(at) * 1000, tags.title])).toEqual(
    chapters.map(({ atMs, title }) => [atMs, title]),
  )
  expect(told.format.tags.title).toBe(TITLE)
  const packets = (file: string): string =>
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-i',
      file,
      '-map',
      '0:v',
      '-map',
      '0:a',
      '-c',
      'copy',
      '-f',
      'md5',
      '-',
    ]).toString()
  expect(packets(out)).toBe(packets(video))
})
