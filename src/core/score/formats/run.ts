// Lays the intervals of one section in order: the one place where segments are made. Formats say what comes, this says
// how.
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

/** A field with its value. */
interface FieldAt {
  ms: Ms
  path: Path
}
/** A length that grows with a field: `base + times * step`, never below nothing. With `times` 0 the base decides. */
export const stepped = (base: FieldAt, step: FieldAt, times: number): Length => ({
  ms: Math.max(0, base.ms + times * step.ms),
  field: times ? step.path : base.path,
  baseMs: times ? base.ms : 0,
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
export const NOWHERE: Spot = {}

/** A station with its key and the way to it in its section. */
export interface Placed {
  key: string
  station: Station
  path: Path
}

/** The stations of a section, or of a group, with their ways. */
export const placed = (stations: readonly Station[], ...path: Path): Placed[] =>
  stations.map((station, index) => ({ key: station.key, station, path: [...path, index] }))

/** A group is known by the move that it begins with. */
export const groupKey = (group: readonly Station[]): string => group[0]?.key ?? ''

/** A station's own length before the section's. */
export const ownWork = ({ station, path }: Placed, length: Length): Length =>
  station.workMs === null ? length : given(station.workMs, ...path, 'workMs')
export const ownRest = ({ station, path }: Placed, length: Length): Length =>
  station.restMs === null ? length : given(station.restMs, ...path, 'restMs')

export interface Turn {
  /** Where in the section, made of keys and counters, e.g. `r2/s3`. */
  place: string
  one: Placed
  /** Which time the station is done, 1-based: decides sides and swaps. */
  pass: number
  work: Length
  rest: Length | null
  /** Whether the rest stands after the last side, too. */
  closes: boolean
  spot: Spot
}

export interface Together {
  place: string
  placed: readonly Placed[]
  pass: number
  label: string
  work: Length
  spot: Spot
}

const NO_MOVES: readonly string[] = []

export class Run {
  readonly segments: Segment[] = []
  private readonly key: string
  private readonly restLabel: string

  constructor(
    section: { key: string; restLabel?: string },
    private readonly around: Around,
  ) {
    this.key = section.key
    this.restLabel = section.restLabel ?? ''
  }

  lead(ms: Ms): void {
    if (ms) this.put({ place: 'lead', kind: 'lead', length: given(ms, 'leadInMs'), spot: NOWHERE })
  }

  rest(place: string, length: Length, spot: Spot): void {
    if (length.ms) this.put({ place, kind: 'rest', length, spot }).label = this.restLabel
  }

  pause(place: string, length: Length, spot: Spot, label = ''): void {
    if (length.ms) this.put({ place, kind: 'break', length, spot }).label = label
  }

  talk({ place, ms, label, spot, field }: { place: string; ms: Ms; label: string; spot: Spot; field: Path }): void {
    this.put({ place, kind: 'talk', length: { ms, field, baseMs: 0, times: 1, estimated: true }, spot }).label = label
  }

  /** One turn at a station: an interval, or one for each side, with a rest between two sides. */
  turn({ place, one, pass, work, rest, closes, spot }: Turn): void {
    const { station, path } = one
    const move = moveIn(station, pass, this.around.cast)
    const sides = turnsOf(ruleOf(station, move), pass)
    const label = labelIn(station, pass)
    for (let index = 0; index < sides.length; index++) {
      const side = sides[index] ?? null
      const end = sides.length > 1 ? `${place}/${String(side)}` : place
      const segment = this.put({ place: `${end}/work`, kind: 'work', length: work, spot, station: path, pass })
      segment.label = label
      segment.side = side
      segment.posture = station.posture ?? move.posture
      segment.effort = station.effort ?? move.effort
      segment.reps = station.reps
      segment.moves = [label]
      if (rest && (closes || index < sides.length - 1)) this.rest(`${end}/rest`, rest, spot)
    }
  }

  /** Several moves in one interval (a buy-in, a couplet, a climb): one label, the facts of the hardest. */
  together({ place, placed, pass, label, work, spot }: Together): Segment {
    const moves = placed.map(({ station }) => moveIn(station, pass, this.around.cast))
    const hardest = moves.reduce(
      (most, move) => (move.effort > most.effort ? move : most),
      moves[0] ?? this.around.cast(''),
    )
    const station = placed[0]?.path ?? null
    const segment = this.put({ place: `${place}/work`, kind: 'work', length: work, spot, station, pass })
    segment.label = label
    segment.posture = placed[0]?.station.posture ?? moves[0]?.posture ?? 'standing'
    segment.effort = placed[0]?.station.effort ?? hardest.effort
    segment.moves = placed.map(({ station }) => labelIn(station, pass))
    return segment
  }

  private put(what: {
    place: string
    kind: Segment['kind']
    length: Length
    spot: Spot
    station?: Path | null
    pass?: number
  }): Segment {
    const { length, spot } = what
    const origin: Origin = {
      station: what.station ?? null,
      pass: what.pass ?? 1,
      length: length.field && { field: length.field, baseMs: length.baseMs, times: length.times },
    }
    const segment: Segment = {
      id: `${this.key}/${what.place}`,
      row: 0,
      kind: what.kind,
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
