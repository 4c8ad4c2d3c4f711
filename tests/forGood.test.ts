// What is removed for good, and what stays: only what is out of use goes, with all that hangs on it.
import { beforeEach, describe, expect, it } from 'vitest'
import { circuit, score } from '../src/core/testing'
import { filmed } from './filmed'
import { rendered, startedDatabase } from './records'

const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/workouts')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/reel')),
  ...(await import('../src/server/packs')),
  ...(await import('../src/server/jobs')),
  ...(await import('../src/server/publications')),
  ...(await import('../src/server/storeIdentity')),
  ...(await import('../src/server/forGood')),
})
startedDatabase(async () => {
  await (await import('../src/server/migrate')).migrate()
})
beforeEach(async () => {
  await (await parts()).sql()`delete from workouts`
})

const NOBODY = '00000000-0000-4000-8000-000000000000'

/** @returns ids of the videos there are, oldest first. */
async function render(workoutId: string, hash: string, purpose: 'host' | 'phone' = 'host'): Promise<string> {
  const { addPack, addJob, sql } = await parts()
  const jobId = (await addJob(sql(), { kind: 'render', workoutId, footageId: null })) ?? ''
  await sql()`update jobs set state = 'done' where id = ${jobId}`
  await addPack(rendered({ workoutId, jobId }, { videoHash: hash, videoBytes: 1000, purpose }))
  const [row] = await sql()<{ id: string }[]>`select id from packs where video_hash = ${hash}`
  return row!.id
}

describe('videos', () => {
  it('stay: the last three of each purpose, and what was published', async () => {
    const { createWorkout, earlierPacks, newestPack, askToPublish, findPack } = await parts()
    const id = await createWorkout(score(circuit()))
    const first = await render(id, 'v1')
    await askToPublish(await findPack(first))
    for (const hash of ['v2', 'v3', 'v4', 'v5']) await render(id, hash)
    await render(id, 'p1', 'phone')
    expect((await newestPack(id))?.videoHash).toBe('p1')
    const earlier = await earlierPacks(id)
    expect(earlier.map(({ purpose, isPublished, videoBytes }) => [purpose, isPublished, videoBytes])).toEqual([
      ['host', false, 1000],
      ['host', false, 1000],
      ['host', false, 1000],
      ['host', true, 1000],
    ])
    const { namedHashes } = await parts()
    expect([...(await namedHashes())].sort()).toEqual(['p1', 'v1', 'v3', 'v4', 'v5'])
  })
  it('go for good but for those that were published', async () => {
    const { createWorkout, askToPublish, findPack, removePack } = await parts()
    const id = await createWorkout(score(circuit()))
    const [one, two] = [await render(id, 'v1'), await render(id, 'v2')]
    await askToPublish(await findPack(one))
    await expect(removePack(one)).rejects.toMatchObject({ code: 'in-use' })
    await removePack(two)
    await expect(findPack(two)).rejects.toMatchObject({ code: 'not-found' })
    await expect(removePack(two)).rejects.toMatchObject({ code: 'not-found' })
    expect((await findPack(one)).videoHash).toBe('v1')
  })
})

describe('footage', () => {
  it('goes with its ties once it was put aside, however many were, and never while it is in use', async () => {
    const { createWorkout, putAside, footageAside, removeFootage, reelOf, sql } = await parts()
    const id = await createWorkout(score(circuit()))
    const ids: string[] = []
    for (let number = 0; number < 60; number++) ids.push(await filmed(id, `clip ${number}.mp4`))
    const [kept = '', gone = ''] = ids
    await sql()`
      insert into stitches (workout_id, footage_id, segment_id, edge, footage_ms, confidence, evidence, origin)
      values (${id}, ${gone}, 'main/r1/s1/work', 'start', 5, 1, '{hand}', 'hand')`
    await expect(removeFootage(gone)).rejects.toMatchObject({ code: 'in-use' })
    for (const one of ids.slice(1)) await putAside(one)
    const aside = await footageAside(id)
    expect(aside).toHaveLength(59)
    expect(aside.find((one) => one.id === gone)?.ties).toBe(1)
    await removeFootage(gone)
    expect(await footageAside(id)).toHaveLength(58)
    expect((await sql()`select 1 from stitches`).length).toBe(0)
    expect((await reelOf(id)).files.map((one) => one.id)).toEqual([kept])
    await expect(removeFootage(gone)).rejects.toMatchObject({ code: 'not-found' })
  }, 30_000)
})

describe('a workout', () => {
  it('goes with all that hangs on it once it is off the shelf, and says before how large it is', async () => {
    const { createWorkout, setRemoved, removeWorkout, shelfPage, sql } = await parts()
    const id = await createWorkout(score(circuit()))
    await filmed(id, 'main.mp4')
    await render(id, 'v1')
    await expect(removeWorkout(id)).rejects.toMatchObject({ code: 'in-use' })
    await setRemoved(id, true)
    const { entries } = await shelfPage(null, { search: '', order: 'changed', removed: true })
    const [{ bytes } = { bytes: 0 }] = await sql()<{ bytes: string }[]>`select bytes from footage`
    expect(entries.map((one) => one.bytes)).toEqual([Number(bytes) + 1000])
    await removeWorkout(id)
    for (const table of ['footage', 'packs', 'jobs'])
      expect((await sql()`select 1 from ${sql()(table)}`).length).toBe(0)
    await expect(removeWorkout(id)).rejects.toMatchObject({ code: 'not-found' })
    await expect(removeWorkout(NOBODY)).rejects.toMatchObject({ code: 'not-found' })
  })
})
