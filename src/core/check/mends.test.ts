import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readCorpus } from '../read/plans/corpus'
import { scoreSchema, type Score } from '../score/score'
import { readShorthand } from '../shorthand/read'
import { judge, mendOf } from './check'
import { isPromiseKept } from './promise'
import { tryExpand } from '../expand/expand'

const PLANS = 'src/core/read/plans/tuned'
const plans = readdirSync(PLANS).flatMap((file) => readCorpus(readFileSync(join(PLANS, file), 'utf8')))
const scores = plans.map(({ meant }) => readShorthand(meant).score)

/** By what was looked at where the whole is meant: a sum may be over now, where it was under before. */
const harm = (score: Score): Set<string> =>
  new Set(
    judge(score)
      .findings.filter(({ severity }) => severity !== 'note')
      .map(({ id, check }) => (check === 'promise' ? check : id)),
  )

/** Not mended: in a minute that is full already, both sides have to take their time from somewhere. */
const FULL_MINUTES = ['sides: emom Jug lifts -> earned rest: emom 0 Jug lifts']

describe('a mend', () => {
  it('causes no other finding worth more than a note, in any of the made-up plans', () => {
    const caused: string[] = []
    for (const score of scores) {
      const before = harm(score)
      for (const { id } of judge(score).findings) {
        const mend = mendOf(score, id)
        if (!mend) continue
        const copy = structuredClone(score)
        mend.apply(copy)
        expect(scoreSchema.safeParse(copy).error).toBeUndefined()
        for (const other of harm(copy)) if (!before.has(other)) caused.push(`${id} -> ${other}`)
      }
    }
    expect(caused.sort()).toEqual(FULL_MINUTES)
  })
  it('takes along a promise that it would break', () => {
    const { score } = readShorthand(
      'score: promise 2:00\ncircuit Main: 2 rounds, 40 on, 20 off\n  Pump-out hop (effort 5)\n',
    )
    expect(isPromiseKept(score, tryExpand(score))).toBe(true)
    mendOf(score, 'warm-up: none')?.apply(score)
    expect(score.sections).toHaveLength(2)
    expect(isPromiseKept(score, tryExpand(score))).toBe(true)
  })
})
