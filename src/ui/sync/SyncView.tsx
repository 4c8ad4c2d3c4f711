// Sync: the way in for footage, then the ties of the files that the page works on, and what was put aside.
'use client'
import { useRouter } from 'next/navigation'
import { useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { Stitch } from '@/core/align/ties'
import type { Section } from '@/core/score/formats'
import type { Score } from '@/core/score/score'
import type { Segment } from '@/core/score/segment'
import type { Mix } from '@/core/sound/mix'
import { reelTexts } from '@/core/words/en/reel'
import { texts } from '@/core/words/en/screens'
import type { Progress } from '@/server/progress'
import type { Stitches } from '@/server/stitches'
import { call } from '../api'
import { ProgressLine } from '../parts/ProgressLine'
import { useMadeAgain } from '../parts/useMadeAgain'
import { useProgress } from '../parts/useProgress'
import { AddFootage, FailedChoices } from './AddFootage'
import { Preparing, preparingOf } from './Preparing'
import { ReelSheet } from './ReelSheet'
import { Stitching } from './Stitching'
import { useReelChanges } from './useReelChanges'
import { useUpload } from './useUpload'

const words = texts.sync

interface Props {
  id: string
  segments: Segment[]
  progress: Progress
  /** The ties of the reel that the page was made with. */
  tied: Stitches & { reelKey: string }
  mix: Mix
}

export function SyncView({ id, segments, progress: initial, tied, mix }: Props): ReactNode {
  const router = useRouter()
  const progress = useProgress(id, initial)
  const { upload, problem, send, cancel } = useUpload(id)
  const { reel, aside } = progress
  const stale = tied.reelKey !== reel.key
  // Other files have other ties: they are asked for as soon as they are in use.
  useMadeAgain(tied.reelKey, reel.key)
  const changes = useReelChanges(id, reel)

  /** How often captions were added: the changes are looked for again with them. */
  const [captioned, setCaptioned] = useState(0)
  const addCaptions = async (footageId: string, file: File): Promise<void> => {
    const text = await file.text()
    const read = await call<{ calls: number; numbers: number }>('PUT', `/api/footage/${footageId}/captions`, { text })
    toast(words.captionsRead(read.calls))
    if (read.calls || read.numbers) setCaptioned(captioned + 1)
  }
  const takeOver = async (footageId: string, take: (ties: Stitch[]) => void): Promise<void> => {
    const offered = await call<Stitch[]>('GET', `/api/footage/${footageId}/offered`)
    take(offered)
    toast(reelTexts.takenOver(offered.length))
  }
  const complain = (error: Error): void => void toast.error(error.message)

  const order = [...new Set(segments.map(({ sectionKey }) => sectionKey))].join()
  /** The order that was planned here, as it was filmed in it: the changes are looked for as soon as it is there. */
  const [planned, setPlanned] = useState<string | null>(null)
  const planAs = async (sections: readonly string[]): Promise<void> => {
    const path = `/api/workouts/${id}/score`
    const { score, revision } = await call<{ score: Score; revision: number }>('GET', path)
    const before = score.sections.map(({ key }) => key)
    const placeOf = ({ key }: Section): number => sections.indexOf(key)
    const inOrder = [...score.sections].sort((one, other) => placeOf(one) - placeOf(other))
    await call('PUT', path, { score: { ...score, sections: inOrder }, revision })
    setPlanned(sections.filter((key) => segments.some(({ sectionKey }) => sectionKey === key)).join())
    toast(words.plannedSo, {
      action: { label: texts.score.undo, onClick: () => void planAs(before).catch(complain) },
      duration: 10_000,
    })
    router.refresh()
  }

  const sheet = (take?: (ties: Stitch[]) => void): ReactNode => (
    <ReelSheet
      reel={reel}
      aside={aside}
      changes={changes}
      onFile={send}
      onCaptions={(footageId, file) => void addCaptions(footageId, file).catch(complain)}
      {...(take && reel.offer ? { onTakeOver: () => void takeOver(reel.offer?.id ?? '', take).catch(complain) } : {})}
    />
  )
  if (!reel.files.length)
    return (
      <main id="content" tabIndex={-1} className="flex flex-1 flex-col">
        <AddFootage progress={progress} upload={upload} uploadProblem={problem} onFile={send} onCancel={cancel}>
          {aside.length > 0 && sheet()}
        </AddFootage>
      </main>
    )
  return (
    <main id="content" tabIndex={-1} className="flex flex-1 flex-col">
      <h1 className="sr-only">{texts.way.sync}</h1>
      <Under progress={progress} upload={upload} problem={problem} onCancel={cancel} />
      {!segments.length && <p className="p-10 text-lg text-quiet">{words.needScore}</p>}
      {segments.length > 0 && !stale && (
        <Stitching
          key={`${reel.key} ${order}`}
          workoutId={id}
          segments={segments}
          reel={reel}
          tied={tied}
          captioned={captioned}
          findsAtOnce={planned === order}
          onPlanAs={(sections) => void planAs(sections).catch(complain)}
          mix={mix}
          ways={sheet}
        />
      )}
    </main>
  )
}

interface UnderProps {
  progress: Progress
  upload: ReturnType<typeof useUpload>['upload']
  problem: string | null
  onCancel: () => void
}

/** What is under way, and what is wrong, above the work itself. */
function Under({ progress, upload, problem, onCancel }: UnderProps): ReactNode {
  const preparing = preparingOf(progress.jobs)
  const failed = progress.failedUpload && `${progress.failedUpload.name}: ${progress.failedUpload.problem}`
  const warnings = progress.reel.files.flatMap(({ name, warning }) => (warning ? [`${name}: ${warning}`] : []))
  const trouble = problem ?? failed ?? (warnings.join(' ') || null)
  return (
    <>
      {upload && (
        <div className="px-6 pt-4">
          <ProgressLine
            label={reelTexts.sending(upload.name, upload.waiting)}
            share={upload.share}
            leftMs={upload.leftMs}
            onCancel={onCancel}
          />
        </div>
      )}
      {!upload && preparing && (
        <div className="px-6 pt-4">
          <Preparing job={preparing} />
        </div>
      )}
      {trouble && (
        <div role="alert" className="flex items-baseline gap-5 border-b-2 border-rule bg-pale px-6 pt-1.5 pb-2.5">
          <p>{trouble}</p>
          {!problem && progress.failedUpload && <FailedChoices footageId={progress.failedUpload.id} />}
        </div>
      )}
    </>
  )
}
