import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyMove } from '../arbitraries'
import { Problem } from '../problem'
import { MOVES } from '../score/moves'
import { moveSchema } from '../score/move'
import { writeMovesCsv, writeMovesJson } from '../write/moveFile'
import { moveSentence } from '../words/en/problems'
import { readMoves } from './moveFile'

const anyMoves = fc.uniqueArray(
  anyMove.map((move) => ({ ...move, short: move.short || move.name.slice(0, 60) })),
  { maxLength: 6, selector: (move) => move.name.toLowerCase() },
)

describe('the moves that ship', () => {
  it('are sixty or more, each right, each once, boat and plain', () => {
    expect(MOVES.length).toBeGreaterThanOrEqual(60)
    for (const move of MOVES) expect(moveSchema.parse(move), move.name).toEqual(move)
    expect(new Set(MOVES.map((move) => move.name.toLowerCase())).size).toBe(MOVES.length)
    for (const tag of ['boat', 'plain', 'stretch', 'warm-up', 'hold'])
      expect(
        MOVES.some((move) => move.tags.includes(tag)),
        tag,
      ).toBe(true)
  })
  it('have an easier way wherever they jump or ask for all, and a caution wherever they need something to stand on', () => {
    for (const move of MOVES) {
      if (move.impact === 'high' || move.effort === 5) expect(move.easier, move.name).not.toBe('')
      if (move.gear.some((gear) => /step|chair/.test(gear)) && move.effort > 2)
        expect(move.caution, move.name).not.toBe('')
    }
  })
})

describe('files of moves', () => {
  it.each([
    ['moves.csv', writeMovesCsv],
    ['moves.json', writeMovesJson],
  ] as const)('%s comes back as it was written', (name, write) => {
    fc.assert(
      fc.property(anyMoves, (moves) => {
        const own = name.endsWith('.csv')
          ? moves.map((move) => ({
              ...move,
              name: move.name.replace(/[\r\n]/g, ' ').trim() || 'Own move',
              gear: [...move.gear],
              tags: [...move.tags],
            }))
          : moves
        const unique = own.filter(
          (move, index) => own.findIndex((other) => other.name.toLowerCase() === move.name.toLowerCase()) === index,
        )
        expect(readMoves(write(unique), name)).toEqual({ moves: unique, problems: [] })
      }),
      { numRuns: 60 },
    )
    expect(readMoves(write(MOVES), name)).toEqual({ moves: MOVES, problems: [] })
  })
  it('may leave columns out and order them as they like', () => {
    expect(readMoves('Effort,NAME\n5,Punt push\n', 'm.csv').moves).toEqual([
      moveSchema.parse({ name: 'Punt push', short: 'Punt push', effort: 5 }),
    ])
  })
  it('lose only what is wrong, and say where', () => {
    const { moves, problems } = readMoves(
      'name,effort,impact\nGood,3,low\nBad,9,low\n,3,low\nGOOD,3,low\nOdd,3,bouncy\n',
      'm.csv',
    )
    expect(moves.map((move) => move.name)).toEqual(['Good'])
    expect(problems.map(({ place, fact }) => moveSentence(place, fact).split(':').slice(0, 2).join(':'))).toEqual([
      'line 3: effort',
      'line 4: name',
      'line 5: "GOOD" stands twice; the first was taken.',
      'line 6: impact',
    ])
  })
  it.each([
    ['{', 'm.json', 'bad-json'],
    ['{"moves":[]}', 'm.json', 'not-moves-file'],
    ['effort\n3\n', 'm.csv', 'name-column-missing'],
    ['name\n"x\n', 'm.csv', 'broken-quote'],
    ['', 'm.csv', 'name-column-missing'],
  ])('%j as %s is refused as %s', (text, name, code) => {
    try {
      readMoves(text, name)
      expect.unreachable()
    } catch (error) {
      expect(error).toBeInstanceOf(Problem)
      expect((error as Problem).code).toBe(code)
    }
  })
  it('never break, whatever the text', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom('m.csv', 'm.json'), (noise, name) => {
        try {
          for (const move of readMoves(`name,tags\n${noise}`, name).moves)
            expect(moveSchema.safeParse(move).success).toBe(true)
        } catch (error) {
          if (!(error instanceof Problem)) throw error
        }
      }),
    )
  })
})
