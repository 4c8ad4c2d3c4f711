// How far the session is played: all of it, the surroundings of its changes only, or two seconds round and round.
'use client'
import { useEffect, useMemo, useRef, useState } from 'react'
import { AROUND_MS } from '@/core/proof/changes'
import { windowsAround } from '@/core/proof/proof'
import type { Ms } from '@/core/units'
import type { VideoClock } from '../parts/useVideoClock'

export const PLAY_MODES = ['whole', 'changes', 'loop'] as const
export type PlayMode = (typeof PLAY_MODES)[number]

const HALF_LOOP_MS: Ms = 1000
/** A seek to a window's beginning may land a picture before it. */
const GRACE_MS: Ms = 60

interface Props {
  clock: VideoClock
  seek: (outMs: Ms) => void
  changes: readonly { atMs: Ms }[]
  outMs: Ms
}

export function usePlayMode({ clock, seek, changes, outMs }: Props): {
  mode: PlayMode
  setMode: (mode: PlayMode) => void
} {
  const [mode, setMode] = useState<PlayMode>('whole')
  const middle = useRef<Ms>(0)
  const windows = useMemo(() => windowsAround(changes, AROUND_MS, outMs), [changes, outMs])
  useEffect(() => {
    if (mode === 'whole') return
    if (mode === 'loop') middle.current = Math.min(outMs - HALF_LOOP_MS, Math.max(HALF_LOOP_MS, clock.nowMs()))
    return clock.follow((nowMs) => {
      if (mode === 'loop') {
        const fromMs = middle.current - HALF_LOOP_MS,
          untilMs = middle.current + HALF_LOOP_MS
        // Somebody went elsewhere: it is that place that is to be heard.
        if (nowMs < fromMs - GRACE_MS || nowMs > untilMs + HALF_LOOP_MS)
          middle.current = Math.min(outMs - HALF_LOOP_MS, Math.max(HALF_LOOP_MS, nowMs))
        else if (nowMs >= untilMs) seek(fromMs)
        return
      }
      if (windows.some(({ fromMs, untilMs }) => nowMs >= fromMs - GRACE_MS && nowMs < untilMs)) return
      const next = windows.find(({ fromMs }) => fromMs > nowMs)
      if (next) seek(next.fromMs)
    })
  }, [mode, clock, seek, windows, outMs])
  return { mode, setMode }
}
