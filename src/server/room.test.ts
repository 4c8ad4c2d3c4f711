import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { KEPT_FREE, watchRoom } from './room'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

it('tells once that no room is left, at the beginning or later, and not of a disk that does not say', async () => {
  let free: number | null = KEPT_FREE
  let told = 0
  const end = watchRoom(
    () => void told++,
    () => (free === null ? Promise.reject(new Error('away')) : Promise.resolve(free)),
  )
  await vi.advanceTimersByTimeAsync(2000)
  free = null
  await vi.advanceTimersByTimeAsync(2000)
  expect(told).toBe(0)
  free = KEPT_FREE - 1
  await vi.advanceTimersByTimeAsync(2000)
  expect(told).toBe(1)
  end()
  watchRoom(
    () => void told++,
    () => Promise.resolve(0),
  )
  await vi.advanceTimersByTimeAsync(0)
  expect(told).toBe(2)
})

it('tells nothing once it has ended', async () => {
  let told = 0
  watchRoom(
    () => void told++,
    () => Promise.resolve(0),
  )()
  await vi.advanceTimersByTimeAsync(2000)
  expect(told).toBe(0)
})
