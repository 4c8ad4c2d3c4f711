// Finisher (F18): reps x rounds after the clocked part, at the viewer's own pace. No clock, so every length is an
// estimate.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { USUAL_REPS } from './counting'
import { counts, length, sectionSchema } from './fields'
import { defineFormat, type Format } from './format'
import { given, ownPace, ownRest, placed, Run } from './run'
import { usual } from './rows'
import { withReps } from './station'

const fields = [
  counts('rounds', 'rounds', { usual: 3 }),
  length('restMs', 'off', { mayLack: true }),
  length('roundBreakMs', 'between', { mayLack: true }),
] as const
export const finisherSchema = sectionSchema('finisher', fields, 'flat')
type Finisher = z.infer<typeof finisherSchema>

export const finisher: Format<Finisher> = defineFormat('finisher', {
  schema: finisherSchema,
  notation: { head: 'finisher', fields, moves: 'flat', perMove: ['workMs', 'restMs', 'reps', 'swaps'] },
  works: ({ stations, rounds }) => stations.length * rounds,
  keeps: () => ['finisher'],
  findings: ({ name, stations }) =>
    stations.some((station) => station.workMs !== null && station.reps !== null)
      ? [
          {
            check: 'counter',
            id: 'clock',
            severity: 'warning',
            fact: { code: 'reps-with-lengths', section: name },
            mend: {
              fact: { code: 'take-lengths-off' },
              apply: (draft) => {
                for (const station of draft.stations) if (station.reps !== null) station.workMs = null
              },
            },
          },
        ]
      : [],
  expand(section, around) {
    const { rounds, roundBreakMs } = section
    const run = new Run(section, around)
    const rest = given(section.restMs, 'restMs')
    const places = placed(section.stations, 'stations')
    for (let round = 1; round <= rounds; round++) {
      places.forEach((one, at) =>
        run.turn({
          place: `r${round}/${one.key}`,
          one,
          pass: round,
          work: ownPace(one, round, around.cast),
          rest: ownRest(one, rest),
          closes: at < places.length - 1 || (round < rounds && !roundBreakMs),
          spot: { round, rounds, station: at + 1, stations: places.length },
        }),
      )
      if (round < rounds) run.pause(`r${round}/break`, given(roundBreakMs, 'roundBreakMs'), { round, rounds })
    }
    return run.segments
  },
  describe: ({ rounds, stations, roundBreakMs }, { words }) =>
    `${counted(rounds, words.round)} of ${stations.map((station) => withReps({ ...station, reps: station.reps ?? USUAL_REPS }, 1)).join(', ') || 'no moves yet'}, at your own pace` +
    (rounds > 1 && roundBreakMs ? `, ${formatLength(roundBreakMs)} between ${words.round.many}` : ''),
  recognise: (rows, key, name) => [
    {
      ...finisher.defaults(key, name),
      rounds: Math.max(1, rows.rounds),
      restMs: usual(rows.rests),
      roundBreakMs: usual(rows.breaks),
      stations: rows.stations({ lengths: false }),
    },
  ],
})
