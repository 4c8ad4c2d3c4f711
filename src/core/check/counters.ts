// A counter could be misread, a target does not fit its time, a cue has no room, a label is too long to be read.
import { groupSeconds, USUAL_REPS } from '../score/formats/counting'
import type { Section } from '../score/formats'
import { climbOf } from '../score/formats/pyramid'
import { timesInCouplet } from '../score/formats/couplet'
import { aroundOf } from '../score/score'
import { earnedRest, rungReached, timeForReps } from '../score/reps'
import { capital } from '../score/vocabulary'
import { fieldFor, setField } from '../score/edits'
import { atSegment, finding, inSeconds, Repeats, type Check, type Finding, type Review } from './finding'
import { formatLength } from '../time/clock'

/** Three pips and a go need that long. */
const SHORTEST_COUNTED_MS = 4000
/** About what a phone on the floor shows in letters that can be read from two metres. */
const LONGEST_LABEL = 32

export const checkCounters: Check = (review) => [
  ...review.score.sections.flatMap((section, index) => inSection(section, index, review)),
  ...inSegments(review),
]

function inSection(section: Section, index: number, review: Review): Finding[] {
  const { score, cast } = review
  const around = aroundOf(score, index, cast)
  const place = { sectionKey: section.key, segmentId: null }
  const name = section.name || 'This section'
  const found: Finding[] = []
  if (section.format === 'finisher' && section.stations.some((station) => station.workMs !== null)) {
    found.push(
      finding('counter', {
        id: `${section.key} clock`,
        severity: 'warning',
        ...place,
        what: `${name} is counted in reps, yet some of its moves have a length.`,
        why: "A clock on something done at one's own pace is misread as a limit.",
        mend: {
          label: 'Take the lengths off',
          apply: (draft) => {
            const one = draft.sections.find((other) => other.key === section.key)
            if (one?.format === 'finisher') for (const station of one.stations) station.workMs = null
          },
        },
      }),
    )
  }
  if (section.format === 'slot') {
    const top = section.startMs + section.stepMs * (section.steps - 1)
    const stepMs = Math.floor((section.slotMs - section.startMs) / (section.steps - 1) / 1000) * 1000
    if (top > section.slotMs)
      found.push(
        finding('slot', {
          id: section.key,
          severity: 'warning',
          ...place,
          what: `${name} grows to ${formatLength(top)}, and its slot is ${formatLength(section.slotMs)}.`,
          why: 'From there on it is cut to the slot and has no rest.',
          mend:
            section.steps > 1 && section.slotMs >= section.startMs
              ? {
                  label: `Step of ${formatLength(stepMs)}`,
                  apply: (draft) => setField(draft, section.key, ['stepMs'], stepMs),
                }
              : null,
        }),
      )
  }
  if (section.format === 'minuteReps')
    section.stations.forEach((station, at) => {
      const seconds = groupSeconds([station], 1, cast)
      const reps = station.reps ?? USUAL_REPS
      const { restMs, change } = earnedRest(section.slotMs, reps, seconds / reps, section.wantedRestMs)
      if (!change || Math.abs(restMs - section.wantedRestMs) < timeForReps(1, seconds / reps)) return
      found.push(
        finding('earned rest', {
          id: `${section.key} ${at} ${station.label}`,
          severity: restMs < 0 ? 'error' : 'note',
          ...place,
          what:
            restMs < 0
              ? `${reps} ${station.label} take about ${inSeconds(seconds * 1000)}; the slot is ${inSeconds(section.slotMs)}.`
              : `${reps} ${station.label} leave about ${inSeconds(restMs)} of rest; ${inSeconds(section.wantedRestMs)} is wanted.`,
          why: `At ${Math.round((seconds / reps) * 10) / 10} s a rep. More left than wanted: add; less: take off.`,
          mend: {
            label: change > 0 ? `${reps + change} reps` : `${Math.max(1, reps + change)} reps`,
            apply: (draft) => setField(draft, section.key, ['stations', at, 'reps'], Math.max(1, reps + change)),
          },
        }),
      )
    })
  if (section.format === 'pyramid')
    section.groups.forEach((group, at) => {
      if (rungReached(climbOf(section, group, around), section.climbMs) === 0)
        found.push(
          finding('rung', {
            id: `${section.key} ${at}`,
            severity: 'warning',
            ...place,
            what: `${formatLength(section.climbMs)} is too short for the first rung of ${group.map((station) => station.label).join(' + ')}.`,
            why: 'There is nothing to come back down from.',
          }),
        )
    })
  if (section.format === 'couplet')
    section.groups.forEach((group, at) => {
      if (timesInCouplet(group, section.workMs, around) < 1)
        found.push(
          finding('couplet', {
            id: `${section.key} ${at}`,
            severity: 'warning',
            ...place,
            what: `${formatLength(section.workMs)} is too short for once round ${group.map((station) => station.label).join(' + ')}.`,
            why: 'Nobody would have a number to count.',
          }),
        )
    })
  const holds =
    'stations' in section
      ? section.stations.length
      : 'groups' in section
        ? section.groups.length
        : section.format === 'list'
          ? section.rows.length
          : 1
  const elsewhere = 'where' in section && section.where !== 'here'
  if (!holds && !elsewhere)
    found.push(
      finding('empty', {
        id: section.key,
        severity: 'warning',
        ...place,
        what: `${name} has no moves yet.`,
        why: 'It takes no time and shows nothing.',
        mend: {
          label: 'Take it out',
          apply: (draft) => {
            draft.sections = draft.sections.filter((one) => one.key !== section.key)
          },
        },
      }),
    )
  const low = section.format === 'pairs' || section.format === 'buyIn' || section.format === 'couplet' ? 2 : 1
  if ('groups' in section && section.groups.some((group) => group.length < low))
    found.push(
      finding('group', {
        id: section.key,
        severity: 'warning',
        ...place,
        what: `A group of ${name} has one move; it needs two.`,
        why: 'Moves that belong together are joined by "+".',
      }),
    )
  return found
}

function inSegments({ expansion }: Review): Finding[] {
  const found = new Repeats()
  for (const segment of expansion.segments) {
    const { kind, durationMs, label } = segment
    if (kind === 'work' && durationMs === 0) {
      found.meet('cue', `${segment.sectionKey} nothing`, (times) => ({
        severity: 'error',
        ...atSegment(segment),
        what: `${label || 'An interval'} lasts nothing${times}.`,
        why: 'It is not shown and not heard.',
      }))
    } else if (kind === 'work' && durationMs < SHORTEST_COUNTED_MS && !segment.estimated) {
      const field = fieldFor(segment, SHORTEST_COUNTED_MS)
      found.meet('cue', `${segment.sectionKey} short work`, (times) => ({
        severity: 'warning',
        ...atSegment(segment),
        what: `${label || 'Work'} lasts ${inSeconds(durationMs)}: three pips and the tone run into one another${times}.`,
        why: 'A countdown needs about four seconds.',
        mend: field
          ? { label: 'Make it 4 s', apply: (draft) => setField(draft, segment.sectionKey, field.path, field.value) }
          : null,
      }))
    }
    if (kind === 'work' && segment.moves.length === 1 && label.length > LONGEST_LABEL)
      found.meet('label', label, (times) => ({
        severity: 'note',
        ...atSegment(segment),
        what: `"${label.slice(0, 60)}" has ${label.length} letters${times}.`,
        why: `More than about ${LONGEST_LABEL} get too small to be read from across the room.`,
      }))
    if (
      kind === 'work' &&
      segment.rounds === 1 &&
      segment.round === 1 &&
      segment.sets === null &&
      (segment.stations ?? 1) > 1 &&
      segment.words.round.one !== 'leg'
    ) {
      const word = segment.words.round
      if (word.one !== 'round')
        found.meet('counter', `${segment.sectionKey} one`, () => ({
          severity: 'note',
          ...atSegment(segment),
          what: `There is one ${word.one} only.`,
          why: `"${capital(word.one)} 1 of 1" reads as if more were to come; it is left out on screen.`,
        }))
    }
  }
  return found.findings()
}
