// What stands in the description of a published video.
import type { Part } from '../../score/formats/format'

const listed = (all: readonly string[]): string =>
  all.length < 2 ? (all[0] ?? '') : `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`

export const descriptionTexts = {
  lengths: (whole: string, work: string, promised: string | null) =>
    `${promised ? `The plan was ${promised}; the` : 'The'} video runs ${whole}, ${work} of it work.`,
  gear: (all: readonly string[]) => `You need: ${listed(all)}.`,
  from: (clock: string) => `from ${clock}`,
  easier: (how: string) => `easier: ${how}`,
  bothSides: 'each side in turn',
  oneSide: { left: 'left side', right: 'right side' },
  chapters: 'Chapters',
  caution: 'Before you begin',
  cautionText:
    'Warm up first. Stop on pain, dizziness or unusual breathlessness. Clear the floor and check the ceiling, the surface and your chair. Choose the easier version whenever you like, and drink. Ask a doctor first if you are pregnant, injured, unwell or new to exercise.',
  music: (pieces: readonly string[]) => `Music: ${listed(pieces)}.`,
  next: (title: string) => `Coming next: ${title}.`,
  nextIn: (series: string, title: string) => `Next in ${series}: ${title}.`,
  parts: { talk: 'Talk', warmUp: 'Warm-up', main: 'Workout', break: 'Break', coolDown: 'Cool-down' },
} satisfies Record<string, unknown> & { parts: Record<Part, string> }
