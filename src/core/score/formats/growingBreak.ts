// Growing break (F9): stations without rest; the break between rounds grows by a step.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { count, counts, head, LEAD, length, ms, type Format } from './format'
import { given, ownWork, placed, Run, stepped } from './run'
import { usual } from './rows'
import { stations } from './station'

const schema = z.object({
  format: z.literal('growingBreak'),
  ...head,
  leadInMs: ms,
  rounds: count(1, 500),
  workMs: ms,
  breakMs: ms,
  breakStepMs: ms,
  stations,
})
type GrowingBreak = z.infer<typeof schema>
export { schema as growingBreakSchema }

export const growingBreak: Format<GrowingBreak> = {
  schema,
  notation: {
    head: 'growing',
    moves: 'flat',
    perMove: ['workMs', 'swaps'],
    fields: [
      counts('rounds', 'rounds', 1, 500),
      length('workMs', 'on'),
      length('breakMs', 'break'),
      length('breakStepMs', 'step'),
      LEAD,
    ],
  },
  defaults: (key, name) => ({
    format: 'growingBreak',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    rounds: 4,
    workMs: 30_000,
    breakMs: 20_000,
    breakStepMs: 10_000,
    stations: [],
  }),
  expand(section, around) {
    const { rounds } = section
    const run = new Run(section.key, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs')
    const places = placed(section.stations, 'stations')
    for (let round = 1; round <= rounds; round++) {
      places.forEach((one, at) =>
        run.turn(`r${round}/s${at + 1}`, one, round, ownWork(one, work), null, false, {
          round,
          rounds,
          station: at + 1,
          stations: places.length,
        }),
      )
      if (round < rounds)
        run.pause(
          `r${round}/break`,
          stepped(section.breakMs, ['breakMs'], section.breakStepMs, round - 1, ['breakStepMs']),
          { round, rounds },
        )
    }
    return run.segments
  },
  describe: ({ rounds, workMs, breakMs, breakStepMs, stations }, { words }) =>
    `${counted(rounds, words.round)} of ${counted(stations.length, words.station)} without rest, ${formatLength(workMs)} each` +
    (rounds > 1
      ? `, breaks from ${formatLength(breakMs)} to ${formatLength(breakMs + breakStepMs * (rounds - 2))}`
      : ''),
  recognise(rows, key, name) {
    const breakMs = rows.breaks[0]?.durationMs ?? 0
    return [
      {
        ...growingBreak.defaults(key, name),
        leadInMs: rows.leadInMs,
        rounds: Math.max(1, rows.rounds),
        workMs: usual(rows.worksIn(1)),
        breakMs,
        breakStepMs: Math.max(0, (rows.breaks[1]?.durationMs ?? breakMs) - breakMs),
        stations: rows.stations(),
      },
    ]
  },
}
