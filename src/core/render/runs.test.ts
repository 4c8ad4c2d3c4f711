import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCut, RATES } from './anyCut'
import { SpanList } from '../cut/spans'
import { Joiner } from '../sound/joiner'
import { changesWithin, piecesOf, runsOf, soundRunsOf } from './runs'

describe('the pieces of a cut', () => {
  it('have every picture of the output once, at its instant of the source within half a frame', () => {
    fc.assert(
      fc.property(anyCut, fc.constantFrom(...RATES), (cut, rate) => {
        const frameMs = (1000 * rate.den) / rate.num
        let next = 0
        for (const { run, first, frames, fromMs } of piecesOf(cut, rate)) {
          expect(first).toBe(next)
          next += frames
          expect(Math.abs(fromMs - run.fromMs)).toBeLessThanOrEqual(frameMs / 2 + 1e-6)
        }
        expect(next).toBe(Math.round(cut.outMs / frameMs))
      }),
    )
  })
  it('are as few as can be: what follows in its source follows in one', () => {
    const list = new SpanList()
    list.show({ fromMs: 0, toMs: 5000, segmentId: 'one', why: 'filmed' })
    list.show({ fromMs: 5000, toMs: 7000, segmentId: 'two', why: 'filmed' })
    list.show({ fromMs: 9000, toMs: 9500, segmentId: 'two', why: 'shortened' })
    expect(runsOf(list.cut)).toMatchObject([
      { fromMs: 0, outMs: 0, lengthMs: 7000 },
      { fromMs: 9000, outMs: 7000, lengthMs: 500 },
    ])
  })
  it('show each change on the picture that follows it, and never before', () => {
    fc.assert(
      fc.property(anyCut, fc.constantFrom(...RATES), fc.nat(), (cut, rate, seed) => {
        const frameMs = (1000 * rate.den) / rate.num
        const fromMs = seed % cut.outMs
        const shownOn = piecesOf(cut, rate).flatMap((piece) => {
          const own = changesWithin([{ fromMs, state: null }], piece, rate)
          return Array.from({ length: piece.frames }, (_, at) => at).flatMap((at) =>
            own.some((change) => change.fromMs <= at * frameMs) ? [piece.first + at] : [],
          )
        })
        const total = Math.round(cut.outMs / frameMs)
        const first = Math.ceil(fromMs / frameMs - 1e-6)
        expect(shownOn).toEqual(Array.from({ length: Math.max(0, total - first) }, (_, at) => first + at))
      }),
    )
  })
})

describe('joined sound', () => {
  const rate = 8000
  it('is as long as the cut to the sample, however it comes in', () => {
    fc.assert(
      fc.property(anyCut, fc.integer({ min: 1, max: 5000 }), fc.constantFrom(1, 2), (cut, blockLength, channels) => {
        const joiner = new Joiner(channels)
        let length = 0
        for (const run of soundRunsOf(cut, rate)) {
          joiner.begin(run)
          // Comes a little short, as a film that ends early does.
          for (let left = run.samples - 3; left > 0; left -= blockLength)
            length += joiner.join(new Float32Array(Math.min(left, blockLength) * channels)).length
          length += joiner.finish().length
        }
        expect(length / channels).toBe(Math.round((cut.outMs * rate) / 1000))
      }),
    )
  })
  it('does not leap at a joint, and keeps its power', () => {
    const list = new SpanList()
    list.show({ fromMs: 0, toMs: 1000, segmentId: null, why: 'filmed' })
    list.show({ fromMs: 4000, toMs: 5000, segmentId: null, why: 'filmed' })
    const joiner = new Joiner(1)
    const out: number[] = []
    soundRunsOf(list.cut, rate).forEach((run, at) => {
      joiner.begin(run)
      out.push(...joiner.join(new Float32Array(run.samples).fill(at ? -1 : 1)), ...joiner.finish())
    })
    expect(out[0]).toBe(1)
    expect(out.at(-1)).toBe(-1)
    const steps = out.slice(1).map((sample, at) => Math.abs(sample - out[at]!))
    expect(Math.max(...steps)).toBeLessThan(0.03)
    const middle = soundRunsOf(list.cut, rate)[0]!
    expect(middle).toMatchObject({ samples: 8080, fadeIn: 0, fadeOut: 160 })
  })
})
