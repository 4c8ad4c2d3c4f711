// What the library is searched and narrowed by.
'use client'
import { Search } from 'lucide-react'
import type { ReactNode } from 'react'
import { IMPACTS, MUSCLES, POSTURES } from '@/core/score/postures'
import { scoreTexts } from '@/core/words/en/score'
import { ChoiceField } from '../parts/fields'
import type { MoveFilter } from './filterMoves'
import { CheckField } from '../parts/CheckField'

const words = scoreTexts.moves

/** All of them, or one. */
const optionsOf = <T extends string>(names: readonly T[], labels: Record<T, string>): Record<T | '', string> =>
  Object.fromEntries([['', words.all], ...names.map((name) => [name, labels[name]])]) as Record<T | '', string>
const POSTURE_OPTIONS = optionsOf(POSTURES, scoreTexts.postures)
const MUSCLE_OPTIONS = optionsOf(MUSCLES, scoreTexts.muscles)
const IMPACT_OPTIONS = optionsOf(IMPACTS, scoreTexts.impacts)

interface Props {
  filter: MoveFilter
  tags: readonly string[]
  onFilter: (filter: MoveFilter) => void
}

export function MoveFilters({ filter, tags, onFilter }: Props): ReactNode {
  const change = (part: Partial<MoveFilter>): void => onFilter({ ...filter, ...part })
  return (
    <>
      <label className="mt-2 flex min-h-10 items-center gap-2 border-b-2 border-ink">
        <Search size={18} />
        <input
          type="search"
          aria-label={words.search}
          placeholder={words.search}
          value={filter.text}
          onChange={(event) => change({ text: event.target.value })}
          className="min-h-10 flex-1 bg-transparent px-1 placeholder:text-quiet"
        />
      </label>
      <div className="flex flex-wrap gap-x-4 py-2">
        <ChoiceField
          label={words.fields.posture}
          showLabel
          value={filter.posture}
          options={POSTURE_OPTIONS}
          onChange={(posture) => change({ posture })}
        />
        <ChoiceField
          label={words.fields.muscles}
          showLabel
          value={filter.muscle}
          options={MUSCLE_OPTIONS}
          onChange={(muscle) => change({ muscle })}
        />
        <ChoiceField
          label={words.fields.impact}
          showLabel
          value={filter.impact}
          options={IMPACT_OPTIONS}
          onChange={(impact) => change({ impact })}
        />
        <ChoiceField
          label={words.fields.tags}
          showLabel
          value={filter.tag}
          options={{ '': words.all, ...Object.fromEntries(tags.map((tag) => [tag, tag])) }}
          onChange={(tag) => change({ tag })}
        />
        <CheckField
          className="self-end"
          label={words.ownOnly}
          on={filter.ownOnly}
          onChange={(ownOnly) => change({ ownOnly })}
        />
      </div>
    </>
  )
}
