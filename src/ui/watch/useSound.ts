// What is heard in Watch: the cue sheet, and the levels that the render will have, reckoned by the very code that
// renders.
'use client'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { toast } from 'sonner'
import type { Cue, CueSheet } from '@/core/cue/cue'
import { cueSheet, linesIn, type CueAsk } from '@/core/cue/cues'
import type { CueWishes } from '@/core/cue/wishes'
import type { Cut, ShownSegment } from '@/core/cut/cut'
import { duckedSteps, duckingFor, gainsFor, MIX_RATE, type GainPoint, type Mix } from '@/core/sound/mix'
import { evenedBy, saidIn } from '@/core/sound/music'
import { unpackSteps } from '@/core/sound/steps'
import type { Steps } from '@/core/sound/loudness'
import { cueSteps } from '@/core/sound/track'
import type { Ms } from '@/core/units'
import { call } from '../api'
import type { Heard } from './CuePlayer'
import { SoundShelf } from './SoundShelf'
import { MusicShelf, useMusic, type WatchedMusic } from './useMusic'

interface Props {
  workoutId: string
  cut: Cut
  shown: readonly ShownSegment[]
  wishes: CueWishes
  mix: Mix
  /** Where the coach is heard, and the creator's own moves. */
  ask: Pick<CueAsk, 'coach' | 'timer' | 'moves'>
  /** Whether there is footage, whose loudness is to be had. */
  hasFilm: boolean
  /** Of the mix. */
  channels: 1 | 2
}

export interface WatchedSound {
  sheet: CueSheet
  heard: Heard
  /** What is said, were every line there; and how long each lasts as far as it is. */
  lines: readonly string[]
  lengths: ReadonlyMap<string, Ms>
  /** Whether it is known how long they last; until then cues may still move. */
  isTold: boolean
  /** A line was recorded, or its recording taken away. */
  recorded: (line: string) => void
}

export function useSound({ workoutId, cut, shown, wishes, mix, ask, hasFilm, channels }: Props): WatchedSound {
  const lines = useMemo(() => linesIn(shown, { ...ask, wishes }), [shown, ask, wishes])
  const { lengths, isTold, refresh, asked } = useLengths(wishes.voice, lines)
  const told = useFilmSteps(workoutId, cut, hasFilm)
  const film = told ?? null
  const sheet = useMemo(
    () => cueSheet(shown, { ...ask, wishes, lineMs: lengths, recorded: new Set(lengths.keys()) }),
    [shown, ask, wishes, lengths],
  )
  const needed = useMemo(() => {
    const all = cueSheet(shown, { ...ask, wishes, lineMs: lengths }).cues.flatMap(({ line }) => line ?? [])
    return [...new Set(all)]
  }, [shown, ask, wishes, lengths])
  const [shelf] = useState(() => new SoundShelf())
  const [musicShelf] = useState(() => new MusicShelf())
  const music = useMusic(mix.music.pieces, { shown, outMs: cut.outMs, channels })
  const arrived = useArrived(shelf, sheet.cues, wishes, asked)
  const heard = useMemo((): Heard => {
    const said = sheet.cues.filter(({ line }) => line !== null)
    const ducking = duckingFor(said, mix.cuesOn ? mix.duckDb : 0)
    // Lines that have come since change how loud the whole is.
    void arrived
    const cues = cueSteps(sheet.cues, (cue) => shelf.samplesOf(cue, wishes), cut.outMs, MIX_RATE)
    const bedDucking = duckingFor(saidIn(mix.cuesOn ? said : [], ask.coach ?? []), mix.duckDb)
    const under = { ducked: duckedSteps(ducking, cut.outMs), bedDucked: duckedSteps(bedDucking, cut.outMs) }
    // Until it is told how loud the footage is, nothing is raised.
    const target = told === undefined ? 'asIs' : mix.target
    const gains = gainsFor({ film, cues, channels, bed: music.bed, ...under }, { ...mix, target })
    const bed = bedHeard(music, bedDucking, musicShelf)
    const soundOf: Heard['soundOf'] = (cue, context) => shelf.bufferOf(cue, wishes, context)
    return { cues: sheet.cues, channels, gains, ducking, bed, soundOf }
  }, [sheet, shelf, musicShelf, arrived, wishes, film, told, cut, mix, music, channels, ask.coach])
  const recorded = useCallback(
    (line: string) => {
      shelf.forget(line)
      refresh()
    },
    [shelf, refresh],
  )
  return { sheet, heard, lines: needed, lengths, isTold, recorded }
}

const bedHeard = (music: WatchedMusic, ducking: readonly GainPoint[], shelf: MusicShelf): Heard['bed'] => ({
  parts: music.parts,
  ducking,
  evenedBy: music.steps.map(evenedBy),
  bufferOf: (piece, context, onCome) => {
    const hash = music.pieces[piece]?.hash
    return hash === undefined ? null : shelf.bufferOf(hash, context, onCome)
  },
})

/** How long lines last, as the server says them. */
function useLengths(
  voice: CueWishes['voice'],
  lines: readonly string[],
): { lengths: ReadonlyMap<string, Ms>; isTold: boolean; refresh: () => void; asked: number } {
  const [known, setKnown] = useState<Known>(NOTHING_KNOWN)
  const [asked, setAsked] = useState(0)
  const key = JSON.stringify(lines)
  useEffect(() => {
    if (voice === 'none') return
    let isLate = false
    void call<{ lengths: Record<string, Ms> }>('POST', '/api/lines', { voice, lines: JSON.parse(key) as string[] })
      .then(({ lengths }) => {
        if (!isLate) setKnown({ voice, key, asked, lengths: new Map(Object.entries(lengths)) })
      })
      .catch((error: Error) => {
        toast.error(error.message)
        if (!isLate) setKnown((before) => ({ ...(before.voice === voice ? before : NOTHING_KNOWN), voice, key, asked }))
      })
    return () => {
      isLate = true
    }
  }, [voice, key, asked])
  const refresh = useCallback(() => setAsked((before) => before + 1), [])
  const isTold = voice === 'none' || (known.voice === voice && known.key === key && known.asked === asked)
  return { lengths: known.voice === voice ? known.lengths : NO_LENGTHS, isTold, refresh, asked }
}
const NO_LENGTHS: ReadonlyMap<string, Ms> = new Map()

/** Of which lines of which voice, asked for the how manieth time. */
interface Known {
  voice: string
  key: string
  asked: number
  lengths: ReadonlyMap<string, Ms>
}
const NOTHING_KNOWN: Known = { voice: 'none', key: '', asked: 0, lengths: NO_LENGTHS }

/**
 * The loudness of the footage through the cut, asked for anew where the cut is another: null where it is silent,
 * undefined until it is told.
 */
function useFilmSteps(workoutId: string, cut: Cut, hasFilm: boolean): Steps | null | undefined {
  const [film, setFilm] = useState<Steps | null | undefined>(hasFilm ? undefined : null)
  useEffect(() => {
    if (!hasFilm) return
    const halt = new AbortController()
    void fetch(`/api/workouts/${workoutId}/loudness`, { signal: halt.signal })
      .then(async (answer) => (answer.ok ? new Uint8Array(await answer.arrayBuffer()) : null))
      .then((bytes) => setFilm(bytes?.length ? unpackSteps(bytes) : null))
      // Without it the levels are those of a film that is as loud as speech usually is.
      .catch(() => undefined)
    return () => halt.abort()
  }, [workoutId, cut, hasFilm])
  return film
}

/** Fetches lines as they come to be needed. @returns another number each time that some came. */
function useArrived(shelf: SoundShelf, cues: readonly Cue[], { family, voice }: CueWishes, asked: number): number {
  const [arrived, setArrived] = useState(0)
  useEffect(() => {
    if (voice === 'none') return
    const halt = new AbortController()
    void shelf
      .fetchLines(cues, { family, voice }, halt.signal)
      .then((came) => came && setArrived((before) => before + 1))
      .catch(() => undefined)
    return () => halt.abort()
  }, [shelf, cues, family, voice, asked])
  return arrived
}
