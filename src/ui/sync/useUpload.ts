// Sends footage by the tus protocol: in pieces, taken up again where it broke off, even after a reload with the same
// file.
'use client'
import { useCallback, useRef, useState } from 'react'
import { Upload } from 'tus-js-client'
import { reelTexts } from '@/core/words/en/reel'
import { texts } from '@/core/words/en/screens'

const PIECE_BYTES = 16 * 1024 * 1024

export interface UploadState {
  name: string
  share: number
  leftMs: number | null
  brokenOff: boolean
  /** How many wait behind it. */
  waiting: number
}

interface Waiting {
  file: File
  /** The footage whose place it takes. */
  replaces: string | null
}

interface Queue {
  waiting: Waiting[]
  running: Upload | null
  busy: boolean
}

export function useUpload(workoutId: string): {
  upload: UploadState | null
  /** What became of files that were not taken. */
  problem: string | null
  /** Sends a file, after those that are being sent. */
  send: (file: File, replaces?: string) => void
  /** Gives up the file that is being sent, and what waits behind it. */
  cancel: () => void
} {
  const [upload, setUpload] = useState<UploadState | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const kept = useRef<Queue>({ waiting: [], running: null, busy: false })

  const send = useCallback(
    (file: File, replaces?: string): void => {
      const queue = kept.current
      if (!queue.busy) setProblem(null)
      queue.waiting.push({ file, replaces: replaces ?? null })
      setUpload((now) => now && { ...now, waiting: queue.waiting.length })
      if (!queue.busy) void next()
      async function next(): Promise<void> {
        const one = queue.waiting.shift()
        queue.busy = one !== undefined
        if (!one) return setUpload(null)
        const show = (state: Pick<UploadState, 'share' | 'leftMs'>): void =>
          setUpload({ ...state, name: one.file.name, brokenOff: false, waiting: queue.waiting.length })
        const failed = (reason: string): void => {
          const line = reelTexts.failed(one.file.name, reason)
          setProblem((before) => (before ? `${before} ${line}` : line))
          void next()
        }
        if (!one.file.size) return failed(texts.sync.empty)
        show({ share: 0, leftMs: null })
        const task = uploadOf(workoutId, one, {
          onShow: show,
          onBrokenOff: () => setUpload((now) => now && { ...now, brokenOff: true }),
          onError: failed,
          onSuccess: () => void next(),
        })
        queue.running = task
        const [earlier] = await task.findPreviousUploads()
        if (earlier) task.resumeFromPreviousUpload(earlier)
        task.start()
      }
    },
    [workoutId],
  )

  const cancel = useCallback(() => {
    const queue = kept.current
    queue.waiting.length = 0
    queue.busy = false
    void queue.running?.abort(true).catch(() => {})
    setUpload(null)
  }, [])
  return { upload, problem, send, cancel }
}

interface Told {
  onShow: (state: Pick<UploadState, 'share' | 'leftMs'>) => void
  onBrokenOff: () => void
  onError: (reason: string) => void
  onSuccess: () => void
}

function uploadOf(workoutId: string, { file, replaces }: Waiting, told: Told): Upload {
  let started: { at: number; bytes: number } | null = null
  return new Upload(file, {
    endpoint: '/api/uploads',
    chunkSize: PIECE_BYTES,
    metadata: { filename: file.name, workoutId, ...(replaces ? { replaces } : {}) },
    retryDelays: [0, 1000, 2000, 4000, 8000, 8000, 8000, 15_000, 15_000, 30_000],
    removeFingerprintOnSuccess: true,
    fingerprint: (input) =>
      Promise.resolve(
        ['jivet', workoutId, (input as File).name, (input as File).size, (input as File).lastModified].join('|'),
      ),
    onProgress: (sent, total) => {
      started ??= { at: performance.now(), bytes: sent }
      const speed = (sent - started.bytes) / Math.max(1, performance.now() - started.at)
      told.onShow({
        share: sent / Math.max(1, total ?? 1),
        leftMs: speed > 0 ? ((total ?? sent) - sent) / speed : null,
      })
    },
    onShouldRetry: (error) => {
      // A full disk, a refused file and a removed workout stay so; a silent server may come back.
      const status = error.originalResponse?.getStatus() ?? 0
      if (status === 507 || (status >= 400 && status < 500 && status !== 409 && status !== 423)) return false
      told.onBrokenOff()
      return true
    },
    onError: (error) => {
      const body = 'originalResponse' in error ? error.originalResponse?.getBody() : undefined
      told.onError(body && body.length < 300 ? readable(body) : texts.sync.brokeOff)
    },
    onSuccess: told.onSuccess,
  })
}

/** The server answers with a sentence, or with a problem as JSON. */
function readable(body: string): string {
  try {
    return (JSON.parse(body) as { problem?: { message?: string } }).problem?.message ?? body
  } catch {
    return body
  }
}
