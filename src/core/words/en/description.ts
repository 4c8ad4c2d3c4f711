// What stands in the description of a published video.
import type { Part } from '../../score/formats/format'

const listed = (all: readonly string[]): string =>
  all.length < 2 ? (all[0] ?? '') : `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`

export const descriptionTexts = {
  lengths: (whole: string, work: string, promised: string | null) =>
    `${promised ? `The plan was ${promised}; the` : 'The'} video runs ${whole}, ${work} of it work.`,
  workoutLengths: (whole: string, work: string, promised: string, workout: string) =>
    `The workout was planned for ${promised} and takes ${workout}; the video runs ${whole}, ${work} of it work.`,
  gear: (all: readonly string[]) => `You need: ${listed(all)}.`,
  weights: (all: readonly string[]) => `${all.length === 1 ? 'a weight' : 'weights'} of ${listed(all)}`,
  from: (clock: string) => `from ${clock}`,
  easier: (how: string) => `easier: ${how}`,
  switches: { left: 'left then right', right: 'right then left' },
  sides: { left: 'left side', right: 'right side', both: 'both sides' },
  noSide: 'no side',
  leftAndRight: 'left and right',
  otherWay: 'changing direction halfway',
  inRounds: (what: string, kind: 'rounds' | 'sets', rounds: readonly number[]) =>
    `${what} in ${rounds.length === 1 ? kind.slice(0, -1) : kind} ${listed(rounds.map(String))}`,
  counted: (word: string, number: number) => `${word[0]?.toUpperCase()}${word.slice(1)} ${number}`,
  passes: (count: number, kind: 'rounds' | 'sets') => `${count} ${kind}`,
  of: (rounds: string, each: number) => `${rounds} of ${each}`,
  ofEach: (rounds: string) => `${rounds} of each before the next`,
  moves: (count: number) => (count === 1 ? 'once' : `${count} in a row`),
  slots: (count: number, length: string, inEach: number) =>
    `${count} times ${length}${inEach > 1 ? `, ${Math.round(inEach * 10) / 10} moves in each` : ''}`,
  on: (length: string) => `${length} on`,
  off: (length: string) => `${length} off`,
  between: (length: string) => `${length} between`,
  range: (low: string, high: string) => `${low} to ${high}`,
  about: (length: string) => `about ${length}`,
  chapters: 'Chapters',
  caution: 'Before you begin',
  cautionText:
    'Warm up first. Stop on pain, dizziness or unusual breathlessness. Clear the floor and check the ceiling, the surface and your chair. Choose the easier version whenever you like, and drink. Ask a doctor first if you are pregnant, injured, unwell or new to exercise.',
  music: (pieces: readonly string[]) => `Music: ${listed(pieces)}.`,
  next: (title: string) => `Coming next: ${title}.`,
  nextIn: (series: string, title: string) => `Next in ${series}: ${title}.`,
  parts: { talk: 'Talk', warmUp: 'Warm-up', main: 'Workout', break: 'Break', coolDown: 'Cool-down' },
} satisfies Record<string, unknown> & { parts: Record<Part, string> }
