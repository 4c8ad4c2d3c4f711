// Ship: what stands in the way, the render, and what comes out of it.
'use client'
import Link from 'next/link'
import { Check, Copy, Download, X } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { PackProgress, Progress } from '@/server/progress'
import { call } from '../api'
import { Button } from '../parts/Button'
import { ProgressLine } from '../parts/ProgressLine'
import { useProgress } from '../parts/useProgress'
import { Publish } from './Publish'
import { RedoLine } from './Redo'
import { SoundAlone } from './SoundAlone'
import type { Verified } from '@/core/proof/verify'
import { texts } from '@/core/words/en/screens'
import { shipTexts } from '@/core/words/en/ship'
import { faultText, verifiedText } from '@/core/words/en/verify'

const words = texts.ship
const megabytes = new Intl.NumberFormat('en-GB', { style: 'unit', unit: 'megabyte', maximumFractionDigits: 1 })

interface Props {
  id: string
  progress: Progress
  hasScore: boolean
  hasStitches: boolean
  openChanges: number
  /** Of the score as it is now. */
  scoreRevision: number
}

export function ShipView({
  id,
  progress: initial,
  hasScore,
  hasStitches,
  openChanges,
  scoreRevision,
}: Props): ReactNode {
  const { footage, jobs, pack, published } = useProgress(id, initial)
  const [problem, setProblem] = useState<string | null>(null)
  const render = jobs.find((job) => job.kind === 'render')
  const running = render && (render.state === 'queued' || render.state === 'active') ? render : null
  const hasFootage = footage?.state === 'ready'
  const isCompanion = footage === null && hasScore
  const mayRender = isCompanion || (hasScore && hasFootage && hasStitches)
  const start = (): void => {
    setProblem(null)
    void call('POST', `/api/workouts/${id}/render`).catch((error: Error) => setProblem(error.message))
  }
  const stopped = problem ?? whyStopped(render)
  return (
    <main
      id="content"
      tabIndex={-1}
      className="mx-auto grid w-full max-w-[1240px] grid-cols-1 gap-10 px-6 py-7 max-sm:px-4 lg:grid-cols-[380px_1fr]"
    >
      <section className="flex flex-col gap-6">
        <h1 className="text-5xl">{texts.way.ship}</h1>
        <Checks
          id={id}
          hasScore={hasScore}
          hasFootage={hasFootage}
          hasStitches={hasStitches}
          openChanges={openChanges}
        />
        {!running && (
          <Button weight="main" className="min-h-14 self-start !px-8 text-lg" disabled={!mayRender} onClick={start}>
            {renderText(isCompanion, pack !== null)}
          </Button>
        )}
        {isCompanion && <p className="-mt-3 text-quiet">{shipTexts.companionHint}</p>}
        {running && (
          <ProgressLine
            label={running.state === 'queued' ? words.waiting : words.rendering}
            share={running.share}
            leftMs={running.leftMs}
            onCancel={() => void call('DELETE', `/api/jobs/${running.id}`)}
          />
        )}
        {stopped && !running && (
          <p role="alert" className="border-l-8 border-signal bg-pale p-4">
            {stopped}
          </p>
        )}
        {mayRender && <SoundAlone id={id} />}
        {hasScore && <PhonePage id={id} />}
        <div className="border-t-2 border-rule pt-4">
          <h2 className="pb-1.5 text-2xl">{words.caution}</h2>
          <p className="text-quiet">{words.cautionText}</p>
        </div>
      </section>
      <section>
        {pack ? (
          <PackView id={id} pack={pack} scoreRevision={scoreRevision} isRunning={running !== null}>
            <Publish
              packId={pack.id}
              jobs={jobs}
              published={published}
              of={`${scoreRevision} ${JSON.stringify(pack.changed)}`}
            />
          </PackView>
        ) : (
          <p className="grid h-full min-h-80 place-items-center border-4 border-dashed border-rule text-lg text-quiet">
            {words.none}
          </p>
        )}
      </section>
    </main>
  )
}

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

const renderText = (isCompanion: boolean, isAgain: boolean): string =>
  isCompanion ? shipTexts.companion : isAgain ? words.again : words.render

/** What became of a render that brought nothing. */
function whyStopped(render: Progress['jobs'][number] | undefined): string | null {
  if (render?.state === 'failed') return `${words.failed}: ${render.problem ?? ''}`
  return render?.state === 'cancelled' ? words.cancelled : null
}

interface ChecksProps {
  id: string
  hasScore: boolean
  hasFootage: boolean
  hasStitches: boolean
  openChanges: number
}

function Checks({ id, hasScore, hasFootage, hasStitches, openChanges }: ChecksProps): ReactNode {
  const allTied = hasStitches && openChanges === 0
  const { checks, missing } = words
  return (
    <ul className="flex flex-col border-t-4 border-ink bg-pale">
      <CheckRow ok={hasScore} text={hasScore ? checks.score : missing.score} href={`/w/${id}/score`} />
      <CheckRow ok={hasFootage} text={hasFootage ? checks.footage : missing.footage} href={`/w/${id}/sync`} />
      <CheckRow ok={allTied} text={allTied ? checks.stitched : missing.stitched(openChanges)} href={`/w/${id}/sync`} />
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

interface PackViewProps {
  id: string
  pack: PackProgress
  scoreRevision: number
  isRunning: boolean
  /** Stands between the video and its texts. */
  children: ReactNode
}

function PackView({ id, pack, scoreRevision, isRunning, children }: PackViewProps): ReactNode {
  const { changed } = pack
  const outdated = Object.values(changed).some(Boolean)
  const at = `/api/packs/${pack.id}`
  return (
    <div className="flex flex-col gap-5">
      <div className="flex items-center gap-3">
        <h2 className="mr-auto text-3xl">{outdated ? words.doneBefore : words.done}</h2>
        <Out href={`${at}/all`} main>
          {words.all}
        </Out>
      </div>
      {pack.scoreRevision !== null && (
        <p className={outdated ? 'border-l-8 border-signal bg-pale p-3' : 'text-quiet'}>
          {[
            words.ofRevision(pack.scoreRevision),
            changed.score && words.changed.score(scoreRevision),
            changed.ties && words.changed.ties,
            changed.footage && words.changed.footage,
            changed.cut && words.changed.cut,
            changed.look && words.changed.look,
            changed.framing && words.changed.framing,
            changed.sound && words.changed.sound,
            outdated && words.renderAgain,
          ]
            .filter(Boolean)
            .join(' ')}
        </p>
      )}
      {outdated && !isRunning && <RedoLine id={id} of={`${pack.id} ${scoreRevision} ${JSON.stringify(changed)}`} />}
      {pack.verified && <Proved verified={pack.verified} />}
      <video key={pack.id} src={`${at}/preview`} controls playsInline className="max-h-[420px] w-full bg-bar" />
      <div className="flex flex-wrap gap-3">
        <Out href={`${at}/video`}>
          {words.video}, {megabytes.format(pack.videoBytes / 1e6)}
        </Out>
        <Out href={`${at}/captioned`}>{shipTexts.captioned}</Out>
        <Out href={`${at}/captions`}>{words.captions}</Out>
        <Out href={`${at}/chapters`}>{words.chapters}</Out>
      </div>
      {children}
      {pack.description ? (
        <Written
          text={pack.description}
          heading={shipTexts.description}
          hint={shipTexts.letters(pack.description.length)}
        />
      ) : (
        <Written text={pack.chapters} heading={shipTexts.chapters} />
      )}
    </div>
  )
}

/** A text to go along with the video, copied in one press. */
function Written({ text, heading, hint }: { text: string; heading: string; hint?: string }): ReactNode {
  return (
    <section className="border-t-4 border-ink bg-pale p-4">
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="text-2xl">{heading}</h3>
        {hint && <span className="text-sm text-quiet">{hint}</span>}
        <Button
          className="ml-auto"
          icon={<Copy size={17} />}
          onClick={() => void navigator.clipboard.writeText(text).then(() => toast(shipTexts.copied))}
        >
          {shipTexts.copy}
        </Button>
      </div>
      <pre className="mt-3 max-h-[420px] overflow-y-auto font-text whitespace-pre-wrap tabular-nums">{text}</pre>
    </section>
  )
}

/** What it was found to be when it was decoded. */
function Proved({ verified }: { verified: Verified }): ReactNode {
  const { faults } = verified
  return (
    <div className={faults.length ? 'border-l-8 border-land bg-pale p-3' : ''}>
      <p className="flex items-start gap-2">
        <Check size={19} strokeWidth={3.5} className="mt-0.5 shrink-0" aria-hidden />
        <span>
          <b>{words.proved}</b> {verifiedText(verified)}
        </span>
      </p>
      {faults.length > 0 && (
        <ul className="mt-1 max-h-32 list-disc overflow-y-auto pl-12 text-sm">
          {faults.map((fault, at) => (
            <li key={at}>{faultText(fault)}</li>
          ))}
        </ul>
      )}
    </div>
  )
}

function Out({ href, children, main = false }: { href: string; children: ReactNode; main?: boolean }): ReactNode {
  return (
    <a
      href={href}
      download
      className={`inline-flex min-h-10 items-center gap-2 px-4 font-bold ${main ? 'cut-block bg-land text-print' : 'border-2 border-ink hover:bg-ink hover:text-paper'}`}
    >
      <Download size={17} />
      {children}
    </a>
  )
}
