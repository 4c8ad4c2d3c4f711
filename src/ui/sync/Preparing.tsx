// A footage that is being looked at and listened to: how far it is, what is listened for, what was heard so far.
import type { ReactNode } from 'react'
import { soFarSentence } from '@/core/words/en/hearing'
import { texts } from '@/core/words/en/screens'
import type { JobProgress } from '@/server/progress'
import { ProgressLine } from '../parts/ProgressLine'

const words = texts.sync

export const preparingOf = (jobs: readonly JobProgress[]): JobProgress | undefined =>
  jobs.find(({ kind, state }) => kind === 'prepare' && (state === 'queued' || state === 'active'))

export function Preparing({ job, onCancel }: { job: JobProgress; onCancel?: () => void }): ReactNode {
  return (
    <>
      <ProgressLine label={words.checking} share={job.share} leftMs={job.leftMs} onCancel={onCancel} />
      <p className="pt-2 text-quiet">
        {words.listening} {soFarSentence(job.heard)}
      </p>
    </>
  )
}
