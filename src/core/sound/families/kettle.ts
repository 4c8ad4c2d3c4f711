// Kettle: a soft whistle that glides, held rather than struck.
import type { Family } from './family'

export const kettle: Family = {
  timbre: {
    partials: [
      { times: 1, level: 1 },
      { times: 2, level: 0.12 },
      { times: 3, level: 0.05 },
    ],
    ...{ attackMs: 9, decay: 0.7, releaseMs: 45 },
  },
  notes: {
    pip: [{ atMs: 0, lengthMs: 100, hz: 740 }],
    go: [{ atMs: 0, lengthMs: 480, hz: 740, toHz: 1180 }],
    rest: [{ atMs: 0, lengthMs: 640, hz: 880, toHz: 440 }],
    halfway: [
      { atMs: 0, lengthMs: 200, hz: 830 },
      { atMs: 270, lengthMs: 200, hz: 830 },
    ],
    switch: [
      { atMs: 0, lengthMs: 180, hz: 660, toHz: 990 },
      { atMs: 200, lengthMs: 180, hz: 990, toHz: 660 },
    ],
    ten: [
      { atMs: 0, lengthMs: 70, hz: 622 },
      { atMs: 95, lengthMs: 70, hz: 622 },
      { atMs: 190, lengthMs: 70, hz: 622 },
      { atMs: 285, lengthMs: 110, hz: 622 },
    ],
    last: [
      { atMs: 0, lengthMs: 110, hz: 830 },
      { atMs: 150, lengthMs: 420, hz: 830, toHz: 1245 },
    ],
    end: [
      { atMs: 0, lengthMs: 180, hz: 932 },
      { atMs: 210, lengthMs: 180, hz: 740 },
      { atMs: 420, lengthMs: 560, hz: 622, toHz: 415 },
    ],
  },
}
