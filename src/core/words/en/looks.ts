// What is said of looks.
import type { LookName } from '../../look/looks/family'
import type { Screen } from '../../look/distance'
import type { Vision } from '../../look/vision'
import type { Sizes } from '../../look/looks/part'

export const lookTexts = {
  open: 'Look',
  heading: 'What viewers read, and how',
  hint: 'Seen at once in Watch, and rendered as it is seen.',
  names: {
    linocut: 'Linocut',
    porthole: 'Porthole',
    ribbon: 'Ribbon',
    keel: 'Keel',
    slate: 'Slate',
    lantern: 'Lantern',
  } satisfies Record<LookName, string>,
  means: {
    linocut: 'A printed block at the foot.',
    porthole: 'The picture stays free: a round window and a few tags.',
    ribbon: 'A ribbon along the top and a flag, for hosts with controls at the foot.',
    keel: 'The count in the middle, what is done and what comes on either side.',
    slate: 'Everything large on a slate, for a screen across the room.',
    lantern: 'Only what matters, as large as can be, for a phone on the floor.',
  } satisfies Record<LookName, string>,
  tone: 'Plates',
  tones: { dark: 'dark', pale: 'pale' },
  size: 'Size',
  footFree: 'Free at the foot',
  footFreeOptions: { '0': 'nothing', '6': 'a little', '12': "for a host's controls" },
  edgeFree: 'Free at the edges',
  edgeFreeOptions: { '0': 'nothing', '5': 'as broadcasters want' },
  shows: {
    counters: 'Rounds, stations and marks',
    next: 'What is next',
    lines: 'Gear, easier way, halfway, last one',
    titles: 'Titles of sections as they begin',
    whole: 'How far the whole session is',
  },
  screens: {
    phone: 'Phone on the floor, 2 m',
    tablet: 'Tablet, 1 m',
    television: 'Television, 3.5 m',
  } satisfies Record<Screen, string>,
  kinds: { count: 'count', label: 'move', next: 'next', lines: 'lines' } satisfies Record<keyof Sizes, string>,
  seen: 'As viewers see it',
  seeing: 'Seen by',
  visions: {
    all: 'eyes that see all colours',
    protan: 'eyes without red (protan)',
    deutan: 'eyes without green (deutan)',
    tritan: 'eyes without blue (tritan)',
  } satisfies Record<Vision | 'all', string>,
  seenHint: 'As large as each screen is to who stands before it, if you sit about 55 cm from yours.',
  readable: 'Can be read from',
  readableHint: 'Height of the smallest letters in minutes of arc. Wanted: 40 for the count, 20 for the rest.',
  minutes: (minutes: number) => `${Math.round(minutes)}'`,
  named: 'Looks with a name',
  name: 'Name of this look',
  keep: 'Keep it',
  use: (name: string) => `Use ${name}`,
  forget: (name: string) => `Forget ${name}`,
  keptAs: (name: string) => `Kept as ${name}, for every workout.`,
  save: 'Save the look',
  load: 'Open a look',
  loaded: 'The look is used here now.',
  unreadable: 'This file holds no look of Jivet. Nothing was changed.',
} as const
