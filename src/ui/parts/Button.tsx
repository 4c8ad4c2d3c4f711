// The three weights of button, and the square one that holds an icon.
import type { ButtonHTMLAttributes, ReactNode } from 'react'
import { Tooltip } from 'radix-ui'

type Weight = 'main' | 'plain' | 'bare'

const WEIGHTS: Record<Weight, string> = {
  main: 'bg-land text-print hover:brightness-105 cut-block px-5',
  plain: 'border-2 border-ink text-ink hover:bg-ink hover:text-paper px-4',
  bare: 'text-ink hover:bg-ink hover:text-paper px-3',
}

/** A link that looks like a plain button. */
export const PLAIN_LINK = `inline-flex min-h-10 items-center font-bold ${WEIGHTS.plain}`

export interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  weight?: Weight
  icon?: ReactNode
}

export function Button({ weight = 'plain', icon, children, className = '', ...rest }: ButtonProps): ReactNode {
  return (
    <button
      type="button"
      className={`inline-flex min-h-10 shrink-0 items-center justify-center gap-2 font-bold whitespace-nowrap disabled:opacity-45 ${WEIGHTS[weight]} ${className}`}
      {...rest}
    >
      {icon}
      {children}
    </button>
  )
}

export function IconButton({
  label,
  children,
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { label: string }): ReactNode {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        <button
          type="button"
          aria-label={label}
          className={`inline-grid size-9 shrink-0 place-items-center hover:bg-ink hover:text-paper disabled:pointer-events-none disabled:opacity-35 ${className}`}
          {...rest}
        >
          {children}
        </button>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content sideOffset={6} className="z-50 max-w-64 bg-bar px-3 py-1.5 text-sm text-on-bar">
          {label}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  )
}
