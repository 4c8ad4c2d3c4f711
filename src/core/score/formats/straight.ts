// Straight through (F5): no rest inside a pass; a second pass with other lengths; a gap of two breaths between passes.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { head, LEAD, length, ms, type Format } from './format'
import { given, ownWork, placed, Run } from './run'
import { usual } from './rows'
import { stations } from './station'

const schema = z.object({
  format: z.literal('straight'),
  ...head,
  leadInMs: ms,
  /** Work length of each pass. */
  passes: z.array(ms).min(1).max(500),
  gapMs: ms,
  stations,
})
type Straight = z.infer<typeof schema>
export { schema as straightSchema }

export const straight: Format<Straight> = {
  schema,
  words: { round: { one: 'pass', many: 'passes' } },
  notation: {
    head: 'straight',
    moves: 'flat',
    perMove: ['workMs', 'swaps'],
    fields: [{ kind: 'lengths', field: 'passes', word: 'on', bare: [30_000] }, length('gapMs', 'gap'), LEAD],
  },
  defaults: (key, name) => ({
    format: 'straight',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    passes: [40_000, 20_000],
    gapMs: 8000,
    stations: [],
  }),
  expand(section, around) {
    const { passes } = section
    const run = new Run(section.key, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    passes.forEach((workMs, index) => {
      const round = index + 1,
        rounds = passes.length
      const work = given(workMs, 'passes', index)
      places.forEach((one, at) =>
        run.turn(`r${round}/s${at + 1}`, one, round, ownWork(one, work), null, false, {
          round,
          rounds,
          station: at + 1,
          stations: places.length,
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
}
