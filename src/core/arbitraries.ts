// Any score at all, for property tests and the fuzzing bench: every format, field, remark and odd name the schema lets
// in.
import fc from 'fast-check'
import { FORMAT_NAMES, formatNamed, newSection, type FormatName, type Section } from './score/formats'
import { withTrueJoins } from './score/formats/joined'
import { withKeys } from './score/formats/keys'
import { holdsRanges, likelyOf, type Field } from './score/formats/fields'
import type { Range } from './score/primitives'
import { emptyScore, type Score } from './score/score'
import { moveSchema } from './score/move'
import { MUSCLES, IMPACTS, POSTURES, SIDE_RULES, SIDES, STANDING_LEGS } from './score/postures'
import { KINDS } from './score/segment'
import { USUAL_NEEDS } from './score/needs'

const anyMs = fc.oneof(
  fc.integer({ min: 0, max: 600 }).map((seconds) => seconds * 1000),
  fc.integer({ min: 0, max: 86_400_000 }),
)
const wild = fc.oneof(
  fc.constantFrom(
    'Jug lift',
    'Keel hold',
    'Tiller twist',
    'Rope pull',
    '12 squats',
    'a, b',
    'x: y',
    '"quoted"',
    'a + b (c)',
    '# no',
    '',
    ' ',
    'two  blanks ',
    '@key',
    'Up: A',
    '? what',
    'line\nbreak',
  ),
  fc.string({ maxLength: 30 }),
  fc.string({ unit: 'binary', maxLength: 12 }),
)
const anyName = wild.map((text) => text.slice(0, 300))
const oneLine = fc.string({ maxLength: 30 }).map((text) => text.replace(/[\r\n]/g, ' '))
const remark = fc.oneof(
  fc.constant(''),
  oneLine.map((text) => `#${text}`),
  oneLine.map((text) => `?${text}`),
)
/** Often none, so that one is given; sometimes one of many, as after moves were inserted. */
const anyKey = fc.oneof(
  { weight: 3, arbitrary: fc.constant('') },
  fc.integer({ min: 1, max: 12 }).map((number) => `s${number}`),
  fc.constantFrom('jug-lift', 'r2/s1/work', 'x'),
)
const remarks = {
  above: fc.array(remark, { maxLength: 3 }),
  beside: fc.oneof(
    { weight: 4, arbitrary: fc.constant('') },
    oneLine.map((text) => `#${text}`),
  ),
}

const swaps = fc.uniqueArray(
  fc.record({
    from: fc.integer({ min: 2, max: 9 }),
    label: anyName,
    sideRule: fc.option(fc.constantFrom(...SIDE_RULES)),
    reps: fc.option(fc.integer({ min: 1, max: 99 })),
  }),
  { maxLength: 2, selector: (swap) => swap.from },
)
const anyStation = (label: fc.Arbitrary<string> = anyName) =>
  fc.record({
    key: anyKey,
    label,
    sideRule: fc.option(fc.constantFrom(...SIDE_RULES)),
    posture: fc.option(fc.constantFrom(...POSTURES)),
    effort: fc.option(fc.integer({ min: 1, max: 5 })),
    workMs: fc.option(anyMs),
    restMs: fc.option(anyMs),
    reps: fc.option(fc.integer({ min: 1, max: 99 })),
    firstSide: fc.constantFrom('left' as const, 'right' as const),
    joined: fc.boolean(),
    repIs: fc.oneof(fc.constant(''), oneLine),
    weight: fc.option(
      fc.record({
        amount: fc.constantFrom(2.5, 8, 12, 100),
        unit: fc.constantFrom('kg' as const, 'lb' as const),
        pair: fc.boolean(),
      }),
    ),
    ranges: fc.constant({}),
    swaps,
    ...remarks,
  })
const anyRow = fc.record({
  key: anyKey,
  kind: fc.constantFrom(...KINDS),
  label: anyName,
  side: fc.option(fc.constantFrom(...SIDES)),
  round: fc.option(fc.integer({ min: 1, max: 9 })),
  set: fc.option(fc.integer({ min: 1, max: 9 })),
  durationMs: fc.option(anyMs),
  estimated: fc.boolean(),
  reps: fc.option(fc.integer({ min: 1, max: 99 })),
  posture: fc.option(fc.constantFrom(...POSTURES)),
  effort: fc.option(fc.integer({ min: 1, max: 5 })),
  ...remarks,
})

function anyField(field: Field): fc.Arbitrary<unknown> {
  switch (field.kind) {
    case 'count':
      return fc.integer({ min: field.low, max: Math.min(field.high, 12) })
    case 'length':
      return anyMs
    case 'optionalLength':
      return fc.option(anyMs)
    case 'choice':
      return fc.constantFrom(...field.options)
    case 'optionalChoice':
      return fc.option(fc.constantFrom(...field.options))
    case 'section':
      return fc.constantFrom('', 'main', 'end')
    case 'text':
      return anyName
    case 'lengths':
      return fc.array(anyMs, { minLength: 1, maxLength: 4 })
    case 'workRests':
      return fc.array(fc.record({ workMs: anyMs, restMs: anyMs }), { minLength: 1, maxLength: 4 })
  }
}

export function anySection(format: FormatName): fc.Arbitrary<Section> {
  const { fields } = formatNamed(format).notation
  const numbers = fc.record(Object.fromEntries(fields.map((field) => [field.field, anyField(field)])))
  const ranges = fc.record(
    Object.fromEntries(
      fields
        .filter(holdsRanges)
        .map((field) => [
          field.field,
          fc
            .tuple(fc.integer({ min: 1, max: 200 }), fc.integer({ min: 1, max: 200 }))
            .map(([low, more]): Range =>
              field.kind === 'count' ? [low, low + more] : [low * 1000, (low + more) * 1000],
            ),
        ]),
    ),
    { requiredKeys: [] },
  )
  const extra = fc.record({ name: anyName, key: fc.stringMatching(/^[a-z0-9][a-z0-9-]{0,12}$/), ...remarks })
  const moves = fc.record({
    stations: fc.array(anyStation(), { maxLength: 4 }),
    groups: fc.array(
      fc
        .array(anyStation(), { minLength: 1, maxLength: 3 })
        .map(([first, ...others]) => [first, ...others.map((one) => ({ ...one, above: [], beside: '' }))]),
      { maxLength: 3 },
    ),
    rows: fc.array(anyRow, { maxLength: 6 }),
    from: fc.option(fc.constantFrom(...FORMAT_NAMES)),
  })
  return fc
    .tuple(numbers, extra, moves, fc.oneof({ weight: 3, arbitrary: fc.constant({}) }, { weight: 1, arbitrary: ranges }))
    .map(([typed, more, held, between]) => {
      // A number of which only a range is known is the middle of it.
      for (const field of fields) {
        const range = (between as Record<string, Range>)[field.field]
        if (range) typed[field.field] = likelyOf(field, range)
      }
      const base = newSection(format, 'x', 'x')
      const own = Object.fromEntries(Object.entries(held).filter(([name]) => name in base))
      return withTrueJoins(withKeys(Object.assign(base, typed, more, own, { ranges: between })))
    })
}

export const anyMove = fc
  .record({
    name: anyName.map((name) => name.trim() || 'Own move'),
    short: fc.string({ maxLength: 10 }).map((text) => text.trim()),
    cue: fc.string({ maxLength: 20 }).map((text) => text.trim()),
    posture: fc.constantFrom(...POSTURES),
    muscles: fc.uniqueArray(fc.constantFrom(...MUSCLES), { maxLength: 3 }),
    impact: fc.constantFrom(...IMPACTS),
    effort: fc.integer({ min: 1, max: 5 }),
    sideRule: fc.constantFrom(...SIDE_RULES),
    standingLeg: fc.constantFrom(...STANDING_LEGS),
    gear: fc.array(fc.constantFrom('jug', 'tea towel'), { maxLength: 2 }),
    secondsPerRep: fc.integer({ min: 2, max: 80 }).map((tenths) => tenths / 10),
    tags: fc.array(fc.constantFrom('boat', 'own'), { maxLength: 1 }),
    easier: fc.string({ maxLength: 8 }).map((text) => text.trim()),
    harder: fc.constant(''),
    caution: fc.constant(''),
  })
  .map((move) => moveSchema.parse(move))

const pair = fc.option(fc.record({ one: fc.constantFrom('lap', 'go'), many: fc.constantFrom('laps', 'goes') }))

export const anyScore: fc.Arbitrary<Score> = fc
  .record({
    title: anyName,
    promiseMs: fc.option(anyMs),
    above: remarks.above,
    below: fc.array(remark, { maxLength: 3 }),
    sections: fc.array(fc.constantFrom(...FORMAT_NAMES).chain(anySection), { maxLength: 4 }),
    demos: fc.record({
      place: fc.constantFrom('none' as const, 'upFront' as const, 'beforeBlocks' as const, 'inRests' as const),
      eachMs: anyMs,
    }),
    moves: fc.array(anyMove, { maxLength: 2 }),
    count: fc.constantFrom('down' as const, 'up' as const),
    countOf: fc.constantFrom('filmed' as const, 'planned' as const),
    promiseOf: fc.constantFrom('video' as const, 'workout' as const),
    caution: fc.constantFrom('both' as const, 'card' as const, 'description' as const, 'none' as const),
    series: fc.record({ name: anyName, next: anyName }),
    vocabulary: fc.record({ round: pair, set: pair, station: pair, block: pair }),
    readings: fc.record({
      tabata: fc.constantFrom('strict' as const, 'double' as const, 'burst' as const),
      emom: fc.constantFrom('reps' as const, 'time' as const),
      round: fc.constantFrom('pass' as const, 'interval' as const, 'thereAndBack' as const),
    }),
    needs: fc.record(
      Object.fromEntries(Object.keys(USUAL_NEEDS).map((name) => [name, fc.integer({ min: 1, max: 9 })])),
      { requiredKeys: [] },
    ),
    dismissed: fc.array(fc.record({ finding: anyName, reason: anyName }), { maxLength: 2 }),
  })
  .map((parts) => {
    const taken = new Set<string>()
    const sections = parts.sections.map((section, index) => {
      const key = taken.has(section.key) ? `${section.key.slice(0, 70)}-${index}-x` : section.key
      taken.add(key)
      return { ...section, key }
    })
    return { ...emptyScore(''), ...parts, sections }
  })

const pieces = fc.constantFrom(
  'circuit ',
  'Main',
  ':',
  ' 3 rounds',
  ',',
  ' 35 on',
  '\n',
  '  ',
  'Jug lift',
  ';',
  ' + ',
  '(',
  ')',
  '"',
  '#',
  '? ',
  '@',
  '12 ',
  '1:15',
  'list',
  'title ',
  'move ',
  '\\',
  'é',
  '\u2028',
  '40/20',
  ' then ',
  'score: count up',
  'dismissed "x": reason "y"',
  'ladder',
  'compound X: 2 passes, long 1:00',
  'pyramid',
  ' from 2 Rope pull',
  'sides halves',
  ' 15 off',
  'work',
  '99999999999',
  '-',
  '\r',
  '\t',
  'words: round "lap" "laps"',
)

/** Texts that look a little like shorthand, and texts that look like nothing. */
export const anyShorthandText: fc.Arbitrary<string> = fc.oneof(
  fc.string({ unit: 'binary' }),
  fc.array(pieces, { maxLength: 40 }).map((some) => some.join('')),
)

const odd = fc.oneof(
  fc.constantFrom<unknown>(null, -1, 0.5, 1e308, '', 'x', [], {}, true, '__proto__', -0),
  fc.integer(),
  fc.string(),
)

/** Drawn once: a whole score costs more to make than to break. */
let drawn: Score[] | null = null
const anyDrawnScore = fc.nat({ max: 299 }).map((index) => (drawn ??= fc.sample(anyScore, 300))[index] ?? emptyScore(''))

/** Workout files of real scores of which a few fields were made wrong, and JSON of no kind at all. */
export const anyBrokenDocument: fc.Arbitrary<string> = fc.oneof(
  fc.json(),
  fc
    .tuple(
      anyDrawnScore,
      fc.array(fc.tuple(fc.array(fc.nat({ max: 30 }), { minLength: 1, maxLength: 6 }), odd), { maxLength: 2 }),
    )
    .map(([score, wounds]) => {
      const file = { format: 'jivet-workout', version: 1, score: structuredClone(score) as unknown }
      for (const [way, value] of wounds) {
        let inside: Record<string, unknown> = file
        for (const [depth, step] of way.entries()) {
          const names = Object.keys(inside)
          const name = names[step % Math.max(1, names.length)]
          if (name === undefined) break
          const next = inside[name]
          if (depth === way.length - 1 || typeof next !== 'object' || next === null) {
            inside[name] = value
            break
          }
          inside = next as Record<string, unknown>
        }
      }
      return JSON.stringify(file)
    }),
)
