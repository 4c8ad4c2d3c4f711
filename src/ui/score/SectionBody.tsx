// One section: its name and sum, its numbers in a row, and its moves below.
'use client'
import { ChevronDown, ChevronRight } from 'lucide-react'
import { current, original } from 'immer'
import { useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { tryExpand } from '@/core/expand/expand'
import { describeSection, formatOf, type Section } from '@/core/score/formats'
import type { Range } from '@/core/score/primitives'
import { valueAt, type Field } from '@/core/score/formats/fields'
import type { Around } from '@/core/score/formats/format'
import type { Follows } from '@/core/score/formats/lastRest'
import type { Move } from '@/core/score/move'
import { aroundFormat, type Score } from '@/core/score/score'
import type { Segment } from '@/core/score/segment'
import { keepTotal } from '@/core/score/solve'
import { formatClock } from '@/core/time/clock'
import { scoreTexts as words } from '@/core/words/en/score'
import { IconButton } from '../parts/Button'
import { ChoiceField, NameField } from '../parts/fields'
import type { Edit } from './edit'
import { FieldOf } from './FieldOf'
import { SectionMenu } from './SectionMenu'
import { SectionMoves } from './SectionMoves'

export interface CardProps extends Pick<Score, 'moves' | 'vocabulary'> {
  section: Section
  index: number
  edit: Edit
  ms: number
  estimated: boolean
  follows: Follows
  selected: Segment | null
  library: readonly Move[]
}

interface Props extends CardProps {
  grip: ReactNode
  folded: boolean
  setFolded: (folded: boolean) => void
}

export function SectionBody(props: Props): ReactNode {
  const { section, index, edit, moves, vocabulary, follows, selected, library, folded } = props
  const [keep, setKeep] = useState('')
  const around = aroundFormat({ moves, vocabulary }, section.format, follows)
  const onField: OnField = (field, value, range) => setFieldKeeping(edit, section, { index, field, value, range, keep })
  const editSection = (recipe: (draft: Section) => void): void =>
    edit((draft) => {
      const one = draft.sections[index]
      if (one?.key === section.key) recipe(one)
    })
  return (
    <>
      <Head
        {...props}
        around={around}
        onField={onField}
        onName={(name) => editSection((draft) => void (draft.name = name))}
      />
      {!folded && formatOf(section).notation.moves !== 'none' && (
        <div className="pb-3">
          <Numbers section={section} onField={onField} keep={keep} onKeep={setKeep} />
          <SectionMoves section={section} edit={editSection} selected={selected} library={library} />
        </div>
      )}
    </>
  )
}

interface Setting {
  index: number
  field: string
  value: unknown
  range: Range | undefined
  /** The number that makes up for it; empty for none. */
  keep: string
}

/** Sets a number; with another one chosen to make up for it, that one moves so that the total stays. */
function setFieldKeeping(edit: Edit, section: Section, { index, field, value, range, keep }: Setting): void {
  edit((draft) => {
    const one = draft.sections[index]
    if (!one) return
    const before = original(draft)
    Reflect.set(one, field, value)
    if (range) one.ranges[field] = range
    else Reflect.deleteProperty(one.ranges, field)
    if (!keep || keep === field || !before) return
    const wantedMs = tryExpand(before).expansion?.totalMs ?? 0
    const kept = keepTotal(current(draft), section.key, keep, wantedMs)
    if (!kept) return void toast(words.cannotKeep)
    Reflect.set(one, keep, kept.value)
    if (kept.totalMs !== wantedMs) toast(words.keptNearly(kept.totalMs - wantedMs))
  })
}

type OnField = (field: string, value: unknown, range?: Range) => void
type HeadProps = Props & { around: Around; onField: OnField; onName: (name: string) => void }

function Head({
  section,
  index,
  edit,
  ms,
  estimated,
  grip,
  folded,
  setFolded,
  around,
  onField,
  onName,
}: HeadProps): ReactNode {
  const { notation } = formatOf(section)
  const bare = notation.moves === 'none'
  const about = describeSection(section, around)
  return (
    <div className="flex items-center gap-1.5 px-2 pt-2 pb-1.5 max-md:flex-wrap">
      {grip}
      {bare ? (
        <span className="w-9" />
      ) : (
        <IconButton
          label={folded ? words.unfold : words.fold}
          aria-expanded={!folded}
          onClick={() => setFolded(!folded)}
        >
          {folded ? <ChevronRight size={18} /> : <ChevronDown size={18} />}
        </IconButton>
      )}
      <NameField
        label={words.sectionName}
        value={section.name}
        onChange={onName}
        className="w-44 max-md:w-36 !border-transparent font-display text-2xl hover:!border-rule"
        placeholder={words.untitled}
      />
      <p className="min-w-0 flex-1 truncate text-quiet max-md:hidden" title={about}>
        <b className="text-ink">{words.formats[section.format][0]}.</b> {about}
      </p>
      {bare &&
        notation.fields.map((field) => (
          <FieldOf
            key={field.field}
            field={field}
            value={valueAt(section, field.field)}
            range={section.ranges[field.field]}
            onChange={(value, range) => onField(field.field, value, range)}
            inline
          />
        ))}
      <span className="ml-auto w-24 shrink-0 text-right font-display text-2xl tabular-nums">
        {estimated && <span className="pr-1 font-text text-[13px] text-quiet">{words.about}</span>}
        {formatClock(ms)}
      </span>
      <SectionMenu section={section} index={index} around={around} edit={edit} />
    </div>
  )
}

/** Fields that say nothing while the part stands in this video. */
const ELSEWHERE: ReadonlySet<string> = new Set(['link', 'reminderMs'])

interface NumbersProps {
  section: Section
  onField: OnField
  keep: string
  onKeep: (field: string) => void
}

function Numbers({ section, onField, keep, onKeep }: NumbersProps): ReactNode {
  const { fields } = formatOf(section).notation
  const isHere = 'where' in section && section.where === 'here'
  const numbers = fields.filter(canMakeUp)
  const labels = Object.fromEntries(numbers.map((field) => [field.field, words.fields[field.field] ?? field.word]))
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2 px-5 pb-3">
      {fields
        .filter(({ field }) => !isHere || !ELSEWHERE.has(field))
        .map((field) => (
          <FieldOf
            key={field.field}
            field={field}
            value={valueAt(section, field.field)}
            range={section.ranges[field.field]}
            onChange={(value, range) => onField(field.field, value, range)}
          />
        ))}
      {numbers.length > 1 && (
        <ChoiceField
          label={words.keepTotal}
          showLabel
          value={keep}
          onChange={onKeep}
          options={{ '': words.keepNothing, ...labels }}
          className="text-quiet"
        />
      )}
    </div>
  )
}

/** A lead-in is too short to make up for anything. */
const canMakeUp = ({ kind, field }: Field): boolean => (kind === 'count' || kind === 'length') && field !== 'leadInMs'
