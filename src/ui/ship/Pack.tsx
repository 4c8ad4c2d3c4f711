// What came out of a render: what it shows, whether that is still so, and all that goes with it.
'use client'
import { Check, Copy, Download } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { PackProgress, Progress } from '@/server/progress'
import type { Verified } from '@/core/proof/verify'
import { carriedOver } from '@/core/write/carriedOver'
import { texts } from '@/core/words/en/screens'
import { shipTexts } from '@/core/words/en/ship'
import type { Purpose } from '@/core/render/purpose'
import { sizeText } from '@/core/words/en/sizes'
import { faultText, verifiedText } from '@/core/words/en/verify'
import { call } from '../api'
import { Button } from '../parts/Button'
import { RemoveForGood } from '../parts/RemoveForGood'
import { RedoLine } from './Redo'

const words = texts.ship
const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })

interface Props {
  id: string
  pack: PackProgress
  scoreRevision: number
  isRunning: boolean
  /** What the next one is for. */
  purpose: Purpose
  earlier: Progress['earlierPacks']
  thumbnail: ReactNode
  /** Stands between the video and its texts. */
  children: ReactNode
}

export function PackView({
  id,
  pack,
  scoreRevision,
  isRunning,
  purpose,
  earlier,
  thumbnail,
  children,
}: Props): ReactNode {
  const { changed } = pack
  const outdated = Object.values(changed).some(Boolean)
  const at = `/api/packs/${pack.id}`
  return (
    <div className="flex flex-col gap-5">
      <div className="flex items-center gap-3">
        <h2 className="mr-auto text-3xl">{outdated ? words.doneBefore : words.done}</h2>
        <span className="font-bold text-quiet">
          {shipTexts.rendered[pack.purpose]}
          {pack.encoder !== null && shipTexts.inHardware(pack.encoder)}
        </span>
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
      {outdated && !isRunning && (
        <RedoLine id={id} purpose={purpose} of={`${pack.id} ${scoreRevision} ${JSON.stringify(changed)}`} />
      )}
      {pack.verified && <Proved verified={pack.verified} />}
      {pack.purpose === 'hdr' ? (
        <p className="text-quiet">{shipTexts.notPlayed}</p>
      ) : (
        <video key={pack.id} src={`${at}/preview`} controls playsInline className="max-h-[420px] w-full bg-bar" />
      )}
      <div className="flex flex-wrap gap-3">
        <Out href={`${at}/video`}>
          {words.video}, {sizeText(pack.videoBytes)}
        </Out>
        <Out href={`${at}/captioned`}>{shipTexts.captioned}</Out>
        <Out href={`${at}/captions`}>{words.captions}</Out>
        <Out href={`${at}/chapters`}>{words.chapters}</Out>
      </div>
      {earlier.length > 0 && <Earlier packs={earlier} />}
      {children}
      {thumbnail}
      {pack.written || pack.description ? <Described pack={pack} /> : <Chapters text={pack.chapters} />}
    </div>
  )
}

/** The videos before this one: each can be had, and removed where it was not published. */
function Earlier({ packs }: { packs: Props['earlier'] }): ReactNode {
  // Its times are told where they are read: the server may stand in another zone.
  const [open, setOpen] = useState(false)
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-10 cursor-pointer py-2 font-bold">{shipTexts.earlier(packs.length)}</summary>
      <ul className="border-t-2 border-rule">
        {(open ? packs : []).map(({ id, purpose, createdAt, videoBytes, isPublished }) => {
          const name = `${shipTexts.rendered[purpose]}, ${when.format(new Date(createdAt))}`
          return (
            <li key={id} className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-2">
              <span className="min-w-0 flex-1 basis-52">
                {name} {isPublished && <b>{shipTexts.wasPublished}</b>}
              </span>
              <Out href={`/api/packs/${id}/video`}>{sizeText(videoBytes)}</Out>
              {!isPublished && <RemoveForGood what="video" name={name} bytes={videoBytes} path={`/api/packs/${id}`} />}
            </li>
          )
        })}
      </ul>
    </details>
  )
}

/** The description, copied in one press; what somebody changes of it is kept, and carried over to the next render. */
function Described({ pack }: { pack: PackProgress }): ReactNode {
  const [draft, setDraft] = useState<string | null>(null)
  const [of, setOf] = useState(pack)
  if (of !== pack) {
    setOf(pack)
    // What was kept is the pack's; what is still being written goes on where another video has come meanwhile.
    if (draft === of.description) setDraft(null)
    else if (draft !== null && of.id !== pack.id)
      setDraft(carriedOver({ was: of.description, edited: draft, written: pack.description }).text)
  }
  const text = draft ?? pack.description
  const save = (wanted: string): void => {
    if (wanted === pack.description) return setDraft(null)
    void call('PUT', `/api/packs/${pack.id}/text`, { description: wanted }).catch((error: Error) =>
      toast.error(`${shipTexts.notSaved}: ${error.message}`),
    )
  }
  return (
    <section className="border-t-4 border-ink bg-pale p-4">
      <TextHead heading={shipTexts.description} hint={shipTexts.letters(text.length)} text={text}>
        {pack.written !== '' && text !== pack.written && (
          <Button
            onClick={() => {
              setDraft(pack.written)
              save(pack.written)
            }}
          >
            {shipTexts.written}
          </Button>
        )}
      </TextHead>
      {pack.clashes > 0 && <p className="mt-3 border-l-8 border-signal pl-3">{shipTexts.clashes(pack.clashes)}</p>}
      <textarea
        aria-label={shipTexts.description}
        value={text}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => save(text)}
        rows={Math.min(18, text.split('\n').length + 1)}
        className="mt-3 w-full resize-y border-l-2 border-rule bg-transparent pl-3 font-text tabular-nums focus:border-ink"
      />
    </section>
  )
}

function TextHead({
  heading,
  hint,
  text,
  children,
}: {
  heading: string
  hint?: string
  text: string
  children?: ReactNode
}): ReactNode {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <h3 className="text-2xl">{heading}</h3>
      {hint && <span className="text-sm text-quiet">{hint}</span>}
      <span className="ml-auto flex flex-wrap gap-3">
        {children}
        <Button
          icon={<Copy size={17} />}
          onClick={() => void navigator.clipboard.writeText(text).then(() => toast(shipTexts.copied))}
        >
          {shipTexts.copy}
        </Button>
      </span>
    </div>
  )
}

/** Of a video from before there were descriptions. */
function Chapters({ text }: { text: string }): ReactNode {
  return (
    <section className="border-t-4 border-ink bg-pale p-4">
      <TextHead heading={shipTexts.chapters} text={text} />
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

export function Out({
  href,
  children,
  main = false,
}: {
  href: string
  children: ReactNode
  main?: boolean
}): ReactNode {
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
