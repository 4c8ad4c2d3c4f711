// A box to tick, with what it means beside it; the words are pressed as well as the box.
'use client'
import type { ReactNode } from 'react'

interface Props {
  label: ReactNode
  on: boolean
  onChange: (on: boolean) => void
  className?: string
}

export function CheckField({ label, on, onChange, className = '' }: Props): ReactNode {
  return (
    <label className={`flex min-h-10 items-center gap-3 ${className}`}>
      <input
        type="checkbox"
        className="size-5 shrink-0 accent-[var(--ink)]"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  )
}
