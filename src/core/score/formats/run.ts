// Lays the intervals of one section in order: the one place where segments are made. Formats say what comes, this says
// how.
import type { Ms } from '../../units'
import type { Cast } from '../cast'
import { groupSeconds, intervalOf } from './counting'
import { boundsOf, type Bounds, type Pace } from '../pace'
import type { Posture } from '../postures'
import { likelyIn, type Range } from '../primitives'
import type { Origin, Path, Segment } from '../segment'
import type { Around } from './format'
import { labelIn, moveIn, ruleOf, stationIn, turnsOf, withReps, type Station } from './station'

/** A length with the field that decides it: `ms = baseMs + times * field`. */
export interface Length {
  ms: Ms
  field: Path | null
  baseMs: Ms
  times: number
  pace: Exclude<Pace, 'range'>
  /** What the length is the middle of, where that is all that is known. */
  range?: Range
}
export const given = (ms: Ms, ...field: Path): Length => ({ ms, field, baseMs: 0, times: 1, pace: 'fixed' })
/** Own pace, by reps and the seconds that one takes. */
export const guessed = (ms: Ms): Length => ({ ms, field: null, baseMs: 0, times: 0, pace: 'own' })

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
  pace: 'fixed',
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
  /** Stations done in the same interval, after it. */
  joined: readonly Station[]
}

const ALONE: readonly Station[] = []

/** The stations of a section, or of a group, with their ways; those that are joined to one stand with it. */
export function placed(stations: readonly Station[], ...path: Path): Placed[] {
  const places: Placed[] = []
  stations.forEach((station, index) => {
    const before = station.joined ? places.at(-1) : undefined
    if (before) before.joined = [...before.joined, station]
    else places.push({ key: station.key, station, path: [...path, index], joined: ALONE })
  })
  return places
}

/** What a place is called in a pass: its move, or all that are joined, with their reps. */
export const JOIN = ' + '
const labelOf = ({ station, joined }: Placed, pass: number): string =>
  joined.length ? [station, ...joined].map((one) => withReps(one, pass)).join(JOIN) : labelIn(station, pass)

/** A group is known by the move that it begins with. */
export const groupKey = (group: readonly Station[]): string => group[0]?.key ?? ''

/** A station's own length before the section's; of those that are joined, that of the first which has one. */
export const ownWork = (one: Placed, length: Length): Length => lengthGiven(one, 'workMs') ?? length
export const ownRest = (one: Placed, length: Length): Length => lengthGiven(one, 'restMs') ?? length

function lengthGiven({ station, joined, path }: Placed, field: 'workMs' | 'restMs'): Length | null {
  const at = [station, ...joined].findIndex((one) => one[field] !== null)
  const held = at < 1 ? station : joined[at - 1]
  const ms = held?.[field] ?? null
  if (!held || ms === null) return null
  return ownLength(held, [...path.slice(0, -1), Number(path.at(-1)) + Math.max(0, at)], field, ms)
}

function ownLength({ ranges }: Station, path: Path, field: 'workMs' | 'restMs', ms: Ms): Length {
  const length = given(ms, ...path, field)
  const range = ranges[field]
  return range ? { ...length, range } : length
}

/** Counted work takes what its reps take; a station that has a length and no reps, or joined ones, keep to that. */
export const ownPace = (one: Placed, pass: number, cast: Cast): Length => {
  const { station, joined, path } = one
  if (joined.length)
    return lengthGiven(one, 'workMs') ?? guessed(Math.round(groupSeconds([station, ...joined], pass, cast) * 1000))
  return station.reps === null && station.workMs !== null
    ? ownLength(station, path, 'workMs', station.workMs)
    : guessed(intervalOf(station, pass, cast))
}

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

/** Where the last of a place's moves ends. */
function endOf({ station, joined }: Placed, pass: number, cast: Cast): Posture | null {
  const last = joined.at(-1) ?? station
  return last.posture ?? moveIn(last, pass, cast).endPosture
}

const NO_MOVES: readonly string[] = []
const NO_SIDES = [null] as const

export class Run {
  readonly segments: Segment[] = []
  private readonly key: string
  private readonly restLabel: string
  /** By field; null where the section has none, which is usual. */
  private readonly ranges: Readonly<Record<string, Range>> | null
  /** By place; null where no gap has a length of its own. */
  private readonly gaps: Readonly<Record<string, Ms>> | null

  constructor(
    section: { key: string; restLabel?: string; ranges?: Record<string, Range>; gaps?: Record<string, Ms> },
    private readonly around: Around,
  ) {
    this.key = section.key
    this.restLabel = section.restLabel ?? ''
    const { ranges, gaps } = section
    this.gaps = gaps && Object.keys(gaps).length ? gaps : null
    this.ranges = ranges && Object.keys(ranges).length ? ranges : null
  }

  /** The segments from this index on share one slot of fixed length. */
  withinSlot(first: number, ofMs: Ms): void {
    let beforeMs = 0
    for (let index = first; index < this.segments.length; index++) {
      const segment = this.segments[index]
      if (!segment) continue
      segment.slot = { beforeMs, ofMs }
      beforeMs += segment.durationMs
    }
  }

  lead(ms: Ms): void {
    if (ms) this.put({ place: 'lead', kind: 'lead', length: given(ms, 'leadInMs'), spot: NOWHERE })
  }

  /** The same before a later round, pair or burst. */
  leadEach(place: string, ms: Ms): void {
    if (ms) this.put({ place: `${place}/lead`, kind: 'lead', length: given(ms, 'eachLeadMs'), spot: NOWHERE })
  }

  rest(place: string, length: Length, spot: Spot): void {
    const gap = this.gapOf(place, length)
    if (gap.ms) this.put({ place, kind: 'rest', length: gap, spot }).label = this.restLabel
  }

  pause(place: string, length: Length, spot: Spot, label = ''): void {
    const gap = this.gapOf(place, length)
    if (gap.ms) this.put({ place, kind: 'break', length: gap, spot }).label = label
  }

  /** What the last segment shows besides: moves to come. */
  showing(moves: string): void {
    const last = this.segments.at(-1)
    if (last && moves) last.note = `Shown now: ${moves}`
  }

  /** A single gap may have a length of its own. */
  private gapOf(place: string, length: Length): Length {
    const ms = this.gaps?.[place]
    return ms === undefined ? length : given(ms, 'gaps', place)
  }

  talk({ place, ms, label, spot, field }: { place: string; ms: Ms; label: string; spot: Spot; field: Path }): void {
    this.put({ place, kind: 'talk', length: { ms, field, baseMs: 0, times: 1, pace: 'open' }, spot }).label = label
  }

  /** One turn at a station: an interval, or one for each side, with a rest between two sides. */
  turn({ place, one, pass, work, rest, closes, spot }: Turn): void {
    const { path } = one
    const station = stationIn(one.station, pass)
    const move = this.around.cast(station.label)
    // Several moves in one interval have their sides within it.
    const rule = ruleOf(station, move)
    const sides = one.joined.length ? NO_SIDES : turnsOf(rule, pass, station.firstSide)
    const label = labelOf(one, pass)
    for (let index = 0; index < sides.length; index++) {
      const side = sides[index] ?? null
      const end = sides.length > 1 ? `${place}/${String(side)}` : place
      const segment = this.put({ place: `${end}/work`, kind: 'work', length: work, spot, station: path, pass })
      segment.label = label
      segment.side = side
      segment.firstSide = station.firstSide
      segment.reverses = rule === 'direction' && !one.joined.length
      segment.posture = station.posture ?? move.posture
      segment.endPosture = one.joined.length ? endOf(one, pass, this.around.cast) : (station.posture ?? move.endPosture)
      segment.effort = station.effort ?? move.effort
      if (one.joined.length) segment.moves = [station, ...one.joined].map((held) => labelIn(held, pass))
      else {
        segment.moves = [label]
        segment.reps = station.reps
        segment.repIs = station.repIs
        segment.weight = station.weight
      }
      if (rest && (closes || index < sides.length - 1)) this.rest(`${end}/rest`, rest, spot)
    }
  }

  /** Several moves in one interval (a buy-in, a couplet, a climb): one label, the facts of the hardest. */
  together({ place, placed, pass, label, work, spot }: Together): Segment {
    const moves = placed.map(({ station }) => moveIn(station, pass, this.around.cast))
    // As hard as the hardest that is known.
    const efforts = moves.flatMap(({ effort }) => effort ?? [])
    const station = placed[0]?.path ?? null
    const segment = this.put({ place: `${place}/work`, kind: 'work', length: work, spot, station, pass })
    segment.label = label
    segment.posture = placed[0]?.station.posture ?? moves[0]?.posture ?? null
    segment.endPosture = placed.at(-1)?.station.posture ?? moves.at(-1)?.endPosture ?? null
    segment.effort = placed[0]?.station.effort ?? (efforts.length ? Math.max(...efforts) : null)
    segment.moves = placed.map(({ station }) => labelIn(station, pass))
    return segment
  }

  /** The range that the one field of a length stands for. */
  private rangeOf({ field, times, baseMs, ms, range: own }: Length): Bounds | null {
    const [name, ...deeper] = field ?? []
    if (own) return likelyIn(own, 1000) === ms ? { minMs: own[0], maxMs: own[1] } : null
    const range = name === undefined || deeper.length || times !== 1 || baseMs ? undefined : this.ranges?.[name]
    return range && likelyIn(range, 1000) === ms ? { minMs: range[0], maxMs: range[1] } : null
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
    const range = (this.ranges ?? length.range) ? this.rangeOf(length) : null
    const { minMs, maxMs } = range ?? boundsOf(length.pace, length.ms)
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
      block: null,
      blocks: null,
      label: '',
      side: null,
      firstSide: 'left',
      startMs: 0,
      durationMs: length.ms,
      pace: range ? 'range' : length.pace,
      minMs,
      maxMs,
      estimated: Boolean(range) || length.pace !== 'fixed',
      slot: null,
      posture: null,
      endPosture: null,
      effort: null,
      reverses: false,
      reps: null,
      repIs: '',
      weight: null,
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
