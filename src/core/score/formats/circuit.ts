// Circuit (F1): n stations, r rounds, work and rest, and a longer break between rounds.
import { z } from 'zod'
import { formatLength } from '../../time/clock'
import { POSTURES, SIDE_RULES, type Side } from '../postures'
import type { Draft } from '../segment'
import { draft, key, ms, name, type Format, type Neighbours } from './format'

const stationSchema = z.object({
  key,
  label: name,
  sideRule: z.enum(SIDE_RULES),
  posture: z.enum(POSTURES),
  effort: z.number().int().min(1).max(5),
  /** This station's own work length; null takes the section's. */
  workMs: ms.nullable(),
  /** This station's own rest length; null takes the section's. */
  restMs: ms.nullable(),
})
export type Station = z.infer<typeof stationSchema>

export const LAST_RESTS = ['kept', 'dropped', 'replaced'] as const

const schema = z.object({
  format: z.literal('circuit'),
  key,
  name,
  leadInMs: ms,
  rounds: z.number().int().min(1).max(500),
  workMs: ms,
  restMs: ms,
  roundBreakMs: ms,
  /**
   * `kept`: every work has its rest. `replaced`: wherever a break follows, it stands in for the rest before it.
   * `dropped`: the same, and the section ends with its last work whatever follows.
   */
  lastRest: z.enum(LAST_RESTS),
  stations: z.array(stationSchema).max(500),
})
export type Circuit = z.infer<typeof schema>

export const circuit: Format<Circuit> = {
  schema,
  defaults: (sectionKey, sectionName) => ({
    format: 'circuit', key: sectionKey, name: sectionName, leadInMs: 10_000, rounds: 3,
    workMs: 40_000, restMs: 20_000, roundBreakMs: 60_000, lastRest: 'replaced', stations: [],
  }),
  expand: expandCircuit,
  describe: (section) => {
    const { rounds, stations, workMs, restMs, roundBreakMs } = section
    const gap = rounds > 1 && roundBreakMs ? `, ${formatLength(roundBreakMs)} between rounds` : ''
    return `${count(rounds, 'round')} of ${count(stations.length, 'station')}, ${formatLength(workMs)} on, ${formatLength(restMs)} off${gap}`
  },
}
export const circuitSchema = schema

const count = (amount: number, word: string): string => `${amount} ${word}${amount === 1 ? '' : 's'}`

function expandCircuit(section: Circuit, around: Neighbours): Draft[] {
  const { key: path, rounds, stations } = section
  const out: Draft[] = []
  if (!stations.length) return out
  if (section.leadInMs) out.push(draft({ id: `${path}/lead`, kind: 'lead', durationMs: section.leadInMs }))
  for (let round = 1; round <= rounds; round++) {
    stations.forEach((station, index) => {
      const counters = { round, rounds, station: index + 1, stations: stations.length }
      const place = `${path}/r${round}/s${index + 1}`
      out.push(draft({
        ...counters, id: `${place}/work`, kind: 'work', label: station.label, side: sideIn(station, round),
        durationMs: station.workMs ?? section.workMs, posture: station.posture, effort: station.effort,
      }))
      const restMs = station.restMs ?? section.restMs
      if (restMs && restStays(section, around, round, index)) {
        out.push(draft({ ...counters, id: `${place}/rest`, kind: 'rest', durationMs: restMs }))
      }
    })
    if (round < rounds && section.roundBreakMs) {
      out.push(draft({ id: `${path}/r${round}/break`, kind: 'break', round, rounds, durationMs: section.roundBreakMs }))
    }
  }
  return out
}

function sideIn(station: Station, round: number): Side | null {
  switch (station.sideRule) {
    case 'none': return null
    case 'halves': return 'switch'
    case 'alternate': return round % 2 ? 'left' : 'right'
  }
}

/** Whether the rest after a station is there at all; only the last of a round is ever in question. */
function restStays(section: Circuit, around: Neighbours, round: number, index: number): boolean {
  if (index < section.stations.length - 1) return true
  const lastRound = round === section.rounds
  switch (section.lastRest) {
    case 'kept': return true
    case 'dropped': return !lastRound && section.roundBreakMs === 0
    case 'replaced': return lastRound ? !around.breakFollows : section.roundBreakMs === 0
  }
}
