// Plays the cut with its cues, in output time, and goes to an instant of it.
'use client'
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react'
import type { Cut } from '@/core/cut/cut'
import type { Ms } from '@/core/units'
import type { ReelFilm } from '../parts/ReelFilm'
import { useToldClock, useVideoClock, type VideoClock } from '../parts/useVideoClock'
import { CuePlayer, type Heard } from './CuePlayer'
import { CutPlayer } from './CutPlayer'

interface Props {
  film: RefObject<ReelFilm | null>
  cut: Cut
  heard: Heard
  rate: number
}

export interface Playing {
  /** Of the output. */
  clock: VideoClock
  toggle: () => void
  /** @param outMs in output time. */
  seek: (outMs: Ms) => void
}

export function usePlayer({ film: filmRef, cut, heard, rate }: Props): Playing & { playing: boolean } {
  const cutPlayer = useRef<CutPlayer | null>(null)
  const cuePlayer = useRef<CuePlayer | null>(null)
  const [playing, setPlaying] = useState(false)
  const first = useRef(cut)
  const { clock: filmClock } = useVideoClock(filmRef)
  const nowMs = useCallback(() => cutPlayer.current?.nowMs ?? 0, [])
  const { clock, tell } = useToldClock(nowMs)
  useEffect(() => {
    const element = filmRef.current
    if (!element) return
    const player = new CutPlayer(element, first.current, {
      playing: setPlaying,
      frame: (outMs, shownAt) => {
        cuePlayer.current?.onFrame(outMs, shownAt)
        tell(outMs, shownAt)
      },
    })
    cutPlayer.current = player
    const ended = filmClock.follow((filmedMs, shownAt) => player.onFrame(filmedMs, shownAt))
    const paused = (): void => player.onPaused(element.ended)
    element.addEventListener('pause', paused)
    return () => {
      ended()
      element.removeEventListener('pause', paused)
      player.close()
      cuePlayer.current?.close()
      cuePlayer.current = null
    }
  }, [filmRef, filmClock, tell])
  useEffect(() => cutPlayer.current?.change(cut), [cut])
  useEffect(() => cuePlayer.current?.change(heard), [heard])
  useEffect(() => {
    if (cutPlayer.current) cutPlayer.current.speed = rate
  }, [rate])
  const toggle = useCallback(() => {
    const element = filmRef.current,
      player = cutPlayer.current
    if (!element || !player) return
    // Browsers allow sound only after a press, so the player is made on the first one.
    cuePlayer.current ??= new CuePlayer(element, player, heard)
    player.toggle()
  }, [filmRef, heard])
  const seek = useCallback((outMs: Ms) => cutPlayer.current?.seek(outMs), [])
  return { clock, playing, toggle, seek }
}
