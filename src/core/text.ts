// Text by code points: cut without breaking a letter in two, and held to what can be stored.
import { Problem } from './problem'

/** The beginning of a text, at most so many letters as JavaScript counts them, and never half of one. */
export function clipped(text: string, most: number): string {
  if (text.length <= most) return text
  const cut = text.slice(0, most)
  return cut.isWellFormed() ? cut : cut.slice(0, -1)
}

/** Whether a database takes a text. */
export const isStorable = (text: string): boolean => text.isWellFormed() && !text.includes('\0')

/**
 * Refuses what no database and no file of text takes: NUL, and half of a surrogate pair, anywhere in a document.
 * @throws Problem `unstorable-text` with the field as its place.
 */
export function refuseUnstorable(document: unknown): void {
  const waiting: [value: unknown, place: string][] = [[document, '']]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const [value, place] = next
    if (typeof value === 'string' && !isStorable(value)) throw new Problem({ code: 'unstorable-text' }, place)
    if (typeof value === 'object' && value !== null)
      for (const [key, inner] of Object.entries(value)) {
        const at = place ? `${place}.${key}` : key
        if (!isStorable(key)) throw new Problem({ code: 'unstorable-text' }, at.toWellFormed().replaceAll('\0', ''))
        waiting.push([inner, at])
      }
  }
}
