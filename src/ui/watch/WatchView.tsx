// Watch: the session as viewers will have it. The overlay is drawn by the very code that renders it, frame by frame.
'use client'
import Link from 'next/link'
import { Pause, Play } from 'lucide-react'
import { useMemo, useRef, useState, type ReactNode } from 'react'
import type { Stitch } from '@/core/align/ties'
import { followed } from '@/core/cut/follow'
import type { Counting } from '@/core/score/score'
import type { Segment } from '@/core/score/segment'
import type { Mix } from '@/core/sound/mix'
import { formatClock } from '@/core/time/clock'
import { texts } from '@/core/words/en/screens'
import type { FootageProgress } from '@/server/progress'
import { Button } from '../parts/Button'
import { ChoiceField } from '../parts/fields'
import { useSteps, useVideoClock, type VideoClock } from '../parts/useVideoClock'
import { LaidTerrain } from './LaidTerrain'
import { MixFields } from './MixFields'
import { useMix } from './useMix'
import { useOverlay } from './useOverlay'
import { usePlayer } from './usePlayer'
import { useWatchKeys } from './useWatchKeys'

const words = texts.watch
const RATES = { '0.5': '0.5 x', '0.75': '0.75 x', '1': '1 x', '1.5': '1.5 x', '2': '2 x' } as const

interface Props {
  id: string
  segments: Segment[]
  counting: Counting
  mix: Mix
  stitches: Stitch[]
  footage: FootageProgress | null
}

export function WatchView({ footage, ...props }: Props): ReactNode {
  if (!footage?.facts || footage.state !== 'ready') {
    return (
      <main id="content" tabIndex={-1} className="p-10 text-lg">
        <h1 className="sr-only">{texts.way.watch}</h1>
        <p className="pb-5">{words.needFootage}</p>
        <Link className="font-bold underline" href={`/w/${props.id}/sync`}>
          {texts.way.sync}
        </Link>
      </main>
    )
  }
  return <Player {...props} footageId={footage.id} facts={footage.facts} />
}

type PlayerProps = Omit<Props, 'footage'> & { footageId: string; facts: NonNullable<FootageProgress['facts']> }

function Player({ id, segments, counting, mix: kept, stitches, footageId, facts }: PlayerProps): ReactNode {
  const video = useRef<HTMLVideoElement>(null)
  const { clock, playing } = useVideoClock(video)
  const { cut, shown } = useMemo(
    () => followed(segments, stitches, facts.durationMs),
    [segments, stitches, facts.durationMs],
  )
  const [rate, setRate] = useState<keyof typeof RATES>('1')
  const { mix, change } = useMix(id, kept)
  const canvas = useOverlay({ clock, cut, shown, counting, size: facts })
  const { toggle, seek } = usePlayer({ video, clock, cut, shown, mix, rate: Number(rate) })
  useWatchKeys({ clock, cut, shown, toggle, seek })
  return (
    <main id="content" tabIndex={-1} className="flex flex-1 flex-col">
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
      <LaidTerrain shown={shown} durationMs={cut.outMs} clock={clock} onSeek={seek} />
      <div className="flex h-[74px] items-center gap-6 px-6">
        <Button weight="main" icon={playing ? <Pause size={18} /> : <Play size={18} />} onClick={toggle}>
          {playing ? words.pause : words.play}
        </Button>
        <Clock clock={clock} totalMs={cut.outMs} />
        <span className="ml-auto">
          <ChoiceField label={words.rate} value={rate} options={RATES} onChange={setRate} />
        </span>
        <MixFields mix={mix} onChange={change} />
      </div>
    </main>
  )
}

function Clock({ clock, totalMs }: { clock: VideoClock; totalMs: number }): ReactNode {
  const nowMs = useSteps(clock, 1000)
  return (
    <p className="font-display text-3xl tabular-nums">
      {formatClock(nowMs)} <span className="text-quiet">/ {formatClock(totalMs)}</span>
    </p>
  )
}
