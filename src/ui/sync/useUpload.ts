// Sends footage by the tus protocol: in pieces, taken up again where it broke off, even after a reload with the same
// file.
'use client'
import { useCallback, useRef, useState } from 'react'
import { Upload } from 'tus-js-client'
import { texts } from '@/core/words/en/screens'

const PIECE_BYTES = 16 * 1024 * 1024

export interface UploadState {
  name: string
  share: number
  leftMs: number | null
  brokenOff: boolean
}

export function useUpload(workoutId: string): {
  upload: UploadState | null
  problem: string | null
  send: (file: File) => Promise<void>
  cancel: () => void
} {
  const [upload, setUpload] = useState<UploadState | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const running = useRef<Upload | null>(null)

  const send = useCallback(
    async (file: File): Promise<void> => {
      setProblem(null)
      if (!file.size) return setProblem(texts.sync.empty)
      setUpload({ name: file.name, share: 0, leftMs: null, brokenOff: false })
      let started: { at: number; bytes: number } | null = null
      const task = new Upload(file, {
        endpoint: '/api/uploads',
        chunkSize: PIECE_BYTES,
        metadata: { filename: file.name, workoutId },
        retryDelays: [0, 1000, 2000, 4000, 8000, 8000, 8000, 15_000, 15_000, 30_000],
        removeFingerprintOnSuccess: true,
        fingerprint: (input) =>
          Promise.resolve(
            ['jivet', workoutId, (input as File).name, (input as File).size, (input as File).lastModified].join('|'),
          ),
        onProgress: (sent, total) => {
          started ??= { at: performance.now(), bytes: sent }
          const speed = (sent - started.bytes) / Math.max(1, performance.now() - started.at)
          setUpload({
            name: file.name,
            share: sent / Math.max(1, total ?? 1),
            leftMs: speed > 0 ? ((total ?? sent) - sent) / speed : null,
            brokenOff: false,
          })
        },
        onShouldRetry: (error) => {
          // A full disk, a refused file and a removed workout stay so; a silent server may come back.
          const status = error.originalResponse?.getStatus() ?? 0
          if (status === 507 || (status >= 400 && status < 500 && status !== 409 && status !== 423)) return false
          setUpload((now) => now && { ...now, brokenOff: true })
          return true
        },
        onError: (error) => {
          const body = 'originalResponse' in error ? error.originalResponse?.getBody() : undefined
          setUpload(null)
          setProblem(body && body.length < 300 ? readable(body) : texts.sync.brokeOff)
        },
        onSuccess: () => setUpload(null),
      })
      running.current = task
      const [earlier] = await task.findPreviousUploads()
      if (earlier) task.resumeFromPreviousUpload(earlier)
      task.start()
    },
    [workoutId],
  )

  const cancel = useCallback(() => {
    void running.current?.abort(true).catch(() => {})
    setUpload(null)
  }, [])
  return { upload, problem, send, cancel }
}

/** The server answers with a sentence, or with a problem as JSON. */
function readable(body: string): string {
  try {
    return (JSON.parse(body) as { problem?: { message?: string } }).problem?.message ?? body
  } catch {
    return body
  }
}
