// Blocks of a typed plan whose rounds are unlike: tables, ladders, climbs, breaks that grow, passes.
import type { SectionOf } from '../../score/formats'
import { mark } from './block'
import { only, setCount, setLength, type Draft, type Meaning } from './meaning'

/** Each round with lengths of its own. */
export function table(draft: Draft): Meaning[] | null {
  const { said } = draft
  const rounds = pairsOf(draft)
  if (!rounds) return null
  for (const kind of ['pairs', 'roundNo', 'work', 'rest', 'lengths', 'rounds', 'noRest'] as const) said.heed(kind)
  const section = draft.section('table', 'Main')
  setLength(section, 'roundBreakMs', said.between('round', 'set', 'unsaid'))
  return only({ ...section, rounds, stations: draft.plain() })
}

/** Listed in one line, told round by round, or one work with a list of rests. */
function pairsOf({ said }: Draft): { workMs: number; restMs: number }[] | null {
  const [listed] = said.all('pairs')
  if (listed) return listed.pairs.map(([workMs, restMs]) => ({ workMs, restMs }))
  const numbered = said.block.facts.filter((fact) => fact.kind === 'roundNo').length
  const works = said.block.facts.filter((fact) => fact.kind === 'work')
  const rests = said.block.facts.filter((fact) => fact.kind === 'rest')
  if (numbered > 1 && works.length === numbered && (rests.length < 2 || rests.length === numbered)) {
    const shared = rests.length === numbered ? null : (said.rest() ?? said.between('station'))
    return works.map((work, at) => ({ workMs: work.low, restMs: shared?.low ?? rests[at]?.low ?? 0 }))
  }
  const growing = said.all('lengths').find((fact) => fact.of === 'rest')
  const [work] = works
  return growing && work ? growing.values.map((restMs) => ({ workMs: work.low, restMs })) : null
}

/** "10/15/20/25/30 each": the lengths of work, round by round. */
export function lengths(draft: Draft): Meaning[] | null {
  const { said } = draft
  const listed = said.all('lengths').find((fact) => fact.of === 'work')
  if (!listed) return null
  mark(listed.tokens, 'used', 'work')
  said.heed('upAndDown')
  const { values } = listed
  const slot = said.amount('slot') ?? (said.block.topic === 'emom' ? { low: 60_000 } : null)
  const stations = draft.plain()
  const climb = climbOf(values)
  if (slot && climb) return only({ ...draft.section('slot', 'Main'), slotMs: slot.low, ...climb, stations })
  const asLong = said.has('restIsWork')
  said.heed('restIsWork')
  if (climb?.shape === 'up' && (asLong || said.block.topic === 'ladder')) {
    const { startMs, stepMs } = climb
    return only({ ...draft.section('ladder', 'Ladder'), rungs: values.length, startMs, stepMs, groups: [stations] })
  }
  const rest = said.rest()?.low ?? 0
  const restFor = (workMs: number): number => (asLong ? workMs : slot ? Math.max(0, slot.low - workMs) : rest)
  const rounds = values.map((workMs) => ({ workMs, restMs: restFor(workMs) }))
  return only({ ...draft.section('table', 'Main'), rounds, stations })
}

/** Works that are told round by round, within a minute that stays. */
export function slots(draft: Draft): Meaning[] | null {
  const { said } = draft
  const works = said.block.facts.filter((fact) => fact.kind === 'work')
  const numbered = said.block.facts.filter((fact) => fact.kind === 'roundNo').length
  const climb = numbered > 1 && works.length === numbered ? climbOf(works.map(({ low }) => low)) : null
  if (!climb || said.block.topic !== 'emom') return null
  for (const kind of ['roundNo', 'work', 'remainder'] as const) said.heed(kind)
  return only({ ...draft.section('slot', 'Main'), slotMs: 60_000, ...climb, stations: draft.plain() })
}

/** Even steps up, or up and back down; null where the lengths go otherwise. */
function climbOf(values: readonly number[]): Pick<SectionOf<'slot'>, 'steps' | 'startMs' | 'stepMs' | 'shape'> | null {
  const [startMs = 0, second = 0] = values
  const stepMs = second - startMs
  const top = values.indexOf(Math.max(...values))
  const shape = top === values.length - 1 ? 'up' : 'upAndDown'
  if (stepMs <= 0 || (shape === 'upAndDown' && top * 2 !== values.length - 1)) return null
  const even = values.every((ms, at) => ms === startMs + stepMs * (top - Math.abs(top - at)))
  return even ? { steps: top + 1, startMs, stepMs, shape } : null
}

/** "Start with 10 seconds and add 10 every round." */
export function ladder(draft: Draft): Meaning[] | null {
  const { said } = draft
  const [start] = said.all('start'),
    [step] = said.all('step')
  if (!start || !step || start.low < 1000 || step.low < 1000) return null
  const section = draft.section('ladder', 'Ladder')
  said.heed('restIsWork')
  mark([...start.tokens, ...step.tokens], 'used', 'work')
  const rounds = said.rounds()
  setCount(section, 'rungs', rounds)
  return only({ ...section, startMs: start.low, stepMs: step.low, groups: [draft.plain()] })
}

/** Up for a time, down for a time, by reps. */
export function pyramid(draft: Draft): Meaning[] | null {
  const { said } = draft
  const up = said.amount('up', 'climb')
  if (!up) return null
  said.heed('down')
  const section = draft.section('pyramid', 'Pyramid')
  const start = said.amount('start')?.low ?? 1,
    step = said.amount('step')?.low ?? 1
  const rest = said.between('unsaid', 'round', 'block') ?? said.rest()
  if (said.total) mark([said.total], 'kept', 'total')
  setLength(section, 'restMs', rest)
  return only({
    ...section,
    climbMs: up.low,
    startReps: Math.max(1, start),
    stepReps: Math.max(1, step),
    groups: [draft.plain()],
  })
}

/** Breaks that grow from round to round. */
export function growing(draft: Draft): Meaning[] | null {
  const { said } = draft
  const breaks = said.all('restAfterRound')
  const [step] = said.all('step')
  const [first, second] = breaks
  if (!first || (!second && !step)) return null
  const section = draft.section('growingBreak', 'Main')
  for (const kind of ['restAfterRound', 'step', 'noRest'] as const) said.heed(kind)
  const work = said.amount('work')
  const rounds = said.rounds()
  if (rounds) setCount(section, 'rounds', rounds)
  else section.rounds = breaks.length + 1
  setLength(section, 'workMs', work)
  const breakStepMs = step ? step.low : (second?.ms ?? first.ms) - first.ms
  return only({ ...section, breakMs: first.ms, breakStepMs: Math.max(0, breakStepMs), stations: draft.plain() })
}

/** Passes without rest, each with a length of its own. */
export function straight(draft: Draft): Meaning[] | null {
  const works = draft.said.block.facts.filter((fact) => fact.kind === 'work')
  if (works.length < 2 || !draft.said.has('noRest') || draft.said.ownHas('rest')) return null
  for (const kind of ['work', 'noRest', 'rounds'] as const) draft.said.heed(kind)
  return only({ ...draft.section('straight', 'Main'), passes: works.map(({ low }) => low), stations: draft.plain() })
}
