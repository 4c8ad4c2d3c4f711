// The same plan in another length: by rounds, by rests or by work, each as near as it comes, with what it changes.
import { tryExpand } from '../expand/expand'
import { SECOND, type Ms } from '../units'
import { formatOf, partOf, type Section } from './formats'
import { valueAt, type Field } from './formats/fields'
import { promisedLength, type Score } from './score'

export const VERSION_WAYS = ['rounds', 'rests', 'works'] as const
export type VersionWay = (typeof VERSION_WAYS)[number]

/** A number of a section that is another one in the version. */
export interface VersionChange {
  section: string
  field: string
  from: number
  to: number
}
export interface Version {
  way: VersionWay
  score: Score
  totalMs: Ms
  changes: readonly VersionChange[]
}

const STEP: Ms = 5 * SECOND
/** Nobody gets ready, or gets anything done, in less. */
const SHORTEST: Ms = 5 * SECOND
const MOST_STEPS = 40

/** Counts that say how often all is done; intervals of a burst and rungs of a ladder make it what it is. */
const ROUNDS: ReadonlySet<string> = new Set(['rounds', 'sets', 'times', 'passes'])
const WORKS: ReadonlySet<string> = new Set(['workMs', 'longMs', 'shortMs'])
/** Whatever stands between works. */
const RESTS: ReadonlySet<string> = new Set([
  ...['restMs', 'roundBreakMs', 'changeMs', 'pairBreakMs', 'burstBreakMs', 'groupBreakMs', 'groupRestMs'],
  ...['slotRestMs', 'passBreakMs', 'breakMs', 'longRestMs', 'durationMs'],
])
const FIELDS_OF: Readonly<Record<VersionWay, ReadonlySet<string>>> = { rounds: ROUNDS, rests: RESTS, works: WORKS }

/** The length that is promised: of the whole video, or of the workout without talk, warm-up and cool-down. */
export const lengthOf = (score: Score): Ms => promisedLength(score, tryExpand(score).expansion)

/**
 * Versions nearest to a length, one for each way that comes nearer to it than the plan does, best first.
 * @param goalMs of the video or of the workout, whichever the promise is of.
 */
export function versionsOf(score: Score, goalMs: Ms): Version[] {
  const nowMs = lengthOf(score)
  const made = [byRounds(score, goalMs), byStep(score, goalMs, 'rests'), byStep(score, goalMs, 'works')]
  return made
    .filter((one) => one.changes.length > 0 && Math.abs(one.totalMs - goalMs) < Math.abs(nowMs - goalMs))
    .sort((one, other) => Math.abs(one.totalMs - goalMs) - Math.abs(other.totalMs - goalMs))
}

/** A round more or less wherever that helps most, until none helps. */
function byRounds(score: Score, goalMs: Ms): Version {
  let best = score,
    bestMs = lengthOf(score)
  for (let step = 0; step < MOST_STEPS; step++) {
    const tried = best.sections.flatMap((section, at) =>
      fieldsOf(section, 'rounds').flatMap((field) => {
        const to = Number(valueAt(section, field.field)) + Math.sign(goalMs - bestMs)
        if (field.kind !== 'count' || to < field.low || to > field.high) return []
        const one = withSection(best, at, { ...section, [field.field]: to } as Section)
        return [{ one, ms: lengthOf(one) }]
      }),
    )
    const next = tried.sort((one, other) => Math.abs(one.ms - goalMs) - Math.abs(other.ms - goalMs))[0]
    if (!next || Math.abs(next.ms - goalMs) >= Math.abs(bestMs - goalMs)) break
    best = next.one
    bestMs = next.ms
  }
  return versionFrom(score, best, 'rounds', bestMs)
}

/** All rests, or all works, by the same number of five seconds. */
function byStep(score: Score, goalMs: Ms, way: 'rests' | 'works'): Version {
  let best = score,
    bestMs = lengthOf(score)
  const sign = Math.sign(goalMs - bestMs)
  for (let step = 1; step <= MOST_STEPS; step++) {
    const one = shifted(score, sign * step * STEP, way)
    const ms = lengthOf(one)
    if (Math.abs(ms - goalMs) >= Math.abs(bestMs - goalMs)) break
    best = one
    bestMs = ms
  }
  return versionFrom(score, best, way, bestMs)
}

/** All rests, or all works, by so much; none falls below five seconds, and none is made of nothing. */
export function shifted(score: Score, byMs: Ms, way: 'rests' | 'works'): Score {
  const move = (ms: Ms): Ms => Math.max(Math.min(ms, SHORTEST), ms + byMs)
  const own = way === 'rests' ? 'restMs' : 'workMs'
  return {
    ...score,
    sections: score.sections.map((section) => {
      const changed = fieldsOf(section, way).flatMap(({ field, kind }) => {
        const ms = valueAt(section, field)
        return kind === 'length' && typeof ms === 'number' && ms > 0 ? [[field, move(ms)] as const] : []
      })
      const next = { ...section, ...Object.fromEntries(changed) } as Section
      if (!isTimed(section)) return next
      // A station's own length goes along.
      const along = <T extends { workMs: Ms | null; restMs: Ms | null }>(station: T): T => {
        const ms = station[own]
        return ms ? { ...station, [own]: move(ms) } : station
      }
      if ('stations' in next) return { ...next, stations: next.stations.map(along) }
      if ('groups' in next) return { ...next, groups: next.groups.map((group) => group.map(along)) } as Section
      return next
    }),
  }
}

const isTimed = (section: Section): boolean => partOf(section) === 'main'

const fieldsOf = (section: Section, way: VersionWay): Field[] => {
  const part = partOf(section)
  if (part !== 'main' && !(part === 'break' && way === 'rests')) return []
  return formatOf(section).notation.fields.filter(({ field }) => FIELDS_OF[way].has(field))
}

const withSection = (score: Score, at: number, section: Section): Score => ({
  ...score,
  sections: score.sections.map((one, index) => (index === at ? section : one)),
})

function versionFrom(before: Score, score: Score, way: VersionWay, totalMs: Ms): Version {
  const changes = before.sections.flatMap((section, at) => {
    const now = score.sections[at]
    return fieldsOf(section, way).flatMap(({ field }): VersionChange[] => {
      const [from, to] = [valueAt(section, field), now && valueAt(now, field)]
      return typeof from === 'number' && typeof to === 'number' && from !== to
        ? [{ section: section.name, field, from, to }]
        : []
    })
  })
  return { way, score, totalMs, changes }
}
