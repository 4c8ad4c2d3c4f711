// The floor's sound on an audio clock of the test's own: it runs, stands still while the machine sleeps, and runs on.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { FloorLink } from './FloorLink'
import { FloorSound } from './FloorSound'

interface Started {
  atS: number
  stopped: boolean
}
let audioS = 0,
  state = 'running',
  started: Started[] = []

class FakeAudio {
  destination = {}
  sampleRate = 8000
  get currentTime(): number {
    return audioS
  }
  get state(): string {
    return state
  }
  getOutputTimestamp = () => ({ contextTime: audioS, performanceTime: performance.now() })
  createGain = () => ({ gain: { value: 1 }, connect: () => undefined })
  createBuffer = () => ({ copyToChannel: () => undefined })
  createBufferSource = () => {
    const one: Started = { atS: NaN, stopped: false }
    return {
      connect: () => undefined,
      start: (atS: number) => {
        one.atS = atS
        started.push(one)
      },
      stop: () => (one.stopped = true),
    }
  }
  close = () => Promise.resolve()
}

const link = { nowMs: () => performance.now(), atClock: (ms: number) => ms, clockAt: (ms: number) => ms }
const cue = (atMs: number) => ({
  ...{
    id: `one#${atMs}`,
    rule: 'countIn' as const,
    segmentId: 'one',
    atMs,
    sound: 'pip' as const,
    line: null,
    lengthMs: 110,
  },
})
let sound: FloorSound

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] })
  vi.stubGlobal('AudioContext', FakeAudio)
  ;[audioS, state, started] = [0, 'running', []]
  sound = new FloorSound(link as unknown as FloorLink, null)
})
afterEach(() => {
  sound.close()
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

/** Time passes on the page; on the audio clock as well, unless the machine sleeps. */
function pass(ms: number, asleep = false): void {
  for (let left = ms; left > 0; left -= 250) {
    if (!asleep) audioS += 0.25
    vi.advanceTimersByTime(250)
  }
}
const toCome = (): number[] => started.filter(({ stopped, atS }) => !stopped && atS > audioS).map(({ atS }) => atS)

describe('sound on the floor', () => {
  it('is laid once, when it is due', () => {
    sound.change({ cues: [cue(10_000), cue(30_000)], said: [], chirps: [] })
    pass(5000)
    expect(started.map(({ atS }) => Math.round(atS))).toEqual([10, 30])
    pass(20_000)
    expect(started).toHaveLength(2)
  })
  it('is laid anew where the audio clock stood still, and what passed meanwhile is left out', () => {
    sound.change({ cues: [cue(10_000), cue(30_000)], said: [], chirps: [] })
    pass(5000)
    // The machine sleeps for 10 s: the audio clock is behind by as much from now on.
    pass(10_000, true)
    pass(500)
    expect(toCome().map((atS) => Math.round(atS))).toEqual([20])
  })
  it('is laid anew where the browser held it back for a while', () => {
    sound.change({ cues: [cue(30_000)], said: [], chirps: [] })
    pass(1000)
    state = 'suspended'
    pass(8000, true)
    state = 'running'
    pass(500)
    expect(toCome().map((atS) => Math.round(atS))).toEqual([22])
  })
})
