// Five blocks that rise: the height of the land. A row of radio buttons to keyboard and ear.
'use client'
import type { ReactNode } from 'react'
import { scoreTexts as words } from '@/core/words/en/score'

const LEVELS = [1, 2, 3, 4, 5] as const

/**
 * @param value 0 where nobody knows.
 * @param own false where the height is the move's and not set here; drawn lighter.
 * @param guessed drawn hollow: what the move is taken for, and not known of it.
 */
export function Effort({
  value,
  own = true,
  guessed = false,
  onChange,
}: {
  value: number
  own?: boolean
  guessed?: boolean
  onChange: (value: number) => void
}): ReactNode {
  const filled = `outline outline-1 ${guessed ? 'outline-dashed outline-ink bg-land/25' : `bg-land ${own ? 'outline-ink' : 'outline-ink/40'}`}`
  return (
    <div
      role="radiogroup"
      aria-label={guessed ? `${words.effort}, ${words.guessed}` : words.effort}
      className="flex h-9 items-end gap-[3px] pb-1.5"
    >
      {LEVELS.map((level) => (
        <button
          key={level}
          type="button"
          role="radio"
          aria-checked={level === value}
          aria-label={`${words.effort} ${level}`}
          tabIndex={level === Math.max(1, value) ? 0 : -1}
          onClick={() => onChange(level)}
          className="flex h-9 w-3.5 items-end"
          onKeyDown={(event) => {
            const step =
              event.key === 'ArrowRight' || event.key === 'ArrowUp'
                ? 1
                : event.key === 'ArrowLeft' || event.key === 'ArrowDown'
                  ? -1
                  : 0
            const next = Math.min(LEVELS.length, Math.max(1, value + step))
            if (!step) return
            event.preventDefault()
            onChange(next)
            ;(event.currentTarget.parentElement?.children[next - 1] as HTMLElement | undefined)?.focus()
          }}
        >
          <span style={{ height: `${18 + level * 13}%` }} className={`w-full ${level <= value ? filled : 'bg-rule'}`} />
        </button>
      ))}
    </div>
  )
}
