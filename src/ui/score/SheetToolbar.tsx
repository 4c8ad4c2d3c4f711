// What is done with several rows of the sheet at once.
'use client'
import type { ReactNode } from 'react'
import { setLabel, setLength, setSide } from '@/core/score/edits'
import { SIDE_RULES, type SideRule } from '@/core/score/postures'
import { scoreTexts } from '@/core/words/en/score'
import { Button } from '../parts/Button'
import { ChoiceField, LengthField, NameField } from '../parts/fields'
import type { Sheet } from './useSheet'

const words = scoreTexts.sheet

const SIDES = Object.fromEntries([['', ''], ...SIDE_RULES.map((rule) => [rule, scoreTexts.sides[rule]])]) as Record<
  SideRule | '',
  string
>

export function SheetToolbar({ sheet }: { sheet: Sheet }): ReactNode {
  const { chosen, forChosen } = sheet
  const first = chosen.find((segment) => segment.kind === 'work') ?? chosen[0]
  if (chosen.length < 2 || !first) return null
  return (
    <div
      className="sticky top-[86px] z-10 mb-2 flex flex-wrap items-end gap-x-4 gap-y-1 on-land px-4 py-2"
      role="toolbar"
      aria-label={words.chosen(chosen.length)}
    >
      <b className="pb-2 tabular-nums">{words.chosen(chosen.length)}</b>
      <LengthField
        label={words.setLength}
        showLabel
        value={first.durationMs}
        onChange={(ms) =>
          forChosen((draft, segment) => {
            if (segment.kind === first.kind) setLength(draft, segment, ms)
          })
        }
      />
      <ChoiceField
        label={words.setSides}
        showLabel
        value={'' as SideRule | ''}
        options={SIDES}
        onChange={(rule) => {
          if (rule) forChosen((draft, segment) => setSide(draft, segment, rule))
        }}
      />
      <NameField
        label={words.rename}
        showLabel
        value=""
        offersMoves
        onChange={(label) => {
          if (!label.trim()) return
          forChosen((draft, segment) => {
            if (segment.kind === 'work') setLabel(draft, segment, label)
          })
        }}
        className="w-44"
      />
      <Button weight="bare" onClick={sheet.removeChosen}>
        {words.remove}
      </Button>
      <Button weight="bare" className="ml-auto" onClick={sheet.clear}>
        {words.clear}
      </Button>
    </div>
  )
}
