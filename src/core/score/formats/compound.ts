// Compound slot (F10): one long work and rest, then short ones back to back, then a longer rest; in a later pass the
// long move is swapped and the short ones stay.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, counts, LAST, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, knobs } from './format'
import { restStays } from './lastRest'
import { usual } from './rows'
import { given, groupKey, ownRest, ownWork, placed, Run } from './run'

const fields = [
  counts('passes', 'passes', { usual: 2 }),
  length('longMs', 'long', { usual: 60_000 }),
  length('longRestMs', 'rest', { usual: 20_000 }),
  length('shortMs', 'short', { usual: 20_000 }),
  length('slotRestMs', 'after each slot', { usual: 40_000 }),
  length('passBreakMs', 'between'),
  LEAD,
  LAST,
  ACTIVE,
] as const
/** The first move of a slot is the long one, the others are short. */
export const compoundSchema = sectionSchema('compound', fields, 'groups')
type Compound = z.infer<typeof compoundSchema>

export const compound: Format<Compound> = defineFormat('compound', {
  schema: compoundSchema,
  words: { round: { one: 'pass', many: 'passes' }, set: { one: 'slot', many: 'slots' } },
  notation: { head: 'compound', fields, moves: 'groups', groupSize: [1, 0], perMove: ['workMs', 'restMs', 'swaps'] },
  works: ({ groups, passes }) => groups.flat().length * passes,
  solve: knobs('passes', 'longMs', 'shortMs', { timesHigh: 6, oneGroup: true }),
  expand(section, around) {
    const { passes, groups, passBreakMs } = section
    const run = new Run(section, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    const long = given(section.longMs, 'longMs'),
      longRest = given(section.longRestMs, 'longRestMs'),
      short = given(section.shortMs, 'shortMs'),
      slotRest = given(section.slotRestMs, 'slotRestMs')
    for (let pass = 1; pass <= passes; pass++) {
      const here = { round: pass, rounds: passes }
      groups.forEach((group, at) => {
        const places = placed(group, 'groups', at)
        const between = { ...here, set: at + 1, sets: groups.length }
        places.forEach((one, index) =>
          run.turn({
            place: `r${pass}/${one.key}`,
            one,
            pass,
            work: ownWork(one, index ? short : long),
            rest: index ? null : ownRest(one, longRest),
            closes: true,
            spot: { ...between, station: index + 1, stations: places.length },
          }),
        )
        const end = { last: pass === passes, breakBetween: passBreakMs > 0, follows: around.follows }
        const closing = at < groups.length - 1 || restStays(section.lastRest, end)
        if (closing) run.rest(`r${pass}/${groupKey(group)}/after`, slotRest, between)
      })
      if (pass < passes) run.pause(`r${pass}/break`, given(passBreakMs, 'passBreakMs'), here)
    }
    return run.segments
  },
  describe: ({ passes, groups, longMs, longRestMs, shortMs, slotRestMs }, { words }) =>
    `${counted(passes, words.round)} of ${counted(groups.length, words.set)}: ${formatLength(longMs)} long, ${formatLength(longRestMs)} off, then short ones of ${formatLength(shortMs)} back to back, ${formatLength(slotRestMs)} off`,
  recognise(rows, key, name) {
    const works = rows.worksIn(1, 1)
    const long = works[0],
      after = long ? rows.all[rows.all.indexOf(long) + 1] : undefined
    const slotRest = rows.all.find((row, at) => row.kind === 'rest' && rows.all[at - 1] !== long && row !== after)
    return LAST_RESTS.map((lastRest) => ({
      ...compound.defaults(key, name),
      leadInMs: rows.leadInMs,
      passes: Math.max(1, rows.rounds),
      longMs: long?.durationMs ?? 0,
      longRestMs: after?.kind === 'rest' ? (after.durationMs ?? 0) : 0,
      shortMs: usual(works.slice(1)),
      slotRestMs: slotRest?.durationMs ?? 0,
      passBreakMs: usual(rows.breaks),
      lastRest,
      restLabel: rows.restLabel,
      groups: rows.groups({ ownFrom: 'set' }),
    }))
  },
})
