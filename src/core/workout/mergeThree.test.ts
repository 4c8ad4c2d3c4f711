import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mergeThree, sameJson } from './mergeThree'

describe('two changes of one document', () => {
  it('are both kept where they touch different fields', () => {
    const base = { look: 'slate', scale: 1, on: { title: true, gear: true } }
    const ours = { ...base, scale: 2 }
    const theirs = { ...base, on: { title: false, gear: true } }
    expect(mergeThree(base, ours, theirs)).toEqual({ look: 'slate', scale: 2, on: { title: false, gear: true } })
    expect(mergeThree(base, { ...base, scale: 2 }, { ...base, scale: 3 }).scale).toBe(2)
  })

  it('are both kept where each adds, changes or takes out entries of a list', () => {
    const note = (id: string, text: string): { id: string; text: string } => ({ id, text })
    const base = { notes: [note('a', 'rope'), note('b', 'jug')], checked: { x: '1' } as Record<string, string> }
    const ours = { notes: [...base.notes, note('c', 'step')], checked: { x: '1', y: '2' } }
    const theirs = { notes: [note('a', 'rope, again'), note('d', 'rail')], checked: {} }
    expect(mergeThree(base, ours, theirs)).toEqual({
      notes: [note('a', 'rope, again'), note('c', 'step'), note('d', 'rail')],
      checked: { y: '2' },
    })
    const keys = (...at: number[]): { keys: { footage: string; atMs: number; at: number }[] } => ({
      keys: at.map((atMs) => ({ footage: 'f', atMs, at: 0.5 })),
    })
    expect(mergeThree(keys(0, 10), keys(0, 10, 20), keys(10)).keys.map(({ atMs }) => atMs)).toEqual([10, 20])
  })

  const json = fc.letrec<{ tree: fc.JsonValue }>((tie) => ({
    tree: fc.oneof(
      { maxDepth: 3 },
      fc.oneof(fc.integer({ min: 0, max: 3 }), fc.boolean(), fc.constantFrom('a', 'b')),
      fc.dictionary(fc.constantFrom('a', 'b', 'c'), tie('tree'), { maxKeys: 3 }),
      fc.array(tie('tree'), { maxLength: 3 }),
    ),
  })).tree

  it('come to the one change there is, whatever the document', () => {
    fc.assert(
      fc.property(json, json, (base, changed) => {
        expect(mergeThree(base, changed, base)).toEqual(changed)
        expect(mergeThree(base, base, changed)).toEqual(changed)
        expect(mergeThree(base, changed, changed)).toEqual(changed)
      }),
    )
  })

  it('come to the same facts in either order where no field is touched twice', () => {
    const part = fc.dictionary(fc.constantFrom('a', 'b', 'c'), fc.integer({ min: 0, max: 3 }))
    fc.assert(
      fc.property(part, part, part, part, (left, right, ours, theirs) => {
        const [base, one, other] = [
          { left, right },
          { left: ours, right },
          { left, right: theirs },
        ]
        const both = mergeThree(base, one, other)
        expect(both).toEqual({ left: ours, right: theirs })
        expect(sameJson(both, mergeThree(base, other, one))).toBe(true)
      }),
    )
  })
})
