import { describe, expect, it } from 'vitest'
import { seenBy, shownFrom, type Camera } from './cameras'
import { SpanList } from './spans'

/** Behind a reel of 100 s: 40 s that began 10 s into it. */
const camera: Camera = { id: 'wide', fromMs: 100_000, toMs: 140_000, atMs: 10_000, driftPpm: 0 }

const list = new SpanList()
list.show({ fromMs: 0, toMs: 20_000, segmentId: 'before', why: 'filmed' })
list.show({ fromMs: 20_000, toMs: 30_000, segmentId: 'within', why: 'filmed' })
list.card(5000, 'card')
list.hold(30_000, 500, { segmentId: 'within' })
const { cut } = list

describe('a second camera', () => {
  it('shows what it has the whole of, at the same instants', () => {
    expect(seenBy(camera, { fromMs: 20_000, toMs: 30_000 })).toEqual({ fromMs: 110_000, toMs: 120_000 })
    expect(seenBy(camera, { fromMs: 5000, toMs: 15_000 })).toBeNull()
    expect(seenBy(camera, { fromMs: 45_000, toMs: 51_000 })).toBeNull()
  })
  it('keeps to its own clock', () => {
    expect(seenBy({ ...camera, driftPpm: 1000 }, { fromMs: 40_000, toMs: 41_000 })).toEqual({
      fromMs: 129_970,
      toMs: 130_970,
    })
  })
  it('takes the place of the first in the segments it was chosen for, and of nothing else', () => {
    const chosen = { before: 'wide', within: 'wide', card: 'wide', gone: 'wide' }
    const { spans, outMs } = shownFrom(cut, [camera], chosen)
    expect(outMs).toBe(cut.outMs)
    expect(spans[0]).toEqual(cut.spans[0])
    expect(spans[1]).toEqual({ ...cut.spans[1], fromMs: 110_000, toMs: 120_000 })
    expect(spans[2]).toEqual(cut.spans[2])
    expect(spans[3]).toMatchObject({ source: 'still', fromMs: 119_999 })
    expect(shownFrom(cut, [camera], { within: 'other' })).toEqual(cut)
  })
})
