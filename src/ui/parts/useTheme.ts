// Day or night: the system's choice until the user makes one, which is then kept.
'use client'
import { useSyncExternalStore } from 'react'
import { DAY_PALETTE, NIGHT_PALETTE, type Palette } from '@/core/look/palette'
import { THEME_KEY } from './themeScript'

export type Theme = 'day' | 'night'

function subscribe(tell: () => void): () => void {
  const watcher = new MutationObserver(tell)
  watcher.observe(document.documentElement, { attributeFilter: ['data-theme'] })
  return () => watcher.disconnect()
}

export function useTheme(): { theme: Theme; palette: Palette; change: () => void } {
  const theme = useSyncExternalStore<Theme>(
    subscribe,
    () => (document.documentElement.dataset.theme === 'night' ? 'night' : 'day'),
    () => 'day',
  )
  const change = (): void => {
    const next = theme === 'day' ? 'night' : 'day'
    localStorage.setItem(THEME_KEY, next)
    document.documentElement.dataset.theme = next
  }
  return { theme, palette: theme === 'night' ? NIGHT_PALETTE : DAY_PALETTE, change }
}
