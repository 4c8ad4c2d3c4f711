// What a block of a typed plan can mean: candidates, each with how likely it is before any total is heard.
import { newStation } from '../../score/formats/station'
import { buyIn, clocked, counted, everyMinute } from './byReps'
import { growing, ladder, lengths, pyramid, slots, straight, table } from './byRound'
import { timed } from './byTime'
import { Draft, joinedStations, only, setCount, setLength, type Meaning } from './meaning'
import { Settled } from './settled'

/** Ways to read a block that has moves; the first that says anything is taken. */
const WAYS: readonly ((draft: Draft) => Meaning[] | null)[] = [
  ...[slots, table, lengths, ladder, pyramid, growing],
  ...[clocked, everyMinute, buyIn, counted],
  ...[straight, timed],
]

/**
 * @param promiseMs a total of the whole plan, for a block that says none.
 * @returns null where the block means no section.
 */
export function meaningsOf(said: Settled, promiseMs: number | null): Meaning[] | null {
  const draft = new Draft(said, promiseMs)
  const { topic } = said.block
  if (topic === 'warmUp' || topic === 'coolDown') return part(draft, topic)
  if (!draft.items.length) return withoutMoves(draft)
  for (const way of WAYS) {
    const meanings = way(draft)
    if (meanings) return meanings
  }
  return null
}

/** A warm-up or cool-down, here or elsewhere. */
function part(draft: Draft, format: 'warmUp' | 'coolDown'): Meaning[] {
  const { said, items } = draft
  const section = draft.section(format, format === 'warmUp' ? 'Warm-up' : 'Cool-down')
  if (said.ownHas('ownWay')) {
    said.heed('ownWay')
    return only({ ...section, where: said.block.link ? 'linked' : 'viewer', link: said.block.link })
  }
  // What is said for the whole plan is said of the work, not of what stands before and after it.
  const own = new Settled(said.block, [])
  const work = own.amount('work')
  setLength(section, 'workMs', work)
  setLength(section, 'restMs', own.rest())
  setLength(section, 'roundBreakMs', own.between('round', 'set', 'unsaid'))
  setCount(section, 'rounds', own.rounds())
  if (!items.length) {
    const total = own.takeTotal('work')
    return only(total === null ? section : { ...section, stations: [newStation('', { workMs: total })] })
  }
  const lengthsSaid = work !== null || items.some(({ workMs, parts }) => workMs !== null || parts[0]?.reps !== null)
  // "Warm-up, 3 min" over three moves: a minute each.
  if (!lengthsSaid && own.total && own.total.low % (items.length * 1000) === 0)
    section.workMs = (own.takeTotal('work') ?? 0) / items.length
  section.stations = items.flatMap((item) => joinedStations(item, { workMs: section.workMs }))
  return only(section)
}

/** A block without moves: talk, or a break; else there is nothing to be made of it. */
function withoutMoves(draft: Draft): Meaning[] | null {
  const { said } = draft
  const { topic } = said.block
  if (topic === 'talk') {
    const guessMs = said.takeTotal('talk') ?? said.amount('work')?.low ?? null
    return only({ ...draft.section('talk', 'Talk'), guessMs })
  }
  if (topic !== 'break') return null
  const durationMs = said.takeTotal('break') ?? said.amount('rest', 'break')?.low ?? null
  return durationMs === null ? null : only({ ...draft.section('break', 'Break'), durationMs })
}
