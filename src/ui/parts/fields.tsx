// Numbers and names edited in place: typed freely, kept on Enter or on leaving, put back on Escape, explained when
// wrong.
'use client'
import { useId, useRef, useState, type ReactNode } from 'react'
import { formatLength, parseLength } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { texts } from '@/core/words/en/screens'
import { clipped } from '@/core/text'

interface TypedProps<T> {
  label: string
  value: T
  write: (value: T) => string
  /** Null when the text is no such value. */
  read: (text: string) => T | null
  complaint: string
  onChange: (value: T) => void
  className?: string
  placeholder?: string
  showLabel?: boolean
  /** What is seen above the field, where the label says more. */
  caption?: string
  list?: string
  autoFocus?: boolean
  /** After what was typed is kept by Enter. */
  onEnter?: (text: string) => void
  /** Takes the whole width of what it stands in. */
  wide?: boolean
}

export function TypedField<T>({
  label,
  value,
  write,
  read,
  complaint,
  onChange,
  className = '',
  placeholder,
  showLabel = false,
  caption,
  list,
  autoFocus = false,
  onEnter,
  wide = false,
}: TypedProps<T>): ReactNode {
  const [draft, setDraft] = useState<string | null>(null)
  const abandoned = useRef(false)
  const id = useId()
  const shown = draft ?? write(value)
  const wrong = draft !== null && read(draft) === null
  const leave = (): void => {
    const next = draft === null || abandoned.current ? null : read(draft)
    abandoned.current = false
    setDraft(null)
    if (next !== null && write(next) !== write(value)) onChange(next)
  }
  return (
    <span className={`relative flex-col gap-0.5 ${wide ? 'flex w-full' : 'inline-flex'}`}>
      {caption && (
        <span aria-hidden className="text-[13px] text-quiet">
          {caption}
        </span>
      )}
      <label htmlFor={id} className={showLabel ? 'text-[13px] text-quiet' : 'sr-only'}>
        {label}
      </label>
      <input
        id={id}
        value={shown}
        placeholder={placeholder}
        list={list}
        autoFocus={autoFocus}
        data-kept={draft === null ? '' : undefined}
        aria-invalid={wrong}
        aria-describedby={wrong ? `${id}-why` : undefined}
        autoComplete="off"
        spellCheck={false}
        className={`min-h-9 min-w-0 border-b-2 bg-transparent px-1.5 text-ellipsis tabular-nums hover:bg-pale focus:bg-pale placeholder:text-quiet/70 ${wrong ? 'border-signal' : 'border-rule focus:border-ink'} ${className}`}
        onChange={(event) => setDraft(event.target.value)}
        onFocus={(event) => event.target.select()}
        onBlur={leave}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.currentTarget.blur()
            if (!wrong) onEnter?.(event.currentTarget.value)
          }
          if (event.key === 'Escape') {
            abandoned.current = true
            event.currentTarget.blur()
          }
        }}
      />
      {wrong && (
        <span
          id={`${id}-why`}
          role="alert"
          className="absolute top-full left-0 z-20 mt-1 w-max max-w-64 bg-signal px-2 py-1 text-sm text-paper"
        >
          {complaint}
        </span>
      )}
    </span>
  )
}

type Plain<T> = Omit<TypedProps<T>, 'write' | 'read' | 'complaint'>

/** A length of time, typed as 45, 1:15 or 2m 30s. */
export function LengthField(props: Plain<Ms>): ReactNode {
  return (
    <TypedField
      {...props}
      write={formatLength}
      read={parseLength}
      complaint={texts.score.badLength}
      className={`w-18 text-right font-display text-xl ${props.className ?? ''}`}
    />
  )
}

/** A length that may be left empty; `placeholder` shows what then holds. */
/** @param read how a typed length is understood. */
export function OptionalLengthField({
  read = parseLength,
  ...props
}: Plain<Ms | null> & { read?: (text: string) => Ms | null }): ReactNode {
  return (
    <TypedField<{ ms: Ms | null }>
      {...props}
      value={{ ms: props.value }}
      onChange={({ ms }) => props.onChange(ms)}
      write={({ ms }) => (ms === null ? '' : formatLength(ms))}
      read={(text) => {
        if (!text.trim()) return { ms: null }
        const ms = read(text)
        return ms === null ? null : { ms }
      }}
      complaint={texts.score.badLength}
      className={`w-18 text-right font-display text-xl ${props.className ?? ''}`}
    />
  )
}

export function CountField({ low, high, ...props }: Plain<number> & { low: number; high: number }): ReactNode {
  const read = (text: string): number | null => {
    const value = Number(text)
    return /^\s*\d+\s*$/.test(text) && value >= low && value <= high ? value : null
  }
  return (
    <TypedField
      {...props}
      write={String}
      read={read}
      complaint={texts.score.badCount(low, high)}
      className={`w-14 text-right font-display text-xl ${props.className ?? ''}`}
    />
  )
}

/** A whole number that may be left empty. */
export function OptionalCountField({
  low,
  high,
  ...props
}: Plain<number | null> & { low: number; high: number }): ReactNode {
  return (
    <TypedField<{ count: number | null }>
      {...props}
      value={{ count: props.value }}
      onChange={({ count }) => props.onChange(count)}
      write={({ count }) => (count === null ? '' : String(count))}
      read={(text) => {
        if (!text.trim()) return { count: null }
        const count = Number(text)
        return /^\s*\d+\s*$/.test(text) && count >= low && count <= high ? { count } : null
      }}
      complaint={texts.score.badCount(low, high)}
      className={`w-14 text-right font-display text-xl ${props.className ?? ''}`}
    />
  )
}

export function NameField(props: Plain<string>): ReactNode {
  return <TypedField {...props} write={(value) => value} read={(text) => clipped(text, 300)} complaint="" />
}

interface ChoiceProps<T extends string> {
  label: string
  value: T
  options: Partial<Record<T, string>>
  onChange: (value: T) => void
  showLabel?: boolean
  /** What is seen above the field, where the label says more. */
  caption?: string
  className?: string
}

export function ChoiceField<T extends string>({
  label,
  value,
  options,
  onChange,
  showLabel = false,
  caption,
  className = '',
}: ChoiceProps<T>): ReactNode {
  const id = useId()
  return (
    <span className="inline-flex flex-col gap-0.5">
      {caption && (
        <span aria-hidden className="text-[13px] text-quiet">
          {caption}
        </span>
      )}
      <label htmlFor={id} className={showLabel ? 'text-[13px] text-quiet' : 'sr-only'}>
        {label}
      </label>
      <select
        id={id}
        value={value}
        onChange={(event) => onChange(event.target.value as T)}
        className={`min-h-9 border-b-2 border-rule bg-transparent px-1 hover:bg-pale focus:border-ink ${className}`}
      >
        {(Object.entries(options) as [T, string][]).map(([key, text]) => (
          <option key={key} value={key} className="bg-paper text-ink">
            {text}
          </option>
        ))}
      </select>
    </span>
  )
}
