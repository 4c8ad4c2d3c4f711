// Bell: struck metal, bright, with a long tail.
import type { Family } from './family'

export const bell: Family = {
  timbre: {
    partials: [
      { times: 1, level: 1 },
      { times: 2, level: 0.35, fades: 1.6 },
      { times: 2.76, level: 0.2, fades: 3 },
    ],
    ...{ attackMs: 3, decay: 4.6, releaseMs: 12 },
  },
  notes: {
    pip: [{ atMs: 0, lengthMs: 110, hz: 660 }],
    go: [{ atMs: 0, lengthMs: 520, hz: 990 }],
    rest: [
      { atMs: 0, lengthMs: 220, hz: 660 },
      { atMs: 160, lengthMs: 420, hz: 440 },
    ],
    halfway: [
      { atMs: 0, lengthMs: 180, hz: 784 },
      { atMs: 240, lengthMs: 320, hz: 784 },
    ],
    switch: [
      { atMs: 0, lengthMs: 110, hz: 880 },
      { atMs: 110, lengthMs: 110, hz: 660 },
      { atMs: 220, lengthMs: 240, hz: 880 },
    ],
    ten: [
      { atMs: 0, lengthMs: 90, hz: 587 },
      { atMs: 100, lengthMs: 90, hz: 587 },
      { atMs: 200, lengthMs: 90, hz: 587 },
      { atMs: 300, lengthMs: 140, hz: 587 },
    ],
    last: [
      { atMs: 0, lengthMs: 140, hz: 660 },
      { atMs: 150, lengthMs: 460, hz: 880 },
    ],
    end: [
      { atMs: 0, lengthMs: 220, hz: 880 },
      { atMs: 200, lengthMs: 220, hz: 660 },
      { atMs: 400, lengthMs: 600, hz: 440 },
    ],
  },
}
