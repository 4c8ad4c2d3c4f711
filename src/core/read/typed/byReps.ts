// Blocks of a typed plan that count reps: for a time, every minute, for what is left, in sets, at one's own pace.
import type { Section, SectionOf } from '../../score/formats'
import type { FactOf } from './facts'
import { amountOf, joinedStations, likely, only, setCount, setLength, type Draft, type Meaning } from './meaning'
import type { Item } from './block'
import type { Amount } from './settled'
import { stationsOf } from './stations'
import { english } from './words/en'

/** As many times round as the time holds. */
export function clocked(draft: Draft): Meaning[] | null {
  const { said, items } = draft
  const amrap = said.block.topic === 'amrap'
  const workMs = amrap
    ? (said.takeTotal('work') ?? draft.minutes() ?? draft.said.amount('work')?.low ?? items[0]?.workMs)
    : coupletMs(draft)
  if (!workMs) return null
  const section = { ...draft.section('couplet', amrap ? 'AMRAP' : 'Main'), workMs }
  setCount(section, 'rounds', said.rounds())
  setLength(section, 'restMs', said.rest() ?? draft.closing() ?? said.between('round', 'set', 'unsaid'))
  section.groups = [items.flatMap((item) => stationsOf({ ...item, workMs: null, restMs: null }, { apart: true }))]
  return only(section)
}

/** "4 curls + 5 presses for 90 s": how long one row of reps is repeated; null where it is not. */
function coupletMs({ said, items }: Draft): number | null {
  const [item, ...more] = items
  const counts = item && !more.length && item.parts.length > 1 && item.parts.every(({ reps }) => reps !== null)
  if (!counts || said.block.topic === 'emom') return null
  const long = said.total && said.total.low >= 120_000 ? said.takeTotal('work') : null
  return item.workMs ?? said.amount('work')?.low ?? long
}

/** So many reps at the top of each minute, or so long in each. */
export function everyMinute(draft: Draft): Meaning[] | null {
  const { said, items } = draft
  if (said.block.topic !== 'emom') return null
  // "Every 90 seconds", "E2MOM".
  const [, amount, unit = ''] = /(\d+)\s*(\p{L}+)/u.exec(said.block.name) ?? []
  const slotMs = amount ? Number(amount) * (english.units[unit.toLowerCase()] ?? 60_000) : 60_000
  const totalMs = said.takeTotal('minutes') ?? draft.minutes()
  const rounds = roundsOfMinutes(said.rounds(), totalMs && totalMs / slotMs, items.length)
  const work = said.amount('work')
  said.heed('rest')
  if (items.every(({ parts }) => parts.every(({ reps }) => reps === null))) {
    const section = { ...draft.section('minuteTime', 'Every minute'), slotMs, rounds }
    return only({ ...section, workMs: Math.min(slotMs, work?.low ?? section.workMs), stations: draft.plain() })
  }
  const together = items.length === 1 && (items[0]?.parts.length ?? 0) > 1
  const stations = items.flatMap((item) => joinedStations(item, {}, together))
  return only({ ...draft.section('minuteReps', 'Every minute'), slotMs, rounds, stations })
}

/** Rounds as they are said, else as many as the minutes hold. "EMOM x 10" counts minutes as well. */
function roundsOfMinutes(typed: FactOf<'rounds'> | null, minutes: number | null, places: number): number {
  if (typed && typed.unit !== 'times') return typed.low
  const slots = minutes ?? typed?.low ?? null
  return slots ? Math.max(1, Math.round(slots / places)) : 1
}

/** So many of one, then another for the rest of the time. */
export function buyIn(draft: Draft): Meaning[] | null {
  const { said } = draft
  const groups = turnsOfTwo(draft.items)
  if (!groups) return null
  const section = draft.section('buyIn', 'Main')
  // A total of minutes says how many of them there are; a short one how long each is.
  const short = said.total && said.total.low <= 120_000 ? said.takeTotal('work') : null
  setLength(section, 'workMs', said.amount('work') ?? amountOf(short ?? 60_000))
  const rounds = said.rounds()
  const total = rounds ? null : said.takeTotal('minutes')
  if (total) section.rounds = Math.max(1, Math.round(total / (section.workMs * groups.length)))
  setCount(section, 'rounds', rounds)
  setLength(section, 'restMs', said.rest() ?? draft.closing())
  section.groups = groups.map((pair) => pair.flatMap((item) => stationsOf({ ...item, workMs: null })))
  return only(section)
}

/** Counted and then uncounted, all through; null where it is not so. */
function turnsOfTwo(items: readonly Item[]): [Item, Item][] | null {
  const groups: [Item, Item][] = []
  for (let at = 0; at < items.length; at += 2) {
    const [first, second] = items.slice(at, at + 2)
    if (!first || !second || first.parts[0]?.reps === null || second.parts[0]?.reps !== null) return null
    if (!second.then && !second.facts.some(({ kind }) => kind === 'remainder')) return null
    groups.push([first, second])
  }
  return groups.length ? groups : null
}

/** Reps and no clock: sets of one move after another, or rounds at one's own pace. */
export function counted(draft: Draft): Meaning[] | null {
  const { said, items } = draft
  if (said.has('work')) return null
  const each = repsOfEach(draft)
  if (each !== null) return ownPace(draft, said.all('rounds')[1] ?? null, each)
  const finisher = said.block.topic === 'finisher'
  const [perSet] = said.all('setsOfReps')
  const bySet = perSet !== undefined || items.every(({ sets }) => sets !== null)
  const reps = items.filter(({ parts }) => parts[0]?.reps !== null).length
  const timed = items.some(({ workMs }) => workMs !== null)
  if (!finisher && !bySet && (!reps || (timed && reps < items.length / 2))) return null
  const rounds = said.rounds()
  return bySet || (rounds?.unit === 'set' && !finisher) ? sets(draft, perSet, rounds) : ownPace(draft, rounds)
}

/** "Do each move 10 times, 3 rounds": reps of all moves; null where it is not so. */
function repsOfEach({ said, items }: Draft): number | null {
  const plain = items.every(({ parts, workMs, sets }) => workMs === null && sets === null && parts[0]?.reps === null)
  const [each] = said.all('rounds')
  if (!plain || each?.unit !== 'set' || !said.has('stationByStation')) return null
  said.heed('stationByStation')
  said.heed('rounds')
  return each.low
}

function ownPace(draft: Draft, rounds: Amount | null, reps: number | null = null): Meaning[] {
  const { said, items } = draft
  const section = draft.section('finisher', 'Main')
  setCount(section, 'rounds', rounds)
  const between = said.between('round', 'set', 'unsaid', 'block')
  const rest = said.rest()
  setLength(section, 'roundBreakMs', between ?? draft.closing())
  if (rest?.high) setLength(section, between ? 'restMs' : 'roundBreakMs', rest)
  section.stations = items.flatMap((item) => joinedStations(item, { sideRule: draft.sideRule, reps }, true))
  return only(section)
}

/** A section for each run of moves with as many sets. */
function sets(draft: Draft, perSet: FactOf<'setsOfReps'> | undefined, rounds: Amount | null): Meaning[] {
  const { said } = draft
  said.heed('setsOfReps')
  const rest = said.between('set', 'station', 'round', 'unsaid') ?? said.rest() ?? draft.closing()
  const sections: Section[] = []
  let open: SectionOf<'sets'> | null = null
  for (const item of draft.items) {
    const count = amountOf(item.sets) ?? perSet ?? rounds ?? { low: 1, high: 1 }
    if (!open || open.sets !== likely(count, 1)) {
      open = draft.section('sets', 'Main')
      setCount(open, 'sets', count)
      setLength(open, 'restMs', rest)
      sections.push(open)
    }
    const options = { reps: perSet?.reps ?? null, restMs: rest?.low ?? null, sideRule: draft.sideRule }
    open.stations.push(...stationsOf(item, options))
  }
  return [{ sections, prior: 1, label: null }]
}
