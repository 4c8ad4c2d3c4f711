// How expansion grows with the score: time per segment from 10 to 10,000 segments, in one run.
//   tsx bench/expand.ts
import { expand } from '../src/core/expand/expand'
import { circuit, score, station } from '../src/core/testing'

const stations = Array.from({ length: 5 }, (_, index) => station(`Move ${index}`, { sideRule: index % 2 ? 'alternate' : 'none' }))
let smallest = 0
for (const size of [10, 100, 1000, 10_000]) {
  const plan = score(...Array.from({ length: Math.ceil(size / 1000) }, (_, index) => circuit({ key: `c${index}`, rounds: Math.min(100, size / 10), workMs: 1000, restMs: 1000, stations })))
  const { segments } = expand(plan)
  const runs = Math.max(5, Math.round(300_000 / size))
  for (let run = 0; run < runs / 5; run++) expand(plan)
  const start = performance.now()
  for (let run = 0; run < runs; run++) expand(plan)
  const each = ((performance.now() - start) / runs / segments.length) * 1e6
  smallest ||= each
  process.stdout.write(`${String(segments.length).padStart(6)} segments  ${each.toFixed(0).padStart(6)} ns each  ${(each / smallest).toFixed(2)} x the first\n`)
}
