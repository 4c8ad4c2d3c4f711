// From what was understood of a pasted plan to a section: which format its words and numbers mean.
import type { Ms } from '../../units'
import type { FreshKeys } from '../score'
import { newSection, type Section } from './index'
import { withKeys } from './keys'
import { usual } from './rows'
import { newStation, type Station } from './station'

/** A move as it was typed. */
export interface PlanItem {
  label: string
  workMs: Ms | null
  reps: number | null
  eachSide: boolean
  /** The rest typed after it. */
  restMs: Ms | null
}

/** A part of a plan: its headings, the numbers in them, and its moves. */
export interface PlanBlock {
  name: string
  headings: string[]
  rounds: number | null
  workMs: Ms | null
  restMs: Ms | null
  betweenMs: Ms | null
  totalMs: Ms | null
  items: PlanItem[]
}

type Maker = (block: PlanBlock, named: Naming, stations: Station[]) => Section | null
/** A fresh key and the block's name, or the fallback where it has none. */
type Naming = (fallback: string) => [key: string, name: string]

/** Words of a heading that decide the format, in the order in which they are tried. */
const BY_WORD: readonly { word: RegExp; make: Maker }[] = [
  { word: /warm[\s-]?up/i, make: warmUp },
  { word: /cool[\s-]?down|stretch(?:es|ing)/i, make: coolDown },
  { word: /tabata/i, make: bursts },
  { word: /emom|every minute/i, make: everyMinute },
]
const BY_WORD_WITHOUT_MOVES: readonly { word: RegExp; make: Maker }[] = [
  {
    word: /intro|welcome|outro|talk|demo/i,
    make: ({ totalMs }, named) => ({ ...newSection('talk', ...named('Talk')), guessMs: totalMs }),
  },
  {
    word: /warm[\s-]?up/i,
    make: ({ totalMs }, named) =>
      totalMs ? { ...newSection('warmUp', ...named('Warm-up')), where: 'viewer', reminderMs: 8000 } : null,
  },
]

/** @returns null where the block means no section. */
export function sectionFromPlan(block: PlanBlock, keys: FreshKeys): Section | null {
  const named: Naming = (fallback) => [keys.take(block.name || fallback), block.name || fallback]
  const stations = block.items.map((item) =>
    newStation(item.label, { workMs: item.workMs, reps: item.reps, sideRule: item.eachSide ? 'each' : null }),
  )
  const words = block.items.length ? BY_WORD : BY_WORD_WITHOUT_MOVES
  const meant = words.find(({ word }) => block.headings.some((heading) => word.test(heading)))
  const section = meant
    ? meant.make(block, named, stations)
    : block.items.length
      ? roundsOf(block, named, stations)
      : null
  return section && withKeys(section)
}

function warmUp({ workMs }: PlanBlock, named: Naming, stations: Station[]): Section {
  return { ...newSection('warmUp', ...named('Warm-up')), workMs: workMs ?? 30_000, stations }
}

function coolDown({ workMs }: PlanBlock, named: Naming, stations: Station[]): Section {
  return {
    ...newSection('coolDown', ...named('Cool-down')),
    workMs: workMs ?? 30_000,
    stations: stations.map((one) => ({ ...one, reps: null })),
  }
}

function bursts(block: PlanBlock, named: Naming, stations: Station[]): Section {
  return {
    ...newSection('burst', ...named('Burst')),
    workMs: block.workMs ?? 20_000,
    restMs: block.restMs ?? 10_000,
    intervals: block.rounds ?? 8,
    talkMs: 0,
    burstBreakMs: block.betweenMs ?? 0,
    leadInMs: 0,
    groups: stations.map((one, index) => [{ ...one, restMs: block.items[index]?.restMs ?? null }]),
  }
}

function everyMinute(block: PlanBlock, named: Naming, stations: Station[]): Section {
  const rounds = block.totalMs ? Math.max(1, Math.round(block.totalMs / 60_000 / stations.length)) : (block.rounds ?? 1)
  const counted = stations.some((one) => one.reps !== null)
  const [key, name] = named('Every minute')
  return counted
    ? { ...newSection('minuteReps', key, name), rounds, leadInMs: 0, lastRest: 'replaced', stations }
    : { ...newSection('minuteTime', key, name), workMs: block.workMs ?? 40_000, rounds, leadInMs: 0, stations }
}

/** Rounds of timed moves, or, where nothing has a length, of counted ones. */
function roundsOf(block: PlanBlock, named: Naming, stations: Station[]): Section {
  const { items } = block
  const rounds = block.rounds ?? 1
  if (items.every((item) => (item.workMs ?? block.workMs) === null))
    return { ...newSection('finisher', ...named('Finisher')), rounds, stations }
  const workMs = block.workMs ?? usual(items.map((item) => ({ durationMs: item.workMs })))
  const restMs = block.restMs ?? usual(items.map((item) => ({ durationMs: item.restMs })))
  const typed = items.some((item) => item.restMs !== null)
  return {
    ...newSection('circuit', ...named('Main')),
    leadInMs: 0,
    rounds,
    workMs,
    restMs,
    roundBreakMs: block.betweenMs ?? 0,
    // Rests were typed where they are; with none typed after a move there is none.
    lastRest: items.at(-1)?.restMs ? 'kept' : 'replaced',
    stations: stations.map((one, index) => {
      const own = items[index]?.restMs ?? null
      return {
        ...one,
        workMs: one.workMs === workMs ? null : one.workMs,
        restMs: !typed || own === restMs ? null : (own ?? (block.restMs === null ? 0 : null)),
      }
    }),
  }
}
