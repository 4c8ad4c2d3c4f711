// What a creator calls the parts of a session. Some say round for an interval, some for a pass through all stations;
// the words on screen are the creator's, with a sensible word of each format where none was chosen.
import { z } from 'zod'

const pairSchema = z.object({ one: z.string().min(1).max(40), many: z.string().min(1).max(40) })
export type WordPair = z.infer<typeof pairSchema>

export const COUNTED = ['round', 'set', 'station', 'block'] as const
/**
 * The things that are counted: a pass through the stations, a group or a run of one station, a place in the rotation, a
 * section.
 */
export type Counted = (typeof COUNTED)[number]

export const vocabularySchema = z.object({
  round: pairSchema.nullable().default(null),
  set: pairSchema.nullable().default(null),
  station: pairSchema.nullable().default(null),
  block: pairSchema.nullable().default(null),
})
export type Vocabulary = z.infer<typeof vocabularySchema>
export type Words = Record<Counted, WordPair>

export const PLAIN_WORDS: Words = {
  round: { one: 'round', many: 'rounds' },
  set: { one: 'set', many: 'sets' },
  station: { one: 'station', many: 'stations' },
  block: { one: 'block', many: 'blocks' },
}

/** The creator's word before the format's own before the plain one. */
export function wordsFor(chosen: Vocabulary, ofFormat: Partial<Words>): Words {
  const pick = (counted: Counted): WordPair => chosen[counted] ?? ofFormat[counted] ?? PLAIN_WORDS[counted]
  return { round: pick('round'), set: pick('set'), station: pick('station'), block: pick('block') }
}

/** "1 round", "4 rounds". */
export const counted = (amount: number, word: WordPair): string => `${amount} ${amount === 1 ? word.one : word.many}`

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
