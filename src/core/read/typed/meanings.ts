// What a block of a typed plan can mean: candidates, each with how likely it is before any total is heard.
import { likelyIn, type Range } from '../../score/primitives'
import { bareSection, type FormatName, type Section, type SectionOf } from '../../score/formats'
import { usual } from '../../score/formats/rows'
import type { Station } from '../../score/formats/station'
import type { SideRule } from '../../score/postures'
import { clipped } from '../../text'
import type { FactOf } from './facts'
import { mark, type Item } from './outline'
import { Settled, type Amount } from './settled'
import { stationsOf } from './stations'

export interface Meaning {
  sections: Section[]
  /** Between 0 and 1: how often this is meant by such words. */
  prior: number
  /** What sets it apart from its rivals; a question is made of it. */
  label: MeaningLabel | null
}
export type MeaningLabel =
  | { code: 'in-turn' | 'of-each'; intervals: number }
  | { code: 'rounds'; rounds: number }
  | { code: 'intervals'; intervals: number }
  | { code: 'last-rest'; kept: boolean }

const only = (section: Section, prior = 1, label: MeaningLabel | null = null): Meaning[] => [
  { sections: [section], prior, label },
]

/** Builds the sections of one block. */
export class Meanings {
  private readonly said: Settled
  /** What all moves of the block do with their sides. */
  private readonly sideRule: SideRule | null
  constructor(
    said: Settled,
    /** A total of the whole plan, for a block that says none. */
    private readonly promiseMs: number | null,
  ) {
    this.said = said
    this.sideRule = said.has('byRound')
      ? 'alternate'
      : said.has('halves')
        ? 'halves'
        : said.has('eachSide')
          ? 'each'
          : null
    for (const kind of ['byRound', 'halves', 'eachSide', 'moveCount', 'burstCount'] as const) said.heed(kind)
  }

  private section<N extends FormatName>(format: N, fallback: string): SectionOf<N> {
    const name = clipped(this.said.block.name || fallback, 300)
    // Whoever takes the section gives it a key of its own.
    return bareSection(format, 'part', name)
  }

  private get items(): readonly Item[] {
    return this.said.items
  }

  /** In this order; the first that says anything. Null where the block means no section. */
  all(): Meaning[] | null {
    const { topic } = this.said.block
    if (topic === 'warmUp' || topic === 'coolDown') return this.part(topic)
    if (!this.items.length) return this.empty()
    return (
      this.table() ??
      this.lengths() ??
      this.ladder() ??
      this.pyramid() ??
      this.growing() ??
      this.clocked() ??
      this.everyMinute() ??
      this.buyIn() ??
      this.counted() ??
      this.straight() ??
      this.timed()
    )
  }

  /** A warm-up or cool-down, here or elsewhere. */
  private part(format: 'warmUp' | 'coolDown'): Meaning[] {
    const { said } = this
    const section = this.section(format, format === 'warmUp' ? 'Warm-up' : 'Cool-down')
    if (said.ownHas('ownWay')) {
      said.heed('ownWay')
      return only({ ...section, where: said.block.link ? 'linked' : 'viewer', link: said.block.link })
    }
    const own = new Settled(said.block, [])
    const work = own.amount('work')
    if (work) setLength(section, 'workMs', work)
    const rest = own.rest()
    if (rest) setLength(section, 'restMs', rest)
    const between = own.between('round', 'unsaid')
    if (between) setLength(section, 'roundBreakMs', between)
    const rounds = own.rounds()
    if (rounds) setCount(section, 'rounds', rounds)
    if (!this.items.length) {
      const total = own.takeTotal('work')
      if (total !== null) section.stations = [unnamed(total)]
      return only(section)
    }
    const total =
      work || this.items.some(({ workMs, parts }) => workMs !== null || parts[0]?.reps !== null) ? null : own.total
    // "Warm-up, 3 min" over three moves: a minute each.
    if (total && total.low % (this.items.length * 1000) === 0)
      section.workMs = (own.takeTotal('work') ?? 0) / this.items.length
    section.stations = this.items.flatMap((item) => joinedStations(item, { workMs: section.workMs }))
    return only(section)
  }

  /** A block without moves: talk, or a break; else there is nothing to be made of it. */
  private empty(): Meaning[] | null {
    const { said } = this
    const { topic } = said.block
    if (topic === 'talk')
      return only({
        ...this.section('talk', 'Talk'),
        guessMs: said.takeTotal('talk') ?? said.amount('work')?.low ?? null,
      })
    if (topic !== 'break') return null
    const length = said.takeTotal('break') ?? said.amount('rest', 'break')?.low ?? null
    return length === null ? null : only({ ...this.section('break', 'Break'), durationMs: length })
  }

  /** Each round with lengths of its own. */
  private table(): Meaning[] | null {
    const { said } = this
    const [listed] = said.all('pairs')
    const numbered = said.block.facts.filter((fact) => fact.kind === 'roundNo').length
    const works = said.block.facts.filter((fact) => fact.kind === 'work')
    const rests = said.block.facts.filter((fact) => fact.kind === 'rest')
    const byRound = numbered > 1 && works.length === numbered && rests.length === numbered
    const growing = said.all('lengths').find((fact) => fact.of === 'rest')
    const work = works[0]
    const pairs = listed
      ? listed.pairs
      : byRound
        ? works.map((one, at) => [one.low, rests[at]?.low ?? 0] as const)
        : growing && work
          ? growing.values.map((rest) => [work.low, rest] as const)
          : null
    if (!pairs) return null
    for (const kind of ['pairs', 'roundNo', 'work', 'rest', 'lengths', 'rounds', 'noRest'] as const) said.heed(kind)
    const section = this.section('table', 'Main')
    section.rounds = pairs.map(([workMs, restMs]) => ({ workMs, restMs }))
    const between = said.between('round', 'unsaid')
    if (between) setLength(section, 'roundBreakMs', between)
    section.stations = this.items.flatMap((item) => stationsOf(item))
    return only(section)
  }

  /** "10/15/20/25/30 each": the lengths of work, round by round. */
  private lengths(): Meaning[] | null {
    const { said } = this
    const listed = said.all('lengths').find((fact) => fact.of === 'work')
    if (!listed) return null
    mark(listed.tokens, 'used', 'work')
    const { values } = listed
    const [first = 0, second = 0] = values
    const step = second - first
    const slot = said.amount('slot')
    said.heed('upAndDown')
    if (slot) {
      const top = values.indexOf(Math.max(...values))
      const steps = top + 1
      const up = values.every(
        (ms, at) => ms === first + step * Math.min(at, values.length - 1 - at) || ms === first + step * at,
      )
      if (up && step > 0) {
        const section = this.section('slot', 'Main')
        const shape = steps < values.length ? 'upAndDown' : 'up'
        return only({
          ...section,
          slotMs: slot.low,
          steps,
          startMs: first,
          stepMs: step,
          shape,
          stations: this.plain(),
        })
      }
    }
    const even = step > 0 && values.every((ms, at) => ms === first + step * at)
    if (even && (said.has('restIsWork') || said.block.topic === 'ladder')) {
      said.heed('restIsWork')
      const section = this.section('ladder', 'Ladder')
      return only({ ...section, rungs: values.length, startMs: first, stepMs: step, groups: this.ladderGroups() })
    }
    const rest = said.rest()
    const section = this.section('table', 'Main')
    const restFor = (ms: number): number => (said.has('restIsWork') ? ms : slot ? slot.low - ms : (rest?.low ?? 0))
    said.heed('restIsWork')
    section.rounds = values.map((workMs) => ({ workMs, restMs: Math.max(0, restFor(workMs)) }))
    section.stations = this.plain()
    return only(section)
  }

  private plain(): Station[] {
    return this.items.flatMap((item) => stationsOf(item, { sideRule: this.sideRule }))
  }

  /** Moves that climb together. */
  private ladderGroups(): Station[][] {
    return [this.plain()]
  }

  /** "Start with 10 seconds and add 10 every round." */
  private ladder(): Meaning[] | null {
    const { said } = this
    const [start] = said.all('start'),
      [step] = said.all('step')
    if (!start || !step || start.low < 1000 || step.low < 1000) return null
    const section = this.section('ladder', 'Ladder')
    said.heed('restIsWork')
    mark([...start.tokens, ...step.tokens], 'used', 'work')
    const rounds = said.rounds()
    if (rounds) setCount(section, 'rungs', rounds)
    return only({ ...section, startMs: start.low, stepMs: step.low, groups: this.ladderGroups() })
  }

  /** Up for a time, down for a time, by reps. */
  private pyramid(): Meaning[] | null {
    const { said } = this
    const up = said.amount('up', 'climb')
    if (!up) return null
    said.heed('down')
    const section = this.section('pyramid', 'Pyramid')
    const start = said.amount('start')?.low ?? 1,
      step = said.amount('step')?.low ?? 1
    const rest = said.between('unsaid', 'round', 'block') ?? said.rest()
    if (said.total) mark([said.total], 'kept', 'total')
    if (rest) setLength(section, 'restMs', rest)
    return only({
      ...section,
      climbMs: up.low,
      startReps: Math.max(1, start),
      stepReps: Math.max(1, step),
      groups: [this.plain()],
    })
  }

  /** Breaks that grow from round to round. */
  private growing(): Meaning[] | null {
    const { said } = this
    const breaks = said.all('restAfterRound')
    const [step] = said.all('step')
    const [first, second] = breaks
    if (!first || (!second && !step)) return null
    const section = this.section('growingBreak', 'Main')
    for (const kind of ['restAfterRound', 'step', 'noRest'] as const) said.heed(kind)
    const work = said.amount('work')
    const rounds = said.rounds()
    if (rounds) setCount(section, 'rounds', rounds)
    else section.rounds = breaks.length + 1
    if (work) setLength(section, 'workMs', work)
    const breakStepMs = step ? step.low : (second?.ms ?? first.ms) - first.ms
    return only({ ...section, breakMs: first.ms, breakStepMs: Math.max(0, breakStepMs), stations: this.plain() })
  }

  /** As many times round as the time holds. */
  private clocked(): Meaning[] | null {
    const { said } = this
    const single = this.items.length === 1 ? this.items[0] : undefined
    const joined = single && single.parts.length > 1 && single.parts.every(({ reps }) => reps !== null)
    const amrap = said.block.topic === 'amrap'
    if (!amrap && !(joined && (single.workMs !== null || said.has('work')) && said.block.topic !== 'emom')) return null
    const section = this.section('couplet', amrap ? 'AMRAP' : 'Main')
    const total = amrap ? (said.takeTotal('work') ?? this.minutes()) : null
    const work = single?.workMs ?? total ?? said.amount('work')?.low ?? null
    if (work === null) return null
    section.workMs = work
    const rounds = said.rounds()
    if (rounds) setCount(section, 'rounds', rounds)
    const rest = said.rest() ?? this.closing() ?? said.between('round', 'unsaid')
    if (rest) setLength(section, 'restMs', rest)
    section.groups = [
      this.items.flatMap((item) => stationsOf({ ...item, workMs: null, restMs: null }, { apart: true })),
    ]
    return only(section)
  }

  /** A bare number beside a heading that counts minutes: "EMOM 12". */
  private minutes(): number | null {
    const [number] = this.said.block.numbers
    if (!number || number.low < 1 || number.low > 120) return null
    mark([number], 'used', 'minutes')
    return number.low * 60_000
  }

  private everyMinute(): Meaning[] | null {
    const { said } = this
    if (said.block.topic !== 'emom') return null
    const every = /(\d+)\s*minutes/i.exec(said.block.name)
    const slotMs = every ? Number(every[1]) * 60_000 : 60_000
    const together = this.items.length === 1 && (this.items[0]?.parts.length ?? 0) > 1
    const totalMs = said.takeTotal('minutes') ?? this.minutes()
    const typed = said.rounds()
    const places = this.items.length
    const rounds =
      typed && typed.unit !== 'times'
        ? typed.low
        : totalMs
          ? Math.max(1, Math.round(totalMs / slotMs / places))
          : (typed?.low ?? 1)
    const work = said.amount('work')
    said.heed('rest')
    const counts = this.items.some(({ parts }) => parts.some(({ reps }) => reps !== null))
    if (counts) {
      const section = this.section('minuteReps', 'Every minute')
      const stations = this.items.flatMap((item) => joinedStations(item, {}, together))
      return only({ ...section, slotMs, rounds, stations })
    }
    const section = this.section('minuteTime', 'Every minute')
    return only({ ...section, slotMs, rounds, workMs: Math.min(slotMs, work?.low ?? 40_000), stations: this.plain() })
  }

  /** So many of one, then another for the rest of the time. */
  private buyIn(): Meaning[] | null {
    const { said } = this
    const groups: [Item, Item][] = []
    const items = [...this.items]
    while (items.length) {
      const [first, second] = items.splice(0, 2)
      if (!first || !second?.then || first.parts[0]?.reps === null || second.parts[0]?.reps !== null) return null
      groups.push([first, second])
    }
    // A total of minutes says how many of them there are; a short one how long each is.
    const short = said.total && said.total.low <= 120_000 ? said.takeTotal('work') : null
    const work = said.amount('work') ?? amountOf(short)
    const section = this.section('buyIn', 'Main')
    if (work) setLength(section, 'workMs', work)
    else section.workMs = 60_000
    const rounds = said.rounds()
    const total = rounds ? null : said.takeTotal('minutes')
    if (rounds) setCount(section, 'rounds', rounds)
    else if (total) section.rounds = Math.max(1, Math.round(total / (section.workMs * groups.length)))
    const rest = said.rest() ?? this.closing()
    if (rest) setLength(section, 'restMs', rest)
    section.groups = groups.map((pair) => pair.flatMap((item) => stationsOf({ ...item, workMs: null })))
    return only(section)
  }

  /** Reps and no clock. */
  private counted(): Meaning[] | null {
    const { said } = this
    const timed = said.has('work') || this.items.some(({ workMs }) => workMs !== null)
    const [perSet] = said.all('setsOfReps')
    const bySet = this.items.every(({ sets }) => sets !== null) || perSet !== undefined
    const rounds = said.rounds()
    const reps = this.items.filter(({ parts }) => parts[0]?.reps !== null).length
    const finisher = said.block.topic === 'finisher'
    if (said.has('work') || (timed && !finisher && !(reps && reps >= this.items.length / 2))) return null
    if (!reps && !bySet && !finisher) return null
    if (bySet || (rounds?.unit === 'set' && !finisher)) return this.sets(perSet, rounds)
    const section = this.section('finisher', 'Main')
    if (rounds) setCount(section, 'rounds', rounds)
    const between = said.between('round', 'unsaid', 'block')
    const rest = said.rest()
    const closing = between ? null : this.closing()
    if (between ?? closing) setLength(section, 'roundBreakMs', between ?? closing ?? { low: 0, high: 0 })
    if (rest && rest.high) setLength(section, between ? 'restMs' : 'roundBreakMs', rest)
    section.stations = this.items.flatMap((item) => joinedStations(item, { sideRule: this.sideRule }, true))
    return only(section)
  }

  private sets(perSet: FactOf<'setsOfReps'> | undefined, rounds: Amount | null): Meaning[] {
    const { said } = this
    said.heed('setsOfReps')
    const rest = said.between('station', 'round', 'unsaid') ?? said.rest() ?? this.closing()
    const sections: Section[] = []
    let open: SectionOf<'sets'> | null = null
    for (const item of this.items) {
      const said = item.sets === null ? (perSet ?? rounds) : null
      const sets = said ? likelyCount(said) : (item.sets ?? 1)
      if (!open || open.sets !== sets) {
        open = this.section('sets', 'Main')
        setCount(open, 'sets', said ?? { low: sets, high: sets })
        if (rest) setLength(open, 'restMs', rest)
        sections.push(open)
      }
      open.stations.push(
        ...stationsOf(item, { reps: perSet?.reps ?? null, restMs: rest?.low ?? null, sideRule: this.sideRule }),
      )
    }
    return [{ sections, prior: 1, label: null }]
  }

  /** The rest on a line of its own after the last move, where it belongs to no move. */
  private closing(): Amount | null {
    const { block } = this.said
    const last = block.closing.at(-1)
    const item = block.items.at(-1)
    if (!last) return null
    if (item) Object.assign(item, { restMs: null })
    mark(last.tokens, 'used', 'rest')
    return last.ms
  }

  /** Passes without rest, each with a length of its own. */
  private straight(): Meaning[] | null {
    const works = this.said.block.facts.filter((fact) => fact.kind === 'work')
    if (works.length < 2 || !this.said.has('noRest') || this.said.ownHas('rest')) return null
    for (const kind of ['work', 'noRest', 'rounds'] as const) this.said.heed(kind)
    return only({ ...this.section('straight', 'Main'), passes: works.map(({ low }) => low), stations: this.plain() })
  }

  /** Work and rest by the clock. */
  private timed(): Meaning[] | null {
    const { said } = this
    const work = said.amount('work')
    const own = this.items.filter(({ workMs }) => workMs !== null)
    if (!work && said.block.topic !== 'tabata' && !own.length) return null
    const [looseRest] = said.all('rest')
    // "No rest. 2 minutes rest, then again": the second is the break between rounds.
    const afterRound = said.has('noRest') && looseRest ? looseRest : null
    const rest = said.rest()
    const rounds = said.rounds()
    const apart = said.all('between').some(({ what }) => what === 'station') && rounds?.unit === 'set'
    const byStation = apart || (said.has('stationByStation') && rounds !== null)
    if (byStation) return this.byStation(work, rest, rounds)
    if (said.block.topic === 'pairs' || this.namedPairs()) return this.pairs(work, rest, rounds)
    const tabata = said.block.topic === 'tabata'
    const classic = (work?.low ?? 20_000) === 20_000 && (rest?.low ?? 10_000) === 10_000
    const eight = rounds?.low === 8 && rounds.high === 8
    const pieces = this.items.flatMap((item) =>
      item.joiner && item.joiner !== '/' && !tabata
        ? [item]
        : item.parts.map((part) => ({ ...item, parts: [part], joiner: '' as const })),
    )
    if (tabata || (classic && eight && pieces.length <= 2)) return this.bursts(pieces, work, rest, rounds)
    if (rounds?.unit === 'interval' && pieces.length === 2) return this.bursts(pieces, work, rest, rounds)
    if (afterRound) mark(afterRound.tokens, 'used', 'between')
    return this.circuits({ work, rest, rounds, afterRound })
  }

  private byStation(work: Amount | null, rest: Amount | null, rounds: Amount | null): Meaning[] {
    const section = this.section('byStation', 'Main')
    this.said.heed('stationByStation')
    if (work) setLength(section, 'workMs', work)
    if (rest) setLength(section, 'restMs', rest)
    if (rounds) setCount(section, 'sets', rounds)
    const change = this.said.between('station')
    if (change) setLength(section, 'changeMs', change)
    section.stations = this.items.flatMap((item) =>
      stationsOf(item, { workMs: section.workMs, sideRule: this.sideRule }),
    )
    return only(section)
  }

  private namedPairs(): boolean {
    const { facts } = this.said.block
    const counted = facts.find((fact) => fact.kind === 'burstCount')
    const said = counted?.tokens.some(({ text }) => /pair|superset/i.test(text)) ?? false
    return said && this.items.every(({ parts }) => parts.length === 2)
  }

  private pairs(work: Amount | null, rest: Amount | null, rounds: Amount | null): Meaning[] {
    const section = this.section('pairs', 'Main')
    if (work) setLength(section, 'workMs', work)
    if (rest) setLength(section, 'restMs', rest)
    if (rounds) setCount(section, 'times', rounds)
    const between = this.said.between('block', 'unsaid', 'round') ?? this.middle()
    if (between) setLength(section, 'pairBreakMs', between)
    const joined = this.items.every(({ parts }) => parts.length === 2)
    const flat = this.items.flatMap((item) => stationsOf(withoutRest(item), { workMs: section.workMs, apart: joined }))
    section.groups = Array.from({ length: Math.ceil(flat.length / 2) }, (_, at) => flat.slice(at * 2, at * 2 + 2))
    return only(section)
  }

  /** A rest on a line of its own between two pairs. */
  private middle(): Amount | null {
    const [first] = this.said.block.closing
    if (!first) return null
    for (const { tokens } of this.said.block.closing) mark(tokens, 'used', 'between')
    return first.ms
  }

  /** Short bursts: two moves in turn, or each for itself. */
  private bursts(
    items: readonly Item[],
    work: Amount | null,
    rest: Amount | null,
    rounds: (Amount & { each?: boolean; unit?: string }) | null,
  ): Meaning[] {
    const intervals = Math.min(500, rounds?.low ?? 8)
    const fill = (section: SectionOf<'burst'>): SectionOf<'burst'> => {
      if (work) setLength(section, 'workMs', work)
      if (rest) setLength(section, 'restMs', rest)
      section.intervals = intervals
      const between = this.said.between('block', 'unsaid', 'round')
      if (between) setLength(section, 'burstBreakMs', between)
      section.lastRest = 'replaced'
      return section
    }
    const [count] = this.said.all('burstCount')
    const each = (prior: number): Meaning => {
      const section = fill(this.section('burst', 'Tabata'))
      section.groups = items.map((item) => stationsOf({ ...item, workMs: null }))
      return { sections: [section], prior, label: { code: 'of-each', intervals } }
    }
    const inTurn = (prior: number): Meaning => {
      if (items.length === 2) {
        const section = fill(this.section('burst', 'Tabata'))
        section.groups = [items.flatMap((item) => stationsOf({ ...item, workMs: null }))]
        return { sections: [section], prior, label: { code: 'in-turn', intervals } }
      }
      const section = this.section('circuit', 'Main')
      setLength(section, 'workMs', work ?? { low: 20_000, high: 20_000 })
      setLength(section, 'restMs', rest ?? { low: 10_000, high: 10_000 })
      section.rounds = intervals / items.length
      section.stations = items.flatMap((item) => stationsOf({ ...item, workMs: null }))
      return { sections: [section], prior, label: { code: 'in-turn', intervals } }
    }
    if (items.length === 1) return [each(1)]
    if (count && count.value === items.length) return [each(1)]
    if (rounds?.unit === 'interval') return [inTurn(1)]
    const likely = rounds?.each ? 0.1 : 0.65
    return intervals % items.length === 0 ? [inTurn(likely), each(1 - likely)] : [each(1)]
  }

  private circuits(given: {
    work: Amount | null
    rest: Amount | null
    rounds: FactOf<'rounds'> | null
    afterRound: Amount | null
  }): Meaning[] {
    const { said } = this
    const { work, rounds } = given
    const between = said.between('round', 'block', 'unsaid') ?? given.afterRound
    const station = said.between('station')
    const rest = given.afterRound ? { low: 0, high: 0 } : (given.rest ?? station)
    const flat = this.items.flatMap((item) =>
      item.joiner === '/' ? item.parts.map((part) => ({ ...item, parts: [part] })) : [item],
    )
    const workMs = work ? likely(work) : usual(flat.map((item) => ({ durationMs: item.workMs })))
    const typed = flat.filter((item) => item.restMs !== null)
    const restMs = rest
      ? likely(rest)
      : typed.length === flat.length
        ? usual(flat.map((item) => ({ durationMs: item.restMs })))
        : 0
    const make = (count: Amount): SectionOf<'circuit'> => {
      const section = this.section('circuit', 'Main')
      setCount(section, 'rounds', count)
      if (work) setLength(section, 'workMs', work)
      else section.workMs = workMs
      if (rest) setLength(section, 'restMs', rest)
      else section.restMs = restMs
      if (between) setLength(section, 'roundBreakMs', between)
      if (typed.length && between) section.lastRest = 'kept'
      section.stations = flat.flatMap((item) => stationsOf(item, { workMs, restMs, sideRule: this.sideRule }))
      return section
    }
    const n = flat.length
    if (rounds?.unit === 'interval' && n > 1 && rounds.low % n === 0)
      return only(make({ low: rounds.low / n, high: rounds.low / n }))
    if (rounds?.unit === 'times' && rounds.low === rounds.high && n > 1 && rounds.low > n && rounds.low % n === 0) {
      // "9 x 30/10" is what a timer is set to; "30/10 x 9" is said of rounds.
      const before = rounds.tokens[0]?.role === 'N'
      const asRounds = only(make(rounds), before ? 0.45 : 0.65, { code: 'rounds', rounds: rounds.low })
      const turns = rounds.low / n
      return [
        ...only(make({ low: turns, high: turns }), before ? 0.55 : 0.35, { code: 'intervals', intervals: rounds.low }),
        ...asRounds,
      ]
    }
    if (rounds) return only(make(rounds))
    const goal = said.total?.low ?? this.promiseMs
    if (goal) {
      const one = n * (workMs + restMs)
      const times = Math.round(
        (goal + likely(between ?? { low: 0, high: 0 })) / (one + likely(between ?? { low: 0, high: 0 })),
      )
      if (times > 1 && times <= 100) {
        if (said.total) mark([said.total], 'used', 'total')
        const by = { low: times, high: times }
        return [
          ...only(make(by), 0.6, { code: 'rounds', rounds: times }),
          ...only(make({ low: 1, high: 1 }), 0.4, { code: 'rounds', rounds: 1 }),
        ]
      }
    }
    return only(make({ low: 1, high: 1 }))
  }
}

const withoutRest = (item: Item): Item => ({ ...item, restMs: null })
const amountOf = (ms: number | null): Amount | null => (ms === null ? null : { low: ms, high: ms })
const likelyCount = ({ low, high }: Amount): number => (low === high ? low : likelyIn([low, high], 1))
const likely = ({ low, high }: Amount): number => (low === high ? low : likelyIn([low, high], 1000))
const unnamed = (workMs: number): Station => ({ ...stationsOf({ ...NO_ITEM })[0], label: '', workMs }) as Station
const NO_ITEM: Item = {
  ...{
    parts: [{ label: '', reps: null, tokens: [] }],
    joiner: '',
    workMs: null,
    restMs: null,
    restTokens: [],
    sets: null,
  },
  ...{ facts: [], then: false, note: '', bulleted: false },
}

/** Parts with reps of their own share an interval; without, a row is one name. */
function joinedStations(item: Item, options: Parameters<typeof stationsOf>[1], together = false): Station[] {
  const counts = item.parts.length > 1 && item.parts.some(({ reps }) => reps !== null)
  if (!counts && !together) return stationsOf(item, options)
  if (item.parts.length < 2) return stationsOf(item, options)
  return stationsOf(item, { ...options, apart: true }).map((station, at) => ({ ...station, joined: at > 0 }))
}

interface Ranged {
  ranges: Record<string, Range>
}
/** Sets a length of a section, or the range that is all that was said of it. */
function setLength<T extends Ranged>(section: T, field: keyof T & string, { low, high }: Amount): void {
  if (low < high) section.ranges[field] = [low, high]
  Object.assign(section, { [field]: low < high ? likelyIn([low, high], 1000) : low })
}
function setCount<T extends Ranged>(section: T, field: keyof T & string, { low, high }: Amount): void {
  const bounded = (value: number): number => Math.min(500, Math.max(1, value))
  const [least, most] = [bounded(low), bounded(high)]
  if (least < most) section.ranges[field] = [least, most]
  Object.assign(section, { [field]: least < most ? likelyIn([least, most], 1) : least })
}
