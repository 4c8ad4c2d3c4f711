// How well it is told where somebody speaks and where music plays: simulated takes, whose voices, sentences and music
// no training heard, in steps of 100 ms. What lies within 200 ms of an edge is not counted.
//   tsx bench/sounding.ts [tune|test] [takes of each class]
// With KEPT, what bench/accuracy.ts kept there is used.
import { KINDS, type KindName, type Split } from '../demo/takes/takes'
import type { Sounding } from '../src/core/hear/sounding'
import { heardTake } from './heard'

const [split = 'test', each = '4'] = process.argv.slice(2)
const CLASSES: readonly KindName[] = [
  ...(['counted aloud', 'counted in a room', 'counted, music 4 dB below', 'counted in Italian, one tap'] as const),
  ...(['no cues, talk', 'no cues, music', 'beeps under music', 'counted beeps'] as const),
]
const STEP_MS = 100
const EDGE_MS = 200

interface Span {
  fromMs: number
  toMs: number
}
const covers = (spans: readonly Span[], ms: number): boolean => spans.some((one) => ms >= one.fromMs && ms < one.toMs)
const nearEdge = (spans: readonly Span[], ms: number): boolean =>
  spans.some((one) => Math.abs(ms - one.fromMs) < EDGE_MS || Math.abs(ms - one.toMs) < EDGE_MS)

interface Counts {
  there: number
  heard: number
  silent: number
  imagined: number
}
function add(counts: Counts, truth: readonly Span[], heard: readonly Span[], lengthMs: number): void {
  for (let ms = 0; ms < lengthMs; ms += STEP_MS) {
    if (nearEdge(truth, ms)) continue
    const is = covers(truth, ms),
      told = covers(heard, ms)
    counts.there += Number(is)
    counts.heard += Number(is && told)
    counts.silent += Number(!is)
    counts.imagined += Number(!is && told)
  }
}

const share = (part: number, whole: number): string =>
  (whole ? `${((100 * part) / whole).toFixed(1)} %` : '-').padStart(8)
console.log('class                          speech heard, imagined   music heard, imagined')
for (const kind of CLASSES) {
  const counts: Record<Sounding, Counts> = {
    speech: { there: 0, heard: 0, silent: 0, imagined: 0 },
    music: { there: 0, heard: 0, silent: 0, imagined: 0 },
  }
  for (let number = 0; number < Number(each); number++) {
    const { take, evidence } = await heardTake(kind, split as Split, number)
    const lengthMs = take.played.footageMs
    const noise: readonly string[] = KINDS[kind].noise
    const truth: Record<Sounding, readonly Span[]> = {
      speech: take.spokenMs,
      music: noise.includes('music') ? [{ fromMs: 0, toMs: lengthMs }] : [],
    }
    for (const what of ['speech', 'music'] as const) {
      const heard = evidence.flatMap((one): Span[] =>
        one.kind === what ? [{ fromMs: one.atMs, toMs: one.atMs + one.durationMs }] : [],
      )
      add(counts[what], truth[what], heard, lengthMs)
    }
  }
  const told = ({ there, heard, silent, imagined }: Counts): string =>
    `${share(heard, there)} ${share(imagined, silent)}`
  console.log(`${kind.padEnd(30)} ${told(counts.speech)}        ${told(counts.music)}`)
}
