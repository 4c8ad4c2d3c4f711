// Plays the cut with its cues, in output time, and goes to an instant of it.
'use client'
import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import { cuesFor } from '@/core/cue/cues'
import type { Cut, ShownSegment } from '@/core/cut/cut'
import { cueLevel, type Mix } from '@/core/sound/mix'
import type { Ms } from '@/core/units'
import type { ReelFilm } from '../parts/ReelFilm'
import { useToldClock, useVideoClock, type VideoClock } from '../parts/useVideoClock'
import { CuePlayer } from './CuePlayer'
import { CutPlayer } from './CutPlayer'

interface Props {
  film: RefObject<ReelFilm | null>
  cut: Cut
  shown: readonly ShownSegment[]
  mix: Mix
  rate: number
}

export interface Playing {
  /** Of the output. */
  clock: VideoClock
  toggle: () => void
  /** @param outMs in output time. */
  seek: (outMs: Ms) => void
}

export function usePlayer({ film: filmRef, cut, shown, mix, rate }: Props): Playing & { playing: boolean } {
  const cutPlayer = useRef<CutPlayer | null>(null)
  const cuePlayer = useRef<CuePlayer | null>(null)
  const [playing, setPlaying] = useState(false)
  const cues = useMemo(() => cuesFor(shown), [shown])
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
  useEffect(() => {
    if (cuePlayer.current) cuePlayer.current.cues = cues
  }, [cues])
  useEffect(() => cuePlayer.current?.setLevels(mix.voice, cueLevel(mix)), [mix])
  useEffect(() => {
    if (cutPlayer.current) cutPlayer.current.speed = rate
  }, [rate])
  const toggle = useCallback(() => {
    const element = filmRef.current,
      player = cutPlayer.current
    if (!element || !player) return
    // Browsers allow sound only after a press, so the player is made on the first one.
    if (!cuePlayer.current) {
      cuePlayer.current = new CuePlayer(element, player)
      cuePlayer.current.cues = cues
      cuePlayer.current.setLevels(mix.voice, cueLevel(mix))
    }
    player.toggle()
  }, [filmRef, cues, mix])
  const seek = useCallback((outMs: Ms) => cutPlayer.current?.seek(outMs), [])
  return { clock, playing, toggle, seek }
}
