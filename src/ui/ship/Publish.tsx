// Publishing a video, what stands in the way of it, and what comes back.
'use client'
import { ExternalLink, RefreshCw, Send } from 'lucide-react'
import { useCallback, useEffect, useState, type ReactNode } from 'react'
import type { CameBack } from '@/app/api/publications/[id]/route'
import type { Publishing } from '@/server/publishing'
import type { Progress, PublishedProgress } from '@/server/progress'
import { HARMS } from '@/core/publish/obstacles'
import { obstacleText, publishTexts as words } from '@/core/words/en/publish'
import { call } from '../api'
import { Button } from '../parts/Button'
import { ProgressLine } from '../parts/ProgressLine'

interface Props {
  packId: string
  jobs: Progress['jobs']
  published: readonly PublishedProgress[]
  /** Another one where something has changed that may stand in the way. */
  of: string
}

export function Publish({ packId, jobs, published, of }: Props): ReactNode {
  const [state, setState] = useState<Publishing | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const job = jobs.find(({ kind }) => kind === 'publish')
  const running = job && (job.state === 'queued' || job.state === 'active') ? job : null
  const own = published.find((one) => one.packId === packId)
  const look = useCallback(
    () =>
      void call<Publishing>('GET', `/api/packs/${packId}/publish`)
        .then(setState)
        .catch((error: Error) => setProblem(error.message)),
    [packId],
  )
  useEffect(look, [look, of])
  const publish = (): void => {
    setProblem(null)
    void call('POST', `/api/packs/${packId}/publish`).catch((error: Error) => setProblem(error.message))
  }
  if (!state) return null
  const { host } = state
  const isThere = own?.state === 'published'
  return (
    <section aria-label={words.heading} className="border-t-4 border-ink bg-pale p-4">
      <h3 className="text-2xl">{words.heading}</h3>
      {host.isSimulated && <p className="pb-3 text-quiet">{words.simulated(host.name)}</p>}
      {!isThere && <Obstacles state={state} />}
      {running && (
        <ProgressLine
          label={words.sending}
          share={running.share}
          leftMs={running.leftMs}
          onCancel={() => void call('DELETE', `/api/jobs/${running.id}`)}
        />
      )}
      {!running && !isThere && <Press state={state} onPublish={publish} onLook={look} />}
      {!running && <Stopped own={own} told={problem ?? (job?.state === 'failed' ? job.problem : null)} />}
      {published
        .filter((one) => one.state === 'published')
        .map((one) => (
          <Published key={one.id} publication={one} />
        ))}
    </section>
  )
}

interface PressProps {
  state: Publishing
  onPublish: () => void
  onLook: () => void
}

function Press({ state: { host, obstacles }, onPublish, onLook }: PressProps): ReactNode {
  const refused = obstacles.some(({ harm }) => harm === 'refused')
  return (
    <div className="flex flex-wrap gap-3 pt-3">
      <Button weight="main" icon={<Send size={17} />} disabled={refused} onClick={onPublish}>
        {obstacles.length && !refused ? words.anyway(host.name) : words.publish(host.name)}
      </Button>
      <Button icon={<RefreshCw size={17} />} onClick={onLook}>
        {words.look}
      </Button>
    </div>
  )
}

/** Why the last try brought nothing. */
function Stopped({ own, told }: { own: PublishedProgress | undefined; told: string | null }): ReactNode {
  if (own?.state === 'rejected') return <Alert>{words.rejected(own.host, own.reason)}</Alert>
  return told && own?.state !== 'published' ? <Alert>{told}</Alert> : null
}

const Alert = ({ children }: { children: ReactNode }): ReactNode => (
  <p role="alert" className="mt-3 border-l-8 border-signal bg-ground p-3">
    {children}
  </p>
)

function Obstacles({ state: { host, obstacles } }: { state: Publishing }): ReactNode {
  if (host.isAway) return <p className="border-l-8 border-signal bg-ground p-3">{words.away(host.name)}</p>
  if (!obstacles.length) return <p>{words.clear}</p>
  return (
    <dl className="flex flex-col gap-2">
      {HARMS.map((harm) => {
        const own = obstacles.filter((one) => one.harm === harm)
        return own.length ? (
          <div key={harm} className={harm === 'less' ? 'border-l-8 border-rule pl-3' : 'border-l-8 border-signal pl-3'}>
            <dt className="font-bold">{words.harms[harm]}</dt>
            {own.map((one) => (
              <dd key={one.code}>{obstacleText(one)}</dd>
            ))}
          </div>
        ) : null
      })}
    </dl>
  )
}

const ASK_AGAIN_MS = 10_000

/** A video that is there, and what its viewers say. */
function Published({ publication: { id, page, host } }: { publication: PublishedProgress }): ReactNode {
  const [back, setBack] = useState<CameBack | null>(null)
  useEffect(() => {
    let isWanted = true
    // A host that is away now says it later.
    const ask = (): void =>
      void call<CameBack>('GET', `/api/publications/${id}`)
        .then((told) => isWanted && setBack(told))
        .catch(() => undefined)
    ask()
    const timer = setInterval(ask, ASK_AGAIN_MS)
    return () => {
      isWanted = false
      clearInterval(timer)
    }
  }, [id])
  const staying = back?.retention?.at(-1)
  return (
    <div className="mt-4 border-t border-rule pt-3">
      <p className="flex flex-wrap items-center gap-3">
        <b>
          {words.published}: {host}
        </b>
        {page && (
          <a href={page} target="_blank" rel="noreferrer" className="inline-flex min-h-11 items-center gap-2 underline">
            {words.open} <ExternalLink size={16} aria-hidden />
          </a>
        )}
      </p>
      {staying !== undefined && <p className="text-quiet">{words.curve(staying)}</p>}
      {back && (
        <>
          <h4 className="pt-2 text-lg font-bold">{words.comments}</h4>
          {back.comments.length ? (
            <ul aria-label={words.comments}>
              {back.comments.map((comment) => (
                <li key={comment.id} className="border-b border-rule py-1.5 break-words last:border-0">
                  <b>{comment.name}</b> {comment.text}
                </li>
              ))}
            </ul>
          ) : (
            <p className="text-quiet">{words.noComments}</p>
          )}
        </>
      )}
    </div>
  )
}
