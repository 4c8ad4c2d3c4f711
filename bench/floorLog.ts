// How well the floor's record is laid on footage: simulated sessions with holds, things done again, things left out and
// breaks held open; of their sound only some marks, among others that mean nothing. Prints how many were placed, and of
// those that were sure how many were wrong. `npx tsx bench/floorLog.ts [seeds]`
import { matchLogged } from '../src/core/align/logged'
import { SURE } from '../src/core/align/ties'
import { byTime, type Evidence } from '../src/core/evidence'
import { expand } from '../src/core/expand/expand'
import type { FloorEvent } from '../src/core/floor/events'
import { isHeard } from '../src/core/floor/machine'
import { performanceOf, type Performance } from '../src/core/floor/log'
import { runOf } from '../src/core/floor/run'
import { readShorthand } from '../src/core/shorthand/read'
import { pick, seededRandom } from '../demo/camera/random'

const SEEDS = Number(process.argv[2] ?? 40)
const PLANS = [
  'talk Welcome: about 20\ncircuit Main: 3 rounds, 40 on, 20 off, 1:00 between, lead 5\n  Jug lift; Keel hold; Rope pull; Tiller twist\n',
  'circuit Main: 4 rounds, 30 on, 15 off, 45 between, lead 10\n  Jug lift; Lock-gate push; Gangway step\n',
  'burst Main: last rest kept, 1:00 between, talk 20\n  Jug lift; Rope pull\n',
].map((text) => readShorthand(text).score)

/** A session in which now and then something is told. */
function session(seed: number): { performance: Performance; plan: (typeof PLANS)[number] } {
  const random = seededRandom(seed)
  const plan = PLANS[seed % PLANS.length] ?? PLANS[0]
  if (!plan) throw new Error('no plan')
  const { segments } = expand(plan)
  let count = 0
  const key = (): string => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`
  const events: FloorEvent[] = [{ kind: 'start', key: key(), atMs: 0, countInMs: 10_000 }]
  let nowMs = 0
  for (let step = 0; step < 400; step++) {
    nowMs += Math.round(4000 + 16_000 * random())
    const { state } = runOf(segments, events, nowMs)
    if (state.phase === 'ended') break
    const tell = (kind: 'goOn' | 'next' | 'hold' | 'skip' | 'repeat' | 'open'): void => {
      if (isHeard(segments, state, kind)) events.push({ kind, key: key(), atMs: nowMs, on: state.at })
    }
    if (state.phase === 'holding') tell('goOn')
    else if (isHeard(segments, state, 'next')) tell('next')
    else if (random() < 0.12) tell(pick(['hold', 'skip', 'repeat', 'open'] as const, random))
  }
  return { performance: performanceOf({ score: plan, events }), plan }
}

/** What was heard of it, with how probable each mark was heard at all. */
interface Heard {
  name: string
  beeps: number
  words: number
  chirps: number
}
const HEARD: readonly Heard[] = [
  { name: 'every beep', beeps: 1, words: 0, chirps: 0 },
  { name: 'one beep in four', beeps: 0.25, words: 0, chirps: 0 },
  { name: 'calls, half of them', beeps: 0, words: 0.5, chirps: 0 },
  { name: 'one chirp in five', beeps: 0, words: 0, chirps: 0.2 },
  { name: 'one beep in twelve, one call in six', beeps: 0.08, words: 0.16, chirps: 0 },
]

const DRIFT_PPM = 150

function evidenceOf({ segments, takes }: Performance, heard: Heard, offsetMs: number, seed: number): Evidence[] {
  const random = seededRandom(seed + 7000)
  const drift = 1 + ((2 * random() - 1) * DRIFT_PPM) / 1e6
  const places = new Map(segments.map((segment, place) => [segment.id, { segment, code: place + 1 }]))
  const out: Evidence[] = []
  const beep = (atMs: number, durationMs = 300): void =>
    void out.push({ kind: 'beep', atMs, spreadMs: 3, strength: 0.9, hz: 2000, durationMs })
  for (const { segmentId, fromMs } of takes) {
    const place = places.get(segmentId)
    const atMs = offsetMs + fromMs * drift
    if (!place || atMs < 0) continue
    if (random() < heard.beeps)
      for (const before of [3000, 2000, 1000, 0]) if (atMs > before) beep(atMs - before, before ? 80 : 300)
    const { kind } = place.segment
    if (random() < heard.words && (kind === 'work' || kind === 'rest')) {
      const late = 250 * (random() + random() + random() - 1.5)
      out.push({ kind: 'word', atMs: Math.max(0, atMs + late), spreadMs: 150, strength: 0.9, word: kind })
    }
    if (random() < heard.chirps) out.push({ kind: 'chirp', atMs, spreadMs: 1, strength: 1, code: place.code })
  }
  // Chatter and a neighbour's kettle: a mark that means nothing every minute or so.
  const lengthMs = (takes.at(-1)?.toMs ?? 0) + offsetMs
  for (let atMs = 20_000 * random(); atMs < lengthMs; atMs += 90_000 * random() + 10_000) {
    if (heard.beeps) beep(atMs)
    if (heard.words)
      out.push({ kind: 'word', atMs, spreadMs: 150, strength: 0.6, word: random() < 0.5 ? 'work' : 'rest' })
  }
  return out.filter(({ atMs }) => atMs >= 0).sort(byTime)
}

console.log(`| what was heard, ${SEEDS} sessions each | placed and sure | of those wrong | of another session, sure |`)
console.log('|---|---|---|---|')
for (const heard of HEARD) {
  let sure = 0,
    wrong = 0,
    foreign = 0
  for (let seed = 1; seed <= SEEDS; seed++) {
    const { performance, plan } = session(seed)
    const offsetMs = 5000 + ((seed * 37_117) % 60_000)
    const { segments } = expand(plan)
    const evidence = evidenceOf(performance, heard, offsetMs, seed)
    const footageMs = offsetMs + (performance.takes.at(-1)?.toMs ?? 0) + 10_000
    const { found, log } = matchLogged(segments, performance, { evidence, footageMs })
    if (log === 'placed' && found.some(({ confidence }) => confidence >= SURE)) {
      sure++
      const truth = new Map(performance.stands.map(({ segmentId, fromMs }) => [segmentId, fromMs + offsetMs]))
      const off = found
        .filter(({ edge }) => edge === 'start')
        .map(({ segmentId, footageMs: ms }) => Math.abs(ms - (truth.get(segmentId) ?? 0)))
      if (Math.max(...off) > 400) wrong++
    }
    const other = session(seed + 3 * 1000)
    const strange = matchLogged(segments, other.performance, { evidence, footageMs })
    if (strange.log === 'placed' && strange.found.some(({ confidence }) => confidence >= SURE)) foreign++
  }
  console.log(`| ${heard.name} | ${sure} | ${wrong} | ${foreign} |`)
}
