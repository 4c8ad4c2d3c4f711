import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { soFarSentence, storySentence } from '../words/en/hearing'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { boundariesOf } from './boundaries'
import { storyOf } from './story'
import { handStitch, type Stitch } from './ties'

const { segments } = expand(
  readShorthand('circuit Main: 2 rounds, 30 on, 10 off, 45 between\n  Jug lift; Keel hold (sides none)\n').score,
)
const audible = boundariesOf(segments).filter(({ audible }) => audible)

/** Every change as planned, and later by `overMs` from the break's end on. */
function called(overMs: number, confidence = 0.97): Stitch[] {
  const breakAt = segments.findIndex(({ kind }) => kind === 'break')
  const endMs = segments[breakAt + 1]?.startMs ?? Infinity
  return audible.map(({ segmentId, edge, plannedMs }) => ({
    ...{ segmentId, edge, confidence, origin: 'heard', evidence: ['word'] },
    footageMs: 5000 + plannedMs + (plannedMs >= endMs ? overMs : 0),
  }))
}

describe('what was heard so far', () => {
  it('is counted by kind, and nothing is said while there is none', () => {
    expect(soFarSentence({})).toBe('')
    expect(soFarSentence({ speech: 9, word: 1 })).toBe('Heard so far: 1 call.')
    expect(soFarSentence({ word: 4, beep: 31, chirp: 2 })).toBe('Heard so far: 31 tones, 2 chirps and 4 calls.')
  })
})

describe('the story of a session', () => {
  it('counts what is sure, names what was heard and which break ran over', () => {
    const story = storyOf(segments, called(13_000))
    expect(story).toMatchObject({ sure: audible.length, likely: 0, open: 0, heard: ['word'], ask: null })
    expect(story.strayed.map(({ segment, lastedMs }) => [segment.kind, lastedMs])).toEqual([['break', 58_000]])
    expect(storySentence(story)).toBe('Called aloud; no timer heard. Break, round 1 of 2, ran 58 s, not 45 s.')
  })
  it('says nothing of lengths that are not sure, and asks in the middle of them', () => {
    const story = storyOf(segments, called(13_000, 0.7))
    expect(story).toMatchObject({ sure: 0, likely: audible.length, strayed: [] })
    expect(story.ask).toEqual(audible[Math.floor(audible.length / 2)])
  })
  it('does not ask for one change between two that are sure', () => {
    const ties = called(0)
    expect(storyOf(segments, ties.slice(0, 3).concat(ties.slice(4))).ask).toBeNull()
    expect(storyOf(segments, ties.slice(0, 3).concat(ties.slice(5))).ask).not.toBeNull()
  })
  it('accounts for every change once, and asks only for one that is not sure', () => {
    const some = fc.array(fc.constantFrom('hand', 'sure', 'likely', 'none'), {
      minLength: audible.length,
      maxLength: audible.length,
    })
    fc.assert(
      fc.property(some, (kinds) => {
        const stitches = called(0).flatMap((one, at): Stitch[] => {
          if (kinds[at] === 'hand') return [handStitch(one)]
          return kinds[at] === 'none' ? [] : [{ ...one, confidence: kinds[at] === 'sure' ? 0.95 : 0.6 }]
        })
        const { sure, likely, open, ask } = storyOf(segments, stitches)
        expect(sure + likely + open).toBe(audible.length)
        const asked = ask ? kinds[audible.findIndex((one) => one === ask || one.segmentId === ask.segmentId)] : 'none'
        expect(['likely', 'none']).toContain(asked)
      }),
    )
  })
})
