// Numbers and names edited in place: typed freely, kept on Enter or on leaving, put back on Escape. What is wrong stays
// in the field, with what would be right, until it is mended or put back.
'use client'
import { useId, useRef, useState, type ReactNode } from 'react'
import { formatLength, parseLength } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { texts } from '@/core/words/en/screens'
import { clipped } from '@/core/text'
import { useMoveOffers } from './MoveNames'

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
  /** Names of moves are offered while it is typed. */
  offersMoves?: boolean
  /** Each value while it is typed, before it is kept. */
  onTyped?: (value: T) => void
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
  offersMoves = false,
  onTyped,
  autoFocus = false,
  onEnter,
  wide = false,
}: TypedProps<T>): ReactNode {
  const [draft, setDraft] = useState<string | null>(null)
  const abandoned = useRef(false)
  const id = useId()
  const shown = draft ?? write(value)
  const wrong = draft !== null && read(draft) === null
  const offers = useMoveOffers(offersMoves, draft, setDraft)
  const leave = (): void => {
    const next = draft === null || abandoned.current ? null : read(draft)
    if (!wrong || abandoned.current) setDraft(null)
    abandoned.current = false
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
        autoFocus={autoFocus}
        data-kept={draft === null ? '' : undefined}
        aria-invalid={wrong}
        aria-describedby={wrong ? `${id}-why` : undefined}
        autoComplete="off"
        spellCheck={false}
        className={`min-h-9 min-w-0 border-b-2 bg-transparent px-1.5 text-ellipsis tabular-nums hover:bg-pale focus:bg-pale placeholder:text-quiet/70 ${wrong ? 'border-signal' : 'border-rule focus:border-ink'} ${className}`}
        {...offers.aria}
        onChange={(event) => {
          setDraft(event.target.value)
          const typed = onTyped && read(event.target.value)
          if (typed !== undefined && typed !== null) onTyped?.(typed)
        }}
        onFocus={(event) => event.target.select()}
        onBlur={leave}
        onKeyDown={(event) => {
          if (offers.onKey(event)) return
          if (event.key === 'Enter' && !wrong) {
            event.currentTarget.blur()
            onEnter?.(event.currentTarget.value)
          }
          if (event.key === 'Escape') {
            abandoned.current = true
            event.currentTarget.blur()
          }
        }}
      />
      {wrong && <Complaint id={`${id}-why`}>{complaint}</Complaint>}
      {offers.list}
    </span>
  )
}

function Complaint({ id, children }: { id: string; children: string }): ReactNode {
  return (
    <span
      id={id}
      role="alert"
      className="absolute top-full left-0 z-20 mt-1 w-max max-w-64 bg-signal px-2 py-1 text-sm text-paper"
    >
      {children}
    </span>
  )
}

type Plain<T> = Omit<TypedProps<T>, 'write' | 'read' | 'complaint' | 'onTyped'>

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
