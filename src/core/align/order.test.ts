import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { circuit, score } from '../testing'
import { filmedOrder, shownPlanMs, type FiledFootage } from './order'
import type { Stitch } from './ties'

const file = (name: string, change: Partial<FiledFootage> = {}): FiledFootage => ({
  ...{ name, planMs: null, recordedMs: null },
  ...change,
})
const names = (files: FiledFootage[]): [string[], string] => {
  const { files: ordered, by } = filmedOrder(files)
  return [ordered.map(({ name }) => name), by]
}

describe('the order of files', () => {
  it('is that of what they show, whatever they are called and whenever they were made', () => {
    const first = file('b.mp4', { planMs: 10, recordedMs: 9 }),
      second = file('a.mp4', { planMs: 20, recordedMs: 1 })
    expect(names([second, first])).toEqual([['b.mp4', 'a.mp4'], 'contents'])
  })
  it('is that of their recording where one of them shows nothing that is sure', () => {
    expect(names([file('a', { planMs: 1, recordedMs: 5 }), file('b', { recordedMs: 2 })])).toEqual([
      ['b', 'a'],
      'recorded',
    ])
  })
  it('is that of their names, with numbers as numbers, where nothing else tells of all', () => {
    const same = { recordedMs: 0 }
    expect(names([file('clip 10', same), file('clip 9', same), file('clip 1', same)])).toEqual([
      ['clip 1', 'clip 9', 'clip 10'],
      'name',
    ])
  })
})

describe('what a file shows', () => {
  const { segments } = expand(score(circuit({ rounds: 4 })))
  const tie = (at: number, confidence: number): Stitch => ({
    ...{ segmentId: segments[at]?.id ?? '', edge: 'start', footageMs: at, origin: 'heard', confidence },
    evidence: ['beep'],
  })
  it('is told by what is sure, and by nothing else', () => {
    expect(shownPlanMs(segments, [tie(0, 0.5), tie(4, 0.95), tie(5, 0.95), tie(6, 0.95)])).toBe(segments[5]?.startMs)
    expect(shownPlanMs(segments, [tie(0, 0.5)])).toBeNull()
  })
})
