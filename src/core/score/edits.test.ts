import { produce } from 'immer'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyScore } from '../arbitraries'
import { expand, tryExpand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { castOf } from './cast'
import { balanceOf } from './balance'
import { removeMoves, setLabel, setLength, setSide, shiftMove } from './edits'
import { mergeInto } from './merge'
import { scoreSchema, type Score } from './score'

const plan = (text: string): Score => readShorthand(text).score
const after = (
  score: Score,
  row: number,
  edit: (draft: Score, segment: ReturnType<typeof expand>['segments'][number]) => unknown,
): Score => {
  const segment = expand(score).segments[row - 1]
  if (!segment) throw new Error('no such row')
  return produce(score, (draft) => void edit(draft as Score, segment))
}

describe('an edit of a segment is an edit of the plan', () => {
  const ladder = plan('ladder Main: 3 rungs, 10 from, 5 step\n  Squat\n')
  it("a ladder's edge changes its step, or where it starts", () => {
    // Rows: work 10, rest 10, work 15, rest 15, work 20. The third rung at 30 s makes the step (30 - 10) / 2 = 10 s.
    expect(after(ladder, 5, (draft, segment) => setLength(draft, segment, 30_000)).sections[0]).toMatchObject({
      stepMs: 10_000,
      startMs: 10_000,
    })
    expect(after(ladder, 1, (draft, segment) => setLength(draft, segment, 12_000)).sections[0]).toMatchObject({
      stepMs: 5000,
      startMs: 12_000,
    })
  })
  it('the rest of a fixed slot changes the step the other way', () => {
    // Slot 60: work 20, 30, 40; rest 40, 30, 20. A third rest of 10 s makes work 50 there, so the step is 15 s.
    expect(
      after(plan('slot Main: 3 rungs, 20 from, 10 step\n  Squat\n'), 6, (draft, segment) =>
        setLength(draft, segment, 10_000),
      ).sections[0],
    ).toMatchObject({ stepMs: 15_000 })
  })
  it("a renamed move in a later pass is the swap's", () => {
    const swapped = after(plan('circuit Main: 2 rounds, 30 on\n  Squat (from 2 Lunge)\n'), 2, (draft, segment) =>
      setLabel(draft, segment, 'Rope pull'),
    )
    expect(swapped.sections[0]).toMatchObject({
      stations: [{ label: 'Squat', swaps: [{ from: 2, label: 'Rope pull' }] }],
    })
  })
  it('sides, order and removal reach stations and rows of lists alike', () => {
    const two = plan('circuit Main: 1 round, 30 on\n  Squat; Lunge\nlist More:\n  Plank (30 work); Crunch (30 work)\n')
    expect(after(two, 1, (draft, segment) => setSide(draft, segment, 'halves')).sections[0]).toMatchObject({
      stations: [{ sideRule: 'halves' }, {}],
    })
    expect(after(two, 3, (draft, segment) => setSide(draft, segment, 'halves')).sections[1]).toMatchObject({
      rows: [{ side: 'switch' }, {}],
    })
    expect(after(two, 2, (draft, segment) => shiftMove(draft, segment, -1)).sections[0]).toMatchObject({
      stations: [{ label: 'Lunge' }, { label: 'Squat' }],
    })
    const gone = produce(two, (draft) => removeMoves(draft as Score, expand(two).segments))
    expect(gone.sections).toMatchObject([{ stations: [] }, { rows: [] }])
  })
  it('leaves a score that holds, whatever is edited', () => {
    fc.assert(
      fc.property(anyScore, fc.nat(), fc.integer({ min: 0, max: 200_000 }), (score, pick, ms) => {
        const segments = tryExpand(score).expansion?.segments ?? []
        const segment = segments[pick % Math.max(1, segments.length)]
        if (!segment) return
        for (const edit of [
          (draft: Score) => setLength(draft, segment, ms),
          (draft: Score) => setLabel(draft, segment, 'Squat'),
          (draft: Score) => setSide(draft, segment, 'both'),
          (draft: Score) => void shiftMove(draft, segment, 1),
          (draft: Score) => removeMoves(draft, [segment]),
        ]) {
          expect(scoreSchema.safeParse(produce(score, (draft) => edit(draft as Score))).error).toBeUndefined()
        }
      }),
      { numRuns: 75 },
    )
  })
})

describe('merging one score into another', () => {
  it('gives exactly the other, and keeps what did not change', () => {
    fc.assert(
      fc.property(anyScore, anyScore, (one, other) => {
        const copy = structuredClone(one)
        mergeInto(copy, structuredClone(other))
        expect(copy).toEqual(other)
      }),
      { numRuns: 50 },
    )
    const before = plan('circuit A: 1 round, 30 on\n  Squat\ntalk B: about 8\n')
    const merged = produce(before, (draft) =>
      mergeInto(draft, plan('circuit A: 1 round, 35 on\n  Squat\ntalk B: about 8\n')),
    )
    expect(merged.sections[1]).toBe(before.sections[1])
    expect(merged.sections[0]).toMatchObject({ workMs: 35_000 })
  })
})

describe('the balance', () => {
  it('adds up by block, posture, muscle, side, impact and gear', () => {
    // 2 rounds of 30 s jug (left, right) and 30 s hold, 10 s rests but the last: 2 x 60 of work, 3 x 10 of rest.
    const score = plan('circuit Main: 2 rounds, 30 on, 10 off\n  Jug lift; Keel hold\n')
    const balance = balanceOf(expand(score), castOf([]))
    expect(balance).toMatchObject({
      blocks: [{ name: 'Main', workMs: 120_000, restMs: 30_000 }],
      leftMs: 30_000,
      rightMs: 30_000,
      gear: [{ name: 'water jug', ms: 60_000 }],
    })
    expect(balance.postures).toMatchObject({ standing: 60_000, faceDown: 60_000 })
    expect(balance.muscles).toMatchObject({ back: 60_000, trunk: 60_000, calves: 0 })
    expect(balance.impacts).toEqual({ still: 120_000, low: 0, high: 0 })
  })
})
