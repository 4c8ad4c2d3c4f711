// One number or choice of a section, drawn from how its format says it is typed.
'use client'
import { createContext, useContext, type ReactNode } from 'react'
import { likelyOf, type CountField, type Field, type LengthField as SetLengthField } from '@/core/score/formats/fields'
import type { Range } from '@/core/score/primitives'
import { formatLength } from '@/core/time/clock'
import { readSetting, spaced, writeSetting } from '@/core/shorthand/settings'
import { ChoiceField, NameField, OptionalLengthField, TypedField } from '../parts/fields'
import { scoreTexts as words } from '@/core/words/en/score'

interface Props {
  field: Field
  value: unknown
  /** What the value is the middle of, where no more is known. */
  range?: Range | undefined
  onChange: (value: unknown, range?: Range) => void
  /** In a line where the label would only be in the way; it is still read out. */
  inline?: boolean
}

export function FieldOf({ field, value, range, onChange, inline = false }: Props): ReactNode {
  const label = words.fields[field.field] ?? field.word
  switch (field.kind) {
    case 'count':
    case 'length':
      return (
        <Ranged
          field={field}
          label={label}
          showLabel={!inline}
          value={value as number}
          range={range}
          onChange={onChange}
        />
      )
    case 'optionalLength':
      return (
        <OptionalLengthField
          label={label}
          showLabel={!inline}
          value={value as number | null}
          placeholder="open"
          onChange={onChange}
        />
      )
    case 'text':
      return (
        <NameField
          label={label}
          showLabel={!inline}
          value={value as string}
          onChange={onChange}
          placeholder={field.field === 'restLabel' ? 'still' : ''}
          className={field.field === 'restLabel' ? 'w-24' : 'w-40'}
        />
      )
    // What need not be chosen is set elsewhere: a list knows by itself what it was.
    case 'optionalChoice':
      return null
    case 'choice': {
      const options = Object.fromEntries(
        field.options.map((option) => [option, words.choices[option] ?? spaced(option)]),
      )
      return (
        <ChoiceField label={label} showLabel={!inline} value={value as string} options={options} onChange={onChange} />
      )
    }
    case 'section':
      return <SectionChoice label={label} value={value as string} onChange={onChange} />
    case 'lengths':
      return <Listed field={field} label={label} value={value} onChange={onChange} complaint={words.badLengths} />
    case 'workRests':
      return <Listed field={field} label={label} value={value} onChange={onChange} complaint={words.badWorkRests} />
  }
}

/** Sections that another one can repeat, for the fields below. */
export const SectionsContext = createContext<readonly { key: string; name: string }[]>([])

function SectionChoice({
  label,
  value,
  onChange,
}: {
  label: string
  value: string
  onChange: (key: string) => void
}): ReactNode {
  const sections = useContext(SectionsContext)
  const options = { '': words.noSection, ...Object.fromEntries(sections.map(({ key, name }) => [key, name || key])) }
  return <ChoiceField label={label} showLabel value={value} options={options} onChange={onChange} />
}

interface RangedProps {
  field: CountField | SetLengthField
  label: string
  showLabel: boolean
  value: number
  range: Range | undefined
  onChange: (value: number, range?: Range) => void
}

/** A number or a length, or the two bounds of one of which no more is known: "10-20". */
function Ranged({ field, label, showLabel, value, range, onChange }: RangedProps): ReactNode {
  const write = (one: number): string => (field.kind === 'count' ? String(one) : formatLength(one))
  const read = (text: string): { value: number; range: Range | undefined } | null => {
    const found = readSetting([{ ...field, bare: -1 }], `${text.trim()} ${field.word}`)
    return found && typeof found.value === 'number' ? { value: found.value, range: found.range } : null
  }
  return (
    <TypedField<{ value: number; range: Range | undefined }>
      label={label}
      showLabel={showLabel}
      value={{ value, range: range && likelyOf(field, range) === value ? range : undefined }}
      write={(held) => (held.range ?? [held.value]).map(write).join('-')}
      read={read}
      complaint={field.kind === 'count' ? words.badCount(field.low, field.high) : words.badLength}
      onChange={(held) => onChange(held.value, held.range)}
      className={`${range ? 'w-28' : 'w-18'} text-right font-display text-xl`}
    />
  )
}

/** A list typed in one field, the way the shorthand has it. */
function Listed({ field, label, value, onChange, complaint }: Props & { label: string; complaint: string }): ReactNode {
  const unlike = { ...field, bare: [] } as Field
  const write = (held: unknown): string => (writeSetting(unlike, held) ?? '').replace(` ${field.word}`, '')
  return (
    <TypedField
      label={label}
      showLabel
      value={value}
      write={write}
      read={(text) => readSetting([unlike], `${text.trim()} ${field.word}`)?.value ?? null}
      complaint={complaint}
      onChange={onChange}
      className="w-72 font-display text-xl"
    />
  )
}
