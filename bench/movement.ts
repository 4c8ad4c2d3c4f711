// What movement adds to what is heard: sessions of which only the evidence is made, matched without it and with it.
//   tsx bench/movement.ts [sessions]
import { matchEvidence } from '../src/core/align/sync'
import { SURE } from '../src/core/align/ties'
import { byTime, type Evidence } from '../src/core/evidence'
import { boundOf } from '../demo/takes/judge'
import { offBy } from '../demo/takes/play'
import { tell, type Told } from '../demo/takes/told'

/** Apart from those that confidence is fitted and checked on. */
const FROM = 3000
const [count = 63] = process.argv.slice(2).map(Number)
const sessions = Array.from({ length: count }, (_, at) => tell(FROM + at))

function counted({ segments, played }: Told, evidence: readonly Evidence[]): number[] {
  const { found } = matchEvidence(segments, evidence, played.footageMs)
  const right = found.filter((tie) => offBy(played, tie) <= boundOf(tie.evidence))
  const sure = found.filter(({ confidence }) => confidence >= SURE)
  return [found.length, right.length, sure.length, sure.filter((tie) => !right.includes(tie)).length]
}

console.log('                     ties   right    sure   sure and wrong')
for (const [name, evidenceOf] of [
  ['heard', ({ evidence }: Told) => evidence],
  ['heard and seen', ({ evidence, movement }: Told) => [...evidence, ...movement].sort(byTime)],
] as const) {
  const all = sessions.map((one) => counted(one, evidenceOf(one)))
  const sums = [0, 1, 2, 3].map((column) => all.reduce((sum, row) => sum + (row[column] ?? 0), 0))
  console.log(`${name.padEnd(18)} ${sums.map((sum) => String(sum).padStart(7)).join(' ')}`)
}
