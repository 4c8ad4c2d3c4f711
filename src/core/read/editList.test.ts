import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { editedCut, inReel, placedEdits } from '../cut/edited'
import { follow } from '../cut/follow'
import { lay } from '../cut/lane'
import { asPlanned } from '../cut/cut'
import { shownIn } from '../cut/cut'
import { expand } from '../expand/expand'
import { circuit, score, station } from '../testing'
import { frameMsOf, type Rate } from '../units'
import { writeEdl } from '../write/edl'
import { writeOtio } from '../write/otio'
import { readEditList } from './editList'

const RATES: Rate[] = [
  { num: 25, den: 1 },
  { num: 30, den: 1 },
  { num: 30_000, den: 1001 },
  { num: 24_000, den: 1001 },
]
const THIRTY = RATES[1]!
const NAMES = ['Jug lift', 'Lantern 🏮 reach', 'דחיפה שמאלה', 'Rope, pull: "slow"', 'x'.repeat(300)]
const plan = (labels: readonly string[]) =>
  expand(score(circuit({ rounds: 2, workMs: 40_000, restMs: 20_000, stations: labels.map((one) => station(one)) })))
const cutOf = (laid: Parameters<typeof editedCut>[0], text: string, name: string, rate: Rate, of: typeof reel) =>
  editedCut(laid, inReel(placedEdits(readEditList(text, name, rate), of), of.fileMs))
const reel = { names: ['deck.mp4'], fileMs: [600_000] }

describe.each(['deck.edl', 'deck.otio'])('what Jivet writes as %s', (name) => {
  it('is read back as the same cut, at every rate, whatever its moves are called', () => {
    fc.assert(
      fc.property(fc.subarray(NAMES, { minLength: 1 }), fc.constantFrom(...RATES), (labels, rate) => {
        const { segments, totalMs } = plan(labels)
        const lane = asPlanned(segments)
        const text = name.endsWith('edl') ? writeEdl(lane, 'Deck', rate) : writeOtio(lane, 'Deck', rate)
        const pieces = readEditList(text, name, rate)
        const lasting = lane.filter(({ startMs, endMs }) => endMs > startMs)
        expect(pieces).toHaveLength(lasting.length)
        const laid = lay(segments, [{ segmentId: segments[0]!.id, edge: 'start', footageMs: 0 }], totalMs)
        const cut = cutOf(laid, text, name, rate, { names: ['deck.mp4'], fileMs: [totalMs] })
        const frameMs = frameMsOf(rate)
        expect(Math.abs(cut.outMs - totalMs)).toBeLessThanOrEqual(frameMs)
        for (const [at, { startMs, endMs }] of shownIn(cut, laid).entries()) {
          expect(Math.abs(startMs - lane[at]!.startMs)).toBeLessThanOrEqual(frameMs)
          expect(Math.abs(endMs - lane[at]!.endMs)).toBeLessThanOrEqual(frameMs)
        }
      }),
    )
  })
})

const EDL = `TITLE: Deck
FCM: NON-DROP FRAME

001  AX       V     C        00:00:10:00 00:00:40:00 01:00:00:00 01:00:30:00
* FROM CLIP NAME: deck.mp4
002  AX       A     C        00:00:10:00 00:00:40:00 01:00:00:00 01:00:30:00
003  AX       V     C        00:01:00:00 00:01:20:15 01:00:35:00 01:00:55:15
* FROM CLIP NAME: deck.mp4
`

describe('a cut that was made elsewhere', () => {
  const laid = lay(plan(['Jug lift', 'Keel hold']).segments, [], 600_000)
  const spansOf = (text: string, name = 'cut.edl', of: typeof reel = reel) =>
    cutOf([], text, name, THIRTY, of).spans.map(({ source, fromMs, toMs, outMs, lengthMs }) => [
      ...[source, fromMs, toMs, outMs, lengthMs],
    ])
  it('shows its pieces one after the other from the first whole hour on, and a card where it shows nothing', () => {
    expect(spansOf(EDL)).toEqual([
      [0, 10_000, 40_000, 0, 30_000],
      ['card', 0, 5000, 30_000, 5000],
      [0, 60_000, 80_500, 35_000, 20_500],
    ])
  })
  it('tells files by their names where there are several, and reckons from the hour at which a camera begins', () => {
    const two = { names: ['one.mp4', 'deck.mp4'], fileMs: [5000, 600_000] }
    expect(spansOf(EDL, 'cut.edl', two)[0]).toEqual([0, 15_000, 45_000, 0, 30_000])
    const hours = EDL.replace(/(C {8})00:00:10:00 00:00:40:00/, '$101:00:10:00 01:00:40:00').replace(
      '00:01:00:00 00:01:20:15',
      '01:01:00:00 01:01:20:15',
    )
    expect(spansOf(hours.replace(/^002.*\n/m, ''))).toEqual(spansOf(EDL))
  })
  it('is slower or faster where it says so, and nowhere else', () => {
    const clip = (by: number, from = 300) => ({
      OTIO_SCHEMA: 'Clip.2',
      name: 'slow',
      source_range: { start_time: { rate: 30, value: from }, duration: { rate: 30, value: 60 } },
      effects: by === 1 ? [] : [{ OTIO_SCHEMA: 'LinearTimeWarp.1', time_scalar: by }],
    })
    const timeline = (children: unknown[], tracks = 1): string =>
      JSON.stringify({
        OTIO_SCHEMA: 'Timeline.1',
        tracks: {
          children: Array.from({ length: tracks }, () => ({ OTIO_SCHEMA: 'Track.1', kind: 'Video', children })),
        },
      })
    expect(spansOf(timeline([clip(1), clip(0.5, 360)]), 'cut.otio')).toEqual([
      [0, 10_000, 12_000, 0, 2000],
      [0, 12_000, 13_000, 2000, 2000],
    ])
    const code = (text: string, name = 'cut.otio'): string => {
      try {
        spansOf(text, name)
        return 'none'
      } catch (error) {
        return (error as { code: string }).code
      }
    }
    expect(code(timeline([clip(1)], 2))).toBe('edits-layers')
    expect(code(timeline([{ OTIO_SCHEMA: 'Transition.1' }]))).toBe('edits-no-cut')
    expect(code(timeline([{ OTIO_SCHEMA: 'Clip.1' }]))).toBe('edits-no-range')
    expect(code(timeline([]))).toBe('edits-none')
    expect(code('{')).toBe('bad-json')
    expect(code('[]')).toBe('not-otio')
    expect(code('{"OTIO_SCHEMA":"Timeline.1","tracks":{"children":[{"kind":"Video","children":[{}]}]}}')).toBe(
      'not-otio',
    )
    expect(code(EDL.replace('V     C  ', 'V     D  030 '), 'cut.edl')).toBe('edits-no-cut')
    expect(code(EDL.replace('00:00:10:00', '00:00:10:30'), 'cut.edl')).toBe('edits-timecode')
    expect(code(EDL.replace('00:00:10:00', '00:00:50:00'), 'cut.edl')).toBe('edits-backwards')
    expect(code(EDL.replace('00:01:20:15', '00:21:20:15'), 'cut.edl')).toBe('edits-beyond')
    expect(code(EDL.replace('00:01:00:00 00:01:20:15', '00:00:30:00 00:00:50:15'), 'cut.edl')).toBe('edits-order')
    expect(code('TITLE: nothing', 'cut.edl')).toBe('edits-none')
    expect(code('', 'cut.edl')).toBe('edits-none')
  })
  it('that shows another file is refused, where there are several', () => {
    const two = { names: ['one.mp4', 'two.mp4'], fileMs: [5000, 600_000] }
    expect(() => spansOf(EDL, 'cut.edl', two)).toThrow(/deck.mp4/)
  })
  it('of all the footage is the footage as it was filmed', () => {
    const whole = EDL.replace(/^00[23].*\n(?:\*.*\n)?/gm, '').replace(
      /00:00:10:00 00:00:40:00 .*/,
      '00:00:00:00 00:10:00:00 00:00:00:00 00:10:00:00',
    )
    expect(cutOf(laid, whole, 'cut.edl', THIRTY, reel)).toEqual(follow(laid, 600_000))
  })
})
