// What part of the picture is seen, where the video has another shape than was filmed: it goes along with the keys as
// the picture plays, and a key is set where somebody moves it.
'use client'
import { useCallback, useEffect, useMemo, useState, type RefObject } from 'react'
import { toast } from 'sonner'
import { toOutput, type Cut } from '@/core/cut/cut'
import {
  aimAt,
  aimsOf,
  framedSize,
  partOf,
  SAME_KEY_MS,
  withKey,
  type Framing,
  type FramingKey,
  type Shape,
  type Size,
} from '@/core/cut/framing'
import { filesInRow } from '@/core/filesInRow'
import type { Ms, Share } from '@/core/units'
import { framingTexts as words } from '@/core/words/en/framing'
import { call } from '../api'
import type { FilmFile } from '../parts/ReelVideo'
import type { ReelFilm } from '../parts/ReelFilm'
import { useKept } from '../parts/useKept'
import type { VideoClock } from '../parts/useVideoClock'
import { placeAt } from './placeAt'

interface Props {
  workoutId: string
  kept: Framing
  clock: VideoClock
  cut: Cut
  files: readonly FilmFile[]
  /** Of the footage. */
  filmed: Size
  film: RefObject<ReelFilm | null>
}

/** A picture of the footage, whole, and where it is looked at. */
export interface FilmedPicture {
  picture: HTMLCanvasElement
  at: Share
}

export interface WatchedFraming {
  framing: Framing
  /** Of the video. */
  size: Size
  /** Whether a part of the footage is shown, and not all of it. */
  isPart: boolean
  shape: (shape: Shape) => void
  /** Where it looks now, and whether a key says so here. */
  now: () => { at: Share; key: FramingKey | null }
  /** Looks there, from a key at this instant. */
  aim: (at: Share) => void
  drop: (key: FramingKey) => void
  clear: () => void
  follow: () => void
  following: boolean
  /** Where in the output keys stand, in order. */
  keysAt: readonly Ms[]
  /** The footage that is seen now; null where there is none. */
  pictureNow: () => FilmedPicture | null
  /** Tells the stage where to look. */
  dress: (stage: HTMLElement | null, outMs: Ms) => void
}

export function useFraming({ workoutId, kept, clock, cut, files, filmed, film }: Props): WatchedFraming {
  const [framing, change] = useKept(workoutId, 'framing', kept)
  const [following, setFollowing] = useState(false)
  const size = useMemo(() => framedSize(filmed, framing.shape), [filmed, framing.shape])
  const part = useMemo(() => partOf(filmed, framing.shape), [filmed, framing.shape])
  const isPart = part.width !== filmed.width || part.height !== filmed.height
  const aims = useMemo(() => new Map(files.map(({ id }) => [id, aimsOf(framing, id)])), [files, framing])
  const atIn = useCallback(
    (outMs: Ms): Share => {
      const place = placeAt(cut, outMs, files)
      return place ? aimAt(aims.get(place.footage) ?? [], place.ms) : 0.5
    },
    [cut, files, aims],
  )
  const now = useCallback(() => {
    const place = placeAt(cut, clock.nowMs(), files)
    const key = framing.keys.find(
      ({ footage, atMs }) => footage === place?.footage && Math.abs(atMs - place.ms) <= SAME_KEY_MS,
    )
    return { at: atIn(clock.nowMs()), key: key ?? null }
  }, [cut, files, clock, framing, atIn])
  const aim = useCallback(
    (at: Share) => {
      const place = placeAt(cut, clock.nowMs(), files)
      if (!place) return void toast(words.nothingSeen)
      change(withKey(framing, { footage: place.footage, atMs: place.ms, at }))
    },
    [cut, files, clock, framing, change],
  )
  const follow = useCallback(() => {
    setFollowing(true)
    void call<{ keys: FramingKey[] }>('POST', `/api/workouts/${workoutId}/framing/follow`, { shape: framing.shape })
      .then(({ keys }) => {
        if (keys.length) change({ keys })
        toast(keys.length ? words.followed(keys.length) : words.nobodyMoves)
      })
      .catch((error: Error) => void toast.error(error.message))
      .finally(() => setFollowing(false))
  }, [workoutId, framing.shape, change])
  const keysAt = useMemo(() => placesOfKeys(framing, cut, files), [framing, cut, files])
  const pictureNow = useCallback((): FilmedPicture | null => {
    const video = film.current?.picture
    if (!(video instanceof HTMLVideoElement) || !video.videoWidth) return null
    const picture = document.createElement('canvas')
    Object.assign(picture, { width: video.videoWidth, height: video.videoHeight })
    picture.getContext('2d')?.drawImage(video, 0, 0)
    return { picture, at: now().at }
  }, [now, film])
  const dress = useCallback(
    (stage: HTMLElement | null, outMs: Ms) => {
      stage?.style.setProperty('--fit', isPart ? 'cover' : 'contain')
      stage?.style.setProperty('--aim', `${(100 * atIn(outMs)).toFixed(2)}%`)
    },
    [isPart, atIn],
  )
  return {
    ...{ framing, size, isPart, now, aim, follow, following, keysAt, pictureNow, dress },
    shape: useCallback((shape: Shape) => change({ shape }), [change]),
    drop: useCallback(
      (key: FramingKey) => change({ keys: framing.keys.filter((one) => one !== key) }),
      [framing, change],
    ),
    clear: useCallback(() => change({ keys: [] }), [change]),
  }
}

function placesOfKeys({ keys }: Framing, cut: Cut, files: readonly FilmFile[]): Ms[] {
  const { beginMs } = filesInRow(files.map(({ durationMs }) => durationMs))
  return keys
    .flatMap(({ footage, atMs }) => {
      const file = files.findIndex(({ id }) => id === footage)
      return file < 0 ? [] : (toOutput(cut, 0, (beginMs[file] ?? 0) + atMs) ?? [])
    })
    .sort((one, other) => one - other)
}

/** Keeps the stage looking where it should, from frame to frame. */
export function useAim(stage: RefObject<HTMLElement | null>, clock: VideoClock, dress: WatchedFraming['dress']): void {
  useEffect(() => {
    dress(stage.current, clock.nowMs())
    return clock.follow((outMs) => dress(stage.current, outMs))
  }, [stage, clock, dress])
}
