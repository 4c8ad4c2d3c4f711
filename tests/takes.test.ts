// A few simulated sessions out of those that docs/accuracy.md is measured on, some ten minutes of sound each, heard and
// matched for real: more of them with `JIVET_EVERY=1`. The whole table is bench/accuracy.ts.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { hearTake, isRight, judge } from '../demo/takes/judge'
import { SURE } from '../src/core/align/ties'
import { makeTake } from '../demo/takes/takes'
import { alsoEvery } from './every'

const folder = mkdtempSync(join(tmpdir(), 'jivet-takes-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

describe('simulated sessions', () => {
  it.each(['beeps in a room', 'counted aloud', ...alsoEvery('one beep a change', 'timer restarted')] as const)(
    '%s: found, and nothing falsely sure',
    async (kind) => {
      const { changes, ties, likeness } = judge(await hearTake(makeTake(kind, 'test', 0, folder)))
      expect(changes).toBeGreaterThan(8)
      expect(ties.filter(isRight).length).toBeGreaterThanOrEqual(0.9 * changes)
      expect(ties.filter((one) => one.confidence >= SURE && !isRight(one))).toEqual([])
      expect(likeness).toBeGreaterThan(0.99)
    },
  )
  it.each(['another session, counted', ...alsoEvery('a chime', 'one sentence again and again')] as const)(
    '%s: nothing is sure',
    async (kind) => {
      const { ties } = judge(await hearTake(makeTake(kind, 'test', 0, folder)))
      expect(ties.filter(({ confidence }) => confidence >= SURE)).toEqual([])
    },
  )
})
