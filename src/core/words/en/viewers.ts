// What viewers read on the picture, besides the names of moves.
import type { Ms } from '../../units'

export const viewerTexts = {
  /** The cautions on a card; its title first. */
  caution: [
    'Before you begin',
    'Warm up first, and clear the floor.',
    'Choose the easier way whenever you like, and drink.',
    'Stop on pain, dizziness or unusual breathlessness.',
    'Pregnant, injured, unwell or new to exercise: ask a doctor first.',
  ],
  /** The card at the end. */
  comesNext: (series: string, next: string): string[] => [series ? `Next in ${series}` : 'Coming next', next],
  ownPace: 'Your own pace',
  untilReady: 'Until you are ready',
  halfway: 'Halfway',
  otherSide: 'Other side',
  otherWay: 'Other way',
  lastOne: 'Last one',
  lastOf: (counted: string) => `Last ${counted}`,
  water: 'Have some water',
  fetch: (gear: string) => `Have ready: ${gear}`,
  easier: (how: string) => `Easier: ${how}`,
  harder: (how: string) => `Harder: ${how}`,
  standOn: (leg: 'left' | 'right') => `Stand on the ${leg} leg`,
  both: 'Both sides',
  reps: 'reps',
  next: (name: string) => `Next: ${name}`,
  /** "40 s", "1:30", "2 min". */
  length: (ms: Ms): string => {
    const seconds = Math.round(ms / 1000)
    if (seconds < 60) return `${seconds} s`
    const rest = seconds % 60
    return rest ? `${Math.floor(seconds / 60)}:${String(rest).padStart(2, '0')}` : `${seconds / 60} min`
  },
} as const
