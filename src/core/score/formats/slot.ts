// Fixed slot (F7): the slot stays, say one minute, while work grows and rest shrinks; up only, or up and back down. The
// last round may have no rest at all.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import {
  ACTIVE,
  choice,
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
import { placed, Run, type Length } from './run'
import { usual } from './rows'
import { stations } from './station'

const SHAPES = ['up', 'upAndDown'] as const

const schema = z.object({
  format: z.literal('slot'),
  ...head,
  leadInMs: ms,
  slotMs: ms,
  startMs: ms,
  stepMs: ms,
  steps: count(1, 500),
  shape: z.enum(SHAPES).default('up'),
  lastRest,
  restLabel,
  stations,
})
type Slot = z.infer<typeof schema>
export { schema as slotSchema }

/** The step (0-based) of every round: 0 1 2 ..., and for up and down back again without the top twice. */
const stepsOf = ({ steps, shape }: Slot): number[] => {
  const up = Array.from({ length: steps }, (_, index) => index)
  return shape === 'up' ? up : [...up, ...up.slice(0, -1).reverse()]
}

export const slot: Format<Slot> = {
  schema,
  notation: {
    head: 'slot',
    moves: 'flat',
    perMove: ['swaps'],
    fields: [
      length('slotMs', 'slot', 60_000),
      counts('steps', 'rungs', 1, 500),
      length('startMs', 'from'),
      length('stepMs', 'step'),
      choice('shape', 'shape', SHAPES),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'slot',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    slotMs: 60_000,
    startMs: 20_000,
    stepMs: 10_000,
    steps: 5,
    shape: 'up',
    lastRest: 'replaced',
    restLabel: '',
    stations: [],
  }),
  expand(section, around) {
    const { slotMs, startMs, stepMs } = section
    const run = new Run(section.key, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    const steps = stepsOf(section)
    steps.forEach((step, at) => {
      const workMs = Math.min(slotMs, startMs + step * stepMs)
      const work: Length = step
        ? { ms: workMs, field: ['stepMs'], baseMs: startMs, times: step, estimated: false }
        : { ms: workMs, field: ['startMs'], baseMs: 0, times: 1, estimated: false }
      const rest: Length = step
        ? { ms: slotMs - workMs, field: ['stepMs'], baseMs: slotMs - startMs, times: -step, estimated: false }
        : { ms: slotMs - workMs, field: ['startMs'], baseMs: slotMs, times: -1, estimated: false }
      const round = at + 1
      places.forEach((one, index) => {
        const closing =
          index < places.length - 1 ||
          restStays(section.lastRest, {
            last: round === steps.length,
            breakBetween: false,
            breakFollows: around.breakFollows,
          })
        run.turn(
          `r${round}/s${index + 1}`,
          one,
          round,
          work,
          rest,
          closing,
          { round, rounds: steps.length, station: index + 1, stations: places.length },
          section.restLabel,
        )
      })
    })
    return run.segments
  },
  describe(section, { words }) {
    const { slotMs, startMs, stepMs, steps, shape } = section
    const top = Math.min(slotMs, startMs + stepMs * (steps - 1))
    return `${counted(stepsOf(section).length, words.round)} of ${formatLength(slotMs)}, work ${formatLength(startMs)} to ${formatLength(top)}${shape === 'up' ? '' : ' and back'}, rest is what is left`
  },
  recognise: (rows, key, name) =>
    LAST_RESTS.flatMap((lastRest) =>
      SHAPES.map((shape) => {
        const first = usual(rows.worksIn(1)),
          rest = rows.rests.find((row) => row.round === 1)?.durationMs ?? 0
        const steps = shape === 'up' ? Math.max(1, rows.rounds) : Math.max(1, Math.ceil(rows.rounds / 2))
        return {
          ...slot.defaults(key, name),
          leadInMs: rows.leadInMs,
          slotMs: first + rest,
          startMs: first,
          stepMs: steps > 1 ? Math.max(0, usual(rows.worksIn(2)) - first) : 0,
          steps,
          shape,
          lastRest,
          restLabel: rows.rests[0]?.label ?? '',
          stations: rows.stations(),
        }
      }),
    ),
}
