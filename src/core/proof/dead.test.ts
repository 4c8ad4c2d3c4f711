import { describe, expect, it } from 'vitest'
import { DeadFinder, SMALL, type Dead } from './dead'

const FRAME_MS = 40
const size = SMALL.width * SMALL.height
const places = Array.from({ length: size / 2 }, (_, place) => place)
const flat = (luma: number): Uint8Array => new Uint8Array(size).fill(luma)
/** Something moves in what nothing is laid over. */
const moving = (frame: number): Uint8Array => flat(80).fill(160, frame % 900, (frame % 900) + 40)

/** @param pictureAt of each 40 ms of a minute. */
function deadIn(pictureAt: (second: number, frame: number) => Uint8Array | null): Dead[] {
  const finder = new DeadFinder(places)
  for (let frame = 0; frame < 1500; frame++) {
    const second = (frame * FRAME_MS) / 1000
    finder.see(pictureAt(second, frame), frame * FRAME_MS, String(Math.floor(second)))
  }
  return finder.finish(60_000)
}

describe('a video in which', () => {
  it('something always moves has nothing to be told of', () => {
    expect(deadIn((_, frame) => moving(frame))).toEqual([])
  })
  it('it is black, or nothing moves, is told with when that begins and ends', () => {
    const told = deadIn((second, frame) => {
      if (second >= 10 && second < 13) return flat(17)
      if (second >= 30 && second < 45) return flat(90 + (frame % 2))
      return moving(frame)
    })
    expect(told).toEqual([
      { kind: 'black', fromMs: 10_000, untilMs: 13_000 },
      { kind: 'frozen', fromMs: 30_000, untilMs: 45_000 },
    ])
  })
  it('it is so only for a moment, or where a card stands, is as it should be', () => {
    const told = deadIn((second, frame) => {
      if (second < 1.5) return flat(16)
      if (second >= 20 && second < 28) return flat(90)
      if (second >= 30) return null
      return moving(frame)
    })
    expect(told).toEqual([])
  })
  it('only the count goes on stands still', () => {
    const counted = (second: number): Uint8Array => flat(90).fill(Math.floor(second), size / 2)
    expect(deadIn((second) => counted(second))).toEqual([{ kind: 'frozen', fromMs: 0, untilMs: 60_000 }])
  })
  it('something moves only where the overlay stands at times is alive', () => {
    const below = (second: number, frame: number): Uint8Array => {
      const at = size / 2 + (frame % 900)
      return flat(90)
        .fill(Math.floor(second), size / 2)
        .fill(200, at, at + 40)
    }
    expect(deadIn(below)).toEqual([])
  })
})
