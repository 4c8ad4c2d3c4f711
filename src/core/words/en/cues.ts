// What is said to viewers, in full first and then in fewer words.
import { weightText } from '../../score/formats/station'
import type { Segment } from '../../score/segment'
import { capital } from '../../score/vocabulary'
import { spokenLength } from './floor'
import { nameOf } from './names'
import { viewerTexts } from './viewers'

const sentences = (...parts: readonly string[]): string =>
  parts
    .filter(Boolean)
    .map((part) => capital(part))
    .join('. ')

/** Without what was said before. */
const distinct = (lines: readonly string[]): string[] => [...new Set(lines)]

const amountOf = ({ reps, moves, pace, durationMs }: Segment): string =>
  reps !== null && moves.length < 2 ? `${reps} reps` : pace === 'fixed' ? spokenLength(durationMs) : ''

export const cueTexts = {
  /** @param short a name that is said faster than with its side. */
  next: (segment: Segment, gear: readonly string[], short: string): string[] => {
    const named = `Next: ${nameOf(segment)}`
    const gearText = [segment.weight ? weightText(segment.weight) : '', ...gear].filter(Boolean).join(', ')
    const fetch = gearText && `With ${gearText}`
    return distinct([
      sentences(named, fetch, amountOf(segment)),
      sentences(named, fetch),
      sentences(named),
      nameOf(segment),
      short,
    ])
  },
  now: (segment: Segment, gear: readonly string[]): string[] =>
    distinct([sentences(nameOf(segment), gear.join(', ')), nameOf(segment)]),
  otherSide: (first: Segment['firstSide']): string[] => [first === 'left' ? 'Right side' : 'Left side', 'Switch'],
  otherWay: viewerTexts.otherWay,
  halfway: viewerTexts.halfway,
  lastOne: viewerTexts.lastOne,
  lastOf: viewerTexts.lastOf,
  ten: ['Ten seconds', 'Ten'],
  leftOf: (isMinute: boolean): string[] => [
    isMinute ? 'Twenty left in this minute' : 'Twenty seconds left',
    'Twenty left',
  ],
  block: (title: string, place: string): string[] => distinct([sentences(place, title), title]),
  reps: (count: number, repIs: string): string[] => distinct([sentences(`${count} reps`, repIs), `${count} reps`]),
  easier: (how: string): string => `Easier: ${how}`,
  water: viewerTexts.water,
} as const
