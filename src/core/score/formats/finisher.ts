// Finisher (F18): reps x rounds after the clocked part, at the viewer's own pace. No clock, so every length is an estimate.
import { z } from 'zod'
import { counted } from '../vocabulary'
import { count, counts, head, type Format } from './format'
import { intervalOf, USUAL_REPS } from './counting'
import { guessed, placed, Run } from './run'
import { stations, withReps } from './station'

const schema = z.object({ format: z.literal('finisher'), ...head, rounds: count(1, 500), stations })
type Finisher = z.infer<typeof schema>
export { schema as finisherSchema }

export const finisher: Format<Finisher> = {
  schema,
  notation: {
    head: 'finisher',
    moves: 'flat',
    perMove: ['reps', 'swaps'],
    fields: [counts('rounds', 'rounds', 1, 500)],
  },
  defaults: (key, name) => ({ format: 'finisher', key, name, above: [], beside: '', rounds: 3, stations: [] }),
  expand(section, around) {
    const { rounds } = section
    const run = new Run(section.key, around)
    const places = placed(section.stations, 'stations')
    for (let round = 1; round <= rounds; round++) {
      places.forEach((one, at) =>
        run.turn(
          `r${round}/s${at + 1}`,
          one,
          round,
          guessed(intervalOf(one.station, round, around.cast)),
          null,
          false,
          { round, rounds, station: at + 1, stations: places.length },
        ),
      )
    }
    return run.segments
  },
  describe: ({ rounds, stations }, { words }) =>
    `${counted(rounds, words.round)} of ${stations.map((station) => withReps({ ...station, reps: station.reps ?? USUAL_REPS }, 1)).join(', ') || 'no moves yet'}, at your own pace`,
  recognise: (rows, key, name) => [
    { ...finisher.defaults(key, name), rounds: Math.max(1, rows.rounds), stations: rows.stations({ lengths: false }) },
  ],
}
