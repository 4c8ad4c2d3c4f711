// What is said of a cut.
import type { CutChange, Fit } from '../../cut/fit'
import type { Span, Why } from '../../cut/cut'
import type { Treatment } from '../../cut/treated'
import type { Share } from '../../units'
import { formatLength } from '../../time/clock'

const WHY: Record<Why, string> = {
  filmed: 'as filmed',
  shortened: 'as filmed, shortened',
  slowed: 'quiet stretch, slowed',
  reused: 'filmed for another interval, shown again',
  held: 'last picture held',
  card: 'card, nothing was filmed',
}

const TREATED: Record<Treatment, string> = {
  shortened: 'shortened to its beginning and its end',
  cut: 'cut out',
  covered: 'covered by a card',
}

export const whyShown = ({ why, mirrored }: Pick<Span, 'why' | 'mirrored'>): string =>
  `${WHY[why]}${mirrored ? ', mirrored' : ''}`

export const cutTexts = {
  open: 'Cut',
  heading: 'How the footage is cut',
  hint: 'Your film is never changed. Choose what the video shows; every step below can be taken back alone.',
  fits: { follow: 'As filmed', score: 'To the score', fill: 'Filled', edited: 'As cut elsewhere' } satisfies Record<
    Fit,
    string
  >,
  means: {
    follow: 'Every second of the film, as long as it really took.',
    score: 'What ran over is shortened, what was too short is lengthened. What was not filmed is left out.',
    fill: 'To the score, and what was not filmed is shown from where it was.',
    edited: 'The pieces of the edit list that was brought, one after the other.',
  } satisfies Record<Fit, string>,
  bring: 'Bring an edit list',
  bringHint: 'What another program cut: EDL (CMX 3600) or OpenTimelineIO.',
  brought: (count: number) => `${count} ${count === 1 ? 'piece' : 'pieces'} of the footage.`,
  planned: (length: string) => `Planned: ${length}`,
  tightens: 'Shorten silences of more than three seconds in talk',
  mirrors: 'Mirror the other side where only one was filmed',
  steps: 'What is done to the film',
  noSteps: 'Nothing: the film is shown as it is.',
  undo: 'Take back',
  redo: 'Do it again',
  asFilmed: 'taken back: as filmed',
  go: (name: string) => `Go to ${name}`,
  before: 'Before the first interval',
  after: 'After the last interval',
  legend: { filmed: 'filmed', reused: 'shown again', drawn: 'card or held picture' },
  standsIn: 'Shown again: this was filmed for another interval.',
  drawn: 'Viewers see a card here.',
  treatments: 'The talk or pause that plays',
  treatmentsHint: 'Work stays whole. What nobody wants to see of it is marked as a dead stretch: from here, to here.',
  treat: { whole: 'Whole', shortened: 'Shorten', cut: 'Cut out', covered: 'Cover with a card' } satisfies Record<
    Treatment | 'whole',
    string
  >,
  mark: 'Mark a dead stretch',
  nothingPlays: 'No interval plays here.',
  workStays: 'This is work, which stays whole. Mark what is dead of it: D where it begins, D where it ends.',
  treatedAs: (name: string, as: Treatment | null) => `${name}: ${as ? TREATED[as] : 'shown whole'}.`,
  notFilmedHere: 'A card is seen here, so there is nothing to mark.',
  deadFrom: (at: string) => `Dead from ${at}. Go to where it ends, and press D again.`,
  deadInOneFile: 'A dead stretch lies within one file. Mark it in each file for itself.',
  deadTo: (from: string, to: string) => `${from} to ${to} is cut out.`,
  byHand: 'Marked by you',
  deadStretch: (name: string, from: string, to: string) => `${name}, ${from} to ${to}`,
  treated: (as: Treatment) => TREATED[as],
} as const

/** What a fit comes to. */
export function fitSummary(changes: readonly CutChange[], reused: Share): string {
  const count = (kinds: readonly CutChange['kind'][]): number =>
    changes.filter(({ kind }) => kinds.includes(kind)).length
  const parts = [
    told(count(['shortened', 'tightened', 'lengthened', 'outside']), 'stretch changed', 'stretches changed'),
    told(count(['left-out']), 'interval left out', 'intervals left out'),
    told(count(['carded']), 'interval as a card', 'intervals as cards'),
    reused ? `${Math.max(1, Math.round(reused * 100))} % shown again` : '',
  ].filter(Boolean)
  return parts.join(', ')
}

const told = (count: number, one: string, many: string): string => (count ? `${count} ${count === 1 ? one : many}` : '')

/** To a tenth of a second. */
const about = (ms: number): string => formatLength(Math.round(ms / 100) * 100)

export function changeText({ kind, byMs, fromMs, toMs }: CutChange): string {
  switch (kind) {
    case 'shortened':
      return `ran ${about(toMs - fromMs)}, ${about(-byMs)} taken out`
    case 'tightened':
      return `${about(-byMs)} of silence taken out`
    case 'lengthened':
      return `ran ${about(toMs - fromMs)}, ${about(byMs)} added`
    case 'left-out':
      return 'not filmed, left out'
    case 'reused':
      return 'not filmed, shown from where it was'
    case 'carded':
      return 'not filmed, a card stands for it'
    case 'outside':
      return `${about(toMs - fromMs)} left out`
  }
}
