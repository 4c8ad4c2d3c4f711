// Hull: knocks on hollow wood, dry, with hardly a pitch. The rhythm tells them apart.
import type { Family } from './family'

export const hull: Family = {
  timbre: {
    partials: [
      { times: 1, level: 1 },
      { times: 1.52, level: 0.7, fades: 1.5 },
      { times: 2.41, level: 0.45, fades: 2.2 },
      { times: 3.9, level: 0.25, fades: 3.5 },
    ],
    ...{ attackMs: 2, decay: 6, releaseMs: 10 },
  },
  notes: {
    pip: [{ atMs: 0, lengthMs: 90, hz: 520 }],
    go: [
      { atMs: 0, lengthMs: 160, hz: 780 },
      { atMs: 70, lengthMs: 320, hz: 1040 },
    ],
    rest: [
      { atMs: 0, lengthMs: 160, hz: 480 },
      { atMs: 190, lengthMs: 320, hz: 320 },
    ],
    halfway: [
      { atMs: 0, lengthMs: 140, hz: 620 },
      { atMs: 300, lengthMs: 200, hz: 620 },
    ],
    switch: [
      { atMs: 0, lengthMs: 100, hz: 820 },
      { atMs: 130, lengthMs: 100, hz: 560 },
      { atMs: 260, lengthMs: 180, hz: 820 },
    ],
    ten: [
      { atMs: 0, lengthMs: 80, hz: 560 },
      { atMs: 90, lengthMs: 80, hz: 560 },
      { atMs: 180, lengthMs: 80, hz: 560 },
      { atMs: 270, lengthMs: 140, hz: 560 },
    ],
    last: [
      { atMs: 0, lengthMs: 120, hz: 560 },
      { atMs: 180, lengthMs: 120, hz: 560 },
      { atMs: 420, lengthMs: 280, hz: 840 },
    ],
    end: [
      { atMs: 0, lengthMs: 160, hz: 780 },
      { atMs: 200, lengthMs: 160, hz: 560 },
      { atMs: 400, lengthMs: 180, hz: 420 },
      { atMs: 600, lengthMs: 400, hz: 300 },
    ],
  },
}
