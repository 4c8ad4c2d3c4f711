// Buy-in (F12): inside one fixed interval, n reps of A first, then B for whatever time is left.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import { leftAfterBuyIn } from '../reps'
import { counted } from '../vocabulary'
import { groupSeconds, severityOfReps, USUAL_REPS } from './counting'
import { ACTIVE, counts, LAST, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, keepsTabata, type OwnFinding } from './format'
import { roundsOfGroups } from './frames'
import { usual } from './rows'
import { labelIn, stationIn, withReps, type Station } from './station'

const fields = [
  counts('rounds', 'rounds', { usual: 3 }),
  length('workMs', 'on', { usual: 60_000 }),
  length('restMs', 'off', { usual: 30_000 }),
  length('roundBreakMs', 'between'),
  LEAD,
  LAST,
  ACTIVE,
] as const
export const buyInSchema = sectionSchema('buyIn', fields, 'groups')
type BuyIn = z.infer<typeof buyInSchema>

const JOIN = ', then '
const labelOf = (group: readonly Station[], pass: number): string =>
  group
    .map((station, index) => (index ? labelIn(station, pass) : withReps(station, pass) + eachSide(station, pass)))
    .join(JOIN)

const EACH_SIDE = ' each side'
const eachSide = (station: Station, pass: number): string =>
  stationIn(station, pass).sideRule === 'each' ? EACH_SIDE : ''

export const buyIn: Format<BuyIn> = defineFormat('buyIn', {
  schema: buyInSchema,
  words: { station: { one: 'pair', many: 'pairs' } },
  notation: { head: 'buy-in', fields, moves: 'groups', groupSize: [2, 2], perMove: ['reps', 'swaps'] },
  works: ({ groups, rounds }) => groups.flat().length * rounds,
  keeps: keepsTabata,
  findings: ({ groups, workMs }, { cast }) =>
    groups.flatMap((group, at): OwnFinding<BuyIn>[] => {
      const [first] = group
      const takesMs = first ? Math.round(groupSeconds([first], 1, cast) * 1000) : 0
      if (!first || takesMs < workMs) return []
      const fact = { code: 'buy-in-too-long' as const, label: withReps(first, 1), takesMs, workMs }
      const fits = Math.max(1, Math.floor(((first.reps ?? USUAL_REPS) * workMs * 0.6) / takesMs))
      const mend = {
        fact: { code: 'set-reps' as const, reps: fits },
        apply: (draft: BuyIn): void => {
          const one = draft.groups[at]?.[0]
          if (one) one.reps = fits
        },
      }
      return [{ check: 'buy-in', id: String(at), severity: severityOfReps(cast, [first]), fact, mend }]
    }),
  usualReps: (place) => (place === 0 ? 10 : null),
  expand: (section, around) =>
    roundsOfGroups(section, around, labelOf, ([first, then], round) => {
      if (!first) return {}
      const leftMs = leftAfterBuyIn(section.workMs, groupSeconds([first], round, around.cast))
      return {
        reps: first.reps,
        note: then ? `About ${formatLength(Math.round(leftMs / 1000) * 1000)} for ${labelIn(then, round)}` : '',
      }
    }),
  describe: ({ rounds, groups, workMs, restMs }, { words }) => {
    const first = groups[0]
    return `${counted(rounds, words.round)} of ${formatLength(workMs)}, ${formatLength(restMs)} off${first ? `: ${labelOf(first, 1)} for what is left` : ''}`
  },
  recognise: (rows, key, name) =>
    LAST_RESTS.map((lastRest) => ({
      ...buyIn.defaults(key, name),
      leadInMs: rows.leadInMs,
      rounds: Math.max(1, rows.rounds),
      workMs: usual(rows.works),
      restMs: usual(rows.rests),
      roundBreakMs: usual(rows.breaks),
      lastRest,
      restLabel: rows.restLabel,
      groups: rows.joined(JOIN),
    })),
})
