// What movement adds to what is heard: sessions of which only the evidence is made, matched without it and with it.
//   tsx bench/movement.ts [sessions]
import { byTime } from '../src/core/evidence'
import { countTies } from '../demo/takes/judge'
import { tell, type Told } from '../demo/takes/told'

/** Apart from those that confidence is fitted and checked on. */
const FROM = 3000
const [count = 63] = process.argv.slice(2).map(Number)
const COLUMNS = ['ties', 'right', 'sure', 'wrong'] as const
const sessions = Array.from({ length: count }, (_, at) => tell(FROM + at))

console.log('                     ties   right    sure   sure and wrong')
for (const [name, evidenceOf] of [
  ['heard', ({ evidence }: Told) => evidence],
  ['heard and seen', ({ evidence, movement }: Told) => [...evidence, ...movement].sort(byTime)],
] as const) {
  const all = sessions.map((one) => countTies(one, evidenceOf(one)))
  const sums = COLUMNS.map((column) => all.reduce((sum, row) => sum + row[column], 0))
  console.log(`${name.padEnd(18)} ${sums.map((sum) => String(sum).padStart(7)).join(' ')}`)
}
