// Lays the intervals of one section in order: the one place where segments are made. Formats say what comes, this says how.
import type { Ms } from '../../units'
import type { Origin, Path, Segment } from '../segment'
import type { Around } from './format'
import { labelIn, moveIn, ruleOf, turnsOf, type Station } from './station'

/** A length with the field that decides it: `ms = baseMs + times * field`. */
export interface Length {
  ms: Ms
  field: Path | null
  baseMs: Ms
  times: number
  estimated: boolean
}
export const given = (ms: Ms, ...field: Path): Length => ({ ms, field, baseMs: 0, times: 1, estimated: false })
export const guessed = (ms: Ms): Length => ({ ms, field: null, baseMs: 0, times: 0, estimated: true })
/** A length that grows with a field: `baseMs + times * stepMs`, never below nothing. With `times` 0 the first field decides. */
export const stepped = (baseMs: Ms, base: Path, stepMs: Ms, times: number, step: Path): Length => ({
  ms: Math.max(0, baseMs + times * stepMs),
  field: times ? step : base,
  baseMs: times ? baseMs : 0,
  times: times || 1,
  estimated: false,
})

export interface Spot {
  round?: number | null
  rounds?: number | null
  set?: number | null
  sets?: number | null
  station?: number | null
  stations?: number | null
}

/** A station with the way to it in its section. */
export interface Placed {
  station: Station
  path: Path
}

const NO_MOVES: readonly string[] = []

export class Run {
  readonly segments: Segment[] = []
  constructor(
    private readonly key: string,
    private readonly around: Around,
  ) {}

  lead(ms: Ms): void {
    if (ms) this.put(`${this.key}/lead`, 'lead', given(ms, 'leadInMs'), NOWHERE)
  }

  rest(place: string, length: Length, spot: Spot, label = ''): void {
    if (length.ms) this.put(`${this.key}/${place}`, 'rest', length, spot).label = label
  }

  pause(place: string, length: Length, spot: Spot, label = ''): void {
    if (length.ms) this.put(`${this.key}/${place}`, 'break', length, spot).label = label
  }

  talk(place: string, ms: Ms, label: string, spot: Spot, field: Path | null = null): void {
    const talk = this.put(`${this.key}/${place}`, 'talk', { ms, field, baseMs: 0, times: 1, estimated: true }, spot)
    talk.label = label
  }

  /**
   * One turn at a station: an interval, or one for each side. Between two sides, and after the last when `closes`
   * is true, stands the rest. `pass` decides sides and swaps.
   */
  turn(
    place: string,
    { station, path }: Placed,
    pass: number,
    work: Length,
    rest: Length | null,
    closes: boolean,
    spot: Spot,
    restLabel = '',
  ): void {
    const move = moveIn(station, pass, this.around.cast)
    const sides = turnsOf(ruleOf(station, move), pass)
    const label = labelIn(station, pass)
    for (let index = 0; index < sides.length; index++) {
      const side = sides[index] ?? null
      const end = sides.length > 1 ? `${place}/${String(side)}` : place
      const segment = this.put(`${this.key}/${end}/work`, 'work', work, spot, path, pass)
      segment.label = label
      segment.side = side
      segment.posture = station.posture ?? move.posture
      segment.effort = station.effort ?? move.effort
      segment.reps = station.reps
      segment.moves = [label]
      if (rest && (closes || index < sides.length - 1)) this.rest(`${end}/rest`, rest, spot, restLabel)
    }
  }

  /** Several moves in one interval (a buy-in, a couplet, a climb): one label, the facts of the hardest. @returns its segment. */
  together(place: string, placed: readonly Placed[], pass: number, label: string, work: Length, spot: Spot): Segment {
    const moves = placed.map(({ station }) => moveIn(station, pass, this.around.cast))
    const hardest = moves.reduce(
      (most, move) => (move.effort > most.effort ? move : most),
      moves[0] ?? this.around.cast(''),
    )
    const segment = this.put(`${this.key}/${place}/work`, 'work', work, spot, placed[0]?.path ?? null, pass)
    segment.label = label
    segment.posture = placed[0]?.station.posture ?? moves[0]?.posture ?? 'standing'
    segment.effort = placed[0]?.station.effort ?? hardest.effort
    segment.moves = placed.map(({ station }) => labelIn(station, pass))
    return segment
  }

  private put(
    id: string,
    kind: Segment['kind'],
    length: Length,
    spot: Spot,
    station: Path | null = null,
    pass = 1,
  ): Segment {
    const origin: Origin = {
      station,
      pass,
      length: length.field && { field: length.field, baseMs: length.baseMs, times: length.times },
    }
    const segment: Segment = {
      id,
      row: 0,
      kind,
      section: '',
      round: spot.round ?? null,
      rounds: spot.rounds ?? null,
      set: spot.set ?? null,
      sets: spot.sets ?? null,
      station: spot.station ?? null,
      stations: spot.stations ?? null,
      label: '',
      side: null,
      startMs: 0,
      durationMs: length.ms,
      estimated: length.estimated,
      posture: null,
      effort: null,
      reps: null,
      moves: NO_MOVES,
      note: '',
      sectionKey: this.key,
      words: this.around.words,
      origin,
    }
    this.segments.push(segment)
    return segment
  }
}

export const NOWHERE: Spot = {}

/** The stations of a flat section with their ways. */
export const placed = (stations: readonly Station[], ...path: Path): Placed[] =>
  stations.map((station, index) => ({ station, path: [...path, index] }))

/** A station's own length before the section's. */
export const ownWork = ({ station, path }: Placed, length: Length): Length =>
  station.workMs === null ? length : given(station.workMs, ...path, 'workMs')
export const ownRest = ({ station, path }: Placed, length: Length): Length =>
  station.restMs === null ? length : given(station.restMs, ...path, 'restMs')
