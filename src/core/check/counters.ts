// What a section finds wrong with its own numbers; a counter could be misread, a cue has no room, a label is too long.
import { repeated } from '../score/again'
import { fieldFor, setField } from '../score/edits'
import { formatOf, labelledIn, stationsOf, type Section } from '../score/formats'
import type { Station } from '../score/formats/station'
import type { NoEffect } from '../facts'
import { aroundOf } from '../score/score'
import type { Segment } from '../score/segment'
import { atSegment, finding, Repeats, type Check, type Finding, type FindingMend, type Review } from './finding'

/** Three pips and a go need that long. */
const SHORTEST_COUNTED_MS = 4000
/** About what a phone on the floor shows in letters that can be read from two metres. */
const LONGEST_LABEL = 32

export const checkCounters: Check = (review) => [
  ...review.score.sections.flatMap((section, index) => inSection(section, index, review)),
  ...inSegments(review),
]

function inSection(section: Section, index: number, { score, cast }: Review): Finding[] {
  const place = { sectionKey: section.key, segmentId: null }
  const own = formatOf(section).findings?.(section, aroundOf(score, index, cast)) ?? []
  const found = own.map(({ check, id, severity, fact, mend }) =>
    finding(check, {
      id: `${section.key}${id && ` ${id}`}`,
      severity,
      ...place,
      fact,
      mend: mend && { fact: mend.fact, apply: (draft) => withSection(draft.sections, section.key, mend.apply) },
    }),
  )
  const elsewhere = 'where' in section && section.where !== 'here'
  if ('of' in section && !repeated(score.sections, section.of)) {
    const fact = { code: 'repeats-nothing', section: section.name } as const
    found.push(finding('again', { id: section.key, severity: 'warning', ...place, fact }))
  }
  const holds = formatOf(section).notation.moves !== 'none'
  if (holds && !elsewhere && !labelledIn(section).length) {
    const apply: FindingMend['apply'] = (draft) => {
      draft.sections = draft.sections.filter((one) => one.key !== section.key)
    }
    const fact = { code: 'no-moves', section: section.name } as const
    const mend = { fact: { code: 'take-out' } as const, apply }
    found.push(finding('empty', { id: section.key, severity: 'warning', ...place, fact, mend }))
  }
  const settings = NO_EFFECT.filter((setting) => isDeaf(section, setting))
  if (settings.length) {
    const fact = { code: 'no-effect', section: section.name, settings } as const
    const apply: FindingMend['apply'] = (draft) =>
      withSection(draft.sections, section.key, (one) => {
        for (const station of stationsOf(one))
          for (const setting of settings) Object.assign(station, NOTHING_SAID[setting])
      })
    const mend = { fact: { code: 'take-off' as const }, apply }
    found.push(finding('no effect', { id: section.key, severity: 'note', ...place, fact, mend }))
  }
  const least = Math.min(2, formatOf(section).notation.groupSize?.[0] ?? 1)
  if ('groups' in section && section.groups.some((group) => group.length < least)) {
    const fact = { code: 'group-too-small', section: section.name } as const
    found.push(finding('group', { id: section.key, severity: 'warning', ...place, fact }))
  }
  return found
}

const NO_EFFECT: readonly NoEffect[] = ['workMs', 'restMs', 'swaps']
const NOTHING_SAID: Readonly<Record<NoEffect, object>> = {
  workMs: { workMs: null },
  restMs: { restMs: null },
  swaps: { swaps: [] },
}

/** Whether moves of a section say something that its format does not hear. */
function isDeaf(section: Section, setting: NoEffect): boolean {
  const { perMove = [] } = formatOf(section).notation
  if (perMove.includes(setting)) return false
  const said = (station: Station): boolean => {
    const value = station[setting]
    return Array.isArray(value) ? value.length > 0 : value !== null
  }
  return stationsOf(section).some(said)
}

function withSection(sections: Section[], key: string, apply: (section: Section) => void): void {
  const section = sections.find((one) => one.key === key)
  if (section) apply(section)
}

function inSegments({ expansion }: Review): Finding[] {
  const found = new Repeats()
  for (const segment of expansion.segments) {
    if (segment.kind !== 'work') continue
    checkLength(segment, found)
    checkLabel(segment, found)
    if (isLoneRound(segment)) {
      const word = segment.words.round.one
      found.meet('counter', `${segment.sectionKey} one`, () => ({
        severity: 'note',
        ...atSegment(segment),
        fact: { code: 'one-round', word },
      }))
    }
  }
  return found.findings()
}

function checkLength(segment: Segment, found: Repeats): void {
  const { durationMs: ms, label, sectionKey } = segment
  if (ms === 0) {
    found.meet('cue', `${sectionKey} nothing`, (times) => ({
      severity: 'error',
      ...atSegment(segment),
      fact: { code: 'lasts-nothing', label, times },
    }))
  } else if (ms < SHORTEST_COUNTED_MS && !segment.estimated) {
    const field = fieldFor(segment, SHORTEST_COUNTED_MS)
    found.meet('cue', `${sectionKey} short work`, (times) => ({
      severity: 'warning',
      ...atSegment(segment),
      fact: { code: 'too-short-to-count', label, ms, times },
      mend: field && {
        fact: { code: 'make-it', ms: SHORTEST_COUNTED_MS },
        apply: (draft) => setField(draft, sectionKey, field.path, field.value),
      },
    }))
  }
}

function checkLabel(segment: Segment, found: Repeats): void {
  const { label, moves } = segment
  if (moves.length !== 1 || label.length <= LONGEST_LABEL) return
  found.meet('label', label, (times) => ({
    severity: 'note',
    ...atSegment(segment),
    fact: { code: 'label-long', label: label.slice(0, 60), letters: label.length, most: LONGEST_LABEL, times },
  }))
}

/**
 * "Pass 1 of 1": a counter with a word of its own that counts nothing. A leg of a climb is counted with its descent.
 */
const isLoneRound = ({ round, rounds, sets, stations, words }: Segment): boolean =>
  round === 1 &&
  rounds === 1 &&
  sets === null &&
  (stations ?? 1) > 1 &&
  words.round.one !== 'round' &&
  words.round.one !== 'leg'
