// Hears of every change from the database once for the whole process, and hands it to all that listen.
import { sql } from './db'
import { CHANGES } from './jobs'

/** Told with a workout's id, or with null when changes may have been missed: the database was away. */
export type Listener = (workoutId: string | null) => void

const kept = globalThis as typeof globalThis & { jivetListeners?: Set<Listener>; jivetListening?: Promise<unknown> }

/** @returns a function that ends the listening. */
export async function onChange(listener: Listener): Promise<() => void> {
  const listeners = (kept.jivetListeners ??= new Set())
  const tell = (workoutId: string | null): void => listeners.forEach((one) => one(workoutId))
  kept.jivetListening ??= sql().listen(CHANGES, tell, () => tell(null))
  listeners.add(listener)
  try {
    await kept.jivetListening
  } catch (error) {
    kept.jivetListening = undefined
    listeners.delete(listener)
    throw error
  }
  return () => void listeners.delete(listener)
}
