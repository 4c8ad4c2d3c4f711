// Every minute, by reps (F14): a target at the top of each slot; what is left of the slot is rest. If more than the
// wanted rest is left, a rep can be added; if less, one is taken off. score/schools.ts holds what people understand by
// the word.
import type { z } from 'zod'
import { formatLength } from '../../time/clock'
import type { Cast } from '../cast'
import { earnedRest, timeForReps } from '../reps'
import { counted } from '../vocabulary'
import { groupSeconds, intervalOf, severityOfReps, USUAL_REPS } from './counting'
import { ACTIVE, counts, LAST_KEPT, LAST_RESTS, LEAD, length, sectionSchema } from './fields'
import { defineFormat, type Format, type OwnFinding } from './format'
import { slotStaysWhole } from './lastRest'
import { guessed, JOIN, placed, Run, type Placed } from './run'
import { withReps, type Station } from './station'

const fields = [
  counts('rounds', 'rounds', { usual: 4 }),
  length('slotMs', 'slot', { bare: 60_000 }),
  /** The rest that the reps should leave. */
  length('wantedRestMs', 'wanted rest', { bare: 15_000 }),
  LEAD,
  LAST_KEPT,
  ACTIVE,
] as const
export const minuteRepsSchema = sectionSchema('minuteReps', fields, 'flat')
type MinuteReps = z.infer<typeof minuteRepsSchema>

type Found = Omit<OwnFinding<MinuteReps>, 'check' | 'id'>

function findingOf({ slotMs, wantedRestMs }: MinuteReps, station: Station, cast: Cast): Found | null {
  const takesMs = groupSeconds([station], 1, cast) * 1000
  const reps = station.reps ?? USUAL_REPS
  const secondsPerRep = takesMs / 1000 / reps
  const { restMs, change } = earnedRest(slotMs, reps, secondsPerRep, wantedRestMs)
  if (!change || Math.abs(restMs - wantedRestMs) < timeForReps(1, secondsPerRep)) return null
  const { label } = station
  const better = Math.max(1, reps + change)
  return {
    severity: restMs < 0 ? severityOfReps(cast, [station]) : 'note',
    fact:
      restMs < 0
        ? { code: 'reps-overflow-slot', reps, label, takesMs, slotMs, secondsPerRep }
        : { code: 'rest-not-as-wanted', reps, label, restMs, wantedMs: wantedRestMs, secondsPerRep },
    mend: {
      fact: { code: 'set-reps', reps: better },
      // The other side of the same move goes along.
      apply: (draft) => {
        for (const one of draft.stations) if (one.label === label && one.reps === station.reps) one.reps = better
      },
    },
  }
}

/** Moves that share a minute have to fit it together; which of them should give way is the creator's to say. */
function findingOfShared({ slotMs }: MinuteReps, { station, joined }: Placed, cast: Cast): Found | null {
  const all = [station, ...joined]
  const takesMs = groupSeconds(all, 1, cast) * 1000
  if (takesMs <= slotMs) return null
  const label = all.map((one) => withReps(one, 1)).join(JOIN)
  return {
    severity: severityOfReps(cast, all),
    fact: { code: 'group-overflows-slot', label, takesMs, slotMs },
    mend: null,
  }
}

export const minuteReps: Format<MinuteReps> = defineFormat('minuteReps', {
  schema: minuteRepsSchema,
  words: { station: { one: 'minute', many: 'minutes' } },
  notation: { head: 'minute-reps', fields, moves: 'flat', perMove: ['reps', 'swaps'] },
  works: ({ stations, rounds }) => stations.length * rounds,
  keeps: (_section, { emom }) => (emom === 'reps' ? ['emom'] : []),
  findings: (section, { cast }) =>
    placed(section.stations, 'stations').flatMap((one, at) => {
      const finding = one.joined.length ? findingOfShared(section, one, cast) : findingOf(section, one.station, cast)
      return finding ? [{ check: 'earned rest', id: `${at} ${one.station.label}`, ...finding }] : []
    }),
  expand(section, around) {
    const { rounds, slotMs } = section
    const run = new Run(section, around)
    if (!section.stations.length) return run.segments
    run.lead(section.leadInMs)
    const places = placed(section.stations, 'stations')
    for (let round = 1; round <= rounds; round++) {
      const end = { last: round === rounds, breakBetween: false, follows: around.follows }
      places.forEach((one, at) => {
        const spot = { round, rounds, station: at + 1, stations: places.length }
        const place = `r${round}/${one.key}`
        const fullMs = Math.round(groupSeconds([one.station, ...one.joined], round, around.cast) * 1000)
        const eachMs = one.joined.length ? fullMs : intervalOf(one.station, round, around.cast)
        // Targets that overflow the slot are cut to it; a finding says so.
        const share = fullMs > slotMs ? slotMs / fullMs : 1
        const before = run.segments.length
        const work = guessed(Math.floor(eachMs * share))
        run.turn({ place, one, pass: round, work, rest: null, closes: false, spot })
        let spentMs = 0
        for (let index = before; index < run.segments.length; index++) spentMs += run.segments[index]?.durationMs ?? 0
        const closing = at < places.length - 1 || slotStaysWhole(section.lastRest, end)
        if (!closing) return
        run.rest(`${place}/rest`, guessed(slotMs - spentMs), spot)
        run.withinSlot(before, slotMs)
      })
    }
    return run.segments
  },
  describe: ({ rounds, slotMs, stations, wantedRestMs }, { words }) =>
    `${counted(rounds * stations.length, slotMs === 60_000 ? { one: 'minute', many: 'minutes' } : { one: 'slot', many: 'slots' })} of ${formatLength(slotMs)}, ${counted(rounds, words.round)}: ` +
    `${stations.map((station) => withReps(station, 1)).join(', ') || 'no moves yet'}, the rest of each is rest, about ${formatLength(wantedRestMs)} wanted`,
  recognise(rows, key, name) {
    const firstSlot = rows.all
      .filter((row) => row.kind !== 'lead' && row.kind !== 'talk')
      .slice(0, rows.all.findIndex((row) => row.kind === 'rest') + 1 - (rows.leadInMs ? 1 : 0))
    const slotMs = firstSlot.reduce((sum, row) => sum + (row.durationMs ?? 0), 0)
    return LAST_RESTS.map((lastRest) => ({
      ...minuteReps.defaults(key, name),
      leadInMs: rows.leadInMs,
      slotMs,
      rounds: Math.max(1, rows.rounds),
      lastRest,
      restLabel: rows.restLabel,
      stations: rows.stations({ lengths: false }),
    }))
  },
})
