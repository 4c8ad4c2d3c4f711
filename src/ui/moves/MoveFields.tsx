// The fields of one move.
'use client'
import type { ReactNode } from 'react'
import { useWatch } from 'react-hook-form'
import { IMPACTS, MUSCLES, POSTURES, SIDE_RULES, STANDING_LEGS } from '@/core/score/postures'
import { scoreTexts } from '@/core/words/en/score'
import { Effort } from '../score/Effort'
import type { MoveDraft, MoveFormReturn } from './useMoveForm'

const words = scoreTexts.moves
const input = 'min-h-9 w-full border-b-2 border-rule bg-transparent px-1.5 focus:border-ink focus:bg-pale'

interface FieldsProps {
  form: MoveFormReturn
  /** What the fields that hold lists start with. */
  start: MoveDraft
  /** Whose move it is, below its name. */
  mark: string
}

export function MoveFields({ form, start, mark }: FieldsProps): ReactNode {
  const { control, setValue } = form
  const effort = useWatch({ control, name: 'effort' }) ?? 3
  return (
    <>
      <LineField form={form} name="name" />
      <p className="-mt-2 text-[13.5px] text-quiet">{mark}</p>
      <div className="grid grid-cols-[1fr_auto] gap-4">
        <LineField form={form} name="cue" />
        <div>
          <span className="text-[13px] text-quiet">{words.fields.effort}</span>
          <Effort value={effort} onChange={(height) => setValue('effort', height, { shouldDirty: true })} />
        </div>
      </div>
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-3">
        <LineField form={form} name="short" />
        <PickField form={form} name="posture" options={POSTURES} labels={scoreTexts.postures} />
        <PickField form={form} name="impact" options={IMPACTS} labels={scoreTexts.impacts} />
        <PickField form={form} name="sideRule" options={SIDE_RULES} labels={scoreTexts.sides} />
        <PickField form={form} name="standingLeg" options={STANDING_LEGS} labels={scoreTexts.standingLegs} />
        <SecondsField form={form} />
      </div>
      <MuscleField form={form} />
      <div className="grid grid-cols-2 gap-4">
        <ListField form={form} name="gear" start={start.gear ?? []} />
        <ListField form={form} name="tags" start={start.tags ?? []} />
      </div>
      <div className="grid grid-cols-2 gap-4">
        <LineField form={form} name="easier" />
        <LineField form={form} name="harder" />
      </div>
      <LineField form={form} name="caution" />
      <p className="text-[13px] text-quiet">{words.cautionNote}</p>
    </>
  )
}

type LineName = 'name' | 'short' | 'cue' | 'easier' | 'harder' | 'caution'

function LineField({ form, name }: { form: MoveFormReturn; name: LineName }): ReactNode {
  const error = form.formState.errors[name]
  return (
    <div>
      <label className="block">
        <span className="text-[13px] text-quiet">{words.fields[name]}</span>
        <input
          {...form.register(name)}
          aria-invalid={Boolean(error)}
          className={`${input} ${name === 'name' ? 'font-display !text-3xl' : ''}`}
          autoComplete="off"
        />
      </label>
      {error && (
        <span role="alert" className="text-signal">
          {name === 'name' && error.type === 'too_small' ? words.nameNeeded : error.message}
        </span>
      )}
    </div>
  )
}

interface PickProps<Option extends string> {
  form: MoveFormReturn
  name: 'posture' | 'impact' | 'sideRule' | 'standingLeg'
  options: readonly Option[]
  labels: Record<Option, string>
}

function PickField<Option extends string>({ form, name, options, labels }: PickProps<Option>): ReactNode {
  return (
    <label className="block">
      <span className="text-[13px] text-quiet">{words.fields[name]}</span>
      <select {...form.register(name)} className={`${input} px-0`}>
        {options.map((option) => (
          <option key={option} value={option} className="bg-paper">
            {labels[option]}
          </option>
        ))}
      </select>
    </label>
  )
}

function SecondsField({ form }: { form: MoveFormReturn }): ReactNode {
  const error = form.formState.errors.secondsPerRep
  const setValueAs = (text: unknown): number => Number(String(text).replace(',', '.'))
  return (
    <div>
      <label className="block">
        <span className="text-[13px] text-quiet">{words.fields.secondsPerRep}</span>
        <input
          {...form.register('secondsPerRep', { setValueAs })}
          inputMode="decimal"
          aria-invalid={Boolean(error)}
          className={input}
        />
      </label>
      {error && (
        <span role="alert" className="text-signal">
          {words.badSeconds}
        </span>
      )}
    </div>
  )
}

function MuscleField({ form: { control, setValue } }: { form: MoveFormReturn }): ReactNode {
  const muscles = useWatch({ control, name: 'muscles' }) ?? []
  const toggle = (muscle: (typeof MUSCLES)[number]): void => {
    const others = muscles.filter((one) => one !== muscle)
    setValue('muscles', others.length < muscles.length ? others : [...muscles, muscle], { shouldDirty: true })
  }
  return (
    <fieldset>
      <legend className="text-[13px] text-quiet">{words.fields.muscles}</legend>
      <div className="flex flex-wrap gap-1.5 pt-1">
        {MUSCLES.map((muscle) => (
          <button
            key={muscle}
            type="button"
            aria-pressed={muscles.includes(muscle)}
            onClick={() => toggle(muscle)}
            className={`min-h-8 border-2 px-3 ${muscles.includes(muscle) ? 'border-ink bg-land text-print' : 'border-rule'}`}
          >
            {scoreTexts.muscles[muscle]}
          </button>
        ))}
      </div>
    </fieldset>
  )
}

const partsOf = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)

interface ListFieldProps {
  form: MoveFormReturn
  name: 'gear' | 'tags'
  start: readonly string[]
}

function ListField({ form, name, start }: ListFieldProps): ReactNode {
  return (
    <label className="block">
      <span className="text-[13px] text-quiet">
        {words.fields[name]}, {words.listHint}
      </span>
      <input
        defaultValue={start.join(', ')}
        onChange={(event) => form.setValue(name, partsOf(event.target.value), { shouldDirty: true })}
        className={input}
        autoComplete="off"
      />
    </label>
  )
}
