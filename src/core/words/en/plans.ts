// English sentences for what a typed plan can mean, and what became of its words.
import type { MeaningLabel } from '../../read/typed/meaning'
import type { Question } from '../../read/typedPlan'

const NUMBER_WORDS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten']
const inWords = (count: number): string => NUMBER_WORDS[count] ?? String(count)
const counted = (count: number, one: string, many: string): string => `${inWords(count)} ${count === 1 ? one : many}`

/** What a choice means, short enough to stand beside its sum. */
export function choiceLabel(label: MeaningLabel): string {
  switch (label.code) {
    case 'in-turn':
      return `${inWords(label.intervals)} in turn`
    case 'of-each':
      return `${inWords(label.intervals)} of each`
    case 'rounds':
      return counted(label.rounds, 'round', 'rounds')
    case 'intervals':
      return `${counted(label.intervals, 'interval', 'intervals')} in all`
    case 'last-rest':
      return label.kept ? 'with the last rest' : 'without the last rest'
  }
}

/** What is asked, as a noun and not as a sentence. */
export function questionAbout({ about, moves, choices }: Question): string {
  const [first] = choices
  const where = about ? `${about}: ` : ''
  const with_ = `with ${counted(moves.length, 'move', 'moves')}`
  switch (first?.label.code) {
    case 'in-turn':
    case 'of-each':
      return `${where}${counted(first.label.intervals, 'round', 'rounds')} ${with_}`
    case 'last-rest':
      return `${where}the last rest`
    default:
      return `${where}how often, ${with_}`
  }
}

export const whyChosen = ({ because }: Question): string =>
  because === 'total' ? 'It fits the total that the plan states.' : 'Most plans typed like this mean it.'

export const planTexts = {
  asks: 'What is meant?',
  marks: 'Your words',
  fates: { used: 'in the score', kept: 'kept as a remark', unread: 'not understood' },
  unmet: (stated: string, total: string) => `The plan says ${stated}; what was read takes ${total}.`,
  unread: (count: number) =>
    count === 1
      ? '1 thing not understood; it is kept, marked with ?'
      : `${count} things not understood; they are kept, marked with ?`,
  tooLong: 'This text is too long for a plan.',
}
