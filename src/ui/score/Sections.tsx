// The sections of a score in order.
'use client'
import { X } from 'lucide-react'
import type { ReactNode } from 'react'
import { describeSection, type Section } from '@/core/score/formats'
import type { Score } from '@/core/score/score'
import type { Expansion } from '@/core/score/segment'
import { formatClock, formatLength } from '@/core/time/clock'
import { nameOf } from '@/core/write/wording'
import { IconButton } from '../parts/Button'
import { LengthField, NameField, OptionalLengthField } from '../parts/fields'
import { moveWithin, SortableList, useGrip } from '../parts/sortable'
import { texts } from '../texts'
import { CircuitEditor } from './CircuitEditor'

const words = texts.score
export type Edit = (recipe: (draft: Score) => void) => void

export function Sections({ sections, edit, expansion, selected }: { sections: Section[]; edit: Edit; expansion: Expansion; selected: string | null }): ReactNode {
  return (
    <SortableList keys={sections.map((section) => section.key)} onMove={(from, to) => edit((draft) => moveWithin(draft.sections, from, to))}>
      <ol className="flex flex-col gap-6">
        {sections.map((section, index) => (
          <SectionCard key={section.key} section={section} index={index} edit={edit} expansion={expansion} selected={selected?.startsWith(`${section.key}/`) ? selected : null} />
        ))}
      </ol>
    </SortableList>
  )
}

interface CardProps { section: Section; index: number; edit: Edit; expansion: Expansion; selected: string | null }

function SectionCard({ section, index, edit, expansion, selected }: CardProps): ReactNode {
  const { setNodeRef, style, grip } = useGrip(section.key)
  const parts = expansion.segments.filter((segment) => segment.id.startsWith(`${section.key}/`))
  const lengthMs = parts.reduce((sum, part) => sum + part.durationMs, 0)
  return (
    <li ref={setNodeRef} style={style} className="border-t-4 border-ink bg-pale" data-section={section.key}>
      <div className="flex items-center gap-3 px-3 pt-2.5 pb-2">
        {grip}
        <NameField label={words.sectionName} value={section.name} onChange={(name) => edit((draft) => { const one = draft.sections[index]; if (one) one.name = name })} className="w-64 !border-transparent font-display text-2xl hover:!border-rule" placeholder={words.untitled} />
        <p className="min-w-0 flex-1 truncate text-quiet">{describeSection(section)}</p>
        {section.format === 'talk' && <OptionalLengthField label={words.guess} value={section.guessMs} placeholder="open" onChange={(ms) => edit((draft) => { const one = draft.sections[index]; if (one?.format === 'talk') one.guessMs = ms })} />}
        {section.format === 'break' && <LengthField label={words.length} value={section.durationMs} onChange={(ms) => edit((draft) => { const one = draft.sections[index]; if (one?.format === 'break') one.durationMs = ms })} />}
        {(section.format === 'circuit' || section.format === 'list') && <span className="font-display text-2xl tabular-nums">{formatClock(lengthMs)}</span>}
        <IconButton label={words.removeSection} onClick={() => edit((draft) => { draft.sections.splice(index, 1) })}><X size={18} /></IconButton>
      </div>
      {section.format === 'circuit' && <CircuitEditor section={section} edit={(recipe) => edit((draft) => { const one = draft.sections[index]; if (one?.format === 'circuit') recipe(one) })} selected={selected} />}
      {section.format === 'list' && (
        <div className="max-h-72 overflow-y-auto px-5 pb-4">
          <p className="pb-2 text-quiet">{words.tableNote}</p>
          <ol className="columns-2 gap-8 tabular-nums">{parts.slice(0, 400).map((part) => <li key={part.id} className="flex justify-between gap-4 border-b border-rule py-1"><span className="truncate">{nameOf(part)}</span><span>{formatLength(part.durationMs)}</span></li>)}</ol>
        </div>
      )}
    </li>
  )
}
