// One move being edited: its form, what was typed and not saved yet, saving and removing. Leaving it for another move
// loses nothing: what was typed is handed to `onDraft` and taken up again.
'use client'
import { zodResolver } from '@hookform/resolvers/zod'
import { useEffect, type FormEvent } from 'react'
import { useForm, useWatch, type UseFormReturn } from 'react-hook-form'
import { toast } from 'sonner'
import type { z } from 'zod'
import { moveSchema, type Move } from '@/core/score/move'
import { moveNamed } from '@/core/score/moves'
import { scoreTexts } from '@/core/words/en/score'
import { call, CallError } from '../api'

const words = scoreTexts.moves

export type MoveDraft = z.input<typeof moveSchema>
export type MoveFormReturn = UseFormReturn<MoveDraft, unknown, Move>

/** The way back from a change of the library. */
export type WayBack = () => Promise<{ moves: Move[]; name: string | null }>

export interface MoveFormProps {
  move: Move
  isNew: boolean
  /** Kept by the creator, and not only shipped. */
  isOwn: boolean
  draft: MoveDraft | null
  /** Told of what is typed and not saved; null where there is nothing of it. */
  onDraft: (draft: MoveDraft | null) => void
  /** @param name of the move to show; null for none. @param back undoes what was done. */
  onSaved: (moves: Move[], name: string | null, back?: WayBack) => void
}

interface MoveForm {
  form: MoveFormReturn
  /** @param changePublished whether workouts that were published take the change as well. */
  save: (event: FormEvent, changePublished: boolean) => void
  remove: () => void
}

const failed = (error: unknown): void =>
  void toast.error(`${words.failed}${error instanceof CallError ? error.message : String(error)}`)

export function useMoveForm({ move, isNew, isOwn, draft, onDraft, onSaved }: MoveFormProps): MoveForm {
  const form: MoveFormReturn = useForm<MoveDraft, unknown, Move>({
    resolver: zodResolver(moveSchema),
    defaultValues: isNew ? { ...move, name: '' } : move,
  })
  const { reset, control, formState } = form
  const { isDirty } = formState
  useEffect(() => {
    if (draft) reset(draft, { keepDefaultValues: true })
    // Only what was there when the move was opened is taken up; from then on the form itself is the draft.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [reset])
  const values = useWatch({ control })
  useEffect(() => {
    onDraft(isDirty ? { ...values, name: values.name ?? '' } : null)
  }, [values, isDirty, onDraft])

  const saveTyped = async (typed: Move, changePublished: boolean): Promise<void> => {
    try {
      const body = { move: typed, was: isNew ? null : move.name, changePublished }
      const { moves } = await call<{ moves: Move[] }>('PUT', '/api/moves', body)
      reset(typed)
      onDraft(null)
      onSaved(moves, typed.name, () => (isNew || !isOwn ? takeOut(typed.name) : putMove(move, typed.name)))
    } catch (error) {
      if (error instanceof CallError && error.code === 'move-exists')
        form.setError('name', { message: words.nameTaken })
      else failed(error)
    }
  }
  const remove = async (): Promise<void> => {
    try {
      const { moves } = await call<{ moves: Move[] }>('DELETE', `/api/moves?name=${encodeURIComponent(move.name)}`)
      onDraft(null)
      onSaved(moves, moveNamed(move.name) ? move.name : null, () => putMove(move, null))
      toast(words.removed(move.name))
    } catch (error) {
      failed(error)
    }
  }
  return {
    form,
    save: (event, changePublished) => void form.handleSubmit((typed) => saveTyped(typed, changePublished))(event),
    remove: () => void remove(),
  }
}

/** @param was the name that it is kept under now; null where it is not kept. */
async function putMove(move: Move, was: string | null): Promise<{ moves: Move[]; name: string }> {
  const { moves } = await call<{ moves: Move[] }>('PUT', '/api/moves', { move, was, changePublished: false })
  return { moves, name: move.name }
}

async function takeOut(name: string): Promise<{ moves: Move[]; name: string | null }> {
  const { moves } = await call<{ moves: Move[] }>('DELETE', `/api/moves?name=${encodeURIComponent(name)}`)
  return { moves, name: moveNamed(name) ? name : null }
}
