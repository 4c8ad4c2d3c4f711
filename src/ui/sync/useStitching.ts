// What Sync works on: the ties of one reel, the change that is chosen, and everything that can be done with them.
'use client'
import { useRouter } from 'next/navigation'
import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import { toast } from 'sonner'
import { useStore } from 'zustand'
import { asDone } from '@/core/align/notDone'
import { storyOf, type Story } from '@/core/align/story'
import { describeSync, LEAST_LIKENESS, type SyncSummary } from '@/core/align/sync'
import type { Stitch, Tie } from '@/core/align/ties'
import type { EvidenceKind } from '@/core/evidence'
import type { Segment } from '@/core/score/segment'
import { frameMsOf, type Ms } from '@/core/units'
import { problemSentence } from '@/core/words/en/problems'
import { floorTexts } from '@/core/words/en/floor'
import { texts } from '@/core/words/en/screens'
import type { AlignAnswer } from '@/server/fitting'
import type { ReelProgress } from '@/server/progress'
import type { Stitches } from '@/server/stitches'
import { call } from '../api'
import type { ReelFilm } from '../parts/ReelFilm'
import type { VideoClock } from '../parts/useVideoClock'
import { changesOf, type Change } from './changes'
import type { SaveState } from '../parts/saveQueue'
import { createStitchStore, type StitchState } from './stitchStore'
import { useTodo, type Todos } from './useTodo'
import { whenLeft } from '../parts/whenLeft'

const words = texts.sync

/** How much is heard before and after a change that is listened to. */
const AROUND_MS = 1000

export interface Stitching extends Todos {
  changes: Change[]
  stitches: readonly Stitch[]
  /** Plan and ties without what was not done. */
  done: ReturnType<typeof asDone<Stitch>>
  /** Place of the chosen change in the list. */
  chosen: number
  change: Change | undefined
  summary: SyncSummary
  story: Story
  footageMs: Ms
  frameMs: Ms
  anyTied: boolean
  canUndo: boolean
  canRedo: boolean
  saveState: SaveState
  /** Why the last save was refused. */
  refusal: string
  resolveStale: StitchState['resolveStale']
  hearing: boolean
  /** How often the changes were looked for since the page was opened. */
  looks: number
  seek: (ms: Ms) => void
  toggle: () => void
  choose: (index: number, andSeek?: boolean) => void
  /** Takes ties away; what is not said stays. @returns how many. */
  forget: (which: (tie: Stitch) => boolean) => number
  /** Takes ties over that were made elsewhere, beside those by hand that there are; one step to undo. */
  takeOver: (ties: readonly Stitch[]) => void
  /** Ties the chosen change to the frame on screen, and goes to the next. */
  stitchHere: () => void
  nudge: (byMs: Ms) => void
  moveTo: (index: number, ms: Ms) => void
  hearAround: () => void
  remove: (change: Change) => void
  undo: () => void
  redo: () => void
  /** Kinds of evidence that are left out when the changes are looked for. */
  hushed: ReadonlySet<EvidenceKind>
  hush: (kind: EvidenceKind, hush: boolean) => void
  /** @param tap a change that was tied just now: what sounds like it is looked for as well. */
  findChanges: (tap?: Tie) => void
  /** Looks for what sounds like the chosen change, which a hand tied. */
  likeThis: () => void
  /** How fast it plays; a pass of taps need not take as long as the session. */
  speed: number
  nextSpeed: () => void
}

interface Props {
  workoutId: string
  segments: Segment[]
  reel: ReelProgress
  tied: Stitches
  /** How often captions were added: then the changes are looked for again. */
  captioned: number
  findsAtOnce: boolean
  onPlanAs: (sections: readonly string[]) => void
  film: RefObject<ReelFilm | null>
  clock: VideoClock
}

export function useStitching({ workoutId, segments, reel, tied, film, clock, ...looking }: Props): Stitching {
  const router = useRouter()
  const { footageMs, files, key: reelKey } = reel
  const frameMs = files[0]?.facts ? frameMsOf(files[0].facts.rate) : 33
  const [store] = useState(() =>
    createStitchStore({ workoutId, reelKey, segments, footageMs, ...tied, onSaved: () => router.refresh() }),
  )
  const state = useStore(store)
  useKeeping(store)
  const [place, setPlace] = useState(0)
  const { stitches } = state
  const changes = useMemo(() => changesOf(segments, stitches, footageMs), [segments, stitches, footageMs])
  const done = useMemo(() => asDone(segments, stitches), [segments, stitches])
  const { summary } = useMemo(() => describeSync(done.segments, done.ties, footageMs), [done, footageMs])
  const story = useMemo(() => storyOf(done.segments, done.ties), [done])
  const chosen = Math.min(place, changes.length - 1)
  const change = changes[chosen]
  const playing = usePlaying(film, clock)
  const { seek } = playing

  const choose = useCallback(
    (index: number, andSeek = true) => {
      const bounded = Math.max(0, Math.min(changes.length - 1, index))
      setPlace(bounded)
      const target = changes[bounded]
      if (target && andSeek) seek(target.footageMs)
    },
    [changes, seek],
  )
  /** @returns whether the tie was made. */
  const put = useCallback(
    (target: Change, ms: Ms): boolean => {
      const tie: Tie = { segmentId: target.segmentId, edge: target.edge, footageMs: Math.round(ms) }
      const outcome = store.getState().put(tie)
      if (outcome.problem) toast.error(problemSentence(outcome.problem))
      else if (outcome.dropped) toast(words.dropped(outcome.dropped))
      return !outcome.problem
    },
    [store],
  )
  const { hearing, looks, hushed, hush, findChanges, lookAgain } = useHearing({ workoutId, segments }, store, looking)
  const stitchesNow = store.getState().now
  const todo = useTodo({
    ...{ segments, changes, chosen, stitches, put, choose },
    ...{ stitchesNow, lookAgain, leaveOut: state.leaveOut },
  })
  const { onlyTodo, nextTodo } = todo
  const stitchHere = useCallback(() => {
    if (!change || !film.current) return
    // A second camera is never tied: what lies behind the reel is not its time.
    const ms = Math.min(footageMs, Math.round(film.current.currentTime * 1000))
    if (!put(change, ms)) return
    if (onlyTodo) nextTodo()
    else choose(chosen + 1, false)
    // What was not known before tells something of all the others.
    if (looks && isDoubtful(change)) findChanges({ segmentId: change.segmentId, edge: change.edge, footageMs: ms })
  }, [change, chosen, choose, put, film, footageMs, looks, findChanges, onlyTodo, nextTodo])
  const likeThis = useCallback(() => {
    if (change?.origin !== 'hand') return void toast(words.likeNeedsTie)
    findChanges({ segmentId: change.segmentId, edge: change.edge, footageMs: Math.round(change.footageMs) })
  }, [change, findChanges])
  const { nudge, moveTo } = useMoving({ change, changes, footageMs, put, seek })
  const hearAround = useCallback(() => {
    if (change) playing.around(change.footageMs)
  }, [change, playing])
  return {
    ...{ changes, stitches, done, chosen, change, summary, story, footageMs, frameMs, hearing, looks, seek },
    anyTied: stitches.length > 0,
    canUndo: state.past.length > 0,
    canRedo: state.future.length > 0,
    ...{ saveState: state.saveState, refusal: state.refusal, resolveStale: state.resolveStale },
    toggle: playing.toggle,
    ...todo,
    forget: state.forget,
    takeOver: state.takeOver,
    ...{ choose, stitchHere, nudge, moveTo, hearAround, hushed, hush, findChanges, likeThis },
    ...{ speed: playing.speed, nextSpeed: playing.nextSpeed },
    remove: state.remove,
    undo: state.undoOnce,
    redo: state.redoOnce,
  }
}

interface Moving {
  change: Change | undefined
  changes: readonly Change[]
  footageMs: Ms
  put: (target: Change, ms: Ms) => boolean
  seek: (ms: Ms) => void
}

/** Ties that are moved by hand: the chosen one by a little, any by dragging its knot. */
function useMoving({ change, changes, footageMs, put, seek }: Moving): Pick<Stitching, 'nudge' | 'moveTo'> {
  const nudge = useCallback(
    (byMs: Ms) => {
      if (change && put(change, Math.max(0, Math.min(footageMs, change.footageMs + byMs))))
        seek(change.footageMs + byMs)
    },
    [change, footageMs, put, seek],
  )
  const moveTo = useCallback(
    (index: number, ms: Ms) => {
      const target = changes[index]
      if (target) put(target, Math.max(0, Math.min(footageMs, ms)))
    },
    [changes, footageMs, put],
  )
  return { nudge, moveTo }
}

interface Playing {
  seek: (ms: Ms) => void
  toggle: () => void
  /** Plays the second before an instant and the second after it. */
  around: (ms: Ms) => void
  speed: number
  nextSpeed: () => void
}

const SPEEDS = [1, 1.25, 1.5, 2]

function usePlaying(filmRef: RefObject<ReelFilm | null>, clock: VideoClock): Playing {
  const stopAt = useRef<Ms | null>(null)
  useEffect(
    () =>
      clock.follow((ms) => {
        if (stopAt.current === null || ms < stopAt.current) return
        stopAt.current = null
        filmRef.current?.pause()
      }),
    [clock, filmRef],
  )
  const [speed, setSpeed] = useState(1)
  const nextSpeed = useCallback(() => {
    const next = SPEEDS[(SPEEDS.indexOf(speed) + 1) % SPEEDS.length] ?? 1
    setSpeed(next)
    if (filmRef.current) filmRef.current.playbackRate = next
  }, [speed, filmRef])
  const moves = useMemo((): Pick<Playing, 'seek' | 'toggle' | 'around'> => {
    const seek = (ms: Ms): void => {
      if (filmRef.current) filmRef.current.currentTime = Math.max(0, ms) / 1000
    }
    return {
      seek,
      toggle: () => {
        stopAt.current = null
        if (filmRef.current?.paused) void filmRef.current.play().catch(() => {})
        else filmRef.current?.pause()
      },
      around: (ms) => {
        stopAt.current = ms + AROUND_MS
        seek(ms - AROUND_MS)
        void filmRef.current?.play().catch(() => {})
      },
    }
  }, [filmRef])
  return useMemo(() => ({ ...moves, speed, nextSpeed }), [moves, speed, nextSpeed])
}

const isDoubtful = ({ origin }: Change): boolean => origin === 'unsure' || origin === 'reckoned'

/** Takes up what this browser kept, and saves before the page is left. */
function useKeeping(store: ReturnType<typeof createStitchStore>): void {
  useEffect(() => {
    const { restore, leave } = store.getState()
    void restore()
    return whenLeft(leave)
  }, [store])
}

function useHearing(
  { workoutId, segments }: Pick<Props, 'workoutId' | 'segments'>,
  store: ReturnType<typeof createStitchStore>,
  { captioned, findsAtOnce, onPlanAs }: Pick<Props, 'captioned' | 'findsAtOnce' | 'onPlanAs'>,
): Pick<Stitching, 'hearing' | 'looks' | 'hushed' | 'hush' | 'findChanges'> & { lookAgain: () => Promise<void> } {
  const router = useRouter()
  const [hearing, setHearing] = useState(false)
  const [looks, setLooks] = useState(0)
  const [hushed, setHushed] = useState<ReadonlySet<EvidenceKind>>(new Set())
  const hush = useCallback(
    (kind: EvidenceKind, hush: boolean) =>
      setHushed((before) => new Set(hush ? [...before, kind] : [...before].filter((one) => one !== kind))),
    [],
  )
  /** Looks for the changes beside the ties by hand that there are. */
  const look = useCallback(
    async (tap: Tie | null): Promise<AlignAnswer> => {
      const since = store.getState().stitches
      const hands = since.filter(({ origin }) => origin === 'hand')
      const answer = await call<AlignAnswer>('POST', `/api/workouts/${workoutId}/align`, {
        ...{ tap, hands: hands.map(({ segmentId, edge, footageMs, done }) => ({ segmentId, edge, footageMs, done })) },
        hushed: [...hushed],
      })
      if (answer.found.length) store.getState().setHeard(answer.found, since)
      return answer
    },
    [workoutId, store, hushed],
  )
  const lookAgain = useCallback(async () => {
    setHearing(true)
    // What was answered stands, whether or not the others follow from it.
    await look(null).catch((error: Error) => toast.error(error.message))
    setHearing(false)
  }, [look])
  const findChanges = useCallback(
    (tap?: Tie) => {
      const find = async (): Promise<void> => {
        const { found, likeness, doubtful, floor, fits, otherOrder } = await look(tap ?? null)
        if (floor) toast(floorTexts.logged[floor.log])
        if (floor?.gone.length) toast(floorTexts.gone(floor.gone.length))
        const nameOf = (key: string | null): string =>
          segments.find(({ sectionKey }) => sectionKey === key)?.section ?? ''
        if (otherOrder)
          toast(words.otherOrder(nameOf(otherOrder.moved), nameOf(otherOrder.before)), {
            action: { label: words.planSo, onClick: () => onPlanAs(otherOrder.sections) },
            duration: 30_000,
          })
        if (fits)
          toast(words.fits(fits.title), {
            action: { label: words.openIt, onClick: () => router.push(`/w/${fits.id}/sync`) },
            duration: 20_000,
          })
        if (likeness < LEAST_LIKENESS) toast(words.unlike)
        else if (doubtful) toast(words.doubtful)
        else if (!found.length) toast(words.foundNone)
        setLooks((count) => count + 1)
      }
      setHearing(true)
      void find()
        .catch((error: Error) => toast.error(error.message))
        .finally(() => setHearing(false))
    },
    [look, router, segments, onPlanAs],
  )
  const answered = useRef(findsAtOnce ? -1 : captioned)
  useEffect(() => {
    if (captioned > answered.current) findChanges()
    answered.current = captioned
  }, [captioned, findChanges])
  return { hearing, looks, hushed, hush, findChanges, lookAgain }
}
