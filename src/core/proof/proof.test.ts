import { describe, expect, it } from 'vitest'
import { cuesFor } from '../cue/cues'
import { companionOf } from '../cut/companion'
import type { Cut, ShownSegment } from '../cut/cut'
import type { Evidence } from '../evidence'
import { expand } from '../expand/expand'
import { overlayChanges } from '../look/overlay'
import { readShorthand } from '../shorthand/read'
import { marksIn, watchedChanges, type WatchedChange } from './changes'
import { placeOf, proofSchema, stateOf, windowsAround } from './proof'

const plan = (text: string) => expand(readShorthand(text).score).segments
const TEXT = 'circuit Main: 1 round, 20 on, 10 off, lead 5, last rest dropped\n  Jug lift\n  Keel hold\n'
const filmedCut = (outMs: number): Cut => ({
  outMs,
  spans: [
    {
      ...{ source: 0, fromMs: 1000, toMs: outMs + 1000, outMs: 0, lengthMs: outMs, rate: 1, mirrored: false },
      segmentId: null,
      why: 'filmed',
      stillOf: null,
    },
  ],
})
const watch = (
  text = TEXT,
  heard: Evidence[] = [],
  change: (shown: ShownSegment[]) => ShownSegment[] = (one) => one,
): WatchedChange[] => {
  const shown = change(companionOf(plan(text)).shown)
  const cut = filmedCut(shown.at(-1)?.endMs ?? 0)
  const around = { overlay: overlayChanges(shown), cues: cuesFor(shown), rate: { num: 30, den: 1 } }
  return watchedChanges({ cut, shown, ...around, marks: marksIn(cut, heard) })
}
const word = (atMs: number): Evidence => ({ kind: 'word', atMs, spreadMs: 50, strength: 0.9, word: 'work' })

describe('countdown truth', () => {
  it('tells of each change what is seen and sounded, to the picture and to the millisecond', () => {
    const changes = watch()
    expect(changes.map(({ id, atMs }) => `${id.split('/').slice(1).join('/') || id} ${atMs}`)).toEqual([
      ...['lead 0', 'r1/s1/work 5000', 'r1/s1/rest 25000', 'r1/s2/work 35000', 'end 55000'],
    ])
    expect(changes[1]).toMatchObject({ seenMs: 5000, soundedMs: 5000, filmed: null, doubts: [] })
    expect(changes[0]).toMatchObject({ soundedMs: null })
  })
  it('tells what was heard of the film nearest to it, and doubts what is far', () => {
    // The cut begins a second into the film.
    expect(watch(TEXT, [word(6080)])[1]).toMatchObject({ filmed: { atMs: 5080, kind: 'word' }, doubts: [] })
    expect(watch(TEXT, [word(6700)])[1]).toMatchObject({ doubts: ['apart'] })
    expect(watch(TEXT, [word(9000)])[1]?.filmed).toBeNull()
  })
  it('says when a change is only guessed, or nothing was filmed for it', () => {
    const guessed = watch(TEXT, [], (shown) => shown.map((one) => ({ ...one, startTied: false })))
    expect(guessed[1]?.doubts).toEqual(['reckoned'])
    const { cut: all, shown } = companionOf(plan(TEXT))
    const [first, ...rest] = all.spans
    const cut = { ...all, spans: [{ ...first!, why: 'filmed' as const }, ...rest] }
    const drawn = watchedChanges({ cut, shown, overlay: [], cues: [], rate: { num: 25, den: 1 }, marks: [] })
    expect(drawn[1]).toMatchObject({ doubts: ['drawn'], seenMs: null, soundedMs: null })
  })
})

describe('what was checked', () => {
  const checkedAll = (changes: WatchedChange[]) => ({
    checked: Object.fromEntries(changes.map(({ id, signature }) => [id, signature])),
  })
  const asked = (now: WatchedChange[], then: WatchedChange[]): string[] =>
    now
      .filter((change) => stateOf(checkedAll(then), change) !== 'checked')
      .map(({ id }) => id.split('/').slice(-2).join('/'))
  it('stays checked while nothing around it changes', () => expect(asked(watch(), watch())).toEqual([]))
  it('is asked again only where something did', () => {
    expect(asked(watch(TEXT.replace('Keel hold', 'Lantern reach')), watch())).toEqual(['s1/rest', 's2/work', 'end'])
  })
  it('is asked again where its tie was moved', () => {
    const moved = watch(TEXT, [], (shown) =>
      shown.map((one, at) =>
        at === 2 ? { ...one, startMs: one.startMs + 300 } : at === 1 ? { ...one, endMs: one.endMs + 300 } : one,
      ),
    )
    expect(asked(moved, watch())).toContain('s1/rest')
    expect(asked(moved, watch())).not.toContain('s2/work')
  })
})

describe('notes and windows', () => {
  it('stay with their interval', () => {
    const { shown } = companionOf(plan(TEXT))
    const note = { id: 'n', segmentId: shown[1]!.segment.id, offsetMs: 1500, text: 'the arm' }
    expect(placeOf(note, shown)).toBe(6500)
    expect(placeOf({ ...note, segmentId: 'gone' }, shown)).toBeNull()
    expect(proofSchema.parse({})).toEqual({ checked: {}, notes: [] })
  })
  it('are joined where they meet, and end with the output', () => {
    expect(windowsAround([{ atMs: 1000 }, { atMs: 4000 }, { atMs: 20_000 }], 2000, 21_000)).toEqual([
      { fromMs: 0, untilMs: 6000 },
      { fromMs: 18_000, untilMs: 21_000 },
    ])
  })
})
