// Plays the footage with its cues, and goes to an instant of the output.
'use client'
import { useCallback, useEffect, useMemo, useRef, type RefObject } from 'react'
import { cuesFor } from '@/core/cue/cues'
import { toOutput, toSource, type Cut, type ShownSegment } from '@/core/cut/cut'
import { cueLevel, type Mix } from '@/core/sound/mix'
import type { Ms } from '@/core/units'
import type { VideoClock } from '../parts/useVideoClock'
import { CuePlayer } from './CuePlayer'

interface Props {
  video: RefObject<HTMLVideoElement | null>
  clock: VideoClock
  cut: Cut
  shown: readonly ShownSegment[]
  mix: Mix
  rate: number
}

export interface Playing {
  toggle: () => void
  /** @param outMs in output time. */
  seek: (outMs: Ms) => void
}

export function usePlayer({ video: videoRef, clock, cut, shown, mix, rate }: Props): Playing {
  const player = useRef<CuePlayer | null>(null)
  const cues = useMemo(() => cuesFor(shown), [shown])
  const outMs = useCallback((filmedMs: Ms): Ms => toOutput(cut, 0, filmedMs) ?? cut.outMs, [cut])
  useEffect(
    () => clock.follow((filmedMs, shownAt) => player.current?.onFrame(outMs(filmedMs), shownAt)),
    [clock, outMs],
  )
  useEffect(() => {
    if (player.current) player.current.cues = cues
  }, [cues])
  useEffect(() => player.current?.setLevels(mix.voice, cueLevel(mix)), [mix])
  useEffect(() => {
    if (videoRef.current) videoRef.current.playbackRate = rate
  }, [videoRef, rate])
  useEffect(
    () => () => {
      player.current?.close()
      player.current = null
    },
    [],
  )
  const toggle = useCallback(() => {
    const element = videoRef.current
    if (!element) return
    if (!element.paused) return element.pause()
    // Browsers allow sound only after a press, so the player is made on the first one.
    if (!player.current) {
      player.current = new CuePlayer(element)
      player.current.cues = cues
      player.current.setLevels(mix.voice, cueLevel(mix))
    }
    void element.play().catch(() => {})
  }, [videoRef, cues, mix])
  const seek = useCallback(
    (ms: Ms) => {
      const at = toSource(cut, Math.max(0, Math.min(cut.outMs - 1, ms)))
      if (videoRef.current && at) videoRef.current.currentTime = at.ms / 1000
    },
    [videoRef, cut],
  )
  return { toggle, seek }
}
