// Asks for a name and makes a workout.
'use client'
import { zodResolver } from '@hookform/resolvers/zod'
import { useRouter } from 'next/navigation'
import type { ReactNode } from 'react'
import { useForm } from 'react-hook-form'
import { z } from 'zod'
import { call } from '../api'
import { Button } from '../parts/Button'
import { Sheet } from '../parts/Sheet'
import { texts } from '@/core/words/en/screens'

const words = texts.shelf
const schema = z.object({ title: z.string().trim().min(1, words.nameNeeded).max(300, words.nameLong) })

export function NewWorkout({
  open,
  onOpenChange,
}: {
  open: boolean
  onOpenChange: (open: boolean) => void
}): ReactNode {
  const router = useRouter()
  const form = useForm({ resolver: zodResolver(schema), defaultValues: { title: '' } })
  const { errors, isSubmitting } = form.formState
  const submit = form.handleSubmit(async ({ title }) => {
    try {
      const { id } = await call<{ id: string }>('POST', '/api/workouts', { title })
      router.push(`/w/${id}/score`)
    } catch (error) {
      form.setError('title', { message: (error as Error).message })
    }
  })
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.make} hint={words.makeHint}>
      <form onSubmit={(event) => void submit(event)} noValidate>
        <label className="flex flex-col gap-1 font-bold">
          {words.name}
          <input
            {...form.register('title')}
            autoFocus
            autoComplete="off"
            placeholder={words.namePlaceholder}
            aria-invalid={Boolean(errors.title)}
            className="min-h-11 border-b-2 border-ink bg-pale px-3 font-medium placeholder:text-quiet/70"
          />
        </label>
        <p role="alert" className="min-h-7 pt-1 text-signal">
          {errors.title?.message}
        </p>
        <div className="flex justify-end gap-3">
          <Button weight="bare" onClick={() => onOpenChange(false)}>
            {words.cancel}
          </Button>
          <Button weight="main" type="submit" disabled={isSubmitting}>
            {words.create}
          </Button>
        </div>
      </form>
    </Sheet>
  )
}
