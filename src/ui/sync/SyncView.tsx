// Sync: the footage, the two shores with their threads, and the list of changes to tie, by ear or by hand.
'use client'
import { useRouter } from 'next/navigation'
import { Ear, Pause, Play, Redo2, Undo2 } from 'lucide-react'
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { useStore } from 'zustand'
import { boundariesOf, fitClock, predict, tieKey } from '@/core/align/boundaries'
import { describeSync, type SyncResult } from '@/core/align/sync'
import type { Segment } from '@/core/score/segment'
import type { Ms } from '@/core/units'
import type { FootageProgress, Progress } from '@/server/progress'
import type { StoredStitch } from '@/server/stitches'
import { call } from '../api'
import { Button, IconButton } from '../parts/Button'
import { isTyping } from '../parts/isTyping'
import { ProgressLine } from '../parts/ProgressLine'
import { useProgress } from '../parts/useProgress'
import { useVideoClock } from '../parts/useVideoClock'
import { texts } from '../texts'
import { AddFootage, ChooseFile } from './AddFootage'
import { ChangeList, type Change } from './ChangeList'
import { Shores } from './Shores'
import { createStitchStore } from './stitchStore'
import { SyncSummary } from './SyncSummary'
import { useUpload } from './useUpload'

const words = texts.sync
interface Props {
  id: string
  segments: Segment[]
  progress: Progress
  stitches: StoredStitch[]
  revision: number
}

export function SyncView({ id, segments, progress: initial, stitches, revision }: Props): ReactNode {
  const progress = useProgress(id, initial)
  const { upload, problem, send, cancel } = useUpload(id)
  const { footage } = progress
  const replacing = progress.jobs.find(
    (job) => job.kind === 'prepare' && (job.state === 'queued' || job.state === 'active'),
  )
  if (!footage || footage.state !== 'ready' || !footage.facts) {
    return (
      <main className="flex flex-1 flex-col">
        <AddFootage
          progress={progress}
          upload={upload}
          uploadProblem={problem}
          onFile={(file) => void send(file)}
          onCancel={cancel}
        />
      </main>
    )
  }
  const trouble =
    problem ??
    (progress.failedUpload ? `${progress.failedUpload.name}: ${progress.failedUpload.problem}` : footage.warning)
  return (
    <main className="flex flex-1 flex-col">
      <h1 className="sr-only">{texts.way.sync}</h1>
      {upload && (
        <div className="px-6 pt-4">
          <ProgressLine
            label={`${words.uploading} ${upload.name}`}
            share={upload.share}
            leftMs={upload.leftMs}
            onCancel={cancel}
          />
        </div>
      )}
      {!upload && replacing && (
        <div className="px-6 pt-4">
          <ProgressLine label={words.checking} share={replacing.share} leftMs={replacing.leftMs} />
        </div>
      )}
      {trouble && (
        <p role="alert" className="border-b-2 border-rule bg-pale px-6 py-2">
          {trouble}
        </p>
      )}
      <Stitching
        key={footage.id}
        id={id}
        segments={segments}
        footage={footage}
        stitches={stitches}
        revision={revision}
        replace={<ChooseFile plain label={words.replace} onFile={(file) => void send(file)} />}
      />
    </main>
  )
}

interface StitchingProps {
  id: string
  segments: Segment[]
  footage: FootageProgress
  stitches: StoredStitch[]
  revision: number
  replace: ReactNode
}

function Stitching({ id, segments, footage, stitches: initial, revision, replace }: StitchingProps): ReactNode {
  const router = useRouter()
  const [store] = useState(() => createStitchStore(id, initial, revision, () => router.refresh()))
  const { stitches, past, future, problem, set, put, remove, undoOnce, redoOnce } = useStore(store)
  const video = useRef<HTMLVideoElement>(null)
  const { nowMs, playing } = useVideoClock(video)
  const [chosen, setChosen] = useState(0)
  const [hearing, setHearing] = useState(false)
  const stopAt = useRef<Ms | null>(null)
  const facts = footage.facts
  const footageMs = facts?.durationMs ?? 0
  const frameMs = facts ? (1000 * facts.rate.den) / facts.rate.num : 33
  const boundaries = useMemo(() => boundariesOf(segments), [segments])
  const changes = useMemo(
    () => toChanges(segments, boundaries, stitches, footageMs),
    [segments, boundaries, stitches, footageMs],
  )
  const summary = useMemo(
    () =>
      describeSync(
        segments,
        stitches.map((one) => ({ ...one, row: 0 })),
        footageMs,
      ).summary,
    [segments, stitches, footageMs],
  )
  const change = changes[Math.min(chosen, changes.length - 1)]

  const seek = useCallback((ms: Ms) => {
    if (video.current) video.current.currentTime = Math.max(0, ms) / 1000
  }, [])
  const toggle = useCallback(() => {
    stopAt.current = null
    if (video.current?.paused) void video.current.play().catch(() => {})
    else video.current?.pause()
  }, [])
  const choose = useCallback(
    (index: number, andSeek = true) => {
      const bounded = Math.max(0, Math.min(changes.length - 1, index))
      setChosen(bounded)
      const target = changes[bounded]
      if (target && andSeek) seek(target.footageMs)
    },
    [changes, seek],
  )
  const stitchHere = useCallback(() => {
    if (!change || !video.current) return
    put(change.segmentId, change.edge, video.current.currentTime * 1000)
    choose(chosen + 1, false)
  }, [change, chosen, choose, put])
  const nudge = useCallback(
    (byMs: number) => {
      if (!change) return
      put(change.segmentId, change.edge, Math.min(footageMs, change.footageMs + byMs))
      seek(change.footageMs + byMs)
    },
    [change, footageMs, put, seek],
  )
  const hearAround = useCallback(() => {
    if (!change || !video.current) return
    stopAt.current = change.footageMs + 1000
    seek(change.footageMs - 1000)
    void video.current.play().catch(() => {})
  }, [change, seek])
  useEffect(() => {
    if (stopAt.current !== null && nowMs >= stopAt.current) {
      stopAt.current = null
      video.current?.pause()
    }
  }, [nowMs])

  useEffect(() => {
    const actions: Record<string, () => void> = {
      ' ': toggle,
      Enter: stitchHere,
      ArrowUp: () => choose(chosen - 1),
      ArrowDown: () => choose(chosen + 1),
      h: hearAround,
      H: hearAround,
      Backspace: () => {
        if (change) remove(change.segmentId, change.edge)
      },
      Delete: () => {
        if (change) remove(change.segmentId, change.edge)
      },
    }
    const onKey = (event: KeyboardEvent): void => {
      if (isTyping(event) || event.altKey) return
      const step = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
      const undo = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z'
      // A row that was pressed keeps the focus; Enter and space mean the change in it, not another press.
      const onButton =
        event.target instanceof HTMLButtonElement &&
        !event.target.dataset.choose &&
        (event.key === ' ' || event.key === 'Enter')
      const action = undo
        ? event.shiftKey
          ? redoOnce
          : undoOnce
        : step
          ? () => nudge(step * (event.shiftKey ? 10 : frameMs))
          : actions[event.key]
      if (!action || onButton || ((event.ctrlKey || event.metaKey) && !undo)) return
      event.preventDefault()
      action()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [toggle, stitchHere, choose, chosen, hearAround, change, remove, nudge, frameMs, undoOnce, redoOnce])

  const hear = async (): Promise<void> => {
    setHearing(true)
    try {
      const result = await call<SyncResult>('POST', `/api/workouts/${id}/align`)
      const byHand = stitches.filter((one) => one.evidence.includes('hand'))
      const held = new Set(byHand.map((one) => tieKey(one)))
      const heard = result.stitches.filter((one) => !held.has(tieKey(one)))
      const count = boundaries.filter((one) => one.audible).length
      if (heard.length)
        set([
          ...byHand,
          ...heard.map(({ segmentId, edge, footageMs: at, confidence, evidence }) => ({
            segmentId,
            edge,
            footageMs: at,
            confidence,
            evidence,
          })),
        ])
      toast(heard.length ? words.found(heard.length + byHand.length, count) : words.foundNone)
    } catch (error) {
      toast.error((error as Error).message)
    }
    setHearing(false)
  }

  if (!segments.length) return <p className="p-10 text-lg text-quiet">{words.needScore}</p>
  return (
    <>
      <div className="flex h-[392px] gap-6 px-6 pt-5 pb-4">
        <div className="flex w-[560px] shrink-0 flex-col">
          <video
            ref={video}
            src={`/api/footage/${footage.id}/picture`}
            preload="auto"
            playsInline
            className="h-[300px] w-full bg-bar object-contain"
            onClick={toggle}
          />
          <div className="flex items-center gap-2 pt-3">
            <Button icon={playing ? <Pause size={18} /> : <Play size={18} />} onClick={toggle}>
              {playing ? words.pause : words.play}
            </Button>
            <Button weight="main" onClick={stitchHere}>
              {words.stitch}
            </Button>
            <span className="ml-auto flex">
              <IconButton label={texts.score.undo} disabled={!past.length} onClick={undoOnce}>
                <Undo2 size={18} />
              </IconButton>
              <IconButton label={texts.score.redo} disabled={!future.length} onClick={redoOnce}>
                <Redo2 size={18} />
              </IconButton>
            </span>
            {replace}
          </div>
        </div>
        <div className="flex min-w-0 flex-1 flex-col">
          <div className="flex items-start gap-5 pb-3">
            <SyncSummary changes={changes} summary={summary} />
            <Button
              weight={stitches.length ? 'plain' : 'main'}
              className="ml-auto"
              icon={<Ear size={18} />}
              disabled={hearing || !facts?.audioCodec}
              onClick={() => void hear()}
            >
              {facts?.audioCodec ? words.hear : words.noSound}
            </Button>
          </div>
          {problem && (
            <p role="alert" className="pb-2 text-signal">
              {problem}
            </p>
          )}
          <ChangeList
            changes={changes}
            chosen={Math.min(chosen, changes.length - 1)}
            frameMs={frameMs}
            onChoose={choose}
            onNudge={nudge}
            onHear={hearAround}
            onRemove={(one) => remove(one.segmentId, one.edge)}
          />
        </div>
      </div>
      <Shores
        segments={segments}
        changes={changes}
        chosen={Math.min(chosen, changes.length - 1)}
        fit={summary}
        footage={footage}
        nowMs={nowMs}
        playing={playing}
        onSeek={seek}
        onChoose={choose}
        onDrop={(index, ms) => {
          const target = changes[index]
          if (target) put(target.segmentId, target.edge, Math.min(footageMs, ms))
        }}
      />
    </>
  )
}

/** Every change with where it is and how that is known; the very start and an end in talk are not to be tied. */
function toChanges(
  segments: Segment[],
  boundaries: ReturnType<typeof boundariesOf>,
  stitches: StoredStitch[],
  footageMs: Ms,
): Change[] {
  const fit = fitClock(boundaries, stitches)
  const places = predict(boundaries, stitches, footageMs)
  const tied = new Map(stitches.map((one) => [tieKey(one), one]))
  const byId = new Map(segments.map((segment) => [segment.id, segment]))
  return boundaries.flatMap((boundary, index): Change[] => {
    const segment = byId.get(boundary.segmentId)
    if (!segment || !boundary.audible) return []
    const stitch = tied.get(tieKey(boundary))
    return [
      {
        segmentId: boundary.segmentId,
        edge: boundary.edge,
        segment,
        footageMs: places[index]?.footageMs ?? 0,
        plannedMs: fit.offsetMs + boundary.plannedMs * (1 + fit.driftPpm / 1e6),
        origin: !stitch
          ? 'reckoned'
          : stitch.evidence.includes('hand')
            ? 'hand'
            : stitch.confidence >= 0.9
              ? 'beep'
              : 'unsure',
        confidence: stitch?.confidence ?? null,
      },
    ]
  })
}
