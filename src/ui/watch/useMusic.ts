// The music under a video, as the page plays it: which piece when, how loud each is, and their samples.
'use client'
import { useEffect, useMemo, useState } from 'react'
import type { ShownSegment } from '@/core/cut/cut'
import type { Steps } from '@/core/sound/loudness'
import { bedOf, bedSteps, type BedPart, type MusicPiece } from '@/core/sound/music'
import { unpackSteps } from '@/core/sound/steps'
import type { Ms } from '@/core/units'

export interface WatchedMusic {
  parts: readonly BedPart[]
  pieces: readonly MusicPiece[]
  /** Of each piece; null for one that is not there yet. */
  steps: readonly (Steps | null)[]
  /** The whole bed; null where there is none yet. */
  bed: Steps | null
}

/** @param channels of the mix. */
export function useMusic(
  pieces: readonly MusicPiece[],
  { shown, outMs, channels }: { shown: readonly ShownSegment[]; outMs: Ms; channels: 1 | 2 },
): WatchedMusic {
  const [known, setKnown] = useState<ReadonlyMap<string, Steps>>(new Map())
  useEffect(() => {
    const halt = new AbortController()
    for (const { hash } of pieces)
      void fetch(`/api/music/${hash}/loudness?channels=${channels}`, { signal: halt.signal })
        .then(async (answer) => (answer.ok ? new Uint8Array(await answer.arrayBuffer()) : null))
        .then((bytes) => {
          if (bytes?.length) setKnown((before) => new Map(before).set(`${hash} ${channels}`, unpackSteps(bytes)))
        })
        .catch(() => undefined)
    return () => halt.abort()
  }, [pieces, channels])
  return useMemo(() => {
    const lengths = pieces.map(({ ms }) => ms)
    const parts = bedOf(shown, lengths)
    const steps = pieces.map(({ hash }) => known.get(`${hash} ${channels}`) ?? null)
    return { parts, pieces, steps, bed: bedSteps(parts, steps, outMs) }
  }, [pieces, shown, outMs, channels, known])
}

const ASKED_AGAIN_MS: Ms = 5000

/** Samples of pieces, decoded once each. */
export class MusicShelf {
  private readonly buffers = new Map<string, AudioBuffer | null>()

  /** Null until it has come; then `onCome` is called. */
  bufferOf(hash: string, context: BaseAudioContext, onCome: () => void): AudioBuffer | null {
    const known = this.buffers.get(hash)
    if (known !== undefined) return known
    this.buffers.set(hash, null)
    void fetch(`/api/music/${hash}`)
      .then((answer) => (answer.ok ? answer.arrayBuffer() : Promise.reject(new Error(String(answer.status)))))
      .then((bytes) => context.decodeAudioData(bytes))
      .then((buffer) => {
        this.buffers.set(hash, buffer)
        onCome()
      })
      // Not at once: it is asked for many times a second.
      .catch(() => setTimeout(() => this.buffers.delete(hash), ASKED_AGAIN_MS))
    return null
  }
}
