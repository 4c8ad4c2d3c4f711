import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyBrokenDocument } from '../arbitraries'
import { expand, tryExpand } from '../expand/expand'
import { Problem } from '../problem'
import { scoreSchema } from '../score/score'
import { writeIntervalTable } from '../write/intervalTable'
import { writeWorkoutFile } from '../write/workoutFile'
import { circuit, score, station, talk } from '../testing'
import { readIntervalTable } from './intervalTable'
import { readWorkoutFile } from './workoutFile'

const TABLE =
  'section,round,kind,label,side,seconds\nWarm-up,1,work,Heel digs,,45\nMain,1,work,Jug lift,left,35\nMain,1,rest,,,15\n'

const problemOf = (work: () => unknown): Problem => {
  try {
    work()
  } catch (error) {
    if (error instanceof Problem) return error
    throw error
  }
  throw new Error('nothing was thrown')
}

describe('the interval table', () => {
  it('makes row n the segment whose row is n', () => {
    const { segments, totalMs, workMs, restMs } = expand(readIntervalTable(TABLE, 'plan'))
    expect(segments.map(({ id, row, durationMs, side }) => [id, row, durationMs, side])).toEqual([
      ['warm-up/r1/s1/work', 1, 45_000, null],
      ['main/r1/s1/work', 2, 35_000, 'left'],
      ['main/r1/s1/rest', 3, 15_000, null],
    ])
    expect([totalMs, workMs, restMs]).toEqual([95_000, 80_000, 15_000])
  })
  it('takes a byte order mark, quotes with commas, Windows line ends, and talk of unknown length', () => {
    const text = '\ufeffsection,round,kind,label,side,seconds\r\n"Hello, deck",,talk,"She said ""hi""",,\r\n'
    expect(expand(readIntervalTable(text, 'plan')).segments[0]).toMatchObject({
      section: 'Hello, deck',
      label: 'She said "hi"',
      estimated: true,
      durationMs: 0,
    })
  })
  it.each([
    ['', 'bad-header', 'line 1'],
    ['time,what\n1,2\n', 'bad-header', 'line 1'],
    ['section,round,kind,label,side,seconds\n', 'empty-plan', 'line 2'],
    [`${TABLE}Main,1,work,Jug lift,,-5\n`, 'bad-cell', 'line 5'],
    [`${TABLE}Main,1,work,Jug lift,,1e9\n`, 'bad-cell', 'line 5'],
    [`${TABLE}Main,1,work,Jug lift,,999999\n`, 'bad-cell', 'line 5'],
    [`${TABLE}Main,1,work,Jug lift,,\n`, 'bad-cell', 'line 5'],
    [`${TABLE}Main,1,dance,Jug lift,,5\n`, 'bad-cell', 'line 5'],
    [`${TABLE}Main,1,work,Jug lift,up,5\n`, 'bad-cell', 'line 5'],
    [`${TABLE}Main,0,work,Jug lift,,5\n`, 'bad-cell', 'line 5'],
    [`${TABLE}Main,1,work\n`, 'wrong-cells', 'line 5'],
    [`${TABLE}Main,1,work,"Jug lift,,5\n`, 'broken-quote', 'line 5'],
    [`${TABLE}Main,1,work,${'x'.repeat(301)},,5\n`, 'bad-cell', 'line 5'],
  ])('complains of %j with %s at %s', (text, code, place) => {
    const problem = problemOf(() => readIntervalTable(text, 'plan'))
    expect([problem.code, problem.place]).toEqual([code, place])
    expect(problem.message).toMatch(/\.$/)
  })
  it('of more sections than a score holds is refused with its line, and one of as many as it holds is read', () => {
    const sections = (count: number): string =>
      TABLE + Array.from({ length: count - 2 }, (_, index) => `Part ${index},1,work,Jug lift,,5\n`).join('')
    expect(scoreSchema.safeParse(readIntervalTable(sections(500), 'plan')).success).toBe(true)
    const problem = problemOf(() => readIntervalTable(sections(501), 'plan'))
    expect([problem.code, problem.place]).toEqual(['too-many', 'line 503'])
    expect(problem.message).toBe('More than 500 sections. Put neighbouring parts together.')
  })
  it('takes no longer for sections that alternate than for as many rows in one: time grows with the rows', () => {
    const rows = (names: readonly string[]): string =>
      TABLE + Array.from({ length: 480 }, (_, index) => `${names[index % names.length]},1,work,Jug lift,,5\n`).join('')
    const read = readIntervalTable(rows(['Deck', 'Cabin']), 'plan')
    expect(new Set(read.sections.map((section) => section.key)).size).toBe(read.sections.length)
    expect(read.sections.map((section) => section.key).slice(2, 6)).toEqual(['deck', 'cabin', 'deck-2', 'cabin-2'])
  })
  it('comes back the same after being written: kinds, labels, sides and lengths', () => {
    const { segments } = expand(
      score(
        talk('welcome', null),
        circuit({
          rounds: 3,
          stations: [
            station('Jug lift', { sideRule: 'alternate' }),
            station('Say "hi", twice', { sideRule: 'halves' }),
          ],
        }),
      ),
    )
    const again = expand(readIntervalTable(writeIntervalTable(segments), 'plan')).segments
    const core = (all: typeof segments): unknown =>
      all.map(({ row, kind, label, side, section, round, durationMs }) => ({
        row,
        kind,
        label,
        side,
        section,
        round,
        durationMs,
      }))
    expect(core(again)).toEqual(core(segments))
  })
  it('reads any text or says what is wrong, and never breaks', () => {
    fc.assert(
      fc.property(fc.string(), (noise) => {
        const problem = problemOf(() => readIntervalTable(`${TABLE}"${noise}`, 'plan'))
        expect(problem.message.length).toBeGreaterThan(10)
      }),
    )
  })
})

describe('the workout file', () => {
  it('comes back the same after being written', () => {
    const one = score(talk('welcome', 12_000), circuit())
    expect(readWorkoutFile(writeWorkoutFile(one))).toEqual(one)
  })
  it('reads the demo', () => {
    expect(readWorkoutFile(readFileSync('demo/deck-hours.jivet.json', 'utf8')).sections).toHaveLength(3)
  })
  it('names the field that is wrong', () => {
    const broken = JSON.parse(writeWorkoutFile(score(circuit()))) as { score: { sections: { rounds: number }[] } }
    broken.score.sections[0]!.rounds = -1
    expect(problemOf(() => readWorkoutFile(JSON.stringify(broken)))).toMatchObject({
      code: 'bad-document',
      place: 'score.sections.0.rounds',
    })
    expect(problemOf(() => readWorkoutFile('{'))).toMatchObject({ code: 'bad-json' })
  })
  it('refuses two sections of one key', () => {
    expect(scoreSchema.safeParse(score(circuit(), circuit())).success).toBe(false)
  })
  it('never breaks on any JSON, and what it takes holds and unfolds', () => {
    fc.assert(
      fc.property(anyBrokenDocument, (text) => {
        try {
          const taken = readWorkoutFile(text)
          expect(scoreSchema.safeParse(JSON.parse(JSON.stringify(taken))).error).toBeUndefined()
          for (const { durationMs } of tryExpand(taken).expansion?.segments ?? [])
            expect(Number.isSafeInteger(durationMs)).toBe(true)
        } catch (error) {
          if (!(error instanceof Problem)) throw error
          expect(error.code).toBe('bad-document')
        }
      }),
      { numRuns: 800 },
    )
  })
})

describe('the published JSON Schema', () => {
  it('is the one that guards workout files', async () => {
    const { workoutJsonSchema } = await import('../../../scripts/writeSchema')
    expect(readFileSync('docs/workout.schema.json', 'utf8')).toBe(workoutJsonSchema())
  })
})
