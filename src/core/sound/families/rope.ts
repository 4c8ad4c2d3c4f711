// Rope: plucked, as a taut line, woody and short.
import type { Family } from './family'

export const rope: Family = {
  timbre: {
    partials: [
      { times: 1, level: 1 },
      { times: 2, level: 0.6, fades: 1.8 },
      { times: 3, level: 0.4, fades: 2.6 },
      { times: 4, level: 0.22, fades: 3.6 },
      { times: 5, level: 0.12, fades: 4.6 },
    ],
    ...{ attackMs: 2.5, decay: 5.2, releaseMs: 15 },
  },
  notes: {
    pip: [{ atMs: 0, lengthMs: 140, hz: 392 }],
    go: [
      { atMs: 0, lengthMs: 620, hz: 587 },
      { atMs: 24, lengthMs: 600, hz: 784 },
    ],
    rest: [
      { atMs: 0, lengthMs: 260, hz: 523 },
      { atMs: 170, lengthMs: 520, hz: 349 },
    ],
    halfway: [
      { atMs: 0, lengthMs: 220, hz: 466 },
      { atMs: 260, lengthMs: 360, hz: 466 },
    ],
    switch: [
      { atMs: 0, lengthMs: 150, hz: 587 },
      { atMs: 120, lengthMs: 150, hz: 440 },
      { atMs: 240, lengthMs: 280, hz: 587 },
    ],
    ten: [
      { atMs: 0, lengthMs: 110, hz: 440 },
      { atMs: 105, lengthMs: 110, hz: 440 },
      { atMs: 210, lengthMs: 110, hz: 440 },
      { atMs: 315, lengthMs: 200, hz: 440 },
    ],
    last: [
      { atMs: 0, lengthMs: 160, hz: 440 },
      { atMs: 150, lengthMs: 540, hz: 659 },
    ],
    end: [
      { atMs: 0, lengthMs: 250, hz: 587 },
      { atMs: 190, lengthMs: 250, hz: 440 },
      { atMs: 380, lengthMs: 620, hz: 294 },
    ],
  },
}
