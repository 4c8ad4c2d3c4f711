import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { circuit, score, station, talk } from '../testing'
import { writeDriftTable } from '../write/driftTable'
import { boundariesOf } from './boundaries'
import { driftOf } from './drift'
import { handStitch } from './ties'

const { segments } = expand(
  score(
    talk('welcome', null),
    circuit({ rounds: 2, roundBreakMs: 15_000, lastRest: 'dropped', stations: [station('Jug lift, heavy')] }),
  ),
)
/** Talk 12 s, work 20, break 28, work 19.5. */
const INSTANTS = [0, 12_000, 32_000, 60_000, 79_500]
const ties = boundariesOf(segments).map((boundary, at) => handStitch({ ...boundary, footageMs: INSTANTS[at] ?? 0 }))

describe('how a session ran', () => {
  it('is told segment by segment, and in sum', () => {
    const { rows, sums } = driftOf(segments, ties)
    expect(rows.map(({ offMs, runningMs }) => [offMs, runningMs])).toEqual([
      ...[
        [null, 0],
        [0, 0],
        [13_000, 13_000],
        [-500, 12_500],
      ],
    ])
    expect(sums).toEqual([
      { kind: 'work', segments: 2, plannedMs: 40_000, lastedMs: 39_500 },
      { kind: 'break', segments: 1, plannedMs: 15_000, lastedMs: 28_000 },
    ])
  })

  it('says nothing of what is not tied at both ends', () => {
    expect(driftOf(segments, ties.slice(0, 2)).rows.length).toBe(1)
    expect(driftOf(segments, [ties[1]!, ties[3]!]).rows).toEqual([])
  })

  it('is a table for a spreadsheet', () => {
    expect(writeDriftTable(driftOf(segments, ties)).split('\n').slice(0, 4)).toEqual([
      'row,kind,round,label,planned,true,difference,running difference,sure',
      '1,talk,,welcome,,12,,0,yes',
      '2,work,1,"Jug lift, heavy",20,20,0,0,yes',
      '3,break,1,,15,28,13,13,yes',
    ])
  })
})
