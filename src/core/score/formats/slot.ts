// Fixed slot (F7): the slot stays, say one minute, while work grows and rest shrinks; up only, or up and back down. The
// last round may have no rest at all.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { counted } from '../vocabulary'
import { ACTIVE, choice, counts, LAST, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, knobs } from './format'
import { slotStaysWhole } from './lastRest'
import { usual } from './rows'
import { placed, Run, type Length } from './run'

const SHAPES = ['up', 'upAndDown'] as const

const fields = [
  length('slotMs', 'slot', { bare: 60_000 }),
  counts('steps', 'rungs', { usual: 5 }),
  length('startMs', 'from', { usual: 20_000 }),
  length('stepMs', 'step', { usual: 10_000 }),
  choice('shape', 'shape', SHAPES),
  LEAD,
  LAST,
  ACTIVE,
] as const
export const slotSchema = sectionSchema('slot', fields, 'flat')
type Slot = z.infer<typeof slotSchema>

/** The step (0-based) of every round: 0 1 2 ..., and for up and down back again without the top twice. */
const stepsOf = ({ steps, shape }: Slot): number[] => {
  const up = Array.from({ length: steps }, (_, index) => index)
  return shape === 'up' ? up : [...up, ...up.slice(0, -1).reverse()]
}

const topOf = ({ startMs, stepMs, steps }: Slot): number => startMs + stepMs * (steps - 1)

/** Work of a step, and the rest that its slot leaves; the field that decides both. */
function lengthsAt({ slotMs, startMs, stepMs }: Slot, step: number): { work: Length; rest: Length } {
  const workMs = Math.min(slotMs, startMs + step * stepMs)
  const by = step ? { field: ['stepMs'], baseMs: startMs, times: step } : { field: ['startMs'], baseMs: 0, times: 1 }
  return {
    work: { ms: workMs, ...by, pace: 'fixed' },
    rest: { ms: slotMs - workMs, field: by.field, baseMs: slotMs - by.baseMs, times: -by.times, pace: 'fixed' },
  }
}

export const slot: Format<Slot> = defineFormat('slot', {
  schema: slotSchema,
  notation: { head: 'slot', fields, moves: 'flat', perMove: ['swaps'] },
  works: (section) => section.stations.length * stepsOf(section).length,
  solve: knobs('steps', 'startMs', 'stepMs', { timesLow: 2 }),
  keeps: ({ shape }) => (shape === 'upAndDown' ? ['ladder', 'pyramid'] : ['ladder']),
  thereAndBack({ shape }, segments) {
    if (shape !== 'upAndDown') return
    for (const segment of segments) if (segment.round !== null) Object.assign(segment, { round: 1, rounds: 1 })
  },
  findings(section) {
    const { name, steps, slotMs, startMs } = section
    const topMs = topOf(section)
    if (topMs <= slotMs) return []
    const stepMs = Math.floor((slotMs - startMs) / (steps - 1) / 1000) * 1000
    const mendable = steps > 1 && slotMs >= startMs
    return [
      {
        check: 'slot',
        id: '',
        severity: 'warning',
        fact: { code: 'slot-overflows', section: name, topMs, slotMs },
        mend: mendable
          ? { fact: { code: 'step-of', ms: stepMs }, apply: (draft) => void (draft.stepMs = stepMs) }
          : null,
      },
    ]
  },
  expand(section, around) {
    const run = new Run(section, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    const steps = stepsOf(section)
    steps.forEach((step, at) => {
      const round = at + 1
      const { work, rest } = lengthsAt(section, step)
      const closing = slotStaysWhole(section.lastRest, {
        last: round === steps.length,
        breakBetween: false,
        follows: around.follows,
      })
      places.forEach((one, index) =>
        run.turn({
          place: `r${round}/${one.key}`,
          one,
          work,
          rest,
          pass: round,
          closes: index < places.length - 1 || closing,
          spot: { round, rounds: steps.length, station: index + 1, stations: places.length },
        }),
      )
    })
    return run.segments
  },
  describe(section, { words }) {
    const { slotMs, startMs, shape } = section
    const top = Math.min(slotMs, topOf(section))
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
          restLabel: rows.restLabel,
          stations: rows.stations(),
        }
      }),
    ),
})
