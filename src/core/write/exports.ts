// Everything that a session is written as for other programs, by the name of the format.
import type { ShownSegment } from '../cut/cut'
import type { Score } from '../score/score'
import { writeAss } from './ass'
import { writeChapters } from './chapters'
import type { Rate } from '../units'
import { writeDescription } from './description'
import { writeEdl } from './edl'
import { writeFfmetadata } from './ffmetadata'
import { writeIntervalTable } from './intervalTable'
import { writeMarkdown } from './markdown'
import { writeOtio } from './otio'
import { writeSrt } from './srt'
import { writeVtt } from './vtt'

interface Exported {
  title: string
  score: Score
  /** In the published video's own time, or as planned. */
  lane: readonly ShownSegment[]
  /** Of the video, for formats that count frames. */
  rate: Rate
}

export const EXPORTS = {
  vtt: ({ lane }) => writeVtt(lane),
  srt: ({ lane }) => writeSrt(lane),
  ass: ({ lane, title }) => writeAss(lane, title),
  // As planned: it is read back as a plan.
  csv: ({ lane }) => writeIntervalTable(lane.map(({ segment }) => segment)),
  chapters: ({ lane }) => writeChapters(lane),
  ffmetadata: ({ lane, title }) => writeFfmetadata(lane, title),
  description: ({ score, lane }) => writeDescription({ score, shown: lane, music: [] }),
  edl: ({ lane, title, rate }) => writeEdl(lane, title, rate),
  otio: ({ lane, title, rate }) => writeOtio(lane, title, rate),
  markdown: ({ lane, title }) => writeMarkdown(lane, title),
  json: ({ lane, title }) => `${JSON.stringify({ title, segments: lane.map(told) }, null, 2)}\n`,
} as const satisfies Record<string, (of: Exported) => string>
export type ExportName = keyof typeof EXPORTS

const told = ({ segment, startMs, endMs }: ShownSegment): object => {
  const { id, row, kind, section, round, rounds, label, side, reps, estimated } = segment
  return { id, row, kind, section, round, rounds, label, side, reps, startMs, endMs, estimated }
}
