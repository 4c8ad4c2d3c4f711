// Straight through (F5): no rest inside a pass; a second pass with other lengths; a gap of two breaths between passes.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { LEAD, length, sectionSchema, type LengthsField } from './fields'
import { defineFormat, type Format } from './format'
import { usual } from './rows'
import { given, ownWork, placed, Run } from './run'

const PASSES: LengthsField<'passes'> = {
  kind: 'lengths',
  field: 'passes',
  word: 'on',
  bare: [30_000],
  usual: [40_000, 20_000],
}
const fields = [PASSES, length('gapMs', 'gap', { usual: 8000 }), LEAD] as const
export const straightSchema = sectionSchema('straight', fields, 'flat')
type Straight = z.infer<typeof straightSchema>

export const straight: Format<Straight> = defineFormat('straight', {
  schema: straightSchema,
  words: { round: { one: 'pass', many: 'passes' } },
  notation: { head: 'straight', fields, moves: 'flat', perMove: ['workMs', 'swaps'] },
  works: ({ stations, passes }) => stations.length * passes.length,
  expand(section, around) {
    const { passes } = section
    const run = new Run(section, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    passes.forEach((workMs, index) => {
      const round = index + 1,
        rounds = passes.length
      const work = given(workMs, 'passes', index)
      places.forEach((one, at) =>
        run.turn({
          place: `r${round}/${one.key}`,
          one,
          pass: round,
          work: ownWork(one, work),
          rest: null,
          closes: false,
          spot: { round, rounds, station: at + 1, stations: places.length },
        }),
      )
      if (round < rounds) run.pause(`r${round}/break`, given(section.gapMs, 'gapMs'), { round, rounds })
    })
    return run.segments
  },
  describe: ({ passes, gapMs, stations }, { words }) =>
    `${counted(passes.length, words.round)} straight through ${counted(stations.length, words.station)}, ${passes.map(formatLength).join(' then ')} each` +
    (passes.length > 1 && gapMs ? `, ${formatLength(gapMs)} between ${words.round.many}` : ''),
  recognise: (rows, key, name) => [
    {
      ...straight.defaults(key, name),
      leadInMs: rows.leadInMs,
      gapMs: usual(rows.breaks),
      stations: rows.stations(),
      passes: Array.from({ length: Math.max(1, rows.rounds) }, (_, index) => usual(rows.worksIn(index + 1))),
    },
  ],
})
