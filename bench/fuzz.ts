// 100,000 random shorthand texts and 100,000 random JSON documents: none may crash, hang, or pass validation wrongly.
//   tsx bench/fuzz.ts [RUNS] [shorthand | JSON]
import fc from 'fast-check'
import { anyBrokenDocument, anyShorthandText } from '../src/core/arbitraries'
import { judge } from '../src/core/check/check'
import { tryExpand } from '../src/core/expand/expand'
import { Problem } from '../src/core/problem'
import { readTypedPlan } from '../src/core/read/typedPlan'
import { readWorkoutFile } from '../src/core/read/workoutFile'
import { scoreSchema } from '../src/core/score/score'
import { printShorthand } from '../src/core/shorthand/print'
import { readShorthand } from '../src/core/shorthand/read'

const runs = Number(process.argv[2] ?? 100_000),
  only = process.argv[3] ?? ''

function fuzz<T>(name: string, arbitrary: fc.Arbitrary<T>, property: (value: T) => string): void {
  if (!name.startsWith(only)) return
  const outcomes = new Map<string, number>()
  let slowest = 0
  const start = performance.now()
  let done = 0
  fc.assert(
    fc.property(arbitrary, (value) => {
      if (++done % 10_000 === 0) process.stderr.write(`${name}: ${done}\n`)
      const from = performance.now()
      const outcome = property(value)
      slowest = Math.max(slowest, performance.now() - from)
      outcomes.set(outcome, (outcomes.get(outcome) ?? 0) + 1)
    }),
    { numRuns: runs },
  )
  process.stdout.write(
    `${name}: ${runs} in ${((performance.now() - start) / 1000).toFixed(0)} s, slowest ${slowest.toFixed(0)} ms; ${[...outcomes].map(([outcome, count]) => `${outcome} ${count}`).join(', ')}\n`,
  )
}

const must = (holds: boolean, what: string): void => {
  if (!holds) throw new Error(what)
}

fuzz('shorthand texts', anyShorthandText, (text) => {
  const { score, problems } = readShorthand(text)
  must(scoreSchema.safeParse(score).success, 'the score does not hold')
  for (const { from, to } of problems)
    must(from >= 0 && from <= to && to <= text.length, 'a problem stands outside the text')
  must(JSON.stringify(readShorthand(printShorthand(score)).score) === JSON.stringify(score), 'printing loses something')
  must(scoreSchema.safeParse(readTypedPlan(text).score).success, 'the pasted plan does not hold')
  judge(score)
  return problems.length ? 'with problems' : 'understood'
})
fuzz('JSON documents', anyBrokenDocument, (text) => {
  try {
    const score = readWorkoutFile(text)
    must(scoreSchema.safeParse(JSON.parse(JSON.stringify(score))).success, 'passed once and not twice')
    const unfolding = tryExpand(score)
    for (const { durationMs, startMs } of unfolding.expansion?.segments ?? [])
      must(
        Number.isSafeInteger(durationMs) && durationMs >= 0 && Number.isSafeInteger(startMs),
        'a length that is none',
      )
    judge(score, unfolding)
    return 'taken'
  } catch (error) {
    if (error instanceof Problem) return 'refused'
    throw error
  }
})
