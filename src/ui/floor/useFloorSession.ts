// A session on the floor as a page has it: where it is, by a clock that is asked ten times a second, and what is heard.
'use client'
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { boardOf, type Board } from '@/core/floor/board'
import { linesOf } from '@/core/floor/ear'
import { isHeard, type FloorState } from '@/core/floor/machine'
import { runOf, takesOf, type Take } from '@/core/floor/run'
import { soundingOf } from '@/core/floor/sounding'
import { expand } from '@/core/expand/expand'
import { castOf } from '@/core/score/cast'
import type { Segment } from '@/core/score/segment'
import type { FloorEventKind } from '@/core/floor/events'
import { call } from '../api'
import { newKey } from '../parts/newKey'
import { FloorLink, type LinkState, type Told } from './FloorLink'
import { FloorSound, type Levels } from './FloorSound'
import type { SessionFacts } from './facts'

const PULSE_MS = 1000
const LOOK_MS = 100

/** A command without values of its own. */
export type Command = Extract<
  FloorEventKind,
  'hold' | 'goOn' | 'next' | 'skip' | 'back' | 'repeat' | 'restartRound' | 'open'
>

export interface FloorSession {
  link: FloorLink
  linkState: LinkState
  segments: readonly Segment[]
  state: FloorState
  takes: readonly Take[]
  board: Board
  /** Whether a command would do anything now. */
  can: (command: Command) => boolean
  command: (command: Command) => void
  /** Whether it is heard; null before that is known. */
  soundOn: boolean | null
  /** Whether lines are spoken. */
  voice: boolean
  wakeSound: () => void
}

interface Props {
  session: SessionFacts
  told: Told
  levels: Levels
  /** Looks on, silent, and tells nothing. */
  looksOn: boolean
}

export function useFloorSession({ session, told, levels, looksOn }: Props): FloorSession {
  const [link] = useState(() => linkTo(session, told, looksOn))
  const linkState = useSyncExternalStore(
    useCallback((changed) => link.follow(changed), [link]),
    () => link.state,
    () => link.state,
  )
  const segments = useMemo(() => expand(session.score).segments, [session.score])
  const cast = useMemo(() => castOf(session.score.moves), [session.score])
  const nowMs = useNow(link)
  const { state, stretches } = runOf(segments, linkState.events, nowMs)
  const takes = takesOf(stretches, linkState.events)
  useEffect(() => {
    const timer = setInterval(() => void link.pulse(), PULSE_MS)
    return () => clearInterval(timer)
  }, [link])
  const sound = useFloorSound({ session, link, segments, levels, looksOn, events: linkState.events })
  const can = (command: Command): boolean => !looksOn && isHeard(segments, state, command)
  const command = (kind: Command): void => {
    sound.wakeSound()
    const now = runOf(segments, link.state.events, link.nowMs()).state
    if (!looksOn && isHeard(segments, now, kind)) link.tell({ kind, on: now.at })
  }
  // Over by its clock: written down as over.
  const over = state.phase === 'ended' && !linkState.ended && !looksOn
  const said = useRef(false)
  useEffect(() => {
    if (!over || said.current) return
    said.current = true
    link.tell({ kind: 'end' })
  }, [over, link])
  return {
    ...{ link, linkState, segments, state, takes, can, command, ...sound },
    board: boardOf({ segments, cast, state, nowMs }),
  }
}

function linkTo({ id: sessionId, speed }: SessionFacts, told: Told, looksOn: boolean): FloorLink {
  return new FloorLink({ sessionId, speed, looksOn }, told, {
    clock: () => performance.now(),
    send: (telling) => call('POST', `/api/sessions/${sessionId}/events`, telling),
    storage: localStorage,
    newKey,
  })
}

function useNow(link: FloorLink): number {
  const [nowMs, setNow] = useState(link.nowMs)
  useEffect(() => {
    const timer = setInterval(() => setNow(link.nowMs()), LOOK_MS)
    return () => clearInterval(timer)
  }, [link])
  return nowMs
}

interface SoundProps extends Pick<Props, 'session' | 'levels' | 'looksOn'> {
  link: FloorLink
  segments: readonly Segment[]
  events: LinkState['events']
}

function useFloorSound({ session, link, segments, levels, looksOn, events }: SoundProps) {
  const sound = useRef<FloorSound | null>(null)
  const [soundOn, setSoundOn] = useState<boolean | null>(looksOn ? true : null)
  const [voice, setVoice] = useState(true)
  const places = useMemo(() => new Map(segments.map(({ id }, place) => [id, place])), [segments])
  const lay = useCallback((): void => {
    const { state } = runOf(segments, link.state.events, link.nowMs())
    sound.current?.change(soundingOf(segments, places, state))
  }, [segments, places, link])
  useEffect(() => {
    if (looksOn) return
    const made = new FloorSound(link, session.chirps)
    sound.current = made
    const ended = new AbortController()
    void made.wake().then((runs) => !ended.signal.aborted && setSoundOn(runs))
    // One line after another, the first first; each is laid as soon as it can be said.
    const learn = async (): Promise<void> => {
      for (const text of linesOf(segments)) {
        const answer = await fetch(`/api/say?text=${encodeURIComponent(text)}`, { signal: ended.signal })
        if (!answer.ok) return setVoice(false)
        await made.learn(text, await answer.arrayBuffer())
      }
      lay()
    }
    void learn().catch(() => {
      if (!ended.signal.aborted) setVoice(false)
    })
    return () => {
      ended.abort()
      made.close()
      sound.current = null
    }
  }, [link, session.chirps, segments, looksOn, lay])
  useEffect(lay, [lay, events])
  useEffect(() => sound.current?.setLevels(levels), [levels])
  const wakeSound = useCallback((): void => {
    void sound.current?.wake().then(setSoundOn)
  }, [])
  return { soundOn, voice, wakeSound }
}
