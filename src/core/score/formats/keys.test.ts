import fc from 'fast-check'
import { produce } from 'immer'
import { describe, expect, it } from 'vitest'
import { anyScore } from '../../arbitraries'
import { expand, tryExpand } from '../../expand/expand'
import { readShorthand } from '../../shorthand/read'
import { printShorthand } from '../../shorthand/print'
import { circuit, around, score, station } from '../../testing'
import { recognise, toList } from '../listing'
import { scoreSchema, type Score } from '../score'
import { giveKeys, keysToSay, withKeys } from './keys'
import { newStation, type Station } from './station'

/** Which move every segment belongs to, by its id. */
const movesById = (one: Score): Map<string, string> =>
  new Map(tryExpand(one).expansion?.segments.map(({ id, label, kind }) => [id, kind === 'work' ? label : kind]))

const plan = score(circuit({ rounds: 3, stations: [station('Jug lift'), station('Keel hold'), station('Rope pull')] }))
const edited = (recipe: (stations: Station[]) => void): Score =>
  produce(plan, (draft) => {
    const [section] = draft.sections
    if (!section || !('stations' in section)) return
    recipe(section.stations)
    giveKeys(section)
  })

/** No id that was there before means another move now. */
function expectTiesToStay(before: Score, after: Score): void {
  const now = movesById(after)
  for (const [id, move] of movesById(before)) if (now.has(id)) expect([id, now.get(id)]).toEqual([id, move])
}

describe('keys of stations', () => {
  it('stay with their moves when one is put in front: ties stay on theirs', () => {
    const more = edited((stations) => stations.unshift(newStation('Tiller twist')))
    expectTiesToStay(plan, more)
    expect([...movesById(plan).keys()].every((id) => movesById(more).has(id))).toBe(true)
    expect(expand(more).segments[0]).toMatchObject({ id: 'main/r1/s4/work', label: 'Tiller twist' })
  })
  it('stay when one is taken out or moved', () => {
    for (const recipe of [(stations: Station[]) => stations.splice(0, 1), (stations: Station[]) => stations.reverse()])
      expectTiesToStay(
        plan,
        edited((stations) => void recipe(stations)),
      )
    expect(movesById(edited((stations) => void stations.splice(0, 1))).has('main/r1/s1/work')).toBe(false)
  })
  it('are not lent to another move at once: what was taken out and what came in are two', () => {
    const swapped = edited((stations) => stations.splice(1, 1, { ...newStation('Deck drive'), key: 's9' }))
    expectTiesToStay(plan, swapped)
    expect(movesById(swapped).has('main/r1/s2/work')).toBe(false)
  })
  it('of a copy are new', () => {
    const doubled = edited((stations) => stations.push({ ...stations[0] } as Station))
    expectTiesToStay(plan, doubled)
    expect(movesById(doubled).get('main/r1/s4/work')).toBe('Jug lift')
  })
  it('come through the shorthand, which says only those that do not follow by themselves', () => {
    const moved = edited((stations) => void stations.reverse())
    expect(printShorthand(plan)).not.toContain('key')
    expect(readShorthand(printShorthand(moved)).score.sections).toEqual(moved.sections)
    fc.assert(
      fc.property(anyScore, fc.nat({ max: 5 }), fc.nat({ max: 5 }), (any, from, to) => {
        const shifted = produce(any, (draft) => {
          const list = draft.sections.flatMap((one) => ('stations' in one ? [one.stations] : []))[0]
          if (!list?.length) return
          const [one] = list.splice(from % list.length, 1)
          if (one) list.splice(to % (list.length + 1), 0, one)
        })
        const back = readShorthand(printShorthand(shifted)).score
        expect([...movesById(back).keys()]).toEqual([...movesById(shifted).keys()])
      }),
      { numRuns: 50 },
    )
  })
  it('come through a file, and an old file without them gets the same ones every time', () => {
    const moved = edited((stations) => void stations.reverse())
    expect(scoreSchema.parse(JSON.parse(JSON.stringify(moved)))).toEqual(moved)
    const unkeyed = JSON.stringify(plan, (name, value: unknown) => (name === 'key' ? undefined : value))
    const old = JSON.parse(unkeyed) as { sections: object[] }
    expect(scoreSchema.parse({ ...old, sections: old.sections.map((one) => ({ ...one, key: 'main' })) })).toEqual(plan)
  })
  it('leave every id as it is when a section becomes a list, and when it is recognised again', () => {
    const [section] = edited((stations) => void stations.reverse()).sections
    if (!section) throw new Error('no section')
    const list = toList(section, around({ follows: 'nothing' }))
    const ids = expand(score(section)).segments.map(({ id }) => id)
    expect(expand(score(list)).segments.map(({ id }) => id)).toEqual(ids)
    const again = recognise(list, around({ follows: 'nothing' }))
    expect(again && expand(score(again)).segments.map(({ id }) => id)).toEqual(ids)
  })
  it('are never two alike in a section, whatever the score', () => {
    fc.assert(
      fc.property(anyScore, (any) => {
        for (const section of any.sections) {
          expect(withKeys(section)).toBe(section)
          const said = keysToSay(section).filter((key) => key !== null)
          expect(new Set(said).size).toBe(said.length)
        }
        const ids = tryExpand(any).expansion?.segments.map(({ id }) => id) ?? []
        expect(new Set(ids).size).toBe(ids.length)
      }),
      { numRuns: 50 },
    )
  })
})
