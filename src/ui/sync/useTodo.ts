// What is left to do at the ties, most harmful first, and what a key does to it: right as it is, the next place where
// it may be, not done, later.
'use client'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import { tieKey } from '@/core/align/boundaries'
import { restOfRound, stationAt } from '@/core/align/notDone'
import { todoOf, type Todo } from '@/core/align/todo'
import type { Stitch } from '@/core/align/ties'
import type { Segment } from '@/core/score/segment'
import type { Ms } from '@/core/units'
import { texts } from '@/core/words/en/screens'
import type { Change } from './changes'

const words = texts.sync

export interface Todos {
  todos: readonly Todo[]
  /** Only what is to do is listed. */
  onlyTodo: boolean
  setOnlyTodo: (only: boolean) => void
  /** Places in the list of changes of those that are listed. */
  listed: readonly number[]
  /** To the one before or after it in the list. */
  step: (by: 1 | -1) => void
  /** Goes to the most harmful one that was not put off. */
  nextTodo: () => void
  /** The chosen change is right where it is. */
  confirm: () => void
  /** Moves the chosen change to the next place where it may be. */
  nextCandidate: () => void
  /** What begins with the chosen change was not done, nor the rest after it. */
  notDone: () => void
  /** Nothing of the round was done, or filmed, that is not sure. */
  roundNotDone: () => void
}

interface Props {
  segments: readonly Segment[]
  changes: readonly Change[]
  chosen: number
  /** The ties as they are now, which may be newer than those that are drawn. */
  stitchesNow: () => readonly Stitch[]
  stitches: readonly Stitch[]
  put: (target: Change, ms: Ms) => boolean
  choose: (index: number) => void
  leaveOut: (segmentIds: readonly string[]) => void
  /** Looks for the changes again, with what was answered. */
  lookAgain: () => Promise<void>
}

/** Nothing follows from hearing once more that it is where it surely was. */
const isSettled = ({ origin }: Change): boolean => origin !== 'unsure' && origin !== 'reckoned'

export function useTodo({ segments, changes, chosen, stitches, put, choose, ...now }: Props): Todos {
  const { stitchesNow, lookAgain, leaveOut } = now
  const [onlyTodo, setOnlyTodo] = useState(false)
  const putOff = useRef(new Set<string>())
  const candidates = useRef(new Map<string, { places: Ms[]; at: number }>())
  const todos = useMemo(() => todoOf(segments, stitches), [segments, stitches])
  const places = useMemo(() => new Map(changes.map((change, at) => [tieKey(change), at])), [changes])
  const listed = useMemo(
    () => (onlyTodo ? todos.flatMap((todo) => places.get(tieKey(todo)) ?? []) : changes.map((_, at) => at)),
    [onlyTodo, todos, places, changes],
  )
  const change = changes[chosen]
  const nextTodo = useCallback(() => {
    if (change) putOff.current.add(tieKey(change))
    const left = todoOf(segments, stitchesNow())
    if (!left.length) return void toast(words.nothingToDo)
    const fresh = left.filter((todo) => !putOff.current.has(tieKey(todo)))
    // Once round, what was put off comes again.
    if (!fresh.length) putOff.current.clear()
    const [next] = fresh.length ? fresh : left
    const at = next ? places.get(tieKey(next)) : undefined
    if (at !== undefined) choose(at)
  }, [change, segments, stitchesNow, places, choose])
  const latest = useRef(nextTodo)
  useEffect(() => {
    latest.current = nextTodo
  }, [nextTodo])
  /** One answer often settles others: they are looked for before the next is asked. */
  const goOn = useCallback(
    (wasSure: boolean) => {
      if (wasSure) nextTodo()
      else void lookAgain().then(() => latest.current())
    },
    [nextTodo, lookAgain],
  )
  const confirm = useCallback(() => {
    if (!change || !put(change, change.footageMs)) return
    // A place that was only tried so far is an answer from now on.
    goOn(!candidates.current.delete(tieKey(change)) && isSettled(change))
  }, [change, put, goOn])
  const nextCandidate = useCallback(() => {
    if (!change) return
    const key = tieKey(change)
    const stitch = stitches.find((one) => tieKey(one) === key)
    const known = candidates.current.get(key) ?? {
      places: [change.footageMs, ...(stitch?.alternatives ?? []).map(({ footageMs }) => footageMs)],
      at: 0,
    }
    if (known.places.length < 2) return void toast(words.noCandidate)
    const next = { ...known, at: (known.at + 1) % known.places.length }
    candidates.current.set(key, next)
    if (put(change, next.places[next.at] ?? change.footageMs)) choose(chosen)
  }, [change, chosen, stitches, put, choose])
  const without = useCallback(
    (of: typeof stationAt) => {
      if (!change || change.edge === 'end') return
      leaveOut(of(segments, stitches, change.segmentId))
      goOn(false)
    },
    [segments, stitches, change, leaveOut, goOn],
  )
  const notDone = useCallback(() => without(stationAt), [without])
  const roundNotDone = useCallback(() => without(restOfRound), [without])
  const step = useCallback(
    (by: 1 | -1) => {
      const at = listed.indexOf(chosen)
      const next = at < 0 ? listed[0] : listed[at + by]
      if (next !== undefined) choose(next)
    },
    [listed, chosen, choose],
  )
  return { step, todos, onlyTodo, setOnlyTodo, listed, nextTodo, confirm, nextCandidate, notDone, roundNotDone }
}
