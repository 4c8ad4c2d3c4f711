// What the interface adds: sections and stations with names that are still free.
import { formatNamed, newSection, partOf, type FormatName, type Section } from '@/core/score/formats'
import type { Part } from '@/core/score/formats/format'
import { newStation, type Station } from '@/core/score/formats/station'
import { MOVES } from '@/core/score/moves'
import { freshKey, type Score } from '@/core/score/score'
import { scoreTexts } from '@/core/words/en/score'

const NAMES: Partial<Record<Part, string>> = { warmUp: 'Warm-up', coolDown: 'Cool-down', break: 'Break' }

/** A section of this format for the end of the score; its name is free, its moves are to be chosen. */
export function sectionToAdd(score: Score, format: FormatName): Section {
  const name = nameFor(score, format)
  const keys = score.sections.map((section) => section.key)
  return { ...newSection(format, freshKey(name, keys), name), above: score.sections.length ? [''] : [] }
}

function nameFor({ sections }: Score, format: FormatName): string {
  const { part } = formatNamed(format)
  const parts = sections.map(partOf)
  if (part === 'talk') return sections.length ? 'Goodbye' : 'Welcome'
  const own = NAMES[part]
  if (own) return own
  const works = parts.some((one) => one === 'main' || one === 'coolDown')
  return works ? scoreTexts.formats[format][0] : 'Main'
}

/** The next move of the library that is not among these yet. */
export const stationToAdd = (taken: readonly Station[], change: Partial<Station> = {}): Station => {
  const used = new Set(taken.map((station) => station.label))
  return newStation(MOVES.find((move) => !used.has(move.name))?.name ?? scoreTexts.newStation, change)
}
