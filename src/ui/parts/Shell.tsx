// What every page stands in: tooltips, toasts, and whether it was entered by a passphrase.
'use client'
import { Tooltip } from 'radix-ui'
import { createContext, useContext, type ReactNode } from 'react'
import { Toaster } from 'sonner'
import { texts } from '@/core/words/en/screens'
import { useFocusKept } from './useFocusKept'

const MayLeave = createContext(false)
/** Whether this browser came in by the passphrase, so that there is a way out. */
export const useMayLeave = (): boolean => useContext(MayLeave)

export function Shell({ mayLeave, children }: { mayLeave: boolean; children: ReactNode }): ReactNode {
  useFocusKept()
  return (
    <Tooltip.Provider delayDuration={500}>
      <a
        href="#content"
        className="sr-only focus:not-sr-only focus:fixed focus:top-2 focus:left-2 focus:z-50 focus:bg-land focus:px-4 focus:py-2 focus:font-bold focus:text-print"
      >
        {texts.skip}
      </a>
      <MayLeave value={mayLeave}>{children}</MayLeave>
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
