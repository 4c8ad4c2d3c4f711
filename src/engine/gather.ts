// All that can be heard and seen in a recording, at once: sound and picture are decoded beside each other.
import { byTime, type Evidence } from '../core/evidence'
import type { PeakLevel } from '../core/hear/peaks'
import { Problem } from '../core/problem'
import type { Share } from '../core/units'
import { listenTo, type ListenOptions } from './listen'
import type { FootageFacts } from './probe'
import { watchMovement } from './watch'

export interface Gathered {
  /** In order of time. */
  evidence: Evidence[]
  /** None where there is no sound. */
  peaks: PeakLevel[] | null
  /** Why some kind of evidence was not listened for. */
  deaf: Problem | null
  /** Why movement was not looked for. */
  blind: Problem | null
}

/** @throws Problem `tool-failed` where the sound cannot be read, `tool-missing` or `cancelled`. */
export async function gatherEvidence(
  path: string,
  facts: FootageFacts,
  { signal, onProgress, ...options }: ListenOptions = {},
): Promise<Gathered> {
  const ended = new AbortController()
  const shared = { signal: signal ? AbortSignal.any([signal, ended.signal]) : ended.signal }
  const done = { heard: facts.audioCodec === null ? 1 : 0, seen: 0 }
  const progressOf =
    (part: keyof typeof done) =>
    (share: Share): void => {
      done[part] = share
      onProgress?.(Math.min(done.heard, done.seen))
    }
  const hearing =
    facts.audioCodec === null ? null : listenTo(path, facts, { ...options, ...shared, onProgress: progressOf('heard') })
  const watching = watchMovement(path, facts, { ...shared, onProgress: progressOf('seen') }).then(
    (movement) => ({ movement, blind: null }),
    (error: unknown) => {
      // A picture that breaks off is no reason not to use the sound.
      if (!(error instanceof Problem) || error.code !== 'tool-failed') throw error
      progressOf('seen')(1)
      return { movement: [], blind: error }
    },
  )
  try {
    const [heard, { movement, blind }] = await Promise.all([hearing, watching])
    const evidence = [...(heard?.evidence ?? []), ...movement].sort(byTime)
    return { evidence, peaks: heard?.peaks ?? null, deaf: heard?.deaf ?? null, blind }
  } catch (error) {
    ended.abort()
    await Promise.allSettled([hearing, watching])
    throw error
  }
}
