import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { obstacleText } from '../words/en/publish'
import { HARMS, obstaclesOf, type Publishing } from './obstacles'

const LIMITS = { title: 100, description: 5000, bytes: 1e9, lengthMs: 3_600_000 }
const READY: Publishing = {
  ...{
    title: 'Deck Hours 12',
    description: 'Twelve minutes on deck.',
    captions: 'WEBVTT\n\n00:00.000 --> 00:02.000\nGo',
  },
  chapters: [0, 20_000, 40_000].map((atMs) => ({ atMs, title: `At ${atMs}` })),
  ...{
    videoBytes: 5e6,
    lengthMs: 180_000,
    isOutdated: false,
    purpose: 'host',
    proofed: { open: 0, checked: 5, asked: 0 },
    openNotes: 0,
    leftToDo: 0,
    verified: { faults: [] },
    limits: LIMITS,
  },
}
const codes = (change: Partial<Publishing>): string[] => obstaclesOf({ ...READY, ...change }).map(({ code }) => code)

const fault = (kind: 'peak' | 'unheard') => ({ kind, atMs: null, found: 0, expected: -1, what: '' })

describe('what stands in the way', () => {
  it('is nothing where all is well', () => expect(codes({})).toEqual([]))
  it.each([
    [{ title: ' ' }, ['title-missing']],
    [{ title: 'x'.repeat(101) }, ['title-long']],
    [{ title: 'x'.repeat(100) }, []],
    [{ description: 'x'.repeat(5001) }, ['description-long']],
    [{ description: '' }, ['no-description']],
    [{ videoBytes: 2e9 }, ['video-large']],
    [{ lengthMs: 3_600_001 }, ['video-long']],
    [{ isOutdated: true }, ['outdated']],
    [{ purpose: 'draft' }, ['draft']],
    [{ proofed: null }, []],
    [{ proofed: { open: 5, checked: 0, asked: 0 } }, ['unproofed']],
    [{ proofed: { open: 2, checked: 2, asked: 1 } }, ['proofed-before', 'unproofed']],
    [{ openNotes: 2 }, ['open-notes']],
    [{ leftToDo: 2 }, ['left-to-do']],
    [{ leftToDo: null }, ['nothing-tied']],
    [{ captions: 'WEBVTT\n' }, ['no-captions']],
    [{ chapters: READY.chapters.slice(1) }, ['few-chapters']],
    [{ limits: null }, ['host-away']],
    [{ verified: null }, []],
    [{ verified: { faults: [fault('peak')] } }, ['faults']],
  ] satisfies [Partial<Publishing>, string[]][])('is told for %j', (change, expected) => {
    expect(codes(change)).toEqual(expected)
  })
  it('is harmful where a cue is missed, and a trifle where a level is a little off', () => {
    const harms = (kind: 'peak' | 'unheard') => obstaclesOf({ ...READY, verified: { faults: [fault(kind)] } })[0]?.harm
    expect([harms('peak'), harms('unheard')]).toEqual(['less', 'misleads'])
  })
  it('comes in order of harm, each in words of its own', () => {
    fc.assert(
      fc.property(
        fc.boolean(),
        fc.boolean(),
        fc.nat(3),
        fc.constantFrom('', 'x'.repeat(200)),
        (isOutdated, away, leftToDo, title) => {
          const found = obstaclesOf({
            ...READY,
            isOutdated,
            leftToDo,
            title,
            captions: '',
            limits: away ? null : LIMITS,
          })
          const harms = found.map(({ harm }) => HARMS.indexOf(harm))
          expect(harms).toEqual([...harms].sort())
          expect(new Set(found.map(obstacleText)).size).toBe(found.length)
        },
      ),
    )
  })
})
