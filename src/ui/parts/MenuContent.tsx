// What a menu opens, over everything else.
import { DropdownMenu } from 'radix-ui'
import type { ReactNode } from 'react'

interface Props {
  align: 'start' | 'end'
  className?: string
  children: ReactNode
}

export function MenuContent({ align, className = '', children }: Props): ReactNode {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align={align}
        sideOffset={4}
        className={`z-40 border-t-8 border-land bg-paper p-2 shadow-2xl ${className}`}
      >
        {children}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  )
}
