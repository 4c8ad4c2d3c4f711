// The picture's own time: from `requestVideoFrameCallback`, which tells the frame that is on screen, not a guess. It is
// followed, not rendered: a page that drew itself anew for every frame could not keep up with the video.
'use client'
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import type { Ms } from '@/core/units'

/** Told of every new frame: its media time (ms), and the page time (ms) at which it is shown. */
export type FrameListener = (mediaMs: Ms, shownAt: number) => void

export interface VideoClock {
  /** The time of the frame that is on screen. */
  nowMs: () => Ms
  /** @returns what ends it. */
  follow: (listener: FrameListener) => () => void
}

/** @returns the clock of a video, the same for as long as the component lives, and whether the video runs. */
export function useVideoClock(video: RefObject<HTMLVideoElement | null>): { clock: VideoClock; playing: boolean } {
  const shown = useRef<Ms>(0)
  const listeners = useRef(new Set<FrameListener>())
  const [playing, setPlaying] = useState(false)
  const clock = useMemo<VideoClock>(
    () => ({
      nowMs: () => shown.current,
      follow: (listener) => {
        listeners.current.add(listener)
        return () => void listeners.current.delete(listener)
      },
    }),
    [],
  )
  useEffect(() => {
    const element = video.current
    if (!element) return
    let handle = 0
    const show: FrameListener = (mediaMs, shownAt) => {
      shown.current = mediaMs
      for (const listener of listeners.current) listener(mediaMs, shownAt)
    }
    const frame = (_now: number, data: VideoFrameCallbackMetadata): void => {
      show(data.mediaTime * 1000, data.expectedDisplayTime)
      handle = element.requestVideoFrameCallback(frame)
    }
    handle = element.requestVideoFrameCallback(frame)
    const sync = (): void => setPlaying(!element.paused && !element.ended)
    // While it stands still, a seek need not bring a frame that a browser without a window tells of.
    const seeked = (): void => {
      if (element.paused) show(element.currentTime * 1000, performance.now())
    }
    element.addEventListener('seeked', seeked)
    const events = ['play', 'pause', 'ended'] as const
    for (const name of events) element.addEventListener(name, sync)
    return () => {
      element.cancelVideoFrameCallback(handle)
      element.removeEventListener('seeked', seeked)
      for (const name of events) element.removeEventListener(name, sync)
    }
  }, [video])
  return { clock, playing }
}

/** The clock's time in whole steps: a component that shows it is drawn once a step, not once a frame. */
export function useSteps(clock: VideoClock, stepMs: Ms): Ms {
  const [step, setStep] = useState(() => Math.floor(clock.nowMs() / stepMs))
  useEffect(() => clock.follow((ms) => setStep(Math.floor(ms / stepMs))), [clock, stepMs])
  return step * stepMs
}
