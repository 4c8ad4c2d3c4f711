// The picture's own time: told by the film of each frame that is on screen, not guessed. It is followed, not rendered:
// a page that drew itself anew for every frame could not keep up with the video.
'use client'
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react'
import type { Ms } from '@/core/units'
import type { ReelFilm } from './ReelFilm'

/** Told of every new frame: its media time (ms), and the page time (ms) at which it is shown. */
export type FrameListener = (mediaMs: Ms, shownAt: number) => void

export interface VideoClock {
  /** The time of the frame that is on screen. */
  nowMs: () => Ms
  /** @returns what ends it. */
  follow: (listener: FrameListener) => () => void
}

/**
 * A clock that is told of frames by whoever shows them, the same for as long as the component lives.
 * @param nowMs one and the same for as long.
 */
export function useToldClock(nowMs: () => Ms): { clock: VideoClock; tell: FrameListener } {
  const [told] = useState(() => {
    const listeners = new Set<FrameListener>()
    const clock: VideoClock = {
      nowMs,
      follow: (listener) => {
        listeners.add(listener)
        return () => void listeners.delete(listener)
      },
    }
    const tell: FrameListener = (mediaMs, shownAt) => {
      for (const listener of listeners) listener(mediaMs, shownAt)
    }
    return { clock, tell }
  })
  return told
}

/** @returns the clock of a film, the same for as long as the component lives, and whether it runs. */
export function useVideoClock(film: RefObject<ReelFilm | null>): { clock: VideoClock; playing: boolean } {
  const shown = useRef<Ms>(0)
  const [playing, setPlaying] = useState(false)
  const nowMs = useCallback(() => shown.current, [])
  const { clock, tell } = useToldClock(nowMs)
  useEffect(() => {
    const element = film.current
    if (!element) return
    const show: FrameListener = (mediaMs, shownAt) => {
      shown.current = mediaMs
      tell(mediaMs, shownAt)
    }
    const stop = element.followFrames((frame) => show(frame.mediaTime * 1000, frame.expectedDisplayTime))
    const sync = (): void => setPlaying(!element.paused && !element.ended)
    // While it stands still, a seek need not bring a frame that a browser without a window tells of.
    const seeked = (): void => {
      if (element.paused) show(element.currentTime * 1000, performance.now())
    }
    element.addEventListener('seeked', seeked)
    const events = ['play', 'pause', 'ended'] as const
    for (const name of events) element.addEventListener(name, sync)
    return () => {
      stop()
      element.removeEventListener('seeked', seeked)
      for (const name of events) element.removeEventListener(name, sync)
    }
  }, [film, tell])
  return { clock, playing }
}

/** The clock's time in whole steps: a component that shows it is drawn once a step, not once a frame. */
export function useSteps(clock: VideoClock, stepMs: Ms): Ms {
  const [step, setStep] = useState(() => Math.floor(clock.nowMs() / stepMs))
  useEffect(() => clock.follow((ms) => setStep(Math.floor(ms / stepMs))), [clock, stepMs])
  return step * stepMs
}
