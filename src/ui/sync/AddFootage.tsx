// The way in for footage: drop it or choose it; then how far it is; then why it will not do, if it will not.
'use client'
import { Film } from 'lucide-react'
import { useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { Progress } from '@/server/progress'
import { call } from '../api'
import { Button } from '../parts/Button'
import { FileInput } from '../parts/FileInput'
import { ProgressLine } from '../parts/ProgressLine'
import { reelTexts } from '@/core/words/en/reel'
import { texts } from '@/core/words/en/screens'
import { Preparing, preparingOf } from './Preparing'
import type { UploadState } from './useUpload'

const words = texts.sync
interface Props {
  progress: Progress
  upload: UploadState | null
  uploadProblem: string | null
  onFile: (file: File) => void
  onCancel: () => void
  /** Further ways to footage. */
  children?: ReactNode
}

export function AddFootage({ progress, upload, uploadProblem, onFile, onCancel, children }: Props): ReactNode {
  const [over, setOver] = useState(false)
  const input = useRef<HTMLInputElement>(null)
  const preparing = preparingOf(progress.jobs)
  const failed = progress.footage?.state === 'failed' ? progress.footage : null
  const problem = uploadProblem ?? failed?.problem ?? null
  return (
    <section
      className={`m-6 flex flex-1 flex-col items-center justify-center gap-5 border-4 border-dashed p-10 text-center ${over ? 'border-signal bg-land/25' : 'border-rule'}`}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault()
        setOver(false)
        for (const file of event.dataTransfer.files) onFile(file)
      }}
    >
      {upload ? (
        <div className="w-full max-w-xl text-left">
          <ProgressLine
            label={reelTexts.sending(upload.name, upload.waiting)}
            share={upload.share}
            leftMs={upload.leftMs}
            onCancel={onCancel}
          />
          {upload.brokenOff && <p className="pt-2 text-signal">{words.paused}</p>}
        </div>
      ) : preparing ? (
        <div className="w-full max-w-xl text-left">
          <Preparing job={preparing} onCancel={() => void call('DELETE', `/api/jobs/${preparing.id}`)} />
        </div>
      ) : (
        <>
          <Film size={44} aria-hidden />
          <h1 className="text-5xl">{words.add}</h1>
          <p className="max-w-md text-lg text-quiet">{words.addHint}</p>
          <Button weight="main" onClick={() => input.current?.click()}>
            {words.choose}
          </Button>
          <FileInput ref={input} label={words.choose} multiple onFile={onFile} />
          {children}
        </>
      )}
      {problem && !upload && !preparing && (
        <div role="alert" className="max-w-xl border-l-8 border-signal bg-pale p-4 text-left">
          <h2 className="text-xl">
            {words.failed}
            {failed ? `: ${failed.name}` : ''}
          </h2>
          <p>{problem}</p>
          {failed && !uploadProblem && <FailedChoices footageId={failed.id} />}
        </div>
      )}
    </section>
  )
}

/** What failed is still there: it can be taken up once more, or laid away. */
export function FailedChoices({ footageId }: { footageId: string }): ReactNode {
  const ask = (...what: Parameters<typeof call>): void =>
    void call(...what).catch((error: Error) => toast.error(error.message))
  return (
    <div className="flex gap-2 pt-2">
      <Button onClick={() => ask('POST', `/api/footage/${footageId}/prepare`)}>{words.tryAgain}</Button>
      <Button weight="bare" onClick={() => ask('PUT', `/api/footage/${footageId}/reel`, { as: 'aside' })}>
        {words.forget}
      </Button>
    </div>
  )
}
