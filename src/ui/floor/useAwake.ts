// Keeps the screen awake, and hears the buttons of headphones and presenters' clickers, while a session runs.
'use client'
import { useEffect, useState } from 'react'
import { writeWav } from '@/core/write/wav'

/** @returns false where the browser does not let the screen be kept awake. */
export function useAwake(on: boolean): boolean {
  const [kept, setKept] = useState(true)
  useEffect(() => {
    if (!on) return
    let lock: WakeLockSentinel | null = null
    let over = false
    const hold = async (): Promise<void> => {
      // What is hidden may sleep, and loses its hold; it takes it again when it is seen.
      if (document.visibilityState !== 'visible') return
      try {
        const held = await navigator.wakeLock.request('screen')
        if (over) return void held.release()
        lock = held
        setKept(true)
      } catch {
        setKept(false)
      }
    }
    const again = (): void => void hold()
    void hold()
    document.addEventListener('visibilitychange', again)
    return () => {
      over = true
      document.removeEventListener('visibilitychange', again)
      void lock?.release()
    }
  }, [on])
  return kept
}

export interface MediaButtons {
  main: () => void
  forward: () => void
  back: () => void
}

/** Browsers hand these buttons to whoever plays something long enough: silence, in a loop. */
const SILENCE_S = 6
const RATE = 8000

export function useMediaButtons(on: boolean, { main, forward, back }: MediaButtons): void {
  useEffect(() => {
    if (!on || !('mediaSession' in navigator)) return
    const wave = writeWav([new Float32Array(SILENCE_S * RATE)], RATE)
    const url = URL.createObjectURL(new Blob([new Uint8Array(wave)], { type: 'audio/wav' }))
    const silence = new Audio(url)
    silence.loop = true
    void silence.play().catch(() => {})
    return () => {
      silence.pause()
      URL.revokeObjectURL(url)
    }
  }, [on])
  useEffect(() => {
    if (!on || !('mediaSession' in navigator)) return
    const { mediaSession } = navigator
    const actions = { play: main, pause: main, nexttrack: forward, previoustrack: back } as const
    for (const [action, handler] of Object.entries(actions))
      mediaSession.setActionHandler(action as MediaSessionAction, handler)
    return () => {
      for (const action of Object.keys(actions)) mediaSession.setActionHandler(action as MediaSessionAction, null)
    }
  }, [on, main, forward, back])
}
