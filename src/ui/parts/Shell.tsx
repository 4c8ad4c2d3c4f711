// What every page stands in: tooltips and toasts.
'use client'
import { Tooltip } from 'radix-ui'
import type { ReactNode } from 'react'
import { Toaster } from 'sonner'
import { texts } from '@/core/words/en/screens'
import { useFocusKept } from './useFocusKept'

export function Shell({ children }: { children: ReactNode }): ReactNode {
  useFocusKept()
  return (
    <Tooltip.Provider delayDuration={500}>
      <a
        href="#content"
        className="sr-only focus:not-sr-only focus:fixed focus:top-2 focus:left-2 focus:z-50 focus:bg-land focus:px-4 focus:py-2 focus:font-bold focus:text-print"
      >
        {texts.skip}
      </a>
      {children}
      <Toaster
        position="top-center"
        offset={76}
        toastOptions={{
          unstyled: true,
          classNames: {
            toast:
              'pointer-events-none flex w-[min(400px,92vw)] items-center gap-4 border-l-8 border-land bg-bar p-4 font-text text-on-bar shadow-2xl',
            actionButton: 'pointer-events-auto ml-auto shrink-0 bg-land px-3 py-1.5 font-bold text-print',
            error: '!border-signal',
          },
        }}
      />
    </Tooltip.Provider>
  )
}
