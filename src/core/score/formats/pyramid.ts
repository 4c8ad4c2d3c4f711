// Rep pyramid on a clock (F16): climb by k reps per pass until the time is up; rest; come back down from the rung reached;
// group after group. The rung and the descent follow from seconds per rep and are estimates.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { descentMs, repsOnRung, rungReached, type Climb } from '../reps'
import { counted } from '../vocabulary'
import {
  ACTIVE,
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
  type Around,
  type Format,
} from './format'
import { secondsPerRepOf } from './counting'
import { restStays } from './lastRest'
import { given, guessed, placed, Run } from './run'
import { usual } from './rows'
import { groups, labelIn, type Station } from './station'

const schema = z.object({
  format: z.literal('pyramid'),
  ...head,
  leadInMs: ms,
  climbMs: ms,
  restMs: ms,
  startReps: count(1, 1000),
  stepReps: count(1, 1000),
  groupRestMs: ms,
  lastRest,
  restLabel,
  groups,
})
type Pyramid = z.infer<typeof schema>
export { schema as pyramidSchema }

export const climbOf = (
  section: Pick<Pyramid, 'startReps' | 'stepReps'>,
  group: readonly Station[],
  around: Pick<Around, 'cast'>,
): Climb => ({
  startReps: section.startReps,
  stepReps: section.stepReps,
  secondsPerRep: secondsPerRepOf(group, 1, around.cast),
})

const UP = 'Up: ',
  DOWN = 'Down: ',
  JOIN = ' + '

export const pyramid: Format<Pyramid> = {
  schema,
  words: { round: { one: 'leg', many: 'legs' }, set: { one: 'pyramid', many: 'pyramids' } },
  notation: {
    head: 'pyramid',
    moves: 'groups',
    groupSize: [1, 0],
    fields: [
      length('climbMs', 'climb'),
      counts('startReps', 'reps', 1, 1000),
      counts('stepReps', 'more each', 1, 1000),
      length('restMs', 'off'),
      length('groupRestMs', 'between'),
      LEAD,
      LAST,
      ACTIVE,
    ],
  },
  defaults: (key, name) => ({
    format: 'pyramid',
    key,
    name,
    above: [],
    beside: '',
    leadInMs: 10_000,
    climbMs: 240_000,
    restMs: 60_000,
    startReps: 2,
    stepReps: 2,
    groupRestMs: 90_000,
    lastRest: 'replaced',
    restLabel: '',
    groups: [],
  }),
  expand(section, around) {
    const { groups } = section
    const run = new Run(section.key, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    groups.forEach((group, at) => {
      const places = placed(group, 'groups', at)
      const names = group.map((station) => labelIn(station, 1)).join(JOIN)
      const climb = climbOf(section, group, around)
      const rung = rungReached(climb, section.climbMs)
      const between = { set: at + 1, sets: groups.length }
      const up = run.together(`g${at + 1}/up`, places, 1, UP + names, given(section.climbMs, 'climbMs'), {
        ...between,
        round: 1,
        rounds: 2,
      })
      up.note = `By ${section.stepReps}, about to ${rung ? repsOnRung(climb, rung) : 0} reps`
      run.rest(
        `g${at + 1}/rest`,
        given(section.restMs, 'restMs'),
        { ...between, round: 1, rounds: 2 },
        section.restLabel,
      )
      const down = run.together(`g${at + 1}/down`, places, 1, DOWN + names, guessed(descentMs(climb, rung)), {
        ...between,
        round: 2,
        rounds: 2,
      })
      down.note = `From about ${rung ? repsOnRung(climb, rung) : 0} reps`
      const last = at === groups.length - 1
      if (
        !last ||
        restStays(section.lastRest, { last: true, breakBetween: false, breakFollows: around.breakFollows })
      ) {
        run.rest(`g${at + 1}/after`, given(section.groupRestMs, 'groupRestMs'), between, section.restLabel)
      }
    })
    return run.segments
  },
  describe(section, around) {
    const first = section.groups[0] ?? []
    const climb = climbOf(section, first, around)
    const rung = rungReached(climb, section.climbMs)
    return (
      `${counted(section.groups.length, around.words.set)}: ${section.startReps} reps and ${section.stepReps} more each time for ${formatLength(section.climbMs)}, ${formatLength(section.restMs)} off, back down` +
      (rung ? `, about to ${repsOnRung(climb, rung)} reps and ${formatLength(descentMs(climb, rung))} down` : '')
    )
  },
  recognise: (rows, key, name) =>
    LAST_RESTS.flatMap((lastRest) =>
      [1, 2, 3, 4, 5].map((stepReps) => ({
        ...pyramid.defaults(key, name),
        leadInMs: rows.leadInMs,
        climbMs: rows.works[0]?.durationMs ?? 0,
        restMs: usual(rows.rests.filter((row) => row.round === 1)),
        groupRestMs: usual(rows.rests.filter((row) => row.round === null)),
        startReps: stepReps,
        stepReps,
        lastRest,
        restLabel: rows.rests[0]?.label ?? '',
        groups: rows.joined(JOIN, UP),
      })),
    ),
}
