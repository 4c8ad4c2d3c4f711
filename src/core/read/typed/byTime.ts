// Blocks of a typed plan that work and rest by the clock: circuits, stations one by one, pairs, short bursts.
import type { SectionOf } from '../../score/formats'
import { usual } from '../../score/formats/rows'
import { mark, type Item } from './block'
import type { FactOf } from './facts'
import { amountOf, joinedStations, likely, only, setCount, setLength, type Draft, type Meaning } from './meaning'
import type { Amount, Settled } from './settled'
import { stationsOf } from './stations'

/** What a block says of its clock. */
interface Clock {
  work: Amount | null
  rest: Amount | null
  rounds: FactOf<'rounds'> | null
  /** "No rest. 2 minutes rest, then again": the second is the break between rounds. */
  afterRound: FactOf<'rest'> | null
}

const LONGEST_WORK = 300_000
/** So many are rounds rather than intervals. */
const FEW_ROUNDS = 5
const NOTHING: Amount = { low: 0, high: 0 }
const CLASSIC = { workMs: 20_000, restMs: 10_000, intervals: 8 }

/** "3 tabatas (4 min each)" says how long a whole one is. */
function workOf(said: Settled, tabata: boolean): Amount | null {
  const work = said.amount('work')
  return tabata && work && work.low > 120_000 ? null : work
}

/** Null where nothing says how long work lasts. */
export function timed(draft: Draft): Meaning[] | null {
  const { said, items } = draft
  const tabata = said.block.topic === 'tabata'
  const unsaid = !said.has('work') && !tabata && items.every(({ workMs }) => workMs === null)
  // "20 seconds as hard as you can, 10 seconds rest": what stands beside a rest is work.
  const bare =
    unsaid && said.has('rest') && (said.total?.low ?? LONGEST_WORK) < LONGEST_WORK ? said.takeTotal('work') : null
  if (unsaid && bare === null) return null
  const [loose] = said.all('rest')
  const clock: Clock = {
    work: workOf(said, tabata) ?? amountOf(bare),
    afterRound: said.has('noRest') && loose ? loose : null,
    rest: said.rest(),
    rounds: said.rounds(),
  }
  if (isByStation(draft, clock)) return byStation(draft, clock)
  if (said.block.topic === 'pairs' || namedPairs(draft)) return pairs(draft, clock)
  const single = items.flatMap((item) => (item.joiner && item.joiner !== '/' && !tabata ? [item] : partsOf(item)))
  return tabata || isBurst(single, clock) ? bursts(draft, single, clock) : circuits(draft, clock)
}

const partsOf = (item: Item): Item[] => item.parts.map((part) => ({ ...item, parts: [part], joiner: '' }))

function isByStation({ said }: Draft, { rounds }: Clock): boolean {
  const apart = said.all('between').some(({ what }) => what === 'station') && rounds?.unit === 'set'
  return apart || (said.has('stationByStation') && rounds !== null)
}

/** 20 on and 10 off eight times, or so many intervals, of one move or two. */
function isBurst(items: readonly Item[], { work, rest, rounds }: Clock): boolean {
  const classic = (work?.low ?? CLASSIC.workMs) === CLASSIC.workMs && (rest?.low ?? CLASSIC.restMs) === CLASSIC.restMs
  const eight = rounds?.low === CLASSIC.intervals && rounds.high === CLASSIC.intervals
  return (classic && eight && items.length <= 2) || (rounds?.unit === 'interval' && items.length === 2)
}

/** All sets of one move, then the next. */
function byStation(draft: Draft, { work, rest, rounds }: Clock): Meaning[] {
  const section = draft.section('byStation', 'Main')
  draft.said.heed('stationByStation')
  setLength(section, 'workMs', work)
  setLength(section, 'restMs', rest ?? draft.said.between('set'))
  setCount(section, 'sets', rounds)
  setLength(section, 'changeMs', draft.said.between('station'))
  const { workMs } = section
  section.stations = draft.items.flatMap((item) => stationsOf(item, { workMs, sideRule: draft.sideRule }))
  return only(section)
}

/** "3 supersets", each row of two. */
function namedPairs({ said, items }: Draft): boolean {
  const counted = said.block.facts.find((fact) => fact.kind === 'burstCount')
  const named = counted?.tokens.some(({ text }) => /pair|superset/i.test(text)) ?? false
  return named && items.every(({ parts }) => parts.length === 2)
}

function pairs(draft: Draft, { work, rest, rounds }: Clock): Meaning[] {
  const section = draft.section('pairs', 'Main')
  setLength(section, 'workMs', work)
  setLength(section, 'restMs', rest)
  setCount(section, 'times', rounds)
  setLength(section, 'pairBreakMs', draft.said.between('block', 'unsaid', 'round', 'set') ?? draft.middle())
  const apart = draft.items.every(({ parts }) => parts.length === 2)
  const { workMs } = section
  const flat = draft.items.flatMap((item) => stationsOf({ ...item, restMs: null }, { workMs, apart }))
  section.groups = Array.from({ length: Math.ceil(flat.length / 2) }, (_, at) => flat.slice(at * 2, at * 2 + 2))
  return only(section)
}

/** Short bursts: several moves in turn, or each for itself. */
function bursts(draft: Draft, items: readonly Item[], clock: Clock): Meaning[] {
  const { rounds } = clock
  // "Tabata x 4" over four moves: one for each.
  const oneEach = rounds?.unit === 'times' && rounds.low !== CLASSIC.intervals && rounds.low === items.length
  const intervals = oneEach ? CLASSIC.intervals : Math.min(500, rounds?.low ?? CLASSIC.intervals)
  const each = (prior: number): Meaning => {
    const section = burstOf(draft, clock, intervals)
    section.groups = items.map((item) => stationsOf({ ...item, workMs: null }))
    return { sections: [section], prior, label: { code: 'of-each', intervals } }
  }
  const inTurn = (prior: number): Meaning => ({
    sections: [items.length === 2 ? pairOfBursts() : turns()],
    prior,
    label: { code: 'in-turn', intervals },
  })
  const pairOfBursts = (): SectionOf<'burst'> => ({
    ...burstOf(draft, clock, intervals),
    groups: [items.flatMap((item) => stationsOf({ ...item, workMs: null }))],
  })
  const turns = (): SectionOf<'circuit'> => {
    const section = draft.section('circuit', 'Main')
    setLength(section, 'workMs', clock.work ?? amountOf(CLASSIC.workMs))
    setLength(section, 'restMs', clock.rest ?? amountOf(CLASSIC.restMs))
    section.rounds = intervals / items.length
    section.stations = items.flatMap((item) => stationsOf({ ...item, workMs: null }))
    return section
  }
  const [count] = draft.said.all('burstCount')
  if (oneEach || items.length === 1 || count?.value === items.length || intervals % items.length) return [each(1)]
  if (rounds?.unit === 'interval') return [inTurn(1)]
  const shared = rounds?.each ? 0.1 : 0.65
  return [inTurn(shared), each(1 - shared)]
}

function burstOf(draft: Draft, { work, rest }: Clock, intervals: number): SectionOf<'burst'> {
  const section = draft.section('burst', 'Tabata')
  setLength(section, 'workMs', work)
  setLength(section, 'restMs', rest)
  setLength(section, 'burstBreakMs', draft.said.between('block', 'unsaid', 'round', 'set'))
  return { ...section, intervals, lastRest: 'replaced' }
}

/** Round after round, as often as is said, or as often as a stated total holds. */
function circuits(draft: Draft, clock: Clock): Meaning[] {
  const { rounds } = clock
  const make = circuitMaker(draft, clock)
  const { moves } = make
  const times = (count: number): SectionOf<'circuit'> => make.circuit({ low: count, high: count })
  if (!rounds) return asOftenAsFits(draft, make)
  const divides = moves > 1 && rounds.low === rounds.high && rounds.low % moves === 0
  if (divides && rounds.unit === 'interval') return only(times(rounds.low / moves))
  const { alternates } = draft.said.block
  if (!divides || (!alternates && rounds.unit !== 'times') || rounds.low <= moves) return only(make.circuit(rounds))
  // "9 x 30/10" is what a timer is set to; "30/10 x 9" is said of rounds.
  const timer = rounds.tokens[0]?.role === 'N' && rounds.low > FEW_ROUNDS ? 0.55 : 0.35
  const inAll = alternates ? 0.6 : timer
  return [
    ...only(times(rounds.low / moves), inAll, { code: 'intervals', intervals: rounds.low }),
    ...only(make.circuit(rounds), 1 - inAll, { code: 'rounds', rounds: rounds.low }),
  ]
}

interface CircuitMaker {
  moves: number
  /** Once through, and the break after it. */
  roundMs: number
  breakMs: number
  circuit: (rounds: Amount) => SectionOf<'circuit'>
}

function circuitMaker(draft: Draft, { work, rest: said, afterRound }: Clock): CircuitMaker {
  if (afterRound) mark(afterRound.tokens, 'used', 'between')
  const rows = draft.items.flatMap((item) => (item.joiner === '/' ? partsOf(item) : [item]))
  const typed = rows.filter((item) => item.restMs !== null)
  const common = (lengths: readonly (number | null)[]): number => usual(lengths.map((durationMs) => ({ durationMs })))
  const workMs = work ? likely(work) : common(rows.map((item) => item.workMs))
  const sets = draft.said.between('set')
  const unsaid = draft.said.between('unsaid')
  const short = unsaid && unsaid.high < workMs ? unsaid : null
  // Where nothing else is said of rests, those between sets, or between whatever it is, are all.
  const rest = afterRound ? NOTHING : (said ?? draft.said.between('station') ?? sets ?? short)
  const spare = [unsaid, afterRound, sets].find((one) => one !== null && one !== rest) ?? null
  const between = draft.said.between('round', 'block') ?? spare
  // Rests were typed where they are: where some moves have none, none is usual.
  const ownRests = typed.length === rows.length ? common(rows.map((item) => item.restMs)) : 0
  const restMs = rest ? likely(rest) : ownRests
  return {
    moves: rows.length,
    roundMs: rows.length * (workMs + restMs),
    breakMs: between ? likely(between) : 0,
    circuit(rounds) {
      const section = draft.section('circuit', 'Main')
      setCount(section, 'rounds', rounds)
      setLength(section, 'workMs', work ?? amountOf(workMs))
      setLength(section, 'restMs', rest ?? amountOf(restMs))
      setLength(section, 'roundBreakMs', between)
      if (typed.length && between) section.lastRest = 'kept'
      section.stations = rows.flatMap((item) => joinedStations(item, { workMs, restMs, sideRule: draft.sideRule }))
      return section
    },
  }
}

/** Nobody says how often: once, or as often as a stated total holds. */
function asOftenAsFits(draft: Draft, { circuit, roundMs, breakMs }: CircuitMaker): Meaning[] {
  const { total } = draft.said
  const goal = total?.low ?? draft.promiseMs
  const once = circuit({ low: 1, high: 1 })
  const times = goal ? Math.round((goal + breakMs) / (roundMs + breakMs)) : 1
  if (times < 2 || times > 100) return only(once)
  if (total) mark([total], 'used', 'total')
  return [
    ...only(circuit({ low: times, high: times }), 0.6, { code: 'rounds', rounds: times }),
    ...only(once, 0.4, { code: 'rounds', rounds: 1 }),
  ]
}
