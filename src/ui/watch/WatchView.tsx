// Watch: the session as viewers will have it. The overlay is drawn by the very code that renders it, frame by frame.
'use client'
import Link from 'next/link'
import { Pause, Play, Scissors } from 'lucide-react'
import { useEffect, useMemo, useRef, useState, type ReactNode, type RefObject } from 'react'
import type { FitChoice } from '@/core/cut/choices'
import { spanAt, type Cut, type ShownSegment } from '@/core/cut/cut'
import type { CutWishes, Fit } from '@/core/cut/fit'
import type { Frame } from '@/core/look/drawOverlay'
import type { LookWish } from '@/core/look/looks/family'
import { overlayChanges, type OverlayState, type Viewing } from '@/core/look/overlay'
import type { Planned } from '@/core/score/segment'
import type { Mix } from '@/core/sound/mix'
import { formatClock } from '@/core/time/clock'
import { cutTexts } from '@/core/words/en/cuts'
import { texts } from '@/core/words/en/screens'
import type { ReelProgress } from '@/server/progress'
import { Button } from '../parts/Button'
import { ChoiceField } from '../parts/fields'
import type { ReelFilm } from '../parts/ReelFilm'
import { filmFiles, ReelVideo, type FilmFile } from '../parts/ReelVideo'
import { useSteps, type VideoClock } from '../parts/useVideoClock'
import { CameraField, useCameras, type NamedCamera } from './CameraField'
import { CutSheet } from './CutSheet'
import { LookField } from './LookField'
import { LaidTerrain } from './LaidTerrain'
import { MixFields } from './MixFields'
import { useCut } from './useCut'
import { useKept } from '../parts/useKept'
import { useOverlay } from './useOverlay'
import { usePlayer } from './usePlayer'
import { useTreatments } from './useTreatments'
import { useWatchKeys } from './useWatchKeys'

const words = texts.watch
const RATES = { '0.5': '0.5 x', '0.75': '0.75 x', '1': '1 x', '1.5': '1.5 x', '2': '2 x' } as const

interface Props {
  id: string
  viewing: Viewing
  mix: Mix
  look: LookWish
  wishes: CutWishes
  planned: Planned
  /** Null while there is nothing to watch. */
  film: {
    reel: ReelProgress
    cut: Cut
    /** As it would be without second cameras. */
    plainCut: Cut
    cameras: NamedCamera[]
    shown: ShownSegment[]
    choices: Record<Fit, FitChoice>
    isTied: boolean
  } | null
}

export function WatchView({ film, ...props }: Props): ReactNode {
  const facts = film?.reel.files[0]?.facts
  if (!film || !facts) {
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
  // Other files are another film.
  return <Player key={film.reel.key} {...props} film={film} files={filmFiles(film.reel)} size={facts} />
}

type PlayerProps = Props & { film: NonNullable<Props['film']>; files: FilmFile[]; size: Frame }

function Player({
  id,
  viewing,
  mix: kept,
  look: keptLook,
  wishes: keptCut,
  planned,
  film,
  files,
  size,
}: PlayerProps): ReactNode {
  const { reel, cut, plainCut, cameras, shown, choices, isTied } = film
  const picture = useRef<ReelFilm>(null)
  const [rate, setRate] = useState<keyof typeof RATES>('1')
  const [cutting, setCutting] = useState(false)
  const [mix, change] = useKept(id, 'mix', kept)
  const [look, changeLook] = useKept(id, 'look', keptLook)
  const { wishes, change: changeCut } = useCut(id, keptCut)
  const segments = useMemo(() => shown.map(({ segment }) => segment), [shown])
  const { clock, playing, toggle, seek } = usePlayer({ film: picture, cut, shown, mix, rate: Number(rate) })
  const { canvas, stateNow } = useOverlay({ clock, shown, viewing, size, look })
  const camera = useCameras({ clock, cut: plainCut, cameras, wishes, onChange: changeCut })
  const treatments = useTreatments({ clock, cut, shown, files, wishes, onChange: changeCut })
  useWatchKeys({ clock, shown, toggle, seek, nextCamera: camera.next, ...treatments })
  const goTo = (key: string): void =>
    seek(key === 'after' ? cut.outMs : (shown.find(({ segment }) => segment.id === key)?.startMs ?? 0))
  return (
    <main id="content" tabIndex={-1} className="flex flex-1 flex-col">
      <h1 className="sr-only">{texts.way.watch}</h1>
      {!isTied && <NotTied id={id} />}
      <Stage {...{ picture, canvas, files, size, clock, cut }} main={reel.files.length} onPress={toggle} />
      <LaidTerrain shown={shown} durationMs={cut.outMs} clock={clock} onSeek={seek} />
      <div className="flex min-h-[74px] flex-wrap items-center gap-x-6 gap-y-2 px-6 py-2 max-sm:px-4">
        <Button weight="main" icon={playing ? <Pause size={18} /> : <Play size={18} />} onClick={toggle}>
          {playing ? words.pause : words.play}
        </Button>
        <Clock clock={clock} totalMs={cut.outMs} />
        <Button icon={<Scissors size={18} />} onClick={() => setCutting(true)}>
          {`${cutTexts.open}: ${cutTexts.fits[wishes.fit]}`}
        </Button>
        <LookField
          wish={look}
          onChange={changeLook}
          size={size}
          tasteNow={() => stateNow() ?? firstWork(shown, viewing)}
        />
        <CameraField {...camera} />
        <span className="lg:ml-auto">
          <ChoiceField label={words.rate} value={rate} options={RATES} onChange={setRate} />
        </span>
        <MixFields mix={mix} onChange={change} />
      </div>
      <CutSheet
        open={cutting}
        onOpenChange={setCutting}
        choices={choices}
        wishes={wishes}
        segments={segments}
        planned={planned}
        onChange={changeCut}
        names={Object.fromEntries(reel.files.map(({ id: footage, name }) => [footage, name]))}
        treatments={treatments}
        onGo={(key) => {
          setCutting(false)
          goTo(key)
        }}
      />
    </main>
  )
}

function NotTied({ id }: { id: string }): ReactNode {
  return (
    <p className="bg-land px-6 py-2 font-bold text-print">
      {words.needStitch}{' '}
      <Link className="underline" href={`/w/${id}/sync`}>
        {texts.way.sync}
      </Link>
    </p>
  )
}

/** What is drawn for a taste where nothing stands on the picture: the first work, once it has begun. */
function firstWork(shown: readonly ShownSegment[], viewing: Viewing): OverlayState | null {
  const changes = overlayChanges(shown, viewing)
  return changes.find(({ state }) => state?.ground === 'work')?.state ?? null
}

interface StageProps {
  picture: RefObject<ReelFilm | null>
  canvas: RefObject<HTMLCanvasElement | null>
  files: FilmFile[]
  size: Frame
  clock: VideoClock
  cut: Cut
  /** How many of the files are the reel's own. */
  main: number
  onPress: () => void
}

/** The film with all that lies over it. */
function Stage({ picture, canvas, files, size, clock, cut, main, onPress }: StageProps): ReactNode {
  return (
    <div className="flex min-h-0 flex-1 justify-center bg-bar">
      <div
        className="relative h-[calc(100dvh-var(--below))] max-w-full bg-bar [--below:262px] max-lg:[--below:312px] max-sm:[--below:400px]"
        style={{ aspectRatio: `${size.width} / ${size.height}` }}
      >
        <ReelVideo film={picture} files={files} main={main} className="h-full w-full" onClick={onPress} />
        <canvas
          ref={canvas}
          width={size.width}
          height={size.height}
          className="pointer-events-none absolute inset-0 h-full w-full object-contain"
          data-testid="overlay"
        />
        <SpanNote clock={clock} cut={cut} />
      </div>
    </div>
  )
}

/** Says where what is seen was not filmed for this place. */
function SpanNote({ clock, cut }: { clock: VideoClock; cut: Cut }): ReactNode {
  const [at, setAt] = useState(0)
  useEffect(() => clock.follow((outMs) => setAt(spanAt(cut, outMs))), [clock, cut])
  const why = cut.spans[at]?.why
  const note = why === 'reused' ? cutTexts.standsIn : why === 'card' ? cutTexts.drawn : null
  return note && <p className="absolute top-3 left-3 bg-bar px-3 py-1.5 text-sm text-on-bar">{note}</p>
}

function Clock({ clock, totalMs }: { clock: VideoClock; totalMs: number }): ReactNode {
  const nowMs = useSteps(clock, 1000)
  return (
    <p className="font-display text-3xl whitespace-nowrap tabular-nums">
      {formatClock(nowMs)} <span className="text-quiet">/ {formatClock(totalMs)}</span>
    </p>
  )
}
