// What is said about what viewers hear: rules, sounds, voices, levels.
import type { CueFinding, RuleName, Sound } from '../../cue/cue'
import type { VoiceName } from '../../cue/wishes'
import type { FamilyName } from '../../sound/families/names'
import type { Target } from '../../sound/mix'
import type { Ms } from '../../units'

const RULE_NAMES: Record<RuleName, string> = {
  ...{ countIn: 'Three pips before a change', go: 'Work begins', rest: 'Rest begins', end: 'The end' },
  ...{ switch: 'Other side, other way', halfway: 'Halfway', last: 'Last round, last one', ten: 'Ten seconds left' },
  ...{ next: 'What is next', block: 'Titles', reps: 'Number of reps', minute: 'Twenty left in a minute' },
  ...{ easier: 'The easier way', water: 'Water' },
}

export const SOUND_NAMES: Record<Sound, string> = {
  ...{ pip: 'Pip', go: 'Go', rest: 'Rest', halfway: 'Halfway', switch: 'Switch', ten: 'Ten', last: 'Last', end: 'End' },
}

const WHY: Record<CueFinding['why'], string> = {
  unrecorded: 'It was not recorded yet.',
  coachSpeaks: 'You speak there yourself.',
  noTime: 'There is too little time to say it.',
  crowded: 'Something that matters more sounds there.',
}

export const ruleName = (rule: RuleName): string => RULE_NAMES[rule]
export const findingWhy = ({ why }: Pick<CueFinding, 'why'>): string => WHY[why]

/** Of the sheet in Watch. */
export const soundTexts = {
  open: 'Sound',
  heading: 'What viewers hear',
  hint: 'Tones mark the changes; a voice can say the rest. Lines keep off your own voice, and say less where there is little time.',
  family: 'Tones',
  families: { bell: 'Bell', kettle: 'Kettle', rope: 'Rope', hull: 'Hull' } satisfies Record<FamilyName, string>,
  means: {
    bell: 'Struck metal, bright',
    kettle: 'A soft whistle that glides',
    rope: 'Plucked, warm and short',
    hull: 'Knocks on hollow wood',
  } satisfies Record<FamilyName, string>,
  taste: (family: string) => `Hear ${family}`,
  voice: 'Voice',
  voices: {
    none: 'No voice',
    flite: 'Machine voice, soft',
    espeak: 'Machine voice, crisp',
    own: 'Your own voice',
  } satisfies Record<VoiceName, string>,
  loudness: 'Loudness of the video',
  targets: {
    host: 'For video hosts, -14 LUFS',
    quieter: 'A little quieter, -16 LUFS',
    broadcast: 'For broadcast, -23 LUFS',
    asIs: 'As it was filmed',
  } satisfies Record<Target, string>,
  duck: 'Footage goes down under lines',
  decibels: (amount: number) => `${amount} dB`,
  hushPips: 'Leave out pips where your own timer beeps',
  rules: 'What is sounded',
  unheard: (count: number) => (count === 1 ? '1 cue does not fit' : `${count} cues do not fit`),
  allFits: 'Everything fits.',
  single: 'One by one',
  singleHint:
    'Silence a cue, move it by a tenth of a second, or have a line say something else. It stays so when the plan changes around it.',
  go: (what: string, at: string) => `Go to ${what} at ${at}`,
  mute: (what: string) => `Silence ${what}`,
  unmute: (what: string) => `Sound ${what} again`,
  earlier: (what: string) => `${what} 0.1 s earlier`,
  later: (what: string) => `${what} 0.1 s later`,
  reword: 'Says',
  asPlanned: 'As planned',
  moved: (ms: Ms) => `${ms > 0 ? '+' : ''}${(ms / 1000).toFixed(1)} s`,
  mutedNote: 'silent',
  drop: 'Leave it out',
  record: 'Lines to record',
  recordHint:
    'Exactly what this workout needs, the shortest first. Each is trimmed, brought to one loudness, and used in every workout that says the same.',
  recordOne: (line: string) => `Record "${line}"`,
  recordStop: 'Stop',
  recordFile: (line: string) => `Upload "${line}"`,
  recorded: (seconds: string) => `${seconds} s`,
  forget: (line: string) => `Forget the recording of "${line}"`,
  allRecorded: 'Every line is recorded.',
  microphone: 'The microphone cannot be used. Allow it in the browser, or upload a file.',
} as const
