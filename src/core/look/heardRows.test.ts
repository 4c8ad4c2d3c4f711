import { describe, expect, it } from 'vitest'
import type { Evidence } from '../evidence'
import { heardRows, marksChanges } from './heardRows'

const beep = (atMs: number, hz: number): Evidence => ({
  ...{ kind: 'beep', atMs, hz },
  ...{ spreadMs: 3, strength: 1, durationMs: 200 },
})
const call = (atMs: number, word: 'work' | 'rest' | 'half', strength = 0.9): Evidence => ({
  ...{ kind: 'word', atMs, word, strength, spreadMs: 40 },
})

describe('rows of what was heard', () => {
  it('are one a kind that was heard, without tones that never returned', () => {
    const rows = heardRows([beep(1000, 2000), beep(5000, 2000), beep(9000, 2000), beep(7000, 640), call(1010, 'work')])
    expect(rows.map(({ name, marks }) => [name, marks.length])).toEqual([
      ['Tones', 3],
      ['Calls', 1],
    ])
    expect(heardRows([])).toEqual([])
  })
  it('show work, rest and other calls apart, and one call once', () => {
    const [row] = heardRows([call(1000, 'work', 0.4), call(1050, 'rest', 0.8), call(4000, 'half'), call(9000, 'work')])
    expect(row?.marks.map(({ atMs, shape }) => [atMs, shape])).toEqual([
      [1050, 'rest'],
      [4000, 'dot'],
      [9000, 'work'],
    ])
  })
  it('show where movement begins and ends', () => {
    const leap = (atMs: number, begins: boolean): Evidence => ({
      ...{ kind: 'motion', atMs, begins, spreadMs: 800, strength: 0.6 },
    })
    const [row] = heardRows([leap(1000, true), leap(9000, false)])
    expect(row?.marks.map(({ atMs, shape }) => [atMs, shape])).toEqual([
      [1000, 'work'],
      [9000, 'rest'],
    ])
  })
  it('show chirps, likes, and speech and music as long as they last', () => {
    const span = (kind: 'speech' | 'music', atMs: number): Evidence => ({
      ...{ kind, atMs, spreadMs: 80, strength: 0.9, durationMs: 2000 },
    })
    const rows = heardRows([
      { kind: 'chirp', atMs: 500, spreadMs: 1, strength: 1, code: 1 },
      { kind: 'sample', atMs: 900, spreadMs: 40, strength: 0.9, word: 'work', likeMs: 5000 },
      ...[span('speech', 1000), span('music', 3000)],
    ])
    expect(rows.map(({ kind, marks: [mark] }) => [kind, mark?.shape, mark?.untilMs])).toEqual([
      ['chirp', 'tick', undefined],
      ['sample', 'work', undefined],
      ['speech', 'span', 3000],
      ['music', 'span', 5000],
    ])
    expect(rows.filter(marksChanges).map(({ kind }) => kind)).toEqual(['chirp', 'sample'])
  })
})
