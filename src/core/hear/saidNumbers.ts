// Numbers in captions, beside what they count: lengths, reps and rounds that the coach promises aloud.
import { toCardinal as german } from 'n2words/de-DE'
import { toCardinal as english } from 'n2words/en-US'
import { toCardinal as spanish } from 'n2words/es-ES'
import { toCardinal as french } from 'n2words/fr-FR'
import type { Counted, EvidenceOf } from '../evidence'
import type { Ms } from '../units'

/** What numbers stand before, in any of the languages of `callWords.ts`. */
const UNIT_WORDS: Record<Counted | 'minutes', readonly string[]> = {
  seconds: ['second', 'seconds', 'sec', 'secs', 'segundo', 'segundos', 'sekunde', 'sekunden', 'seconde', 'secondes'],
  minutes: ['minute', 'minutes', 'min', 'mins', 'minuto', 'minutos', 'minuten'],
  reps: ['rep', 'reps', 'repetitions', 'repeticiones', 'wiederholungen', 'répétitions'],
  rounds: ['rounds', 'rondas', 'vueltas', 'runden', 'tours'],
}
const UNITS = new Map(
  Object.entries(UNIT_WORDS).flatMap(([unit, words]) => words.map((word) => [word, unit as keyof typeof UNIT_WORDS])),
)

const MOST_SPELT = 120
/** "Cuarenta y cinco", "quatre vingt dix sept". */
const MOST_PARTS = 4
const parted = (text: string): string => text.replaceAll('-', ' ')
const SPELT = new Map(
  [english, spanish, german, french].flatMap((spell) =>
    Array.from({ length: MOST_SPELT }, (_, at): [string, number] => [parted(spell(at + 1).toLowerCase()), at + 1]),
  ),
)

interface Word {
  text: string
  atMs: Ms
  spreadMs: Ms
}

/** Clear of being misread; whether it is about the plan is for `align/said.ts`. */
const STRENGTH = 0.8

/** @param clause words in lower case and without marks. */
export function numbersIn(clause: readonly Word[], text: string): EvidenceOf<'said'>[] {
  const words = clause.flatMap((word) =>
    parted(word.text.replace(/^(\d+)(\p{L}+)$/u, '$1-$2'))
      .split(' ')
      .map((part) => ({ ...word, text: part })),
  )
  const found: EvidenceOf<'said'>[] = []
  let minutesEnd: number | null = null
  words.forEach((word, at) => {
    const unit = UNITS.get(word.text)
    const number = unit && numberBefore(words, at)
    if (!unit || !number) return
    const { atMs, spreadMs } = number.word
    const counted = unit === 'minutes' ? 'seconds' : unit
    const amount = unit === 'minutes' ? number.amount * 60 : number.amount
    // "One minute thirty seconds", "one minute and thirty seconds": one length.
    if (unit === 'seconds' && minutesEnd !== null && number.from - minutesEnd <= 2) {
      const last = found.pop()
      if (last) found.push({ ...last, amount: last.amount + amount })
    } else found.push({ kind: 'said', atMs, spreadMs, strength: STRENGTH, amount, counted, text })
    minutesEnd = unit === 'minutes' ? at : null
  })
  return found
}

/** The number that ends just before a place: its longest reading. */
function numberBefore(words: readonly Word[], end: number): { amount: number; from: number; word: Word } | null {
  for (let from = Math.max(0, end - MOST_PARTS); from < end; from++) {
    const said = words
      .slice(from, end)
      .map(({ text }) => text)
      .join(' ')
    const amount = /^\d{1,3}$/.test(said) ? Number(said) : SPELT.get(said)
    const word = words[from]
    if (amount && word) return { amount, from, word }
  }
  return null
}
