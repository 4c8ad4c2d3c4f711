// A setting of a workout: seen or heard at once, kept with it, and what the render uses.
'use client'
import { useCallback, useEffect, useState, useSyncExternalStore } from 'react'
import { toast } from 'sonner'
import type { SettingName, Settings } from '@/core/workout/settings'
import { texts } from '@/core/words/en/screens'
import { call } from '../api'
import { forgetWork, keepWork, keptWork } from './keptWork'
import { SettingQueue, type Unsaved } from './SettingQueue'
import { whenLeft } from './whenLeft'

/** What is to be another; by what is there, where two changes may come before the next picture. */
type Change<Setting> = Partial<Setting> | ((before: Setting) => Partial<Setting>)

/** Those of this page: a room that is left and entered again finds what it had not saved. */
const queues = new Map<string, SettingQueue<unknown>>()

function queueFor<Name extends SettingName>(workoutId: string, name: Name, kept: Settings[Name]) {
  const document = `setting:${workoutId}:${name}`
  const known = queues.get(document) as SettingQueue<Settings[Name]> | undefined
  if (known) return known
  const trouble = { id: document, duration: Infinity }
  const queue = new SettingQueue<Settings[Name]>(kept, {
    send: (change) => call('PUT', `/api/workouts/${workoutId}/${name}`, change, { outlives: true }),
    keep: (unsaved) => void (unsaved ? keepWork(document, unsaved) : forgetWork(document)),
    onTrouble: (found) => {
      if (!found) toast.dismiss(document)
      else if (found.refused) toast.error(texts.settings.refused(found.reason), { id: document })
      else toast.error(texts.settings.failing(found.reason), trouble)
    },
    onSaved: () => savedListeners.forEach((one) => one(document)),
    wait: (ms, then) => {
      const timer = setTimeout(then, ms)
      return () => clearTimeout(timer)
    },
  })
  // The server's own rendering keeps nothing.
  if (typeof window === 'undefined') return queue
  queues.set(document, queue as SettingQueue<unknown>)
  void keptWork<Unsaved<Settings[Name]>>(document).then((left) => left && queue.takeUp(left))
  return queue
}

const savedListeners = new Set<(document: string) => void>()

/** @param onSaved told when the server has acknowledged what was changed. */
export function useKept<Name extends SettingName>(
  workoutId: string,
  name: Name,
  kept: Settings[Name],
  onSaved?: () => void,
): [now: Settings[Name], change: (part: Change<Settings[Name]>) => void] {
  const [queue] = useState(() => queueFor(workoutId, name, kept))
  const now = useSyncExternalStore(queue.follow, queue.read, () => kept)
  useEffect(() => queue.adopt(kept), [queue, kept])
  useEffect(() => {
    if (!onSaved) return
    const told = (document: string): void => {
      if (document === `setting:${workoutId}:${name}`) onSaved()
    }
    savedListeners.add(told)
    return () => void savedListeners.delete(told)
  }, [workoutId, name, onSaved])
  // Whoever leaves before it has settled loses nothing.
  useEffect(() => {
    const flush = (): void => void queue.flush()
    const stop = whenLeft(flush)
    return () => {
      stop()
      flush()
    }
  }, [queue])
  const change = useCallback(
    (part: Change<Settings[Name]>) => {
      const before = queue.read()
      queue.change({ ...before, ...(typeof part === 'function' ? part(before) : part) })
    },
    [queue],
  )
  return [now, change]
}
