// Words about the files of a workout: their order, second cameras, and what was put aside.
import type { OrderedBy } from '../../align/order'

const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`

export const reelTexts = {
  open: (files: number, aside: number): string =>
    `Footage${files > 1 ? `: ${files}` : ''}${aside ? `, ${aside} put aside` : ''}`,
  heading: 'Footage',
  hint: 'A session in several files, or from two cameras: add them all. Jivet puts them in order.',
  order: {
    contents: 'In the order of the plan, by what was heard in them. Drag a file to another place if that is wrong.',
    recorded: 'In the order in which the cameras began them: what is heard in them tells no order yet.',
    name: 'In the order of their names, as nothing else tells one. Drag them into the order in which they were filmed.',
    hand: 'In the order that you gave them.',
  } satisfies Record<OrderedBy | 'hand', string>,
  asFilmed: 'Back to the order as filmed',
  add: 'Add files',
  replace: (name: string): string => `Replace ${name}`,
  addCaptions: (name: string): string => `Add captions to ${name} (WebVTT or SRT): calls in them mark changes too`,
  putAside: 'Put aside',
  takeBack: 'Take back',
  from: (begin: string, end: string): string => `${begin} to ${end} of the whole`,
  overlaps: (length: string, name: string): string => `shows ${length} of ${name} once more`,
  lasts: (length: string): string => `${length} long`,
  cameras: 'Second cameras',
  camerasHint: 'Their sound is that of a file above. Watch shows any interval from them.',
  into: (at: string, name: string): string => `begins ${at} into ${name}`,
  before: (at: string, name: string): string => `begins ${at} before ${name}`,
  alone: 'Not the same session',
  aside: 'Put aside',
  withTies: (ties: number): string => (ties ? `${counted(ties, 'tie')} with it` : 'no ties'),
  takenBack: (name: string): string => `${name} is in use again, with its ties.`,
  wasPutAside: (name: string): string => `${name} is put aside, with its ties.`,
  ordered: 'The files are in another order now.',
  aloneNow: (name: string): string => `${name} is a file of its own now.`,
  offer: (name: string, from: string, ties: number): string =>
    `${name} has the same sound as ${from}, which has ${counted(ties, 'tie')}. Take them over as a start?`,
  takeOver: 'Take them over',
  takenOver: (ties: number): string => `${counted(ties, 'tie')} taken over. Undo takes them away again.`,
  /** The choice of cameras in Watch. */
  shownFrom: 'Shown from',
  main: 'the first camera',
  sending: (name: string, waiting: number): string => `Sending ${name}${waiting ? `, ${waiting} to follow` : ''}`,
  /** What a file that failed is called before the reason. */
  failed: (name: string, reason: string): string => `${name}: ${reason}`,
} as const
