// What every page stands in: tooltips and toasts.
'use client'
import { Tooltip } from 'radix-ui'
import type { ReactNode } from 'react'
import { Toaster } from 'sonner'

export function Shell({ children }: { children: ReactNode }): ReactNode {
  return (
    <Tooltip.Provider delayDuration={500}>
      {children}
      <Toaster
        position="top-center"
        offset={76}
        toastOptions={{
          unstyled: true,
          classNames: {
            toast:
              'flex w-[400px] items-center gap-4 border-l-8 border-land bg-bar p-4 font-text text-on-bar shadow-2xl',
            actionButton: 'ml-auto shrink-0 bg-land px-3 py-1.5 font-bold text-print',
            error: '!border-signal',
          },
        }}
      />
    </Tooltip.Provider>
  )
}
