// What matching costs: tones of a timer, with strays, against its own score, from ten minutes to an hour; in one run.
//   tsx bench/align.ts
import { boundariesOf } from '../src/core/align/boundaries'
import { matchEvidence } from '../src/core/align/sync'
import { byTime, type EvidenceOf } from '../src/core/evidence'
import { expand } from '../src/core/expand/expand'
import { readShorthand } from '../src/core/shorthand/read'

const beep = (atMs: number, hz: number): EvidenceOf<'beep'> => ({
  ...{ kind: 'beep', atMs, spreadMs: 3, hz, durationMs: 300, strength: 0.8 },
})

let first = 0
for (const [minutes, plan] of [
  [10, 'circuit: 3 rounds, 40 on, 20 off\n  Jug lift; Keel hold; Tiller twist\n'],
  [20, 'circuit: 6 rounds, 40 on, 20 off\n  Jug lift; Keel hold; Tiller twist\n'],
  [40, 'circuit: 12 rounds, 40 on, 20 off\n  Jug lift; Keel hold; Tiller twist\n'],
  [60, 'circuit: 50 rounds, 10 on, 4 off\n  Jug lift; Keel hold; Tiller twist; Squat; Lunge\n'],
] as const) {
  const { segments, totalMs } = expand(readShorthand(plan).score)
  const marks = boundariesOf(segments).map(({ plannedMs }) => beep(plannedMs + 20_000, 2000))
  const strays = Array.from({ length: minutes * 6 }, (_, at) => beep(1300 + at * 9973, 800 + (at % 4) * 300))
  const evidence = [...marks, ...strays].sort(byTime)
  const started = performance.now()
  const { found } = matchEvidence(segments, { evidence, footageMs: totalMs + 60_000 })
  const ms = performance.now() - started
  first ||= ms
  process.stdout.write(
    `${Math.round(totalMs / 60_000)} min, ${marks.length} changes: ${(ms / 1000).toFixed(2)} s, ${(ms / first).toFixed(1)} times the first; ${found.length} tied; ${Math.round(process.memoryUsage().rss / 1e6)} MB in all\n`,
  )
}
