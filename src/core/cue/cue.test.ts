import { describe, expect, it } from 'vitest'
import { asPlanned, type ShownSegment } from '../cut/cut'
import { expand } from '../expand/expand'
import { overlayAt, overlayChanges, STAFF_STEPS } from '../look/overlay'
import { CueTrack, type Heard } from '../sound/track'
import { tone } from '../sound/voiced'
import { circuit, score, station, talk } from '../testing'
import { cuesFor } from './cues'

const laneOf = (...sections: Parameters<typeof score>): ShownSegment[] => asPlanned(expand(score(...sections)).segments)
const voices = (lane: ShownSegment[]): string[] => cuesFor(lane).map((cue) => `${cue.atMs} ${cue.sound ?? cue.line}`)

describe('cues', () => {
  it('count down to each change, which has a tone of its own', () => {
    expect(voices(laneOf(circuit({ leadInMs: 5000 })))).toEqual([
      '2000 pip',
      '3000 pip',
      '4000 pip',
      '5000 go',
      '15000 halfway',
      '22000 pip',
      '23000 pip',
      '24000 pip',
      '25000 rest',
      '32000 pip',
      '33000 pip',
      '34000 pip',
      '35000 end',
    ])
  })
  it('end the work before a lead-in, and say nothing at one that follows rest or talk', () => {
    const second = circuit({ key: 'more', name: 'More', leadInMs: 5000, lastRest: 'dropped' })
    expect(voices(laneOf(circuit({ lastRest: 'dropped' }), second))).toContain('20000 rest')
    expect(voices(laneOf(circuit({ lastRest: 'kept' }), second)).filter((one) => one.startsWith('30000'))).toEqual([])
    expect(voices(laneOf(talk('hello', 9000), second)).filter((one) => one.startsWith('9000'))).toEqual([])
  })
  it('leave out pips that would run into the tone before them', () => {
    expect(voices(laneOf(circuit({ workMs: 2200, restMs: 1200, lastRest: 'dropped' })))).toEqual([
      '0 go',
      '1200 pip',
      '2200 end',
    ])
  })
  it('call the change of sides in the middle', () => {
    expect(
      voices(laneOf(circuit({ lastRest: 'dropped', stations: [station('Tiller twist', { sideRule: 'halves' })] }))),
    ).toContain('10000 switch')
  })
  it('mark where talk ends the work, and never count down in talk', () => {
    expect(voices(laneOf(talk('hello', 9000), circuit({ lastRest: 'dropped' }), talk('bye', 5000)))).toEqual([
      '9000 go',
      '19000 halfway',
      '26000 pip',
      '27000 pip',
      '28000 pip',
      '29000 rest',
    ])
  })
})

describe('the overlay', () => {
  const lane = laneOf(
    circuit({
      leadInMs: 3000,
      rounds: 2,
      lastRest: 'dropped',
      stations: [station('Jug lift', { sideRule: 'alternate' }), station('Keel hold')],
    }),
  )
  const changes = overlayChanges(lane)
  it('reaches zero on the boundary: one second before it, it shows 1', () => {
    expect(overlayAt(changes, 3000)).toMatchObject({
      ground: 'work',
      count: 20,
      label: 'Jug lift',
      side: 'left',
      next: 'Rest',
      staff: STAFF_STEPS,
    })
    expect(overlayAt(changes, 22_999)).toMatchObject({ ground: 'work', count: 1 })
    expect(overlayAt(changes, 23_000)).toMatchObject({ ground: 'rest', count: 10, next: 'Keel hold' })
  })
  it('holds the planned number while an interval runs long, and ends with it all the same', () => {
    const [first] = laneOf(circuit({ lastRest: 'dropped' }))
    const long = overlayChanges([{ ...first!, endMs: 22_400 }], { count: 'down', countOf: 'planned' })
    expect(overlayAt(long, 0)?.count).toBe(20)
    expect(overlayAt(long, 2300)?.count).toBe(20)
    expect(overlayAt(long, 2400)?.count).toBe(20)
    expect(overlayAt(long, 3400)?.count).toBe(19)
    expect(overlayAt(long, 22_399)?.count).toBe(1)
    expect(overlayAt(long, 22_400)).toBeNull()
  })
  it('changes sides in the middle of halves', () => {
    const halves = overlayChanges(
      laneOf(circuit({ lastRest: 'dropped', stations: [station('Tiller twist', { sideRule: 'halves' })] })),
    )
    expect([overlayAt(halves, 9999)?.side, overlayAt(halves, 10_000)?.side]).toEqual(['left', 'right'])
  })
  it('never changes to what is shown already, and changes at most about once a second', () => {
    for (const [index, change] of changes.entries())
      expect(JSON.stringify(change.state)).not.toBe(JSON.stringify(changes[index - 1]?.state ?? 'nothing'))
    expect(changes.length).toBeLessThanOrEqual(
      expand(score(circuit({ leadInMs: 3000, rounds: 2, lastRest: 'dropped', stations: [station('a'), station('b')] })))
        .totalMs /
        1000 +
        1,
    )
  })
  it('says what comes after a rest, and nothing before talk', () => {
    expect(overlayAt(overlayChanges(laneOf(circuit({ lastRest: 'dropped' }), talk('bye', 5000))), 1000)?.next).toBe('')
  })
})

describe('the cue track', () => {
  const heard: Heard = ({ sound }) => sound && tone('bell', sound, 48_000)
  const laid = { rule: 'countIn', segmentId: 'a', line: null, lengthMs: 110 } as const
  it('puts each sound at its very sample, whatever the blocks', () => {
    const cues = cuesFor(laneOf(circuit({ leadInMs: 5000 })))
    for (const block of [48_000, 1000, 131]) {
      const track = new CueTrack(cues, heard, 48_000)
      const all = new Float32Array(40 * 48_000)
      for (let at = 0; at + block <= all.length; at += block) all.set(track.next(block), at)
      const go = tone('bell', 'go', 48_000)
      expect([...all.subarray(5000 * 48, 5000 * 48 + 2000)]).toEqual([...go.subarray(0, 2000)])
      expect(all[2000 * 48 - 1]).toBe(0)
    }
  })
  it('adds sounds that overlap instead of cutting them', () => {
    const cues = [0, 10].map((atMs) => ({ ...laid, id: `${atMs}`, atMs, sound: 'pip' as const }))
    const both = new CueTrack(cues, heard, 48_000).next(9600)
    const pip = tone('bell', 'pip', 48_000)
    expect(both[600]).toBeCloseTo((pip[600] ?? 0) + (pip[120] ?? 0), 6)
  })
})
