// Watch: the session as viewers will have it. The overlay is drawn by the very code that renders it, frame by frame.
'use client'
import Link from 'next/link'
import { Pause, Play } from 'lucide-react'
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { boundariesOf } from '@/core/align/boundaries'
import { cuesFor } from '@/core/cue/cues'
import { lay } from '@/core/cut/lane'
import { drawOverlay } from '@/core/look/drawOverlay'
import type { Score } from '@/core/score/score'
import { keyOf, overlayAt, overlayChanges } from '@/core/look/overlay'
import type { Segment } from '@/core/score/segment'
import { formatClock } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import type { FootageProgress } from '@/server/progress'
import type { StoredStitch } from '@/server/stitches'
import { Button } from '../parts/Button'
import { ChoiceField } from '../parts/fields'
import { isTyping } from '../parts/isTyping'
import { useFonts } from '../parts/useCanvas'
import { useVideoClock } from '../parts/useVideoClock'
import { texts } from '../texts'
import { CuePlayer } from './CuePlayer'
import { LaidTerrain } from './LaidTerrain'
import { Level } from './Level'

const words = texts.watch
const RATES = { 0.5: '0.5 x', 0.75: '0.75 x', 1: '1 x', 1.5: '1.5 x', 2: '2 x' } as const

interface Props {
  id: string
  segments: Segment[]
  count: Score['count']
  stitches: StoredStitch[]
  footage: FootageProgress | null
}

export function WatchView({ id, segments, count, stitches, footage }: Props): ReactNode {
  if (!footage?.facts || footage.state !== 'ready') {
    return (
      <main className="p-10 text-lg">
        <h1 className="sr-only">{texts.way.watch}</h1>
        <p className="pb-5">{words.needFootage}</p>
        <Link className="font-bold underline" href={`/w/${id}/sync`}>
          {texts.way.sync}
        </Link>
      </main>
    )
  }
  return (
    <Player
      id={id}
      segments={segments}
      count={count}
      stitches={stitches}
      footageId={footage.id}
      facts={footage.facts}
    />
  )
}

interface PlayerProps {
  id: string
  segments: Segment[]
  count: Score['count']
  stitches: StoredStitch[]
  footageId: string
  facts: NonNullable<FootageProgress['facts']>
}

function Player({ id, segments, count, stitches, footageId, facts }: PlayerProps): ReactNode {
  const video = useRef<HTMLVideoElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const player = useRef<CuePlayer | null>(null)
  const fontsReady = useFonts()
  const lane = useMemo(
    () => lay(segments, boundariesOf(segments), stitches, facts.durationMs),
    [segments, stitches, facts],
  )
  const changes = useMemo(() => overlayChanges(lane, count), [lane, count])
  const cues = useMemo(() => cuesFor(lane), [lane])
  const [rate, setRate] = useState<keyof typeof RATES>(1)
  const [levels, setLevels] = useState({ voice: 0.8, cues: 1 })
  const shown = useRef<string | null>(null)

  const paint = useCallback(
    (ms: Ms) => {
      const pen = canvas.current?.getContext('2d')
      const state = overlayAt(changes, ms)
      const key = keyOf(state)
      if (!pen || key === shown.current) return
      shown.current = key
      pen.clearRect(0, 0, facts.width, facts.height)
      if (state) drawOverlay(pen, state, facts)
      if (canvas.current) canvas.current.dataset.count = state ? String(state.count) : ''
    },
    [changes, facts],
  )
  const onFrame = useCallback(
    (mediaMs: Ms, shownAt: number) => {
      // Half a frame's grace: a frame's time is rounded, a boundary's is not.
      paint(mediaMs + 1)
      player.current?.onFrame(mediaMs, shownAt)
    },
    [paint],
  )
  const { nowMs, playing } = useVideoClock(video, onFrame)

  useEffect(() => {
    shown.current = null
    paint((video.current?.currentTime ?? 0) * 1000 + 1)
  }, [paint, fontsReady])
  useEffect(() => {
    if (player.current) player.current.cues = cues
  }, [cues])
  useEffect(() => player.current?.setLevels(levels.voice, levels.cues), [levels])
  useEffect(() => {
    if (video.current) video.current.playbackRate = Number(rate)
  }, [rate])
  useEffect(
    () => () => {
      player.current?.close()
      player.current = null
    },
    [],
  )

  const toggle = useCallback(() => {
    const element = video.current
    if (!element) return
    if (!element.paused) return element.pause()
    // Browsers allow sound only after a press, so the player is made on the first one.
    if (!player.current) {
      player.current = new CuePlayer(element)
      player.current.cues = cues
      player.current.setLevels(levels.voice, levels.cues)
    }
    void element.play().catch(() => {})
  }, [cues, levels])
  const seek = useCallback(
    (ms: Ms) => {
      if (video.current) video.current.currentTime = Math.max(0, Math.min(facts.durationMs - 1, ms)) / 1000
    },
    [facts],
  )

  useEffect(() => {
    const jump = (way: 1 | -1): void => {
      const now = (video.current?.currentTime ?? 0) * 1000
      const starts = lane.map((laid) => laid.startMs)
      const to = way > 0 ? starts.find((ms) => ms > now + 50) : starts.findLast((ms) => ms < now - 500)
      if (to !== undefined) seek(to)
    }
    const actions: Record<string, () => void> = {
      ' ': toggle,
      ArrowLeft: () => seek((video.current?.currentTime ?? 0) * 1000 - 2000),
      ArrowRight: () => seek((video.current?.currentTime ?? 0) * 1000 + 2000),
      ArrowUp: () => jump(-1),
      ArrowDown: () => jump(1),
    }
    const onKey = (event: KeyboardEvent): void => {
      const action = actions[event.key]
      if (
        !action ||
        isTyping(event) ||
        event.ctrlKey ||
        event.metaKey ||
        (event.key === ' ' && event.target instanceof HTMLButtonElement)
      )
        return
      event.preventDefault()
      action()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [toggle, seek, lane])

  return (
    <main className="flex flex-1 flex-col">
      <h1 className="sr-only">{texts.way.watch}</h1>
      {!stitches.length && (
        <p className="bg-land px-6 py-2 font-bold text-print">
          {words.needStitch}{' '}
          <Link className="underline" href={`/w/${id}/sync`}>
            {texts.way.sync}
          </Link>
        </p>
      )}
      <div className="flex min-h-0 flex-1 justify-center bg-bar">
        <div
          className="relative max-h-[calc(100dvh-262px)] max-w-full"
          style={{ aspectRatio: `${facts.width} / ${facts.height}`, height: 'calc(100dvh - 262px)' }}
        >
          <video
            ref={video}
            src={`/api/footage/${footageId}/picture`}
            preload="auto"
            playsInline
            className="absolute inset-0 h-full w-full"
            onClick={toggle}
          />
          <canvas
            ref={canvas}
            width={facts.width}
            height={facts.height}
            className="pointer-events-none absolute inset-0 h-full w-full"
            data-testid="overlay"
          />
        </div>
      </div>
      <LaidTerrain lane={lane} durationMs={facts.durationMs} nowMs={nowMs} onSeek={seek} />
      <div className="flex h-[74px] items-center gap-6 px-6">
        <Button weight="main" icon={playing ? <Pause size={18} /> : <Play size={18} />} onClick={toggle}>
          {playing ? words.pause : words.play}
        </Button>
        <p className="font-display text-3xl tabular-nums">
          {formatClock(Math.floor(nowMs / 1000) * 1000)}{' '}
          <span className="text-quiet">/ {formatClock(facts.durationMs)}</span>
        </p>
        <span className="ml-auto">
          <ChoiceField
            label={words.rate}
            value={String(rate) as '1'}
            options={RATES as Record<'1', string>}
            onChange={(value) => setRate(Number(value) as keyof typeof RATES)}
          />
        </span>
        <Level label={words.voice} value={levels.voice} onChange={(voice) => setLevels((now) => ({ ...now, voice }))} />
        <Level
          label={words.cues}
          value={levels.cues}
          onChange={(value) => setLevels((now) => ({ ...now, cues: value }))}
        />
      </div>
    </main>
  )
}
