import { execFileSync } from 'node:child_process'
import { readFileSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyScore, anyShorthandText } from '../arbitraries'
import { expand } from '../expand/expand'
import { FORMAT_NAMES, notationOf } from '../score/formats'
import { scoreSchema } from '../score/score'
import { printShorthand } from './print'
import { readShorthand } from './read'
import { MUSCLES } from '../score/postures'
import { exampleOf, spaced } from './settings'
import { MOVE_FIELDS, ROW_FIELDS, SCORE_FIELDS, STATION_FIELDS } from './terms'

const CIRCUIT =
  'circuit Main: 2 rounds, 35 on, 15 off, 1:00 between\n  Jug lift; Lock-gate push; Tiller twist (45 on, sides none)\n'

describe('the shorthand', () => {
  it('writes a circuit on two lines', () => {
    const { score, problems } = readShorthand(CIRCUIT)
    expect(problems).toEqual([])
    // 2 x 3 works of 35 s but one of 45 s a round; two rests of 15 s between them, and the break.
    expect(expand(score)).toMatchObject({ totalMs: 2 * (35 + 35 + 45) * 1000 + 4 * 15_000 + 60_000, workMs: 230_000 })
    expect(printShorthand(score)).toBe(`title ""\n${CIRCUIT}`)
  })
  it('reads what it prints, whatever the score', () => {
    fc.assert(
      fc.property(anyScore, (score) => {
        const { score: again, problems } = readShorthand(printShorthand(score))
        expect(again).toEqual(score)
        expect(problems.filter((one) => one.code !== 'group-size')).toEqual([])
      }),
      { numRuns: 100 },
    )
  })
  it('makes a score that holds of any text at all, and keeps every word of it', () => {
    fc.assert(
      fc.property(anyShorthandText, (typed) => {
        const { score, problems } = readShorthand(typed)
        expect(scoreSchema.safeParse(score).error).toBeUndefined()
        for (const { from, to } of problems) expect(from <= to && to <= typed.length).toBe(true)
        expect(readShorthand(printShorthand(score)).score).toEqual(score)
      }),
      { numRuns: 1500 },
    )
  })
  it('keeps comments and blank lines where they stand', () => {
    const text =
      'title Deck Hours 14\n# for the roof\ncircuit Main: 2 rounds, 35 on  # long ones\n  Jug lift\n\n# easier today\n  Lock-gate push  # on the step\n# the end\n'
    const { score, problems } = readShorthand(text)
    expect(problems).toEqual([])
    expect(printShorthand(score)).toBe(text)
  })
})

describe('what is not understood', () => {
  const problemsIn = (text: string): string[] =>
    readShorthand(text).problems.map(({ code, from, to }) => `${code}: ${text.slice(from, to)}`)
  it.each([
    ['circut Main: 3 rounds\n', ['unknown-head: circut']],
    ['circuit Main: 35 onn, 3 rounds\n  Jug lift\n', ['unknown-setting: 35 onn']],
    ['  Jug lift\n', ['no-section:   Jug lift']],
    ['talk Hello:\n  Jug lift\n', ['no-moves-here:   Jug lift']],
    ['circuit Main: 3 rounds\n  Jug lift (45 on\n', ['unexpected: ']],
    ['circuit Main:\n  Jug lift )\n', ['unexpected: )']],
    ['pairs Main: 4 times\n  Jug lift + Keel hold + Rope pull\n', ['group-size: Jug lift']],
    ['circuit A @x:\ncircuit B @x:\n', ['bad-key: @x']],
    ['circuit Main: 999999 rounds\n', ['unknown-setting: 999999 rounds']],
    ['list Main:\n  Jug lift\n', ['no-length: Jug lift']],
  ])('is reported where it stands: %j', (text, wanted) => expect(problemsIn(text)).toEqual(wanted))
  it('is kept, marked, and offered a mend', () => {
    const text = 'circut Main: 3 rounds, 35 on\n  Jug lift\n'
    const { score, problems } = readShorthand(text)
    expect(printShorthand(score)).toBe('title ""\n? circut Main: 3 rounds, 35 on\n? Jug lift\n')
    const mend = problems[0]?.mend
    expect(text.slice(0, mend?.from) + mend?.insert + text.slice(mend?.to)).toContain('circuit Main: 3 rounds')
    expect(readShorthand('circuit Main: 35 onn\n').problems[0]?.mend?.insert).toBe('35 on')
  })
})

describe('keys', () => {
  it('stay when a name is typed over, so that stitches stay tied', () => {
    const before = readShorthand('circuit Main: 2 rounds, 35 on\n  Jug lift\ntalk Bye: about 8\n').score
    const after = readShorthand('circuit Core: 2 rounds, 35 on\n  Jug lift\ntalk Bye: about 8\n', before).score
    expect(after.sections.map((one) => one.key)).toEqual(['main', 'bye'])
    expect(printShorthand(after)).toContain('circuit Core @main:')
  })
  it('follow their sections when one is put in front', () => {
    const before = readShorthand('circuit Main: 2 rounds\ncircuit Main: 3 rounds\n').score
    const after = readShorthand('talk Hello:\ncircuit Main: 2 rounds\ncircuit Main: 3 rounds\n', before).score
    expect(after.sections.map((one) => one.key)).toEqual(['hello', 'main', 'main-2'])
  })
})

it('the parser is the one that the grammar makes', () => {
  const out = join(mkdtempSync(join(tmpdir(), 'jivet-grammar-')), 'parser.ts')
  execFileSync('npx', ['lezer-generator', 'src/core/shorthand/shorthand.grammar', '--typeScript', '-o', out], {
    stdio: 'pipe',
  })
  expect(readFileSync('src/core/shorthand/parser.ts', 'utf8')).toBe(readFileSync(out, 'utf8'))
})

describe('docs/shorthand.md', () => {
  const text = readFileSync('docs/shorthand.md', 'utf8')
  it('shows nothing that is not understood', () => {
    const blocks = [...text.matchAll(/^```\n([\s\S]*?)^```$/gm)].map((block) => block[1] ?? '')
    expect(blocks.length).toBeGreaterThan(2)
    for (const block of blocks) expect(readShorthand(block).problems, block).toEqual([])
  })
  it('lists every word that a setting takes', () => {
    const choices = [
      ...[STATION_FIELDS, ROW_FIELDS, MOVE_FIELDS, SCORE_FIELDS].flat(),
      ...FORMAT_NAMES.flatMap((name) => notationOf(name).fields),
    ].flatMap((field) => ('options' in field && field.field !== 'from' ? field.options : []))
    for (const word of [...choices, ...MUSCLES]) expect(text).toMatch(new RegExp(`\\b${spaced(word)}\\b`))
  })
  it('names every head with all its settings', () => {
    for (const name of FORMAT_NAMES) {
      const { head, fields } = notationOf(name)
      const row = text.split('\n').find((line) => line.startsWith(`| \`${head}\` |`))
      for (const field of fields) expect(row, head).toContain(`\`${exampleOf(field)}\``)
    }
  })
})
