// What is said while a session is proofed.
import type { Doubt } from '../../proof/changes'
import type { CheckState } from '../../proof/proof'
import type { Ms } from '../../units'

export const proofTexts = {
  open: 'Proof',
  heading: 'Proof',
  progress: (checked: number, all: number) => `${checked} of ${all} checked`,
  allChecked: 'Every change is checked.',
  hint: 'Each change with what is seen, sounded and filmed, in milliseconds from where it should be.',
  seen: 'seen',
  sounded: 'sounded',
  filmed: 'filmed',
  nothing: '-',
  off: (ms: Ms) => (Math.round(ms) > 0 ? `+${Math.round(ms)}` : `${Math.round(ms) || 0}`),
  right: 'It is right',
  rightHint: 'Checks this change and goes to the next one (Enter)',
  notReady: 'Lines are being said ...',
  again: 'Look again',
  states: { open: 'to check', checked: 'checked', asked: 'changed since it was checked' } satisfies Record<
    CheckState,
    string
  >,
  doubts: {
    reckoned: 'its instant is guessed',
    reused: 'filmed for another interval',
    drawn: 'nothing was filmed',
    apart: 'what was heard is elsewhere',
  } satisfies Record<Doubt, string>,
  end: 'The end',
  playing: 'Play',
  plays: { whole: 'All of it', changes: 'Changes only', loop: '2 s, round and round' },
  note: 'Note here',
  noteLabel: 'A note at this instant',
  notes: 'Notes',
  noteDone: (text: string) => `Done: ${text}`,
  keep: 'Keep',
  full: 'Full screen',
  companion: 'There is no footage yet. This is the plan itself, as whoever runs it by a timer will see and hear it.',
  only: 'Only what is open',
} as const
