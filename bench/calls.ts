// How many calls of the coach the network hears, before anything is matched: of changes that were called in simulated
// takes, those with a call of their kind within 400 ms, or of either kind, and calls heard where nobody called.
//   tsx bench/calls.ts [tune|test] [takes of each class]
// With KEPT, what bench/accuracy.ts kept there is used.
import { BOUND_MS } from '../demo/takes/judge'
import { KINDS, type KindName, type Split } from '../demo/takes/takes'
import { ofKind } from '../src/core/evidence'
import { heardTake } from './heard'

const [split = 'test', each = '4'] = process.argv.slice(2)
/** From here on a call is heard. */
const CLEAR = 0.5

console.log('class                           called   heard   as either   median, ms   falsely, a minute')
for (const kind of Object.keys(KINDS) as KindName[]) {
  const { coach, language } = { coach: '', language: '', ...KINDS[kind] }
  if (!coach || (language as string) === 'it') continue
  let called = 0,
    either = 0,
    falsely = 0,
    minutes = 0
  const off: number[] = []
  for (let number = 0; number < Number(each); number++) {
    const { take, evidence } = await heardTake(kind, split as Split, number)
    const calls = ofKind(evidence, 'word').filter(({ word, strength }) => strength >= CLEAR && isChange(word))
    const changes = take.played.stretches.flatMap(({ segment, startMs }, at) =>
      at && segment.kind !== 'lead' && !take.forgottenMs.some((ms) => Math.abs(ms - startMs) < 1)
        ? [{ atMs: startMs, word: segment.kind === 'work' ? 'work' : 'rest' }]
        : [],
    )
    for (const { atMs, word } of changes) {
      const nearest = Math.min(...calls.filter((one) => one.word === word).map((one) => Math.abs(one.atMs - atMs)))
      if (nearest <= BOUND_MS.call) off.push(nearest)
      if (calls.some((one) => Math.abs(one.atMs - atMs) <= BOUND_MS.call)) either++
    }
    called += changes.length
    falsely += calls.filter(({ atMs }) => changes.every((one) => Math.abs(one.atMs - atMs) > BOUND_MS.call)).length
    minutes += take.played.footageMs / 60_000
  }
  off.sort((one, other) => one - other)
  const median = off[off.length >> 1] ?? NaN
  const share = (count: number): string => `${((100 * count) / called).toFixed(1)} %`.padStart(8)
  console.log(
    `${kind.padEnd(30)} ${String(called).padStart(7)}${share(off.length)}${share(either)} ${median.toFixed(0).padStart(12)} ${(falsely / minutes).toFixed(2).padStart(17)}`,
  )
}

function isChange(word: string): boolean {
  return word === 'work' || word === 'rest'
}
