// The picture's own time: from `requestVideoFrameCallback`, which tells the frame that is on screen, not a guess.
'use client'
import { useEffect, useState, type RefObject } from 'react'
import type { Ms } from '@/core/units'

/**
 * @param onFrame called for every new frame with its media time (ms) and the page time (ms) at which it is shown.
 * @returns the shown frame's time, refreshed with every frame, and whether the video runs.
 */
export function useVideoClock(
  video: RefObject<HTMLVideoElement | null>,
  onFrame?: (mediaMs: Ms, shownAt: number) => void,
): { nowMs: Ms; playing: boolean } {
  const [nowMs, setNowMs] = useState(0)
  const [playing, setPlaying] = useState(false)
  useEffect(() => {
    const element = video.current
    if (!element) return
    let handle = 0
    const show = (mediaMs: Ms, shownAt: number): void => {
      setNowMs(mediaMs)
      onFrame?.(mediaMs, shownAt)
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
  }, [video, onFrame])
  return { nowMs, playing }
}
