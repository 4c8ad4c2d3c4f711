// A simulated coach who runs a session by voice: counts in, calls changes, talks in between and counts repetitions.
import type { Segment } from '../../src/core/score/segment'
import type { Ms } from '../../src/core/units'
import { bellOf, pick } from '../camera/random'
import type { Stretch } from './play'
import { mix, RATE } from './sounds'
import { speak, type Voice } from './speech'
import { HEARD, NUMBERS, UNHEARD, type Language, type Wordings } from './wordings'

export interface Coach {
  voice: Voice
  language: Language
  words: Wordings
  /** Counts down to changes, or only calls them. */
  counts: boolean
}

type Random = () => number

const RECORDED: readonly Voice[] = ['flite:slt', 'flite:rms']
/** Mouths and throats that no training heard. */
const MOUTHS = {
  tune: ['m6', 'f4', 'Andy', 'Lee', 'Jacky'],
  test: ['klatt4', 'm8', 'marcelo', 'travis', 'norbert', 'shelby', 'miguel', 'pedro', 'edward2', 'Michael'],
} as const
const DIALECTS: Record<Language, readonly string[]> = {
  en: ['en-us', 'en-gb'],
  es: ['es'],
  de: ['de'],
  fr: ['fr'],
  it: ['it'],
}

/** Voices of "tune" say what training heard; those of "test" say what nothing heard before. */
export function coachOf(split: 'tune' | 'test', language: Language, counts: boolean, random: Random): Coach {
  const formant: Voice = `espeak:${pick(DIALECTS[language], random)}+${pick(MOUTHS[split], random)}:${pick([140, 160, 180], random)}:${pick([35, 55], random)}`
  const recorded = split === 'test' && language === 'en' && random() < 0.7
  const voice = recorded ? pick(RECORDED, random) : formant
  return { voice, language, words: (split === 'test' ? UNHEARD : HEARD)[language], counts }
}

/** How far a call is from the change: most are a little late. */
const LATE_MS: Ms = 60
const JITTER_MS: Ms = 130
const FORGOTTEN = 0.03

interface Line {
  text: string
  fromMs: Ms
  toMs: Ms
}
export interface Said {
  lines: Line[]
  /** Changes that nobody called. */
  forgottenMs: Ms[]
}

/** Adds all that the coach says, and tells what that was. @param folder where spoken lines are kept. */
export function addCoach(
  out: Float32Array,
  stretches: readonly Stretch[],
  { voice, language, words, counts }: Coach,
  { random, folder }: { random: Random; folder: string },
): Said {
  const said: Said = { lines: [], forgottenMs: [] }
  const level = 0.8 + random() * 0.4
  const says = (text: string, atMs: Ms): Ms => {
    const line = speak(text, voice, folder)
    mix(out, line, atMs, level * (0.85 + random() * 0.3))
    const toMs = atMs + (line.length / RATE) * 1000
    said.lines.push({ text, fromMs: atMs, toMs })
    return toMs
  }
  const bell = bellOf(random)
  let quietFromMs: Ms = 0
  const call = (into: Segment['kind'] | undefined, atMs: Ms): void => {
    if (random() < FORGOTTEN) return void said.forgottenMs.push(atMs)
    const meantMs = atMs + LATE_MS + JITTER_MS * bell() * 0.5
    if (counts && (into === 'work' || random() < 0.6))
      for (const left of [3, 2, 1])
        says(NUMBERS[language][left - 1] ?? '', Math.max(quietFromMs, meantMs - left * 1000 + 40 * bell()))
    quietFromMs = says(pick(into === 'work' ? words.work : words.rest, random), meantMs)
  }
  stretches.forEach(({ segment, startMs, endMs }, at) => {
    const before = stretches[at - 1]?.segment.kind,
      after = stretches[at + 1]?.segment.kind
    if (before === 'talk' && segment.kind !== 'lead') call(segment.kind, startMs)
    talk(segment, Math.max(startMs, quietFromMs) + 600, endMs - (counts ? 3600 : 700))
    if (segment.kind !== 'talk') call(after, endMs)
  })
  return said

  function talk({ kind }: Segment, fromMs: Ms, toMs: Ms): void {
    let atMs = fromMs + random() * 2000
    const sets = kind === 'work' && random() < 0.25
    const lengthOf = (text: string): Ms => (speak(text, voice, folder).length / RATE) * 1000
    const fits = (text: string): boolean => atMs + lengthOf(text) < toMs
    for (let number = 0; atMs < toMs; number++) {
      const what = random()
      const text = sets
        ? (NUMBERS[language][number % 10] ?? '')
        : what < 0.08 && kind !== 'work'
          ? pick(words.next, random)
          : what < 0.12 && kind === 'work'
            ? pick(words.half, random)
            : pick(words.chat, random)
      if (!fits(text)) return
      atMs = says(text, atMs) + (sets ? 700 + random() * 900 : 1200 + random() * 7000)
    }
  }
}

/** What was said as WebVTT, each word with a time of its own that is a little off, as of a machine that listened. */
export function captionsOf({ lines }: Said, random: Random): string {
  const stamp = (ms: Ms): string => new Date(Math.max(0, Math.round(ms))).toISOString().slice(11, 23)
  const cues = lines.map(({ text, fromMs, toMs }) => {
    const words = text.split(' ')
    const timed = words.map((word, at) => {
      const atMs = fromMs + ((toMs - fromMs) * at) / words.length + (random() + random() - 1) * 150
      return `<${stamp(Math.max(fromMs, atMs))}>${word}`
    })
    return `${stamp(fromMs)} --> ${stamp(toMs + 300)}\n${timed.join(' ')}\n`
  })
  return ['WEBVTT\n', ...cues].join('\n')
}
