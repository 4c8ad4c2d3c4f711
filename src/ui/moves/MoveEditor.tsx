// One move: all its fields, where it is used, and what becomes of workouts that were published.
'use client'
import { useState, type ReactNode } from 'react'
import { moveNamed } from '@/core/score/moves'
import { scoreTexts } from '@/core/words/en/score'
import { Button } from '../parts/Button'
import { MoveFields } from './MoveFields'
import { MoveUses, useMoveUses } from './MoveUses'
import { useMoveForm, type MoveFormProps } from './useMoveForm'

const words = scoreTexts.moves

type Props = MoveFormProps & { onCancel: () => void }

export function MoveEditor({ onCancel, ...props }: Props): ReactNode {
  const { move, isNew, isOwn, draft } = props
  const { form, save, remove } = useMoveForm(props)
  const { isDirty, isSubmitting } = form.formState
  const uses = useMoveUses(isNew ? null : move.name)
  const [keepPublished, setKeepPublished] = useState(true)
  const nothingToDo = !isDirty && !isNew
  const cancel = (): void => {
    form.reset()
    if (isNew) onCancel()
  }
  return (
    <form onSubmit={(event) => save(event, !keepPublished)} className="flex flex-col gap-3" noValidate>
      <MoveFields form={form} start={draft ?? move} mark={isNew ? '' : isOwn ? words.ownMark : words.shipped} />
      {uses && <MoveUses uses={uses} keepPublished={keepPublished} onKeepPublished={setKeepPublished} />}
      <div className="flex gap-3 pb-4">
        <Button weight="main" type="submit" disabled={isSubmitting || nothingToDo}>
          {words.save}
        </Button>
        <Button disabled={nothingToDo} onClick={cancel}>
          {words.cancel}
        </Button>
        {isOwn && (
          <Button weight="bare" className="ml-auto" onClick={remove}>
            {moveNamed(move.name) ? words.backToShipped : words.remove}
          </Button>
        )}
      </div>
    </form>
  )
}
