import { describe, expect, it } from 'vitest'
import { asPlanned } from '../cut/cut'
import { expand } from '../expand/expand'
import { circuit, score, station, talk } from '../testing'
import { writeChapters } from './chapters'
import { writeVtt } from './vtt'
import { writeWav } from './wav'

const lane = asPlanned(
  expand(
    score(
      talk('Welcome', 12_000),
      circuit({
        leadInMs: 5000,
        rounds: 2,
        roundBreakMs: 15_000,
        lastRest: 'dropped',
        stations: [station('Jug <lift>', { sideRule: 'alternate' }), station('Keel hold')],
      }),
      talk('Bye', 8000),
    ),
  ).segments,
)

describe('captions', () => {
  it('name each interval while it runs, with what comes next, and escape what WebVTT reserves', () => {
    const text = writeVtt(lane)
    expect(text.startsWith('WEBVTT\n\n')).toBe(true)
    expect(text).toContain('3\n00:00:17.000 --> 00:00:37.000\nJug &lt;lift&gt;, left (20 seconds)\nRound 1 of 2\n')
    expect(text).toContain('4\n00:00:37.000 --> 00:00:47.000\nRest (10 seconds)\nNext: Keel hold\n')
    expect(text).not.toContain('Welcome')
  })
})

describe('captions of names with line breaks', () => {
  it('have no cue that ends before its time, whatever stands in a name', () => {
    const nasty = 'Jug\r\r00:00.000 --> 00:09.000\rsplit\u2028here\n\nand here'
    const text = writeVtt(asPlanned(expand(score(circuit({ stations: [station(nasty)] }))).segments))
    expect(text).not.toMatch(/[\r\u2028]/)
    const cues = text.trim().split('\n\n').slice(1)
    expect(cues.length).toBeGreaterThan(0)
    for (const cue of cues) expect(cue).toMatch(/^\d+\n[\d:.]{12} --> [\d:.]{12}\n/)
    expect(text.match(/ --> /g)).toHaveLength(cues.length)
  })
})

describe('chapters', () => {
  it('start at 0:00 and name each round', () => {
    expect(writeChapters(lane)).toBe('0:00 Welcome\n0:17 Main, Round 1 of 2\n1:22 Main, Round 2 of 2\n2:12 Bye\n')
  })
  it('join what stands closer than ten seconds', () => {
    expect(
      writeChapters(asPlanned(expand(score(talk('One', 20_000), talk('Two', 4000), talk('Three', 30_000))).segments)),
    ).toBe('0:00 One\n0:20 Two / Three\n')
  })
  it('are empty for an empty score', () => {
    expect(writeChapters([])).toBe('')
  })
})

describe('wav', () => {
  it('has a header that says what follows', () => {
    const file = writeWav([Float32Array.of(0, 1, -1, 2)], 48_000)
    const view = new DataView(file.buffer)
    expect(String.fromCharCode(...file.subarray(0, 4), ...file.subarray(8, 12))).toBe('RIFFWAVE')
    expect([view.getUint32(4, true), view.getUint32(24, true), view.getUint32(40, true)]).toEqual([44, 48_000, 8])
    expect([0, 1, 2, 3].map((index) => view.getInt16(44 + index * 2, true))).toEqual([0, 32_767, -32_767, 32_767])
  })
})
