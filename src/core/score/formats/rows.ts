// What a recogniser asks of the rows of a free list: which stations, which rounds, which usual lengths.
import { castOf } from '../cast'
import type { SideRule } from '../postures'
import type { Ms } from '../../units'
import type { ListRow } from './row'
import { newStation, newSwap, type Station } from './station'

const NO_MOVES: readonly [] = []

/** The length that most rows have; the first of those that share the most. 0 without rows. */
export function usual(rows: readonly Pick<ListRow, 'durationMs'>[]): Ms {
  const times = new Map<Ms, number>()
  for (const { durationMs } of rows) if (durationMs !== null) times.set(durationMs, (times.get(durationMs) ?? 0) + 1)
  let best = 0,
    most = 0
  for (const [ms, count] of times) if (count > most) [best, most] = [ms, count]
  return best
}

interface StationOptions {
  set?: number | null
  lengths?: boolean
}

export class Rows {
  readonly works: readonly ListRow[]
  readonly rests: readonly ListRow[]
  readonly breaks: readonly ListRow[]
  readonly leadInMs: Ms
  readonly rounds: number
  readonly sets: number
  /** The name of the active rest, or empty. */
  readonly restLabel: string

  constructor(readonly all: readonly ListRow[]) {
    this.works = all.filter((row) => row.kind === 'work')
    this.rests = all.filter((row) => row.kind === 'rest')
    this.breaks = all.filter((row) => row.kind === 'break')
    this.leadInMs = all[0]?.kind === 'lead' ? (all[0].durationMs ?? 0) : 0
    this.restLabel = this.rests[0]?.label ?? ''
    this.rounds = this.works.reduce((top, row) => Math.max(top, row.round ?? 0), 0)
    this.sets = this.works.reduce((top, row) => Math.max(top, row.set ?? 0), 0)
  }

  worksIn(round: number | null, set?: number | null): readonly ListRow[] {
    return this.works.filter((row) => row.round === round && (set === undefined || row.set === set))
  }

  /** The stations of a rotation, from how their labels and sides go over the rounds. */
  stations({ set, lengths = true }: StationOptions = {}): Station[] {
    const rounds = this.rounds
      ? Array.from({ length: this.rounds }, (_, index) => this.worksIn(index + 1, set))
      : [this.worksIn(null, set)]
    const first = rounds[0] ?? []
    const even = rounds.every((works) => works.length === first.length)
    const found: Station[] = []
    for (let at = 0; at < first.length; at++) {
      const row = first[at]
      if (!row) continue
      const over = even ? rounds.flatMap((works) => works[at] ?? []) : [row]
      const next = first[at + 1]
      const eachSide =
        row.side === 'left' && next?.side === 'right' && next.label === row.label && next.durationMs === row.durationMs
      found.push(stationFrom(over, eachSide ? 'each' : undefined, lengths ? usual(first) : null))
      if (eachSide) at++
    }
    return found
  }

  /** Stations that are done set after set: runs of one label. */
  runs({ lengths = true }: { lengths?: boolean } = {}): Station[] {
    const runs: ListRow[][] = []
    for (const row of this.works) {
      const open = runs.at(-1)
      if (open && (row.set ?? 1) > 1) open.push(row)
      else if (open && row.side === 'right' && open.at(-1)?.side === 'left' && open.at(-1)?.set === row.set)
        open.push(row)
      else runs.push([row])
    }
    return runs.map((run) => {
      const each = run[0]?.side === 'left' && run[1]?.side === 'right' && run[0].set === run[1].set
      return stationFrom(
        each ? run.filter((_, index) => index % 2 === 0) : run,
        each ? 'each' : undefined,
        lengths ? usual(this.works) : null,
      )
    })
  }

  /** Groups by set. `ownFrom`: whether lengths of their own are told from the whole list or from within the set. */
  groups({ ownFrom = 'none' }: { ownFrom?: 'none' | 'set' | 'all' } = {}): Station[][] {
    const sets = this.sets ? Array.from({ length: this.sets }, (_, index) => index + 1) : [null]
    return sets.map((set) =>
      this.stations({ set, lengths: false }).map((station, at) => {
        const row = this.worksIn(this.rounds ? 1 : null, set)[at]
        return ownFrom === 'all' && row && row.durationMs !== usual(this.works)
          ? { ...station, workMs: row.durationMs }
          : station
      }),
    )
  }

  /** Groups of which one interval is one turn, `size` moves in turn. */
  turns(size: number): Station[][] {
    return Array.from({ length: Math.max(1, this.sets) }, (_, index) => {
      const works = this.works.filter((row) => this.sets === 0 || row.set === index + 1)
      return Array.from({ length: size }, (_unused, at) => works.filter((_row, place) => place % size === at)).flatMap(
        (over) => (over.length ? [stationFrom(over, undefined, null)] : []),
      )
    })
  }

  /** Groups whose moves are named in one label, each once, reps in front. */
  joined(separator: string, prefix = ''): Station[][] {
    const labels = [...new Set(this.works.map((row) => row.label).filter((label) => label.startsWith(prefix)))]
    return labels.map((label) =>
      label
        .slice(prefix.length)
        .split(separator)
        .map((part) => {
          const counted = /^(\d+) (.+)$/.exec(part)
          return counted ? newStation(counted[2] ?? '', { reps: Number(counted[1]) }) : newStation(part)
        }),
    )
  }
}

function stationFrom(over: readonly ListRow[], known: SideRule | undefined, usualMs: Ms | null): Station {
  const first = over[0]
  if (!first) return newStation('')
  const rule = known ?? sideRuleOver(over)
  const swaps = over.flatMap((row, index) =>
    index && row.label !== over[index - 1]?.label ? [newSwap(index + 1, row.label, { sideRule: rule })] : [],
  )
  return newStation(first.label, {
    sideRule: rule === castOf(NO_MOVES)(first.label).sideRule ? null : rule,
    reps: first.reps,
    posture: first.posture,
    effort: first.effort,
    swaps,
    workMs: usualMs !== null && first.reps === null && first.durationMs !== usualMs ? first.durationMs : null,
  })
}

function sideRuleOver(over: readonly ListRow[]): SideRule {
  const sides = over.map((row) => row.side)
  if (sides.every((side) => side === null)) return 'none'
  if (sides.every((side) => side === 'switch')) return 'halves'
  if (sides.every((side) => side === 'both')) return 'both'
  if (sides.every((side, index) => side === (index % 2 ? 'right' : 'left'))) return 'alternate'
  return sides[0] === 'right' ? 'right' : 'left'
}
