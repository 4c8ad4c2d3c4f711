// The lines of the shorthand that are not sections, and what a move or a row of a list may carry in brackets.
import { choice, counts, length, optionalChoice, optionalLength, text, type Field } from '../score/formats/fields'
import { FIRST_SIDES } from '../score/formats/station'
import { IMPACTS, POSTURES, SIDE_RULES, SIDES, STANDING_LEGS } from '../score/postures'
import { SCHOOLS } from '../score/schools'
import { CAUTION_PLACES, COUNTED_LENGTHS, COUNTS, DEMO_PLACES, PROMISES } from '../score/score'

const readingsOf = (word: keyof typeof SCHOOLS): string[] => SCHOOLS[word].readings.map((one) => one.reading)

/** `score: promise 15:00, demos in rests` */
export const SCORE_FIELDS: readonly Field[] = [
  optionalLength('promiseMs', 'promise'),
  choice('promiseOf', 'promise of', PROMISES),
  choice('demos', 'demos', DEMO_PLACES),
  length('eachMs', 'each demo', { bare: 10_000 }),
  choice('count', 'count', COUNTS),
  choice('countOf', 'count of', COUNTED_LENGTHS),
  choice('caution', 'caution', CAUTION_PLACES),
  text('series', 'series', 300),
  text('next', 'next', 300),
  choice('tabata', 'tabata', readingsOf('tabata')),
  choice('emom', 'emom', readingsOf('emom')),
  choice('round', 'round', readingsOf('round')),
]

/** A count that need not be there; nothing typed leaves it out. */
const maybe = (field: string, word: string, high: number): Field => counts(field, word, { high, bare: 0 })

/** `Jug lift (45 on, sides halves)` */
export const STATION_FIELDS: readonly Field[] = [
  optionalLength('workMs', 'on'),
  optionalLength('restMs', 'off'),
  optionalChoice('sideRule', 'sides', SIDE_RULES),
  choice('firstSide', 'first', FIRST_SIDES),
  optionalChoice('posture', 'posture', POSTURES),
  maybe('effort', 'effort', 5),
  text('repIs', 'rep is', 120),
]

/** `Jug lift (35 work, side left, round 1)` */
export const ROW_FIELDS: readonly Field[] = [
  optionalChoice('side', 'side', SIDES),
  maybe('round', 'round', 10_000),
  maybe('set', 'set', 10_000),
  optionalChoice('posture', 'posture', POSTURES),
  maybe('effort', 'effort', 5),
]

/** `move "Own move": posture kneeling, effort 4` */
export const MOVE_FIELDS: readonly Field[] = [
  text('short', 'short'),
  text('cue', 'cue'),
  choice('posture', 'posture', POSTURES),
  choice('impact', 'impact', IMPACTS),
  counts('effort', 'effort', { high: 5, bare: 3 }),
  choice('sideRule', 'sides', SIDE_RULES),
  choice('standingLeg', 'standing leg', STANDING_LEGS),
  text('easier', 'easier'),
  text('harder', 'harder'),
  text('caution', 'caution'),
]

/** Lines whose first word is one of these are settings of the whole workout. */
export const PLAIN_HEADS = ['score', 'words', 'needs', 'move', 'dismissed'] as const
export type PlainHead = (typeof PLAIN_HEADS)[number]
