// What the interface adds: sections and stations with names that are still free.
import { newSection, type FormatName, type Section } from '@/core/score/formats'
import { newStation, type Station } from '@/core/score/formats/station'
import { MOVES } from '@/core/score/moves'
import { freshKey, type Score } from '@/core/score/score'
import { scoreTexts } from './texts'

const NAMES: Partial<Record<FormatName, string>> = {
  warmUp: 'Warm-up',
  coolDown: 'Cool-down',
  finisher: 'Finisher',
  break: 'Break',
}

/** A section of this format for the end of the score; its name is free, its moves are to be chosen. */
export function sectionToAdd(score: Score, format: FormatName): Section {
  const keys = score.sections.map((section) => section.key)
  const works = score.sections.some(
    (section) => section.format !== 'talk' && section.format !== 'break' && section.format !== 'warmUp',
  )
  const name =
    NAMES[format] ??
    (format === 'talk'
      ? score.sections.length
        ? 'Goodbye'
        : 'Welcome'
      : works
        ? scoreTexts.formats[format][0]
        : 'Main')
  return { ...newSection(format, freshKey(name, keys), name), above: score.sections.length ? [''] : [] }
}

/** The next move of the library that is not among these yet. */
export const stationToAdd = (taken: readonly Station[], change: Partial<Station> = {}): Station => {
  const used = new Set(taken.map((station) => station.label))
  return newStation(MOVES.find((move) => !used.has(move.name))?.name ?? scoreTexts.newStation, change)
}
