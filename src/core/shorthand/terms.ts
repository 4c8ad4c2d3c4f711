// The lines of the shorthand that are not sections, and what a move or a row of a list may carry in brackets.
import { choice, counts, length, text, type Field } from '../score/formats/format'
import { IMPACTS, POSTURES, SIDE_RULES, SIDES } from '../score/postures'
import { SCHOOLS } from '../score/schools'
import { CAUTION_PLACES, COUNTS, DEMO_PLACES } from '../score/score'

const readingsOf = (word: keyof typeof SCHOOLS): string[] => SCHOOLS[word].readings.map((one) => one.reading)

/** `score: promise 15:00, demos in rests` */
export const SCORE_FIELDS: readonly Field[] = [
  { kind: 'optionalLength', field: 'promiseMs', word: 'promise', bare: null },
  choice('demos', 'demos', DEMO_PLACES),
  length('eachMs', 'each demo', 10_000),
  choice('count', 'count', COUNTS),
  choice('caution', 'caution', CAUTION_PLACES),
  choice('tabata', 'tabata', readingsOf('tabata')),
  choice('emom', 'emom', readingsOf('emom')),
  choice('round', 'round', readingsOf('round')),
]

const orNone = (field: string, word: string): Field => ({ kind: 'optionalLength', field, word, bare: null })
const orOwn = (field: string, word: string, options: readonly string[]): Field => ({
  kind: 'choice',
  field,
  word,
  options,
  bare: '',
})

/** `Jug lift (45 on, sides halves)` */
export const STATION_FIELDS: readonly Field[] = [
  orNone('workMs', 'on'),
  orNone('restMs', 'off'),
  orOwn('sideRule', 'sides', SIDE_RULES),
  orOwn('posture', 'posture', POSTURES),
  counts('effort', 'effort', 1, 5, 0),
]

/** `Jug lift (35 work, side left, round 1)` */
export const ROW_FIELDS: readonly Field[] = [
  orOwn('side', 'side', SIDES),
  counts('round', 'round', 1, 10_000, 0),
  counts('set', 'set', 1, 10_000, 0),
  orOwn('posture', 'posture', POSTURES),
  counts('effort', 'effort', 1, 5, 0),
]

/** `move "Own move": posture kneeling, effort 4` */
export const MOVE_FIELDS: readonly Field[] = [
  text('short', 'short'),
  text('cue', 'cue'),
  choice('posture', 'posture', POSTURES),
  choice('impact', 'impact', IMPACTS),
  counts('effort', 'effort', 1, 5, 3),
  choice('sideRule', 'sides', SIDE_RULES),
  text('easier', 'easier'),
  text('harder', 'harder'),
  text('caution', 'caution'),
]

/** Lines whose first word is one of these are settings of the whole workout. */
export const PLAIN_HEADS = ['score', 'words', 'needs', 'move', 'dismissed'] as const
export type PlainHead = (typeof PLAIN_HEADS)[number]
