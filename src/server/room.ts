// Room on the disk that is left to the database and the system, whatever else is written there.
import type { Ms } from '../core/units'
import { freeBytes } from './store'

export const KEPT_FREE = 64 * 1024 ** 2
/** Renders write some megabytes a second: between two looks they stay far from the end. */
const LOOKED_EVERY_MS: Ms = 500

/**
 * Looks now and every half second whether room is left. A disk that does not say is not called full.
 * @param onFull called once, when there is none.
 * @returns ends it.
 */
export function watchRoom(onFull: () => void, free: () => Promise<number> = freeBytes): () => void {
  const look = (): void =>
    void free().then(
      (bytes) => {
        if (bytes >= KEPT_FREE || isOver) return
        end()
        onFull()
      },
      () => undefined,
    )
  let isOver = false
  const timer = setInterval(look, LOOKED_EVERY_MS)
  const end = (): void => {
    isOver = true
    clearInterval(timer)
  }
  look()
  return end
}
