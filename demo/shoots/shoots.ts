// The simulated sessions: each with faults that sessions at home have. The first is a test's; on the other ten it is
// measured how much attention finishing them takes.
import type { Shoot } from './shoot'

const STATIONS = '  Jug lift (sides none)\n  Lock-gate push\n  Tiller twist (sides none)\n'
const CIRCUIT = `circuit Main: 3 rounds, 20 on, 10 off, 15 between, lead 5, last rest dropped\n${STATIONS}`
/** Rows of `CIRCUIT`: 0 the lead; rounds from 1, 7 and 13 on, five rows each; breaks 6 and 12. */
const LONG = `circuit Main: 3 rounds, 40 on, 20 off, 30 between, lead 10, last rest dropped\n${STATIONS}  Bollard squat\n`
/** Rows of `LONG`: 0 the lead; rounds from 1, 9 and 17 on, seven rows each; breaks 8 and 16. */

/** A late count, a watch that was started again, a round that was not filmed, a station left out. */
export const TWO_FILES: Shoot = {
  ...{ name: 'two-files', plan: CIRCUIT, seed: 501, timer: true, coach: 'counts' },
  longer: { 0: 2400, 6: 9000 },
  restarted: { 3: 8000 },
  unfilmed: [[7, 13]],
  skipped: [15, 16],
}

export const SHOOTS: readonly Shoot[] = [
  { name: 'watch-and-breaks', plan: LONG, seed: 511, timer: true, coach: 'calls', longer: { 8: 28_000, 16: 41_000 } },
  {
    ...{ name: 'watch-restarted', plan: LONG, seed: 512, timer: true, coach: null },
    ...{ longer: { 0: 1500, 8: 12_000 }, restarted: { 3: 15_000, 19: 22_000 } },
  },
  {
    ...{ name: 'two-parts', plan: LONG, seed: 513, timer: true, coach: 'calls' },
    ...{ longer: { 8: 20_000 }, unfilmed: [[9, 17]] },
  },
  {
    ...{ name: 'left-out-and-again', plan: LONG, seed: 514, timer: true, coach: 'calls' },
    ...{ longer: { 16: 33_000 }, skipped: [11, 12], repeated: [19] },
  },
  {
    ...{ name: 'watch-under-music', plan: LONG, seed: 515, timer: true, coach: null },
    ...{ musicBelowDb: 6, longer: { 8: 15_000 } },
  },
  {
    ...{ name: 'silent-watch', plan: LONG, seed: 516, timer: false, coach: 'counts' },
    ...{ longer: { 8: 24_000, 16: 9000 } },
  },
  {
    ...{ name: 'silent-watch-left-out', plan: LONG, seed: 517, timer: false, coach: 'counts' },
    ...{ longer: { 8: 18_000 }, skipped: [19, 20] },
  },
  {
    ...{ name: 'demo-in-rest', plan: LONG, seed: 518, timer: false, coach: 'counts' },
    ...{ longer: { 2: 25_000, 4: 14_000, 6: 30_000 } },
  },
  {
    ...{ name: 'slipped-microphone', plan: LONG, seed: 519, timer: true, coach: 'counts' },
    ...{ slipped: [4, 9], longer: { 8: 22_000 } },
  },
  {
    ...{ name: 'two-cameras', plan: LONG, seed: 520, timer: false, coach: 'counts' },
    ...{ second: { lateMs: 11_370, ppm: 45 }, longer: { 16: 26_000 } },
  },
]
