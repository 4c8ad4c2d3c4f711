// Rep pyramid on a clock (F16): climb by k reps per pass until the time is up; rest; come back down from the rung
// reached; group after group. The rung and the descent follow from seconds per rep and are estimates.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { descentMs, repsOnRung, rungReached, type Climb } from '../reps'
import { counted } from '../vocabulary'
import { secondsPerRepOf } from './counting'
import { ACTIVE, counts, LAST, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { type Around, defineFormat, type Format } from './format'
import { restStays } from './lastRest'
import { usual, type Rows } from './rows'
import { given, groupKey, guessed, JOIN, placed, Run } from './run'
import { labelIn, type Station } from './station'

const fields = [
  length('climbMs', 'climb', { usual: 240_000 }),
  counts('startReps', 'reps', { high: 1000, usual: 2 }),
  counts('stepReps', 'more each', { high: 1000, usual: 2 }),
  /** The descent on the clock, too, from the rung that was reached; 0 for one's own pace. */
  length('descentMs', 'down', { mayLack: true }),
  length('restMs', 'off', { usual: 60_000 }),
  length('groupRestMs', 'between', { usual: 90_000 }),
  LEAD,
  LAST,
  ACTIVE,
] as const
export const pyramidSchema = sectionSchema('pyramid', fields, 'groups')
type Pyramid = z.infer<typeof pyramidSchema>

const climbOf = (
  section: Pick<Pyramid, 'startReps' | 'stepReps'>,
  group: readonly Station[],
  around: Pick<Around, 'cast'>,
): Climb => ({
  startReps: section.startReps,
  stepReps: section.stepReps,
  secondsPerRep: secondsPerRepOf(group, 1, around.cast),
})

/** The length of descents that are no guess. */
const descentOf = (rows: Rows): number => {
  const down = rows.works.find(({ label }) => label.startsWith(DOWN))
  return down && !down.estimated ? (down.durationMs ?? 0) : 0
}

const UP = 'Up: ',
  DOWN = 'Down: '

export const pyramid: Format<Pyramid> = defineFormat('pyramid', {
  schema: pyramidSchema,
  words: { round: { one: 'leg', many: 'legs' }, set: { one: 'pyramid', many: 'pyramids' } },
  notation: { head: 'pyramid', fields, moves: 'groups', groupSize: [1, 0] },
  works: ({ groups }) => groups.flat().length,
  keeps: () => ['pyramid'],
  thereAndBack(_section, segments) {
    for (const segment of segments)
      Object.assign(segment, { round: segment.set, rounds: segment.sets, set: null, sets: null })
  },
  findings: (section, around) =>
    section.groups.flatMap((group, at) =>
      rungReached(climbOf(section, group, around), section.climbMs) > 0
        ? []
        : [
            {
              check: 'rung',
              id: String(at),
              severity: 'warning' as const,
              fact: {
                code: 'climb-too-short' as const,
                climbMs: section.climbMs,
                moves: group.map((station) => station.label),
              },
              mend: null,
            },
          ],
    ),
  expand(section, around) {
    const { groups } = section
    const run = new Run(section, around)
    if (!groups.length) return run.segments
    run.lead(section.leadInMs)
    groups.forEach((group, at) => {
      const key = groupKey(group)
      const places = placed(group, 'groups', at)
      const names = group.map((station) => labelIn(station, 1)).join(JOIN)
      const climb = climbOf(section, group, around)
      const rung = rungReached(climb, section.climbMs)
      const reps = rung ? repsOnRung(climb, rung) : 0
      const between = { set: at + 1, sets: groups.length }
      const climbing = { ...between, round: 1, rounds: 2 }
      const up = run.together({
        place: `${key}/up`,
        placed: places,
        pass: 1,
        label: UP + names,
        work: given(section.climbMs, 'climbMs'),
        spot: climbing,
      })
      up.note = `By ${section.stepReps}, about to ${reps} reps`
      run.rest(`${key}/rest`, given(section.restMs, 'restMs'), climbing)
      const down = run.together({
        place: `${key}/down`,
        placed: places,
        pass: 1,
        label: DOWN + names,
        work: section.descentMs ? given(section.descentMs, 'descentMs') : guessed(descentMs(climb, rung)),
        spot: { ...between, round: 2, rounds: 2 },
      })
      down.note = `From about ${reps} reps`
      const end = { last: true, breakBetween: false, follows: around.follows }
      if (at < groups.length - 1 || restStays(section.lastRest, end))
        run.rest(`${key}/after`, given(section.groupRestMs, 'groupRestMs'), between)
    })
    return run.segments
  },
  describe(section, around) {
    const first = section.groups[0] ?? []
    const climb = climbOf(section, first, around)
    const rung = rungReached(climb, section.climbMs)
    return (
      `${counted(section.groups.length, around.words.set)}: ${section.startReps} reps and ${section.stepReps} more each time for ${formatLength(section.climbMs)}, ${formatLength(section.restMs)} off, back down` +
      (section.descentMs ? ` for ${formatLength(section.descentMs)}` : '') +
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
        descentMs: descentOf(rows),
        startReps: stepReps,
        stepReps,
        lastRest,
        restLabel: rows.restLabel,
        groups: rows.joined(JOIN, UP),
      })),
    ),
})
