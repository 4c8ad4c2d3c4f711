// What really happens in front of the simulated camera: when each interval starts, what is said, what the timer beeps.
// Everything follows from the score, a seed and the faults dialled in; the truth file is written from it.
import type { Segment } from '../../src/core/score/segment'
import { seededRandom } from './random'

export interface Faults {
  /** Real length of each stretch of talk, in order. */
  talksMs: number[]
  /** Id of a break during which the timer is stopped and started again, and by how much that lengthens it. */
  restart: { segmentId: string; extraMs: number } | null
  /** How much faster the recorder's clock runs than the timer's. */
  driftPpm: number
  /** The stretch of footage (ms) in which the timer is silent; null for none. */
  silentBeeps: { fromMs: number; toMs: number } | null
  beeps: boolean
}

export interface Happening {
  segment: Segment
  startMs: number
  endMs: number
}
export interface Sound {
  atMs: number
  hz: number
  lengthMs: number
}
export interface Line {
  atMs: number
  text: string
}

export interface Session {
  happenings: Happening[]
  beeps: Sound[]
  lines: Line[]
  durationMs: number
}

const COUNT = { hz: 1568, lengthMs: 80 }
const MARK = { hz: 2093, lengthMs: 420 }

/** @param segments the expanded score. All times in the result are on the recorder's clock. */
export function playSession(segments: readonly Segment[], faults: Faults, seed: number): Session {
  const random = seededRandom(seed)
  const rate = 1 + faults.driftPpm / 1e6
  const talks = [...faults.talksMs]
  const happenings: Happening[] = []
  let clock = 0
  for (const segment of segments) {
    const plain = segment.kind === 'talk' ? (talks.shift() ?? segment.durationMs) : segment.durationMs
    const extra = faults.restart?.segmentId === segment.id ? faults.restart.extraMs : 0
    const endMs = clock + (plain + extra) * rate
    happenings.push({ segment, startMs: clock, endMs })
    clock = endMs
  }
  const beeps = faults.beeps ? beepsOf(happenings, rate).filter((beep) => !within(beep.atMs, faults.silentBeeps)) : []
  return { happenings, beeps, lines: linesOf(happenings, random), durationMs: Math.round(clock) }
}

const within = (atMs: number, stretch: Faults['silentBeeps']): boolean =>
  stretch !== null && atMs >= stretch.fromMs && atMs < stretch.toMs

/** A chirp when the timer is started, then three counts and a mark at every change. */
function beepsOf(happenings: readonly Happening[], rate: number): Sound[] {
  return happenings.flatMap(({ segment, startMs, endMs }) => {
    if (segment.kind === 'talk') return []
    const chirp = segment.kind === 'lead' ? [{ ...MARK, atMs: startMs }] : []
    const counts = [3000, 2000, 1000].map((before) => ({ ...COUNT, atMs: endMs - before * rate }))
    return [...chirp, ...counts, { ...MARK, atMs: endMs }]
  })
}

/** The coach talks; the count-in is early or late by up to half a second, as it is in life. */
function linesOf(happenings: readonly Happening[], random: () => number): Line[] {
  const wander = (): number => (random() - 0.4) * 900
  return happenings.flatMap(({ segment, startMs, endMs }, index): Line[] => {
    const next = happenings[index + 1]?.segment
    switch (segment.kind) {
      case 'talk':
        return index === 0
          ? [
              {
                atMs: startMs + 600,
                text: 'Welcome aboard the Second Kettle. Today we need a jug of water and two metres of deck.',
              },
              { atMs: startMs + 6600, text: 'Warm up first, and stop if anything hurts.' },
            ]
          : [{ atMs: startMs + 900, text: 'Well done. Drink some water, and see you next week.' }]
      case 'lead':
        return [{ atMs: endMs - 3000 + wander() / 2, text: 'three, two, one, go' }]
      case 'work':
        return [
          {
            atMs: startMs + 1800 + wander(),
            text: `${segment.label}${segment.side === 'left' || segment.side === 'right' ? `, ${segment.side} side` : ''}. Long back.`,
          },
          ...(segment.side === 'switch'
            ? [{ atMs: (startMs + endMs) / 2 + wander() / 2, text: 'and change sides' }]
            : []),
          { atMs: endMs + wander() / 2 + 200, text: 'and rest' },
        ]
      case 'rest':
        return [{ atMs: startMs + 3200, text: next ? `Next, ${next.label}` : 'Breathe' }]
      case 'break':
        return [{ atMs: startMs + 4000, text: 'That was round one. Take a sip. The clock needs another start.' }]
    }
  })
}
