// Has the score judged in a worker, so that neither keystroke nor picture waits for it. While one is judged only the
// newest of those that came since is kept.
'use client'
import { startTransition, useEffect, useRef, useState } from 'react'
import type { Judgement, ToldFinding } from '@/core/check/check'
import type { Score } from '@/core/score/score'
import type { Ms } from '@/core/units'

/** Judged when the hand rests: on a small machine even a thread of its own takes from the drawing of a keystroke. */
const PAUSE_MS: Ms = 120

/** @returns the newest judgement; null until there is one, which is not the same as nothing found. */
export function useJudgement(score: Score): Judgement<ToldFinding> | null {
  const [judgement, setJudgement] = useState<Judgement<ToldFinding> | null>(null)
  const ask = useRef<((score: Score) => void) | null>(null)
  useEffect(() => {
    const worker = new Worker(new URL('./judging.worker.ts', import.meta.url), { type: 'module' })
    let judging = false
    let waiting: Score | null = null
    const hand = (next: Score): void => {
      judging = true
      worker.postMessage(next)
    }
    worker.onmessage = ({ data }: MessageEvent<Judgement<ToldFinding>>): void => {
      judging = false
      // What is typed comes first.
      startTransition(() => setJudgement(data))
      if (waiting) hand(waiting)
      waiting = null
    }
    ask.current = (next) => {
      if (judging) waiting = next
      else hand(next)
    }
    return () => worker.terminate()
  }, [])
  useEffect(() => {
    const timer = setTimeout(() => ask.current?.(score), PAUSE_MS)
    return () => clearTimeout(timer)
  }, [score])
  return judgement
}
