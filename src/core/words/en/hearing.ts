// What was heard, in sentences: why a change is tied where it is, how the session went, and what to tap next.
import type { FoundStitch } from '../../align/sync'
import type { Remark } from '../../align/remarks'
import type { Story, Strayed } from '../../align/story'
import type { EvidenceKind } from '../../evidence'
import { clipped } from '../../text'
import { formatInstant } from '../../time/clock'
import { nameOf, roundOf } from './names'

/** Below this a rival is not worth a word. */
const WORTH_NAMING = 0.05

const HEARD_HERE: Partial<Record<EvidenceKind, string>> = {
  beep: 'A tone sounds here',
  word: 'The coach calls it here',
  sample: 'Something like your tap sounds here',
  caption: 'The captions have it called here',
  chirp: 'The floor sounded this change here',
}

/** What was heard there, and what stands against it. */
export function whyTied({
  confidence,
  alternatives,
  evidence,
}: Pick<FoundStitch, 'confidence' | 'alternatives' | 'evidence'>): string {
  const [rival] = alternatives.filter((one) => one.confidence >= WORTH_NAMING)
  if (evidence.includes('chirp')) return `${HEARD_HERE.chirp ?? ''}, by its number in the score.`
  const here = evidence.flatMap((kind) => HEARD_HERE[kind] ?? [])[0] ?? 'Nothing sounds here'
  const heard = `${here}, as far from its neighbours as planned`
  if (rival) return `${heard}; ${formatInstant(rival.footageMs)} would fit as well, at ${percent(rival.confidence)}.`
  if (confidence >= 0.9) return `${heard}, and no other place fits.`
  return `${heard}; the session may also have gone another way, in which this change never came.`
}

const percent = (share: number): string => `${Math.round(100 * share)} %`

/** Kinds of evidence, as rows are named. */
export const EVIDENCE_NAMES: Record<EvidenceKind, string> = {
  beep: 'Tones',
  word: 'Calls',
  sample: 'Likes',
  caption: 'Captions',
  said: 'Numbers said',
  chirp: 'Chirps',
  motion: 'Motion',
  speech: 'Speech',
  music: 'Music',
  log: 'Log',
  hand: 'By hand',
}

const HEARD_AS: Partial<Record<EvidenceKind, string>> = {
  beep: 'Beeps of a timer',
  word: 'Called aloud',
  sample: 'Called aloud, like your tap',
  caption: 'Called in the captions',
  chirp: 'Chirps of the floor',
}

/** "Called aloud; no timer heard. Break ran 58 s, not 45 s." Empty where nothing was heard. */
export function storySentence({ heard, strayed }: Pick<Story, 'heard' | 'strayed'>): string {
  const [most] = heard.flatMap((kind) => HEARD_AS[kind] ?? [])
  if (!most) return ''
  const timer = heard.includes('beep') ? '' : '; no timer heard'
  return [`${most}${timer}.`, ...strayed.map(strayedSentence)].join(' ')
}

const strayedSentence = ({ segment, plannedMs, lastedMs }: Strayed): string => {
  const round = roundOf(segment)
  return `${nameOf(segment)}${round && `, ${round.toLowerCase()},`} ran ${seconds(lastedMs)}, not ${seconds(plannedMs)}.`
}

const seconds = (ms: number): string => `${Math.round(ms / 1000)} s`

/** "Heard so far: 31 tones and 4 calls." Empty while nothing was. */
export function soFarSentence(heard: Partial<Record<EvidenceKind, number>>): string {
  const counts = COUNTED.flatMap(({ kind, one, more }) => {
    const count = heard[kind] ?? 0
    return count ? [`${count} ${count === 1 ? one : more}`] : []
  })
  const last = counts.pop()
  if (!last) return ''
  return `Heard so far: ${counts.length ? `${counts.join(', ')} and ${last}` : last}.`
}
const COUNTED = [
  { kind: 'beep', one: 'tone', more: 'tones' },
  { kind: 'chirp', one: 'chirp', more: 'chirps' },
  { kind: 'word', one: 'call', more: 'calls' },
] as const satisfies readonly { kind: EvidenceKind; one: string; more: string }[]

/** "At 3:12 "forty five seconds" is said: nothing near Jug lift lasts 45 s." */
function saidSentence({ count, first: { said, segment } }: Extract<Remark, { code: 'said-otherwise' }>): string {
  const near = `near ${nameOf(segment)}`
  const otherwise = {
    seconds: `nothing ${near} lasts ${said.amount} s`,
    reps: `nothing ${near} is done ${said.amount} times`,
    rounds: `${said.amount} fits neither the rounds ${near} nor those to come`,
  }[said.counted]
  const others = count > 1 ? ` So it is with ${count - 1} more ${count === 2 ? 'number' : 'numbers'}.` : ''
  return `At ${formatInstant(said.atMs)} "${clipped(said.text, MOST_QUOTED)}" is said: ${otherwise}.${others}`
}

const MOST_QUOTED = 60

/** A remark on a footage, in one sentence. */
export function remarkSentence(remark: Remark): string {
  switch (remark.code) {
    case 'ran-off': {
      const { segment, count, plannedMs, lastedMs } = remark
      const others = count > 1 ? `; ${count - 1} more ${count === 2 ? 'is' : 'are'} off by over half a second` : ''
      return `${nameOf(segment)} ran ${tenths(lastedMs)}, planned ${tenths(plannedMs)}${others}.`
    }
    case 'not-confirmed':
      return remark.count === 1 ? 'Nothing confirms 1 change.' : `Nothing confirms ${remark.count} changes.`
    case 'not-heard':
      return remark.count === 1 ? '1 change was not heard.' : `${remark.count} changes were not heard.`
    case 'said-otherwise':
      return saidSentence(remark)
    case 'own-timer':
      return 'Your own timer beeps in this film; added cues would sound on top of it.'
  }
}

const tenths = (ms: number): string => `${Math.round(ms / 100) / 10} s`
