import { describe, expect, it } from 'vitest'
import type { Evidence } from '../evidence'
import { expand } from '../expand/expand'
import type { Score } from '../score/score'
import { readShorthand } from '../shorthand/read'
import type { Ms } from '../units'
import { boundariesOf } from './boundaries'
import { otherOrderOf } from './otherOrder'
import { matchEvidence } from './sync'

const written = readShorthand(
  'circuit One: 2 rounds, 20 on, 10 off, 30 between\n  Jug lift\n  Keel hold\n' +
    'circuit Two: 2 rounds, 35 on, 15 off, 45 between\n  Buoy press\n  Rope pull\n',
).score
const turned: Score = { ...written, sections: [...written.sections].reverse() }

/** What a timer that beeps once at each change leaves in a film of a plan. */
function filmOf(score: Score): { evidence: Evidence[]; footageMs: Ms } {
  const changes = boundariesOf(expand(score).segments).filter(({ audible }) => audible)
  const evidence = changes.map(({ plannedMs }): Evidence => ({
    ...{ kind: 'beep', atMs: 6000 + plannedMs, spreadMs: 2, strength: 0.9, hz: 1000, durationMs: 200 },
  }))
  return { evidence, footageMs: 12_000 + (changes.at(-1)?.plannedMs ?? 0) }
}
const orderIn = (score: Score, film = filmOf(score)) =>
  otherOrderOf(written, [film], matchEvidence(expand(written).segments, film).found)

describe('the order in which blocks were filmed', () => {
  it('is said where it is another than the written one', () => {
    expect(orderIn(turned)?.sections).toEqual(['two', 'one'])
  })
  it('is not said where it is the written one, nor where a block was not filmed', () => {
    expect(orderIn(written)).toBeNull()
    expect(orderIn({ ...written, sections: written.sections.slice(0, 1) })).toBeNull()
    expect(orderIn({ ...written, sections: written.sections.slice(1) })).toBeNull()
  })
  it('is not known of blocks that last alike, nor of a film of something else', () => {
    const alike = readShorthand(
      'circuit One: 2 rounds, 20 on, 10 off, 30 between\n  Jug lift\n' +
        'circuit Two: 2 rounds, 20 on, 10 off, 30 between\n  Buoy press\n',
    ).score
    const film = filmOf({ ...alike, sections: [...alike.sections].reverse() })
    expect(otherOrderOf(alike, [film], [])).toBeNull()
    const other = readShorthand('circuit Other: 6 rounds, 17 on, 8 off\n  Oar row\n  Windlass turn\n').score
    expect(orderIn(other)).toBeNull()
  })
})
