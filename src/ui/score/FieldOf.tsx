// One number or choice of a section, drawn from how its format says it is typed.
'use client'
import type { ReactNode } from 'react'
import type { Field } from '@/core/score/formats/fields'
import { readSetting, spaced, writeSetting } from '@/core/shorthand/settings'
import { ChoiceField, CountField, LengthField, NameField, OptionalLengthField, TypedField } from '../parts/fields'
import { scoreTexts as words } from '@/core/words/en/score'

interface Props {
  field: Field
  value: unknown
  onChange: (value: unknown) => void
  /** In a line where the label would only be in the way; it is still read out. */
  inline?: boolean
}

export function FieldOf({ field, value, onChange, inline = false }: Props): ReactNode {
  const label = words.fields[field.field] ?? field.word
  switch (field.kind) {
    case 'count':
      return (
        <CountField
          label={label}
          showLabel={!inline}
          value={value as number}
          low={field.low}
          high={field.high}
          onChange={onChange}
        />
      )
    case 'length':
      return <LengthField label={label} showLabel={!inline} value={value as number} onChange={onChange} />
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
    case 'lengths':
      return <Listed field={field} label={label} value={value} onChange={onChange} complaint={words.badLengths} />
    case 'workRests':
      return <Listed field={field} label={label} value={value} onChange={onChange} complaint={words.badWorkRests} />
  }
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
