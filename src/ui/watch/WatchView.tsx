// Watch: the session as viewers will have it. The overlay is drawn by the very code that renders it, frame by frame.
'use client'
import Link from 'next/link'
import { Expand, ListChecks, Pause, Play, Scissors } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useEffect, useMemo, useRef, useState, type ReactNode, type RefObject } from 'react'
import type { FitChoice } from '@/core/cut/choices'
import { spanAt, type Cut, type ShownSegment } from '@/core/cut/cut'
import type { CutWishes, Fit } from '@/core/cut/fit'
import type { Framing } from '@/core/cut/framing'
import type { Frame } from '@/core/look/drawOverlay'
import type { LookWish } from '@/core/look/looks/family'
import { OVERLAY } from '@/core/look/palette'
import { overlayChanges, type OverlayState, type Viewing } from '@/core/look/overlay'
import type { Stretch } from '@/core/cue/schedule'
import type { CueWishes } from '@/core/cue/wishes'
import { AROUND_MS, type Mark } from '@/core/proof/changes'
import type { Proof } from '@/core/proof/proof'
import type { Planned } from '@/core/score/segment'
import type { Mix } from '@/core/sound/mix'
import { formatClock } from '@/core/time/clock'
import type { Ms, Rate } from '@/core/units'
import { cutTexts } from '@/core/words/en/cuts'
import { proofTexts } from '@/core/words/en/proof'
import { texts } from '@/core/words/en/screens'
import type { ReelProgress } from '@/server/progress'
import { Button, IconButton } from '../parts/Button'
import { ChoiceField } from '../parts/fields'
import type { ReelFilm } from '../parts/ReelFilm'
import { filmFiles, ReelVideo, type FilmFile } from '../parts/ReelVideo'
import { useSteps, type VideoClock } from '../parts/useVideoClock'
import { CameraField, useCameras, type NamedCamera } from './CameraField'
import { CutSheet } from './CutSheet'
import { FramingBar } from './FramingBar'
import { LookField } from './LookField'
import { LaidTerrain } from './LaidTerrain'
import { MixFields } from './MixFields'
import { ProofPanel } from './ProofPanel'
import { SoundField } from './SoundField'
import { useIsBrowser } from '../parts/useIsBrowser'
import { useKept } from '../parts/useKept'
import { useAim, useFraming } from './useFraming'
import { useOverlay } from './useOverlay'
import { usePlayer } from './usePlayer'
import { PLAY_MODES, usePlayMode, type PlayMode } from './usePlayMode'
import { useProof } from './useProof'
import { useSound } from './useSound'
import { useTreatments } from './useTreatments'
import { useWatchKeys } from './useWatchKeys'

const words = texts.watch
const RATES = { '0.5': '0.5 x', '0.75': '0.75 x', '1': '1 x', '1.5': '1.5 x', '2': '2 x' } as const

interface Props {
  id: string
  viewing: Viewing
  mix: Mix
  cues: CueWishes
  look: LookWish
  framing: Framing
  proof: Proof
  wishes: CutWishes
  planned: Planned
  /** Null while there is nothing to watch. */
  film: Watchable | null
}

interface Watchable {
  reel: ReelProgress
  cut: Cut
  /** As it would be without second cameras. */
  plainCut: Cut
  cameras: NamedCamera[]
  shown: ShownSegment[]
  /** Null while there is no footage: the plan itself is played. */
  choices: Record<Fit, FitChoice> | null
  isTied: boolean
  size: Frame
  rate: Rate
  /** What is heard of the footage: where the coach speaks, where the timer counts, and what marks a change. */
  coach: readonly Stretch[]
  timer: readonly Ms[]
  marks: readonly Mark[]
}

export function WatchView({ film, ...props }: Props): ReactNode {
  const isBrowser = useIsBrowser()
  if (!film) {
    return (
      <main id="content" tabIndex={-1} className="p-10 text-lg">
        <h1 className="sr-only">{texts.way.watch}</h1>
        <p className="pb-5">{words.needScore}</p>
        <Link className="font-bold underline" href={`/w/${props.id}/score`}>
          {texts.way.score}
        </Link>
      </main>
    )
  }
  if (!isBrowser)
    return (
      <main id="content" tabIndex={-1} className="p-10 text-lg">
        <h1 className="sr-only">{texts.way.watch}</h1>
        <p role="status">{words.opening}</p>
      </main>
    )
  // Other files are another film.
  return <Player key={film.reel.key} {...props} film={film} files={filmFiles(film.reel)} />
}

type PlayerProps = Props & { film: Watchable; files: FilmFile[] }

/** All that plays, and what of it can be changed. */
function usePlayed({ id, viewing, film, files, ...kept }: PlayerProps) {
  const { cut, plainCut, cameras, shown, size } = film
  const picture = useRef<ReelFilm>(null)
  const [rate, setRate] = useState<keyof typeof RATES>('1')
  const [mix, changeMix] = useKept(id, 'mix', kept.mix)
  const [look, changeLook] = useKept(id, 'look', kept.look)
  const [cues, changeCues] = useKept(id, 'cues', kept.cues)
  const router = useRouter()
  // The cut is made where the evidence is.
  const [wishes, changeCut] = useKept(id, 'cut', kept.wishes, router.refresh)
  const ask = useMemo(
    () => ({ coach: film.coach, timer: film.timer, moves: viewing.moves }),
    [film.coach, film.timer, viewing.moves],
  )
  const channels = film.reel.files[0]?.facts?.audioChannels === 1 || !files.length ? 1 : 2
  const sound = useSound({ workoutId: id, cut, shown, wishes: cues, mix, ask, hasFilm: files.length > 0, channels })
  const player = usePlayer({ film: picture, cut, heard: sound.heard, rate: Number(rate) })
  const { clock } = player
  const framed = useFraming({
    ...{ workoutId: id, kept: kept.framing, clock, cut, files, filmed: size, film: picture },
  })
  const { canvas, stateNow, changes: overlay } = useOverlay({ clock, shown, viewing, size: framed.size, look })
  const proofing = useProof({
    ...{ workoutId: id, kept: kept.proof, cut, shown, overlay, cues: sound.sheet.cues },
    ...{ rate: film.rate, marks: film.marks, clock },
  })
  const playMode = usePlayMode({ clock, seek: player.seek, changes: proofing.changes, outMs: cut.outMs })
  const camera = useCameras({ clock, cut: plainCut, cameras, wishes, onChange: changeCut })
  const treatments = useTreatments({ clock, cut, shown, files, wishes, onChange: changeCut })
  return {
    ...{ picture, rate, setRate, mix, changeMix, look, changeLook, cues, changeCues, wishes, changeCut, sound, framed },
    ...{ ...player, canvas, stateNow, proofing, playMode, camera, treatments },
  }
}

function Player(props: PlayerProps): ReactNode {
  const { id, film, files } = props
  const { cut, shown, isTied, reel } = film
  const [proofs, setProofs] = useState(false)
  const stage = useRef<HTMLDivElement>(null)
  const played = usePlayed(props)
  const { picture, canvas, clock, playing, toggle, seek, playMode, proofing, framed } = played
  useAim(stage, clock, framed.dress)
  const showAround = (outMs: Ms): void => {
    seek(Math.max(0, outMs - AROUND_MS))
    if (!playing) toggle()
  }
  useWatchKeys({
    ...{ clock, shown, toggle, seek, nextCamera: played.camera.next, ...played.treatments },
    onProof: () => setProofs((before) => !before),
    onMode: () => playMode.setMode(nextMode(playMode.mode)),
    onFull: () => void toggleFull(stage.current),
  })
  return (
    <main id="content" tabIndex={-1} className="flex flex-1 flex-col lg:h-[calc(100dvh-56px)] lg:min-h-0 lg:flex-none">
      <h1 className="sr-only">{texts.way.watch}</h1>
      {!isTied && <NotTied id={id} />}
      {files.length === 0 && <p className="bg-pale px-6 py-2">{proofTexts.companion}</p>}
      <div className="flex min-h-0 flex-1 max-lg:flex-col">
        <Stage
          {...{ stage, picture, canvas, files, clock, cut }}
          size={framed.size}
          main={reel.files.length}
          onPress={toggle}
        />
        {proofs && <ProofPanel {...{ proofing, shown, clock }} isReady={played.sound.isTold} onGo={showAround} />}
      </div>
      {framed.isPart && files.length > 0 && <FramingBar framing={framed} clock={clock} onGo={seek} />}
      <LaidTerrain shown={shown} durationMs={cut.outMs} clock={clock} onSeek={seek} />
      <Controls
        {...props}
        {...played}
        proofs={proofs}
        onProofs={setProofs}
        onFull={() => void toggleFull(stage.current)}
      />
    </main>
  )
}

const nextMode = (mode: PlayMode): PlayMode => PLAY_MODES[(PLAY_MODES.indexOf(mode) + 1) % PLAY_MODES.length] ?? 'whole'

const toggleFull = (stage: HTMLElement | null): Promise<void> | undefined =>
  document.fullscreenElement ? document.exitFullscreen() : stage?.requestFullscreen()

type ControlsProps = PlayerProps &
  ReturnType<typeof usePlayed> & { proofs: boolean; onProofs: (open: boolean) => void; onFull: () => void }

function Controls({ film, viewing, planned, proofs, onProofs, onFull, ...played }: ControlsProps): ReactNode {
  const { cut, shown, choices, reel } = film
  const { clock, playing, toggle, seek, wishes, playMode, proofing, framed } = played
  const [cutting, setCutting] = useState(false)
  const segments = useMemo(() => shown.map(({ segment }) => segment), [shown])
  const goTo = (key: string): void =>
    seek(key === 'after' ? cut.outMs : (shown.find(({ segment }) => segment.id === key)?.startMs ?? 0))
  const open = proofing.changes.filter(({ state }) => state !== 'checked').length
  return (
    <div className="flex min-h-[74px] flex-wrap items-center gap-x-4 gap-y-2 px-6 py-2 max-sm:px-4">
      <Button weight="main" icon={playing ? <Pause size={18} /> : <Play size={18} />} onClick={toggle}>
        {playing ? words.pause : words.play}
      </Button>
      <Clock clock={clock} totalMs={cut.outMs} />
      {choices && (
        <Button icon={<Scissors size={18} />} onClick={() => setCutting(true)}>
          {`${cutTexts.open}: ${cutTexts.fits[wishes.fit]}`}
        </Button>
      )}
      <LookField
        wish={played.look}
        onChange={played.changeLook}
        framing={framed}
        tasteNow={() => tasteOf(played.stateNow()) ?? firstWork(shown, viewing)}
      />
      <SoundField
        {...{ wishes: played.cues, onChange: played.changeCues, mix: played.mix, onMix: played.changeMix }}
        {...{ sound: played.sound, shown, onGo: seek }}
      />
      <Button icon={<ListChecks size={18} />} aria-pressed={proofs} onClick={() => onProofs(!proofs)}>
        {proofTexts.open}
        <span className="text-sm tabular-nums">{open}</span>
      </Button>
      <CameraField {...played.camera} />
      <span className="flex flex-wrap items-center gap-x-4 gap-y-2 lg:ml-auto">
        <ChoiceField
          label={proofTexts.playing}
          value={playMode.mode}
          options={proofTexts.plays}
          onChange={playMode.setMode}
        />
        <ChoiceField label={words.rate} value={played.rate} options={RATES} onChange={played.setRate} />
        <MixFields mix={played.mix} onChange={played.changeMix} />
        <IconButton label={proofTexts.full} onClick={onFull}>
          <Expand size={18} />
        </IconButton>
      </span>
      {choices && (
        <CutSheet
          open={cutting}
          onOpenChange={setCutting}
          choices={choices}
          wishes={wishes}
          segments={segments}
          planned={planned}
          onChange={played.changeCut}
          names={Object.fromEntries(reel.files.map(({ id: footage, name }) => [footage, name]))}
          files={reel.files}
          treatments={played.treatments}
          onGo={(key) => {
            setCutting(false)
            goTo(key)
          }}
        />
      )}
    </div>
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

/** A card is the same in every look, so it says nothing of one. */
const tasteOf = (state: OverlayState | null): OverlayState | null => (state?.card ? null : state)

/** What is drawn for a taste where nothing stands on the picture: the first work, once it has begun. */
function firstWork(shown: readonly ShownSegment[], viewing: Viewing): OverlayState | null {
  const changes = overlayChanges(shown, viewing)
  return changes.find(({ state }) => state?.ground === 'work')?.state ?? null
}

interface StageProps {
  stage: RefObject<HTMLDivElement | null>
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
function Stage({ stage, picture, canvas, files, size, clock, cut, main, onPress }: StageProps): ReactNode {
  return (
    <div ref={stage} className="flex min-h-0 min-w-0 flex-1 items-center justify-center bg-bar">
      <div
        className="relative max-w-full max-lg:h-[calc(100dvh-var(--below))] max-lg:[--below:312px] max-sm:[--below:400px] lg:h-full in-fullscreen:h-full"
        style={{ aspectRatio: `${size.width} / ${size.height}`, backgroundColor: OVERLAY.ink }}
      >
        <ReelVideo film={picture} files={files} main={main} className="h-full w-full" onClick={onPress} />
        <canvas
          ref={canvas}
          width={size.width}
          height={size.height}
          className="pointer-events-none absolute inset-0 h-full w-full object-contain"
          data-testid="overlay"
        />
        {files.length > 0 && <SpanNote clock={clock} cut={cut} />}
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
