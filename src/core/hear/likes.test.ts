import { describe, expect, it } from 'vitest'
import { BandGatherer, likesOf } from './likes'
import { MEL_BANDS, MEL_RATE } from './mel'

/** Gliding hums, as of somebody who counts three and calls; `pace` shorter or longer. */
function call(out: Float32Array, atMs: number, pace: number): void {
  const parts: [fromMs: number, lengthMs: number, lowHz: number, highHz: number][] = [
    [-1200, 250, 300, 500],
    [-800, 250, 700, 450],
    [-400, 250, 900, 1400],
    [0, 350, 500, 2200],
  ]
  for (const [fromMs, lengthMs, lowHz, highHz] of parts) {
    const from = Math.round(((atMs + fromMs * pace) / 1000) * MEL_RATE),
      length = Math.round(((lengthMs * pace) / 1000) * MEL_RATE)
    let turn = 0
    for (let index = 0; index < length; index++) {
      turn += (2 * Math.PI * (lowHz + ((highHz - lowHz) * index) / length)) / MEL_RATE
      const loud = 0.3 * Math.sin((Math.PI * index) / length)
      out[from + index] = (out[from + index] ?? 0) + loud * (Math.sin(turn) + 0.5 * Math.sin(2 * turn))
    }
  }
}

function recording(calls: readonly [atMs: number, pace: number][], seconds: number): Float32Array {
  let state = 9
  const out = Float32Array.from({ length: seconds * MEL_RATE }, () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return 0.01 * (state / 2 ** 31 - 1)
  })
  for (const [atMs, pace] of calls) call(out, atMs, pace)
  return out
}

function bandsOf(sound: Float32Array, block = 16_000): Float32Array {
  const bands = new BandGatherer()
  for (let at = 0; at < sound.length; at += block) bands.push(sound.subarray(at, at + block))
  return bands.finish()
}

describe('likes of a tap', () => {
  const CALLS: [number, number][] = [
    [20_000, 1],
    [45_000, 1.2],
    [70_000, 0.85],
    [95_000, 1],
  ]
  const sound = recording(CALLS, 120)
  const bands = bandsOf(sound)

  it('are the other calls, slower or faster, each within a tenth of a second', () => {
    const likes = likesOf(bands, 20_000, 'work').filter(({ strength }) => strength > 0.5)
    expect(likes.map(({ word, likeMs }) => [word, likeMs])).toEqual(Array(3).fill(['work', 20_000]))
    likes.forEach(({ atMs }, at) => expect(Math.abs(atMs - (CALLS[at + 1]?.[0] ?? 0))).toBeLessThan(100))
  })
  it('are few and faint where the tap is at nothing, and none too near an end', () => {
    expect(likesOf(bands, 33_000, 'rest').filter(({ strength }) => strength > 0.5)).toEqual([])
    for (const tapMs of [0, 1000, 119_900, 500_000]) expect(likesOf(bands, tapMs, 'rest')).toEqual([])
    expect(likesOf(new Float32Array(), 0, 'work')).toEqual([])
  })
  it('come from bands that are the same however the sound comes in', () => {
    expect(bands.length).toBe(Math.floor(bands.length / MEL_BANDS) * MEL_BANDS)
    expect(bandsOf(sound, 777)).toEqual(bands)
  })
})
