// How many of the made-up plans are read right: those that the reader was tuned to, and those that were set aside.
//   npx tsx bench/plans.ts            the shares, and which were read wrong without a word
//   npx tsx bench/plans.ts tuned      the differences of those it was tuned to
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { readCorpus, runningOrder, tryPlan, type Outcome } from '../src/core/read/plans/corpus'
import { readTypedPlan } from '../src/core/read/typedPlan'
import { printShorthand } from '../src/core/shorthand/print'
import { readShorthand } from '../src/core/shorthand/read'

const PLANS = 'src/core/read/plans'
const outcomes = (folder: string): Outcome[] =>
  readdirSync(join(PLANS, folder))
    .sort()
    .flatMap((file) => readCorpus(readFileSync(join(PLANS, folder, file), 'utf8')))
    .map(tryPlan)

const shown = process.argv[2]
for (const folder of ['tuned', 'aside']) {
  const all = outcomes(folder)
  const right = all.filter((one) => one.right).length
  const silent = all.filter((one) => one.silent)
  console.log(
    `${folder.padEnd(6)} ${right} of ${all.length} right (${Math.round((100 * right) / all.length)} %), ${all.length - right - silent.length} wrong with a question or a mark, ${silent.length} wrong without`,
  )
  if (folder !== shown) continue
  for (const { plan, reading } of all.filter((one) => !one.right)) {
    const wanted = runningOrder(readShorthand(plan.meant).score),
      got = runningOrder(reading.score)
    const at = wanted.findIndex((line, index) => line !== got[index])
    console.log(
      `\n=== ${plan.name}\n${plan.text}\n--- read as\n${printShorthand(reading.score)}--- at ${at}: wanted ${wanted[at]}, got ${got[at]} (${wanted.length} / ${got.length} intervals)`,
    )
  }
}

// Reading time against length: the same plan over and over.
const plan =
  'Block 1: 3 rounds, 40s on, 20s off\n- Squats\n- Push-ups (on the knees)\n- Side plank each side\n1 min rest between rounds\nThank you for training with me!\n'
const timeOf = (times: number): number => {
  const text = plan.repeat(times)
  const start = performance.now()
  readTypedPlan(text)
  return performance.now() - start
}
timeOf(50)
const [short, long] = [timeOf(100), timeOf(1000)]
console.log(
  `reading ten times as much takes ${(long / short).toFixed(1)} times as long (${(plan.length * 1000) / 1000} thousand letters in ${Math.round(long)} ms)`,
)
