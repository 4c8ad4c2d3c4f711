import { describe, expect, it } from 'vitest'
import type { EvidenceOf } from '../../core/evidence'
import { expand } from '../../core/expand/expand'
import { circuit, score, station } from '../../core/testing'
import { heavy } from './heavy'

const plan = score(circuit({ rounds: 4, stations: [station('Jug lift'), station('Keel hold')] }))
const evidence = expand(plan).segments.map((segment): EvidenceOf<'beep'> => ({
  kind: 'beep',
  atMs: segment.startMs + 7000,
  spreadMs: 3,
  strength: 0.9,
  hz: 2000,
  durationMs: 300,
}))
const TASK = { score: plan, files: [{ evidence, footageMs: 700_000 }], hands: [], floor: null }
/** Rows that take the thread a while. */
const rows = (count: number): string =>
  ['section,round,kind,label,side,seconds']
    .concat(Array.from({ length: count }, (_, at) => `Part ${Math.floor(at / 25)},1,work,Jug lift ${at},,4`))
    .join('\n')

describe('heavy work', () => {
  it('comes back with what was worked out', async () => {
    const { found } = await heavy('align', TASK)
    expect(found.length).toBeGreaterThan(10)
  })
  it('comes back with its problem, and the next is worked out all the same', async () => {
    await expect(heavy('readPlan', { text: '{"format":', name: 'torn.json' })).rejects.toMatchObject({
      code: 'bad-json',
    })
    expect((await heavy('align', TASK)).found.length).toBeGreaterThan(10)
  })
  it('never keeps this thread from answering', async () => {
    let turns = 0
    const ticking = setInterval(() => turns++, 5)
    const read = await heavy('readPlan', { text: rows(9000), name: 'long.csv' })
    clearInterval(ticking)
    expect(read.sections).toHaveLength(360)
    expect(turns).toBeGreaterThan(5)
  })
  it('ends when its caller goes away, and the next is worked out by a fresh thread', async () => {
    const gone = new AbortController()
    const work = heavy('readPlan', { text: rows(9000), name: 'long.csv' }, gone.signal)
    setTimeout(() => gone.abort(), 5)
    await expect(work).rejects.toMatchObject({ code: 'cancelled' })
    await expect(heavy('align', TASK, AbortSignal.abort())).rejects.toMatchObject({ code: 'cancelled' })
    expect((await heavy('align', TASK)).found.length).toBeGreaterThan(10)
  })
  it('is refused where too much waits already', async () => {
    const asked = Array.from({ length: 136 }, () => heavy('align', { ...TASK, files: [] }))
    const ended = await Promise.allSettled(asked)
    const refused = ended.filter((one) => one.status === 'rejected')
    expect(refused).toHaveLength(8)
    expect(refused[0]).toMatchObject({ reason: { code: 'busy' } })
  })
})
