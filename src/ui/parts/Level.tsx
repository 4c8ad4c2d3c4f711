// A loudness slider.
'use client'
import { Slider } from 'radix-ui'
import type { ReactNode } from 'react'

interface Props {
  label: string
  value: number
  /** Default: a share, 0 to 1. */
  range?: { least: number; most: number; step: number }
  /** What stands beside it, e.g. its unit. */
  told?: string
  disabled?: boolean
  onChange: (value: number) => void
}

const SHARE = { least: 0, most: 1, step: 0.05 } as const

export function Level({ label, value, range = SHARE, told, disabled = false, onChange }: Props): ReactNode {
  return (
    <span className={`flex items-center gap-3 ${disabled ? 'opacity-45' : ''}`}>
      <span className="text-quiet">{label}</span>
      <Slider.Root
        value={[value]}
        min={range.least}
        max={range.most}
        step={range.step}
        disabled={disabled}
        onValueChange={([next]) => onChange(next ?? value)}
        className="relative flex h-9 w-28 touch-none items-center"
      >
        <Slider.Track className="relative h-1.5 grow bg-rule">
          <Slider.Range className="absolute h-full bg-ink" />
        </Slider.Track>
        <Slider.Thumb aria-label={label} className="block h-7 w-3.5 border-2 border-ink bg-land" />
      </Slider.Root>
      {told !== undefined && <span className="w-14 text-right tabular-nums">{told}</span>}
    </span>
  )
}
