// What an interval is called, in one place: on screen, in captions and in chapter lines.
import type { Segment } from '../../score/segment'
import { capital } from '../../score/vocabulary'

/** "Jug lift, left"; rests and breaks by their kind when they have no name of their own. */
export function nameOf(
  segment: Pick<Segment, 'kind' | 'label' | 'side'> & { firstSide?: Segment['firstSide'] },
): string {
  const side =
    segment.side === 'left' || segment.side === 'right'
      ? `, ${segment.side}`
      : segment.side === 'both'
        ? ', both sides'
        : segment.side === 'switch'
          ? segment.firstSide === 'right'
            ? ', right then left'
            : ', left then right'
          : ''
  return (segment.label || KIND_NAMES[segment.kind]) + side
}

/** " x 10 (each side counts one)"; nothing where none are counted, or where several moves have their own. */
export const repsOf = ({ reps, repIs, moves }: Pick<Segment, 'reps' | 'repIs' | 'moves'>): string =>
  reps && moves.length < 2 ? ` x ${reps}${repIs ? ` (${repIs})` : ''}` : ''

/** Halfway through work that changes direction. */
export const OTHER_WAY = 'Other way'

export const KIND_NAMES: Record<Segment['kind'], string> = {
  talk: 'Talk',
  lead: 'Get ready',
  work: 'Work',
  rest: 'Rest',
  break: 'Break',
}

type Counters = Pick<Segment, 'round' | 'rounds' | 'set' | 'sets' | 'station' | 'stations' | 'words'>

const counter = (at: number | null, of: number | null, word: string): string =>
  at !== null && of !== null && of > 1 ? `${capital(word)} ${at} of ${of}` : ''

/** "Round 2 of 3", in the creator's words; nothing where there is only one. */
export const roundOf = ({ round, rounds, words }: Pick<Counters, 'round' | 'rounds' | 'words'>): string =>
  counter(round, rounds, words.round.one)

/** "Block 1 of 3", of those that are trained. */
export const blockOf = ({ block, blocks, words }: Pick<Segment, 'block' | 'blocks' | 'words'>): string =>
  counter(block, blocks, words.block.one)

/** "Pair 1 of 2", "Set 3 of 4". */
export const setOf = ({ set, sets, words }: Pick<Counters, 'set' | 'sets' | 'words'>): string =>
  counter(set, sets, words.set.one)

/** "Station 2 of 6". */
export const stationOf = ({ station, stations, words }: Pick<Counters, 'station' | 'stations' | 'words'>): string =>
  counter(station, stations, words.station.one)

/** All that counts, widest first. */
export const countersOf = (segment: Counters): string[] =>
  [setOf(segment), roundOf(segment), stationOf(segment)].filter(Boolean)

/** "Jug lift, left, starts": a change, for whoever ties it. A segment that is gone is named by what it was. */
export const tieName = (segment: Pick<Segment, 'kind' | 'label' | 'side'> | undefined, edge: 'start' | 'end'): string =>
  `"${segment ? nameOf(segment) : 'Something no longer planned'} ${edge === 'start' ? 'starts' : 'ends'}"`
