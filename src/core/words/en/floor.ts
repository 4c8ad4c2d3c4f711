// Floor in English: what is said to the coach, what stands on the screen, and what a session came to.
import type { LogFit } from '../../align/logged'
import type { EndedBy, Phase } from '../../floor/machine'
import type { Segment } from '../../score/segment'
import { weightText } from '../../score/formats/station'
import { SECOND, type Ms } from '../../units'
import { nameOf, roundOf } from './names'

/** "20 seconds", "1 minute 30", as it is said. */
export function spokenLength(ms: Ms): string {
  const seconds = Math.round(ms / SECOND)
  if (seconds < 60) return `${seconds} ${seconds === 1 ? 'second' : 'seconds'}`
  const minutes = Math.floor(seconds / 60)
  const rest = seconds % 60
  return `${minutes} ${minutes === 1 ? 'minute' : 'minutes'}${rest ? ` ${rest}` : ''}`
}

const sentence = (parts: readonly string[]): string => parts.filter(Boolean).join(', ')
const weightOf = ({ weight }: Segment): string => (weight ? weightText(weight) : '')
/** How much of it: reps where they are counted, else its length where the clock decides. */
const amountOf = (segment: Segment): string =>
  segment.reps !== null && segment.moves.length < 2
    ? `${segment.reps} reps`
    : segment.pace === 'own'
      ? ''
      : spokenLength(segment.durationMs)

/** What the ear track says. */
export const earTexts = {
  next: (segment: Segment, more: boolean, turn: string): string =>
    sentence([
      turn,
      `${turn ? 'next' : 'Next'}: ${nameOf(segment)}`,
      ...(more ? [weightOf(segment), amountOf(segment)] : []),
    ]),
  now: (segment: Segment): string => sentence([nameOf(segment), weightOf(segment)]),
  round: (segment: Segment): string => roundOf(segment),
  left: (seconds: 10 | 20): string => (seconds === 10 ? 'Ten to go' : 'Twenty to go'),
  halfway: 'Halfway',
  otherWay: 'Other way',
  otherSide: (first: 'left' | 'right'): string => (first === 'left' ? 'Right side' : 'Left side'),
} as const

const ENDED: Record<EndedBy, string> = {
  clock: 'by the clock',
  slot: 'its minute ran out',
  next: 'when it was done',
  skip: 'left early',
  back: 'broken off, gone back',
  repeat: 'broken off, to do it again',
  restartRound: 'broken off, round begun again',
  end: 'session ended',
}

const PHASES: Record<Phase, string> = {
  ready: 'Ready',
  countingIn: 'Get ready',
  running: 'Running',
  holding: 'On hold',
  ended: 'Over',
}

const LOGGED: Record<LogFit, string> = {
  placed: 'The record of the floor was laid on the footage.',
  unplaced:
    'Nothing that was heard says where in the footage the record of the floor lies. One tie by hand settles it.',
  other: 'What was heard is not as the record of the floor has it. It is of another session, and was left out.',
}

export const floorTexts = {
  logged: LOGGED,
  gone: (count: number) =>
    count === 1
      ? '1 interval that was done is no longer planned, and is tied to nothing.'
      : `${count} intervals that were done are no longer planned, and are tied to nothing.`,
  heading: 'On the floor',
  intro: 'Jivet runs the session: it counts, calls what is next, and writes down what really happened.',
  needScore: 'Write the score first; then there is something to run.',
  begin: 'Begin',
  rehearse: 'Rehearse',
  film: 'Film it',
  filmHint: 'Start the camera, then begin.',
  rehearseHint: 'Nothing is written down for Sync.',
  forWhat: 'What for',
  speed: 'Speed',
  countIn: 'Time to get to the mat',
  seconds: (count: number) => `${count} s`,
  distance: 'Read from',
  metres: (count: number) => `${count} m`,
  tooSmall: (metres: string) => `Read from ${metres} m at most: a larger window or a shorter name reaches further.`,
  sounds: 'What is heard',
  cues: 'Tones',
  ear: 'Spoken',
  chirps: 'Chirps that Sync finds again',
  chirpVoices: { off: 'none', plain: 'plain', faint: 'faint and high' },
  chirpsHint:
    'A short trill at each change, by which Sync finds it to the millisecond. Plain ones are in the film to hear. Faint ones are high and quiet; a phone that takes the noise out of its sound may take them out as well.',
  caution: 'Before you begin',
  understood: 'I have read it',
  soundOff: 'The browser keeps the sound off until you press something.',
  soundOn: 'Sound on',
  noVoice: 'Nothing can be spoken here; the tones sound all the same.',
  awake: 'The screen may fall asleep here: this browser does not let it be kept awake.',
  /** Main command of each phase. */
  hold: 'Hold',
  goOn: 'Go on',
  done: 'Done, next',
  go: 'Go',
  skip: 'Skip',
  back: 'Back one',
  repeat: 'Again',
  round: 'Round again',
  open: 'Open the break',
  end: 'End',
  more: 'More',
  good: 'Good take',
  again: 'To do again',
  markOf: (name: string) => `${name}: how was it?`,
  marked: { good: 'good', again: 'to do again' },
  note: 'Note',
  noteKept: 'Written down.',
  noteHint: 'What should be known at the desk.',
  results: { reps: 'Reps reached', rung: 'Rung reached', weight: 'Weight used (kg)' },
  keep: 'Write it down',
  cancel: 'Not now',
  phases: PHASES,
  next: 'Next',
  last: 'Nothing after this',
  waits: 'Press when done',
  opened: 'Open: press to go on',
  halfway: 'halfway',
  timeIn: (clock: string) => `${clock} in`,
  timeLeft: (clock: string, isGuess: boolean) => `${isGuess ? 'about ' : ''}${clock} left`,
  strap: 'Heart-rate strap (simulated: npm run strap)',
  beats: (bpm: number) => `${bpm} beats a minute, simulated`,
  beatsOnStage: (bpm: number) => `${bpm} bpm, simulated`,
  noBeats: 'No heart rate: the simulated strap says nothing. Start it with npm run strap.',
  unsent: (count: number) =>
    count === 1 ? '1 line waits to be written down' : `${count} lines wait to be written down`,
  away: 'The server is away. The session goes on here, and is written down when it is back.',
  resumed: (gap: string) => `This page was away for ${gap}. The clock went on.`,
  tookUp: 'Take it up',
  endThere: 'End it where it was left',
  seeRecord: 'See what happened',
  about: (length: string) => `about ${length}`,
  readFirst: 'Read the caution first.',
  under: 'A session is under way',
  since: (clock: string) => `begun ${clock} ago`,
  over: 'That was the session',
  endedBy: ENDED,
  report: {
    planned: 'Planned',
    really: 'Really',
    off: 'Difference',
    what: 'What',
    ended: 'How it ended',
    takes: (count: number) => (count > 1 ? `take ${count}` : ''),
    notDone: 'not done',
    heldFor: (length: string) => `on hold ${length}`,
    sum: (planned: string, really: string) => `Planned ${planned}, really ${really}.`,
    longest: (name: string, really: string, planned: string) => `${name} ran ${really}, planned ${planned}.`,
    asPlanned: 'Nothing ran more than two seconds over its plan.',
    notDoneCount: (count: number) => (count === 1 ? '1 interval was not done.' : `${count} intervals were not done.`),
    download: 'Its record (JSON)',
    toSync: 'Use it in Sync',
    newOne: 'Another session',
    before: 'Sessions before',
    none: 'No session was filmed yet.',
    rehearsal: 'rehearsal',
    filmed: 'filmed',
  },
  beside: 'Beside the mat',
  wall: 'Wall board',
  wallHint: 'A second window shows what runs; a paired phone or tablet runs this floor as well.',
  wallWaits: 'Nothing runs on this floor yet. This board shows it as soon as something does.',
} as const

/** Where other machines reach Jivet: the passphrase, and pairing. */
export const accessTexts = {
  heading: 'Come aboard',
  hint: 'This Jivet runs on another machine. Its passphrase was set there.',
  passphrase: 'Passphrase',
  enter: 'Enter',
  pair: 'Pair a device',
  pairHint:
    'Read this with the camera of the phone or tablet beside the mat. It opens this floor, and nothing else, for twelve hours. The code works once, within ten minutes.',
  picture: 'Picture of the address below, to be read by a camera',
  inside: 'Devices and log out',
  insideHint: 'Everything that can reach this Jivet from another machine. What you remove has to enter or pair again.',
  deviceName: 'Name of this device',
  thisBrowser: 'This browser',
  lastSeen: (at: Date) =>
    `Seen ${new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' }).format(at)}`,
  everything: 'reaches everything',
  floorOf: (title: string) => `floor of ${title || 'an untitled workout'}`,
  remove: 'Remove',
  leave: 'Log out',
} as const
