// Growing break (F9): stations without rest; the break between rounds grows by a step.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { counts, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, knobs } from './format'
import { usual } from './rows'
import { given, ownWork, placed, Run, stepped } from './run'

const fields = [
  counts('rounds', 'rounds', { usual: 4 }),
  length('workMs', 'on', { usual: 30_000 }),
  length('breakMs', 'break', { usual: 20_000 }),
  length('breakStepMs', 'step', { usual: 10_000 }),
  LEAD,
] as const
export const growingBreakSchema = sectionSchema('growingBreak', fields, 'flat')
type GrowingBreak = z.infer<typeof growingBreakSchema>

export const growingBreak: Format<GrowingBreak> = defineFormat('growingBreak', {
  schema: growingBreakSchema,
  notation: { head: 'growing', fields, moves: 'flat', perMove: ['workMs', 'swaps'] },
  works: ({ stations, rounds }) => stations.length * rounds,
  solve: knobs('rounds', 'workMs', 'breakMs'),
  expand(section, around) {
    const { rounds } = section
    const run = new Run(section, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const work = given(section.workMs, 'workMs')
    const first = { ms: section.breakMs, path: ['breakMs'] },
      step = { ms: section.breakStepMs, path: ['breakStepMs'] }
    const places = placed(section.stations, 'stations')
    for (let round = 1; round <= rounds; round++) {
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
      if (round < rounds) run.pause(`r${round}/break`, stepped(first, step, round - 1), { round, rounds })
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
})
