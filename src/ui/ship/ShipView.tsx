// Ship: what stands in the way, the render, and what comes out of it.
'use client'
import Link from 'next/link'
import { Check, X } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import type { JobProgress, Progress } from '@/server/progress'
import { call } from '../api'
import { Button } from '../parts/Button'
import { ProgressLine } from '../parts/ProgressLine'
import { useProgress } from '../parts/useProgress'
import type { Thumbnail as Wish } from '@/core/look/thumbnail'
import { USUAL_PURPOSE, type Purpose } from '@/core/render/purpose'
import { ChoiceField } from '../parts/fields'
import { Out, PackView } from './Pack'
import { PLAIN_LINK } from '../parts/Button'
import { Publish } from './Publish'
import { Series } from './Series'
import { Thumbnail } from './Thumbnail'
import { SoundAlone } from './SoundAlone'
import { formatClock } from '@/core/time/clock'
import { texts } from '@/core/words/en/screens'
import { shipTexts } from '@/core/words/en/ship'

const words = texts.ship

interface Props {
  id: string
  progress: Progress
  hasScore: boolean
  /** Questions that the ties leave; null where nothing is tied. */
  leftToDo: number | null
  /** Of the score as it is now. */
  scoreRevision: number
  title: string
  /** Its name, or empty. */
  series: string
  thumbnail: Wish
}

export function ShipView({ progress: initial, scoreRevision, title, thumbnail, ...about }: Props): ReactNode {
  const { id } = about
  const progress = useProgress(id, initial)
  const [purpose, setPurpose] = useState<Purpose>(USUAL_PURPOSE)
  const { jobs, pack, earlierPacks, published } = progress
  const isRunning = jobs.some((job) => job.kind === 'render' && (job.state === 'queued' || job.state === 'active'))
  const changed = `${scoreRevision} ${JSON.stringify(pack?.changed)}`
  return (
    <main
      id="content"
      tabIndex={-1}
      className="mx-auto grid w-full max-w-[1240px] grid-cols-1 gap-10 px-6 py-7 max-sm:px-4 lg:grid-cols-[380px_1fr]"
    >
      <Making {...about} progress={progress} purpose={purpose} onPurpose={setPurpose} />
      <section>
        {pack ? (
          <PackView
            {...{ id, pack, scoreRevision, isRunning, purpose }}
            earlier={earlierPacks}
            thumbnail={
              <Thumbnail {...{ id, title }} kept={thumbnail} lengthMs={pack.lengthMs} of={`${changed} ${title}`} />
            }
          >
            <Publish packId={pack.id} jobs={jobs} published={published} of={`${changed} ${pack.description}`} />
          </PackView>
        ) : (
          <p className="grid h-full min-h-80 place-items-center border-4 border-dashed border-rule text-lg text-quiet">
            {mayBeRendered({ ...about, progress }) ? words.noneMay : words.none}
          </p>
        )}
      </section>
    </main>
  )
}

interface MakingProps extends Pick<Props, 'id' | 'hasScore' | 'leftToDo' | 'series'> {
  progress: Progress
  purpose: Purpose
  onPurpose: (purpose: Purpose) => void
}

/** What stands in the way of a render, and its start. */
function Making({ id, progress, hasScore, leftToDo, series, purpose, onPurpose }: MakingProps): ReactNode {
  const { footage, jobs, pack } = progress
  const [problem, setProblem] = useState<string | null>(null)
  const render = jobs.find((job) => job.kind === 'render')
  const running = render && (render.state === 'queued' || render.state === 'active') ? render : null
  const hasFootage = footage?.state === 'ready'
  const isCompanion = footage === null && hasScore
  const mayRender = mayBeRendered({ progress, hasScore, leftToDo })
  const start = (): void => {
    setProblem(null)
    void call('POST', `/api/workouts/${id}/render?for=${purpose}`).catch((error: Error) => setProblem(error.message))
  }
  const stopped = problem ?? whyStopped(render)
  return (
    <section className="flex flex-col gap-6">
      <h1 className="text-5xl">{texts.way.ship}</h1>
      <Checks id={id} hasScore={hasScore} hasFootage={hasFootage} leftToDo={leftToDo} />
      {running ? (
        <ProgressLine
          label={running.state === 'queued' ? waitingText(running.waitsFor) : words.rendering}
          share={running.share}
          leftMs={running.leftMs}
          speed={running.speed}
          onCancel={() => void call('DELETE', `/api/jobs/${running.id}`)}
        />
      ) : (
        <>
          <PurposeField value={purpose} files={progress.reel.files} onChange={onPurpose} />
          <Button weight="main" className="min-h-14 self-start !px-8 text-lg" disabled={!mayRender} onClick={start}>
            {renderText(isCompanion, pack !== null)}
          </Button>
        </>
      )}
      {isCompanion && <p className="-mt-3 text-quiet">{shipTexts.companionHint}</p>}
      <Mapped files={progress.reel.files} />
      {stopped && !running && (
        <p role="alert" className="border-l-8 border-signal bg-pale p-4">
          {stopped}
        </p>
      )}
      {mayRender && <Alone id={id} />}
      {hasScore && <PhonePage id={id} />}
      {hasScore && <Paper id={id} />}
      {hasScore && series && <Series id={id} name={series} />}
      <div className="border-t-2 border-rule pt-4">
        <h2 className="pb-1.5 text-2xl">{words.caution}</h2>
        <p className="text-quiet">{words.cautionText}</p>
      </div>
    </section>
  )
}

const { hdr: _HDR, ...USUAL_PURPOSES } = shipTexts.purposes

/** A high range is a purpose only where the first file was filmed in one. */
function PurposeField({
  value,
  files,
  onChange,
}: {
  value: Purpose
  files: Progress['reel']['files']
  onChange: (purpose: Purpose) => void
}): ReactNode {
  const options = files[0]?.facts?.hdr ? shipTexts.purposes : USUAL_PURPOSES
  return <ChoiceField label={shipTexts.purpose} showLabel value={value} options={options} onChange={onChange} />
}

/** Files whose light is another in the video. */
const Mapped = ({ files }: { files: Progress['reel']['files'] }): ReactNode =>
  files
    .filter(({ facts }) => facts?.hdr)
    .map(({ id, name }) => (
      <p key={id} className="text-quiet">
        {shipTexts.hdr(name)}
      </p>
    ))

/** The session as a page that runs by itself. */
function PhonePage({ id }: { id: string }): ReactNode {
  return (
    <section className="border-t-2 border-rule pt-4">
      <h2 className="pb-1.5 text-2xl">{shipTexts.page}</h2>
      <p className="pb-3 text-quiet">{shipTexts.pageHint}</p>
      <Out href={`/api/workouts/${id}/companion`}>{shipTexts.pageDownload}</Out>
    </section>
  )
}

/** Sound and overlay, each without all else. */
const Alone = ({ id }: { id: string }): ReactNode => (
  <>
    <SoundAlone id={id} />
    <section className="border-t-2 border-rule pt-4">
      <h2 className="pb-1.5 text-2xl">{shipTexts.overlay}</h2>
      <p className="pb-3 text-quiet">{shipTexts.overlayHint}</p>
      <div className="flex flex-wrap gap-3">
        {Object.entries(shipTexts.overlayDownloads).map(([ending, text]) => (
          <Out key={ending} href={`/api/workouts/${id}/overlay?as=${ending}`}>
            {text}
          </Out>
        ))}
      </div>
    </section>
  </>
)

/** What hangs on the wall, and what lies on the floor. */
function Paper({ id }: { id: string }): ReactNode {
  return (
    <section className="border-t-2 border-rule pt-4">
      <h2 className="pb-3 text-2xl">{shipTexts.paper}</h2>
      <div className="flex flex-wrap gap-3">
        <Link className={PLAIN_LINK} href={`/w/${id}/print?as=sheet`}>
          {shipTexts.paperSheet}
        </Link>
        <Link className={PLAIN_LINK} href={`/w/${id}/print?as=board`}>
          {shipTexts.paperBoard}
        </Link>
      </div>
    </section>
  )
}

function waitingText(waitsFor: JobProgress['waitsFor']): string {
  if (!waitsFor) return words.startsSoon
  const { title, others, leftMs } = waitsFor
  return words.waitsFor(title || texts.score.untitled, others, leftMs === null ? null : formatClock(leftMs))
}

const renderText = (isCompanion: boolean, isAgain: boolean): string =>
  isCompanion ? shipTexts.companion : isAgain ? words.again : words.render

/** What became of a render that brought nothing. */
function whyStopped(render: Progress['jobs'][number] | undefined): string | null {
  if (render?.state === 'failed') return `${words.failed}: ${render.problem ?? ''}`
  return render?.state === 'cancelled' ? words.cancelled : null
}

/** A plan alone can be, and footage as soon as something is tied to it. */
const mayBeRendered = ({ progress, hasScore, leftToDo }: Pick<Props, 'progress' | 'hasScore' | 'leftToDo'>): boolean =>
  hasScore && (progress.footage === null || (progress.footage.state === 'ready' && leftToDo !== null))

interface ChecksProps extends Pick<Props, 'id' | 'hasScore' | 'leftToDo'> {
  hasFootage: boolean
}

function Checks({ id, hasScore, hasFootage, leftToDo }: ChecksProps): ReactNode {
  const { checks, missing } = words
  const ties = leftToDo === null ? missing.nothingTied : leftToDo ? missing.stitched(leftToDo) : checks.stitched
  return (
    <ul className="flex flex-col border-t-4 border-ink bg-pale">
      <CheckRow ok={hasScore} text={hasScore ? checks.score : missing.score} href={`/w/${id}/score`} />
      <CheckRow ok={hasFootage} text={hasFootage ? checks.footage : missing.footage} href={`/w/${id}/sync`} />
      <CheckRow ok={leftToDo === 0} text={ties} href={`/w/${id}/sync`} />
    </ul>
  )
}

function CheckRow({ ok, text, href }: { ok: boolean; text: string; href: string }): ReactNode {
  return (
    <li className="border-b border-rule last:border-0">
      <Link href={href} className="flex min-h-12 items-center gap-3 px-4 hover:bg-land/30">
        {ok ? (
          <Check size={20} strokeWidth={3.5} aria-label="yes" />
        ) : (
          <X size={20} strokeWidth={3.5} className="text-signal" aria-label="no" />
        )}
        {text}
      </Link>
    </li>
  )
}
