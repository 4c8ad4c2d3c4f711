// Whether this runs in a browser, and not while the server writes the page: what is worked out for every second of a
// session is worked out where it is shown.
'use client'
import { useSyncExternalStore } from 'react'

const never = (): (() => void) => () => {}

export const useIsBrowser = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  )
