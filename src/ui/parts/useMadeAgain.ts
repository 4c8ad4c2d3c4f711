// Has the server make a page again that was made with another state of things than there is now.
'use client'
import { useEffect } from 'react'
import { useRouter } from 'next/navigation'

/** @param made what the page was made with, by its name. @param now what there is. */
export function useMadeAgain(made: string | undefined, now: string | undefined): void {
  const router = useRouter()
  useEffect(() => {
    if (made !== now) router.refresh()
  }, [made, now, router])
}
