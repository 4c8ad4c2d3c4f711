// The store beside its database: files that are missing for a while, a store that is away or another's, what is swept
// and what never is.
import { existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeEach, describe, expect, it } from 'vitest'
import { circuit, score } from '../src/core/testing'
import { startedDatabase } from './records'

const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/workouts')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/reel')),
  ...(await import('../src/server/store')),
  ...(await import('../src/server/match')),
  ...(await import('../src/server/tidy')),
})
const home = startedDatabase(async () => {
  await (await import('../src/server/migrate')).migrate()
  mkdirSync(join(home, 'uploads'), { recursive: true })
})
beforeEach(async () => {
  const { sql } = await parts()
  await sql()`delete from workouts`
})
const workout = async (): Promise<string> => (await parts()).createWorkout(score(circuit()))

describe('the store', () => {
  it('ready footage whose file is gone says so, keeps all that it had, and is used again once the file is back', async () => {
    const { matchRecords, addFootage, updateFootage, findFootage, takeIntoReel, keepBytes, storedPath, sql } =
      await parts()
    await matchRecords()
    const workoutId = await workout()
    const id = await addFootage({ workoutId, name: 'a.mp4', bytes: 1, upload: 'gone' })
    const hash = await keepBytes(new TextEncoder().encode('a film'))
    await updateFootage(id, { state: 'ready', hash })
    await sql()`delete from jobs where footage_id = ${id}`
    await takeIntoReel(id)
    const [path, away] = [storedPath(hash), join(home, 'away')]
    renameSync(path, away)
    expect((await matchRecords()).missing).toEqual([id])
    expect(await findFootage(id)).toMatchObject({ state: 'ready', place: 0 })
    expect((await findFootage(id)).warning).toMatch(/not where it should be/)
    expect((await matchRecords()).missing).toEqual([])
    renameSync(away, path)
    expect((await matchRecords()).back).toEqual([id])
    expect(await findFootage(id)).toMatchObject({ state: 'ready', place: 0, warning: null })
  })

  it('a store that is away for a moment takes nothing with it', async () => {
    const { matchRecords, tidy, sql, storeFolder, trashFolder } = await parts()
    await matchRecords()
    const before = await sql()`select id, state, place, missing_at from footage order by id`
    const away = `${storeFolder()}-away`
    // Another disk's folder in its place, empty or with an id of its own.
    for (const mark of [null, '00000000-0000-4000-8000-000000000000']) {
      renameSync(storeFolder(), away)
      mkdirSync(storeFolder())
      if (mark) writeFileSync(join(storeFolder(), '.jivet-store'), mark)
      writeFileSync(join(storeFolder(), 'other'), '')
      mkdirSync(join(storeFolder(), 'ab'))
      writeFileSync(join(storeFolder(), 'ab', 'ab'.repeat(32)), 'of another')
      for (const look of [matchRecords, () => tidy({ nowMs: Date.now() + 30 * 86_400_000 })])
        await expect(look()).rejects.toMatchObject({ code: 'store-of-another' })
      rmSync(storeFolder(), { recursive: true })
      renameSync(away, storeFolder())
    }
    expect(await sql()`select id, state, place, missing_at from footage order by id`).toEqual(before)
    expect(existsSync(trashFolder())).toBe(false)
  })

  it('nothing that was tied goes by itself, and what is swept lies in the trash first', async () => {
    const { addFootage, updateFootage, putAside, tidy, findFootage, keepBytes, sql, storedPath, trashFolder } =
      await parts()
    const id = await addFootage({ workoutId: await workout(), name: 'tied.mp4', bytes: 1, upload: 'tied' })
    await updateFootage(id, { state: 'failed' })
    await putAside(id)
    const { workoutId } = await findFootage(id)
    await sql()`
      insert into stitches (workout_id, footage_id, segment_id, edge, footage_ms, confidence, evidence, origin)
      values (${workoutId}, ${id}, 'main/r1/s1/work', 'start', 100, 1, '{hand}', 'hand')`
    const hash = await keepBytes(new TextEncoder().encode('swept'))
    const soon = Date.now() + 8 * 86_400_000
    await tidy({ nowMs: soon })
    expect((await findFootage(id)).name).toBe('tied.mp4')
    expect([existsSync(storedPath(hash)), existsSync(join(trashFolder(), hash))]).toEqual([false, true])
    // Named after all: it comes back.
    await updateFootage(id, { hash })
    await tidy({ nowMs: soon })
    expect([existsSync(storedPath(hash)), existsSync(join(trashFolder(), hash))]).toEqual([true, false])
    await updateFootage(id, { hash: null })
    await tidy({ nowMs: soon })
    await tidy({ nowMs: soon + 13 * 86_400_000 })
    expect(existsSync(join(trashFolder(), hash))).toBe(true)
    await tidy({ nowMs: soon + 15 * 86_400_000 })
    expect([existsSync(storedPath(hash)), existsSync(join(trashFolder(), hash))]).toEqual([false, false])
  })

  it('a sweep of more than a third of the store stops and says so; a clock that leaps sweeps nothing', async () => {
    const { tidy, tidyByClock, keepBytes, storedPath } = await parts()
    const hashes: string[] = []
    for (let number = 0; number < 30; number++) hashes.push(await keepBytes(new TextEncoder().encode(`many ${number}`)))
    const soon = Date.now() + 3 * 86_400_000
    await expect(tidy({ nowMs: soon })).rejects.toMatchObject({ code: 'sweep-too-large' })
    expect(hashes.every((hash) => existsSync(storedPath(hash)))).toBe(true)
    expect(await tidyByClock()).not.toBeNull()
    expect(await tidyByClock(soon + 400 * 86_400_000)).toBeNull()
    expect(hashes.every((hash) => existsSync(storedPath(hash)))).toBe(true)
    expect((await tidy({ nowMs: soon, anyway: true })).length).toBeGreaterThanOrEqual(30)
  })
})
