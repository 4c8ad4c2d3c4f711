// Compound slot (F10): one long work and rest, then short ones back to back, then a longer rest; in a later pass the long
// move is swapped and the short ones stay.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import {
  ACTIVE,
  count,
  counts,
  head,
  LAST,
  LAST_RESTS,
  lastRest,
  LEAD,
  length,
  ms,
  restLabel,
  type Format,
} from './format'
import { restStays } from './lastRest'
import { given, ownRest, ownWork, placed, Run } from './run'
import { usual } from './rows'
import { groups } from './station'

const schema = z.object({
  format: z.literal('compound'),
  ...head,
  leadInMs: ms,
  passes: count(1, 500),
  longMs: ms,
  longRestMs: ms,
  shortMs: ms,
  slotRestMs: ms,
  passBreakMs: ms,
  lastRest,
  restLabel,
  /** The first move of a slot is the long one, the others are short. */
  groups,
})
type Compound = z.infer<typeof schema>
export { schema as compoundSchema }

export const compound: Format<Compound> = {
  schema,
  words: { round: { one: 'pass', many: 'passes' }, set: { one: 'slot', many: 'slots' } },
  notation: {
    head: 'compound',
    moves: 'groups',
    groupSize: [1, 0],
    perMove: ['workMs', 'restMs', 'swaps'],
    fields: [
      counts('passes', 'passes', 1, 500),
      length('longMs', 'long'),
      length('longRestMs', 'rest'),
      length('shortMs', 'short'),
      length('slotRestMs', 'after each slot'),
      length('passBreakMs', 'between'),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'compound',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    passes: 2,
    longMs: 60_000,
    longRestMs: 20_000,
    shortMs: 20_000,
    slotRestMs: 40_000,
    passBreakMs: 0,
    lastRest: 'replaced',
    restLabel: '',
    groups: [],
  }),
  expand(section, around) {
    const { passes, groups, passBreakMs } = section
    const run = new Run(section.key, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    const long = given(section.longMs, 'longMs'),
      longRest = given(section.longRestMs, 'longRestMs'),
      short = given(section.shortMs, 'shortMs')
    for (let pass = 1; pass <= passes; pass++) {
      groups.forEach((group, at) => {
        const places = placed(group, 'groups', at)
        const between = { round: pass, rounds: passes, set: at + 1, sets: groups.length }
        places.forEach((one, index) =>
          run.turn(
            `r${pass}/g${at + 1}/s${index + 1}`,
            one,
            pass,
            ownWork(one, index ? short : long),
            index ? null : ownRest(one, longRest),
            true,
            { ...between, station: index + 1, stations: places.length },
            section.restLabel,
          ),
        )
        const lastSlot = at === groups.length - 1
        const closing =
          !lastSlot ||
          restStays(section.lastRest, {
            last: pass === passes,
            breakBetween: passBreakMs > 0,
            breakFollows: around.breakFollows,
          })
        if (closing)
          run.rest(`r${pass}/g${at + 1}/rest`, given(section.slotRestMs, 'slotRestMs'), between, section.restLabel)
      })
      if (pass < passes) run.pause(`r${pass}/break`, given(passBreakMs, 'passBreakMs'), { round: pass, rounds: passes })
    }
    return run.segments
  },
  describe: ({ passes, groups, longMs, longRestMs, shortMs, slotRestMs }, { words }) =>
    `${counted(passes, words.round)} of ${counted(groups.length, words.set)}: ${formatLength(longMs)} long, ${formatLength(longRestMs)} off, then short ones of ${formatLength(shortMs)} back to back, ${formatLength(slotRestMs)} off`,
  recognise(rows, key, name) {
    const works = rows.worksIn(1, 1)
    const long = works[0],
      after = long ? rows.all[rows.all.indexOf(long) + 1] : undefined
    const slotRests = rows.rests.filter((rest) => rows.all[rows.all.indexOf(rest) - 1] !== long && rest !== after)
    return LAST_RESTS.map((lastRest) => ({
      ...compound.defaults(key, name),
      leadInMs: rows.leadInMs,
      passes: Math.max(1, rows.rounds),
      longMs: long?.durationMs ?? 0,
      longRestMs: after?.kind === 'rest' ? (after.durationMs ?? 0) : 0,
      shortMs: usual(works.slice(1)),
      slotRestMs: slotRests[0]?.durationMs ?? 0,
      passBreakMs: usual(rows.breaks),
      lastRest,
      restLabel: rows.rests[0]?.label ?? '',
      groups: rows.groups({ ownFrom: 'set' }),
    }))
  },
}
