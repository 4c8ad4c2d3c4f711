// Sections that repeat another one: what they hold is what that one holds, wherever it is changed.
import type { Section } from './formats'
import { withKeys } from './formats/keys'
import type { Score } from './score'

/** The section that one repeats; null where there is none, or only another repetition. */
export const repeated = (sections: readonly Section[], of: string): Section | null =>
  sections.find(({ key, format }) => key === of && format !== 'again') ?? null

/**
 * The section as it is done: of a repetition, the one that it repeats, under its own key and name.
 * @returns the same object for every other section.
 */
export function done(section: Section, sections: readonly Section[]): Section {
  if (section.format !== 'again') return section
  const found = repeated(sections, section.of)
  return found ? { ...withKeys(found), key: section.key, name: section.name || found.name } : section
}

/** The score with every repetition in place; the same object where there is none. */
export const withRepeats = (score: Score): Score =>
  score.sections.some(({ format }) => format === 'again')
    ? { ...score, sections: score.sections.map((section) => done(section, score.sections)) }
    : score
