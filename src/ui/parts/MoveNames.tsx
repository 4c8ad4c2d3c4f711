// The names of a library, offered to every field that takes a move.
'use client'
import { memo, type ReactNode } from 'react'
import type { Move } from '@/core/score/move'

/** Drawn once for hundreds of moves, and not at every keystroke. `id` is what fields name as their list. */
export const MoveNames = memo(function MoveNames({
  id = 'moves',
  library,
}: {
  id?: string
  library: readonly Move[]
}): ReactNode {
  return (
    <datalist id={id}>
      {library.map(({ name }) => (
        <option key={name} value={name} />
      ))}
    </datalist>
  )
})
