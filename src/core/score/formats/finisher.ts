// Finisher (F18): reps x rounds after the clocked part, at the viewer's own pace. No clock, so every length is an
// estimate.
import type { z } from 'zod'
import { counted } from '../vocabulary'
import { intervalOf, USUAL_REPS } from './counting'
import { counts, sectionSchema } from './fields'
import { defineFormat, type Format } from './format'
import { guessed, placed, Run } from './run'
import { withReps } from './station'

const fields = [counts('rounds', 'rounds', { usual: 3 })] as const
export const finisherSchema = sectionSchema('finisher', fields, 'flat')
type Finisher = z.infer<typeof finisherSchema>

export const finisher: Format<Finisher> = defineFormat('finisher', {
  schema: finisherSchema,
  notation: { head: 'finisher', fields, moves: 'flat', perMove: ['reps', 'swaps'] },
  works: ({ stations, rounds }) => stations.length * rounds,
  keeps: () => ['finisher'],
  findings: ({ name, stations }) =>
    stations.some((station) => station.workMs !== null)
      ? [
          {
            check: 'counter',
            id: 'clock',
            severity: 'warning',
            fact: { code: 'reps-with-lengths', section: name },
            mend: {
              fact: { code: 'take-lengths-off' },
              apply: (draft) => {
                for (const station of draft.stations) station.workMs = null
              },
            },
          },
        ]
      : [],
  expand(section, around) {
    const { rounds } = section
    const run = new Run(section, around)
    const places = placed(section.stations, 'stations')
    for (let round = 1; round <= rounds; round++) {
      places.forEach((one, at) =>
        run.turn({
          place: `r${round}/${one.key}`,
          one,
          pass: round,
          work: guessed(intervalOf(one.station, round, around.cast)),
          rest: null,
          closes: false,
          spot: { round, rounds, station: at + 1, stations: places.length },
        }),
      )
    }
    return run.segments
  },
  describe: ({ rounds, stations }, { words }) =>
    `${counted(rounds, words.round)} of ${stations.map((station) => withReps({ ...station, reps: station.reps ?? USUAL_REPS }, 1)).join(', ') || 'no moves yet'}, at your own pace`,
  recognise: (rows, key, name) => [
    { ...finisher.defaults(key, name), rounds: Math.max(1, rows.rounds), stations: rows.stations({ lengths: false }) },
  ],
})
