// A loudness slider.
'use client'
import { Slider } from 'radix-ui'
import type { ReactNode } from 'react'

interface Props {
  label: string
  value: number
  disabled?: boolean
  onChange: (value: number) => void
}

export function Level({ label, value, disabled = false, onChange }: Props): ReactNode {
  return (
    <span className={`flex items-center gap-3 ${disabled ? 'opacity-45' : ''}`}>
      <span className="text-quiet">{label}</span>
      <Slider.Root
        value={[value]}
        min={0}
        max={1}
        step={0.05}
        disabled={disabled}
        onValueChange={([next]) => onChange(next ?? value)}
        className="relative flex h-9 w-28 touch-none items-center"
      >
        <Slider.Track className="relative h-1.5 grow bg-rule">
          <Slider.Range className="absolute h-full bg-ink" />
        </Slider.Track>
        <Slider.Thumb aria-label={label} className="block h-7 w-3.5 border-2 border-ink bg-land" />
      </Slider.Root>
    </span>
  )
}
