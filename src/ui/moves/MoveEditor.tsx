// One move: all its fields, where it is used, and what becomes of workouts that were published.
'use client'
import { zodResolver } from '@hookform/resolvers/zod'
import { useEffect, useState, type ReactNode } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { toast } from 'sonner'
import type { z } from 'zod'
import { moveNamed, type Move } from '@/core/score/moves'
import { moveSchema } from '@/core/score/move'
import { IMPACTS, MUSCLES, POSTURES, SIDE_RULES } from '@/core/score/postures'
import { call, CallError } from '../api'
import { Button } from '../parts/Button'
import { Effort } from '../score/Effort'
import { scoreTexts } from '../score/texts'

const words = scoreTexts.moves
interface Use {
  id: string
  title: string
  published: boolean
}
interface Props {
  move: Move
  isNew: boolean
  isOwn: boolean
  tags: readonly string[]
  onSaved: (moves: Move[], name: string | null) => void
  onCancel: () => void
}

const input = 'min-h-9 w-full border-b-2 border-rule bg-transparent px-1.5 focus:border-ink focus:bg-pale'
const parts = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)

export function MoveEditor({ move, isNew, isOwn, onSaved, onCancel }: Props): ReactNode {
  const {
    register,
    handleSubmit,
    formState: { errors, isDirty, isSubmitting },
    setError,
    setValue,
    reset,
    control,
  } = useForm<z.input<typeof moveSchema>, unknown, Move>({
    resolver: zodResolver(moveSchema),
    defaultValues: isNew ? { ...move, name: '' } : move,
  })
  const [uses, setUses] = useState<Use[] | null>(null)
  const [keepPublished, setKeepPublished] = useState(true)
  useEffect(() => {
    if (isNew) return
    let gone = false
    void call<{ uses: Use[] }>('GET', `/api/moves/uses?name=${encodeURIComponent(move.name)}`)
      .then((found) => {
        if (!gone) setUses(found.uses)
      })
      .catch(() => {})
    return () => {
      gone = true
    }
  }, [isNew, move.name])
  const failed = (error: unknown): void =>
    void toast.error(`${words.failed}${error instanceof CallError ? error.message : String(error)}`)
  const save = handleSubmit(async (typed) => {
    try {
      const { moves } = await call<{ moves: Move[] }>('PUT', '/api/moves', {
        move: typed,
        was: isNew ? null : move.name,
        changePublished: !keepPublished,
      })
      onSaved(moves, typed.name)
      reset(typed)
    } catch (error) {
      if (error instanceof CallError && error.code === 'conflict') setError('name', { message: words.nameTaken })
      else failed(error)
    }
  })
  const remove = async (): Promise<void> => {
    try {
      const { moves } = await call<{ moves: Move[] }>('DELETE', `/api/moves?name=${encodeURIComponent(move.name)}`)
      onSaved(moves, moveNamed(move.name) ? move.name : null)
    } catch (error) {
      failed(error)
    }
  }
  const muscles = useWatch({ control, name: 'muscles' }) ?? []
  const effort = useWatch({ control, name: 'effort' }) ?? 3
  const Line = ({ name }: { name: 'name' | 'short' | 'cue' | 'easier' | 'harder' | 'caution' }): ReactNode => (
    <div>
      <label className="block">
        <span className="text-[13px] text-quiet">{words.fields[name]}</span>
        <input
          {...register(name)}
          aria-invalid={Boolean(errors[name])}
          className={`${input} ${name === 'name' ? 'font-display !text-3xl' : ''}`}
          autoComplete="off"
        />
      </label>
      {errors[name] && (
        <span role="alert" className="text-signal">
          {name === 'name' && errors.name?.type === 'too_small' ? words.nameNeeded : errors[name].message}
        </span>
      )}
    </div>
  )
  const Pick = ({
    name,
    options,
  }: {
    name: 'posture' | 'impact' | 'sideRule'
    options: Record<string, string>
  }): ReactNode => (
    <label className="block">
      <span className="text-[13px] text-quiet">{words.fields[name]}</span>
      <select {...register(name)} className={`${input} px-0`}>
        {Object.entries(options).map(([value, label]) => (
          <option key={value} value={value} className="bg-paper">
            {label}
          </option>
        ))}
      </select>
    </label>
  )
  const shown = <T extends string>(names: readonly T[], labels: Record<T, string>): Record<string, string> =>
    Object.fromEntries(names.map((one) => [one, labels[one]]))
  return (
    <form onSubmit={(event) => void save(event)} className="flex flex-col gap-3" noValidate>
      {Line({ name: 'name' })}
      <p className="-mt-2 text-[13.5px] text-quiet">{isNew ? '' : isOwn ? words.ownMark : words.shipped}</p>
      {Line({ name: 'cue' })}
      <div className="grid grid-cols-3 gap-4">
        {Line({ name: 'short' })}
        {Pick({ name: 'posture', options: shown(POSTURES, scoreTexts.postures) })}
        {Pick({ name: 'sideRule', options: shown(SIDE_RULES, scoreTexts.sides) })}
      </div>
      <div className="grid grid-cols-3 gap-4">
        {Pick({ name: 'impact', options: shown(IMPACTS, scoreTexts.impacts) })}
        <div>
          <span className="text-[13px] text-quiet">{words.fields.effort}</span>
          <Effort value={effort} onChange={(height) => setValue('effort', height, { shouldDirty: true })} />
        </div>
        <div>
          <label className="block">
            <span className="text-[13px] text-quiet">{words.fields.secondsPerRep}</span>
            <input
              {...register('secondsPerRep', { setValueAs: (text: unknown) => Number(String(text).replace(',', '.')) })}
              inputMode="decimal"
              aria-invalid={Boolean(errors.secondsPerRep)}
              className={input}
            />
          </label>
          {errors.secondsPerRep && (
            <span role="alert" className="text-signal">
              {words.badSeconds}
            </span>
          )}
        </div>
      </div>
      <fieldset>
        <legend className="text-[13px] text-quiet">{words.fields.muscles}</legend>
        <div className="flex flex-wrap gap-1.5 pt-1">
          {MUSCLES.map((muscle) => (
            <button
              key={muscle}
              type="button"
              aria-pressed={muscles.includes(muscle)}
              onClick={() =>
                setValue(
                  'muscles',
                  muscles.includes(muscle) ? muscles.filter((one) => one !== muscle) : [...muscles, muscle],
                  { shouldDirty: true },
                )
              }
              className={`min-h-8 border-2 px-3 ${muscles.includes(muscle) ? 'border-ink bg-land text-print' : 'border-rule'}`}
            >
              {scoreTexts.muscles[muscle]}
            </button>
          ))}
        </div>
      </fieldset>
      <div className="grid grid-cols-2 gap-4">
        {(['gear', 'tags'] as const).map((name) => (
          <label key={name} className="block">
            <span className="text-[13px] text-quiet">
              {words.fields[name]}, {words.listHint}
            </span>
            <input
              defaultValue={(move[name] ?? []).join(', ')}
              onChange={(event) => setValue(name, parts(event.target.value), { shouldDirty: true })}
              className={input}
              autoComplete="off"
            />
          </label>
        ))}
      </div>
      <div className="grid grid-cols-2 gap-4">
        {Line({ name: 'easier' })}
        {Line({ name: 'harder' })}
      </div>
      {Line({ name: 'caution' })}
      <p className="text-[13px] text-quiet">{words.cautionNote}</p>
      {uses && (
        <div className="border-l-8 border-water bg-pale px-4 py-2">
          <p className="font-bold">{words.usedIn(uses.length)}</p>
          <ul>
            {uses.slice(0, 12).map((use) => (
              <li key={use.id} className="truncate">
                {use.title || scoreTexts.untitled}
                {use.published && <span className="pl-2 text-quiet">({words.published})</span>}
              </li>
            ))}
          </ul>
          {uses.some((use) => use.published) && (
            <label className="flex min-h-9 items-center gap-3">
              <input
                type="checkbox"
                className="size-5 accent-[var(--ink)]"
                checked={keepPublished}
                onChange={(event) => setKeepPublished(event.target.checked)}
              />
              {words.keepPublished}
            </label>
          )}
        </div>
      )}
      <div className="flex gap-3 pb-4">
        <Button weight="main" type="submit" disabled={isSubmitting || (!isDirty && !isNew)}>
          {words.save}
        </Button>
        <Button
          disabled={!isDirty && !isNew}
          onClick={() => {
            reset()
            if (isNew) onCancel()
          }}
        >
          {words.cancel}
        </Button>
        {isOwn && (
          <Button weight="bare" className="ml-auto" onClick={() => void remove()}>
            {moveNamed(move.name) ? words.backToShipped : words.remove}
          </Button>
        )}
      </div>
    </form>
  )
}
