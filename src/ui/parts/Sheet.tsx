// A dialog: one question or one form, over everything else.
'use client'
import type { ReactNode } from 'react'
import { Dialog } from 'radix-ui'

interface SheetProps {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  hint?: string
  children: ReactNode
  mustAnswer?: boolean
  wide?: boolean
  /** Nothing in it has the focus at first: a hint that opens with it would take the first Escape. */
  calm?: boolean
}

export function Sheet({
  open,
  onOpenChange,
  title,
  hint,
  children,
  mustAnswer = false,
  wide = false,
  calm = false,
}: SheetProps): ReactNode {
  const stay = (event: Event): void => {
    if (mustAnswer) event.preventDefault()
  }
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-bar/70" />
        <Dialog.Content
          onEscapeKeyDown={stay}
          onInteractOutside={stay}
          onOpenAutoFocus={(event) => {
            if (!calm) return
            event.preventDefault()
            if (event.target instanceof HTMLElement) event.target.focus()
          }}
          {...(hint ? {} : { 'aria-describedby': undefined })}
          className={`fixed left-1/2 z-50 -translate-x-1/2 overflow-y-auto border-t-8 border-land bg-paper p-7 shadow-2xl outline-none ${wide ? 'top-[6vh] max-h-[88vh] w-[min(94vw,820px)]' : 'top-[14vh] max-h-[80vh] w-[min(94vw,520px)]'}`}
        >
          <Dialog.Title className="font-display text-3xl">{title}</Dialog.Title>
          {hint && <Dialog.Description className="mt-2 text-quiet">{hint}</Dialog.Description>}
          <div className="mt-5">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
