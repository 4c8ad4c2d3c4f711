// The reel in a real database: its order, second cameras, what is put aside and taken back.
import { describe, expect, it } from 'vitest'
import { circuit, score } from '../src/core/testing'
import { FACTS, filmed } from './filmed'
import { startedDatabase } from './records'

const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/workouts')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/reel')),
})
startedDatabase(async () => {
  await (await import('../src/server/migrate')).migrate()
})

describe('changes of a reel', () => {
  it('that come all at once, more of them than there are connections, all end', async () => {
    const { createWorkout, putAside, takeIntoReel, reelOf } = await parts()
    const id = await createWorkout(score(circuit()))
    const ids: string[] = []
    for (let number = 0; number < 20; number++) ids.push(await filmed(id, `clip ${number}.mp4`))
    await Promise.all(ids.slice(0, 19).map((one) => putAside(one)))
    expect((await reelOf(id)).files.map((one) => one.id)).toEqual(ids.slice(19))
    await Promise.all(ids.map((one) => takeIntoReel(one)))
    expect((await reelOf(id)).files).toHaveLength(20)
  }, 30_000)

  it('and a file that is prepared meanwhile never wait for each other', async () => {
    const { createWorkout, addFootage, updateFootage, takeIntoReel, putAside, lockWorkoutOf, inTransaction } =
      await parts()
    const id = await createWorkout(score(circuit()))
    const first = await filmed(id, 'first.mp4')
    for (let round = 0; round < 10; round++) {
      const fresh = await addFootage({ workoutId: id, name: 'x.mp4', bytes: 1, upload: `x-${id}-${round}` })
      const prepared = inTransaction(async (tx) => {
        await lockWorkoutOf(fresh, tx)
        await updateFootage(fresh, { state: 'ready', facts: FACTS, hash: `x${round}` }, tx)
        await takeIntoReel(fresh, tx)
      })
      await Promise.all([prepared, putAside(first), takeIntoReel(first), putAside(fresh)])
    }
  }, 30_000)
})

describe('the reel', () => {
  const files = async (workoutId: string) => {
    const { reelOf } = await parts()
    const { files: all, cameras, orderedBy } = await reelOf(workoutId)
    return { files: all.map(({ name }) => name), cameras: cameras.map(({ name }) => name), orderedBy }
  }
  it('is in the order of what its files show, whenever they came in, until somebody orders it by hand', async () => {
    const { createWorkout, orderReel, reelOf } = await parts()
    const id = await createWorkout(score(circuit()))
    await filmed(id, 'a.mp4', { planMs: 200_000 })
    await filmed(id, 'b.mp4', { planMs: 100_000 })
    expect(await files(id)).toEqual({ files: ['b.mp4', 'a.mp4'], cameras: [], orderedBy: 'contents' })
    await orderReel(id, (await reelOf(id)).files.map((one) => one.id).reverse())
    await filmed(id, 'c.mp4', { planMs: 1 })
    expect(await files(id)).toEqual({ files: ['a.mp4', 'b.mp4', 'c.mp4'], cameras: [], orderedBy: 'hand' })
    await orderReel(id, null)
    expect(await files(id)).toMatchObject({ files: ['c.mp4', 'b.mp4', 'a.mp4'], orderedBy: 'contents' })
  })
  it('is told by recording time, then by name, where one of its files shows nothing that is sure', async () => {
    const id = await (await parts()).createWorkout(score(circuit()))
    await filmed(id, 'a.mp4', { planMs: 5, facts: { recordedMs: 2e12 } })
    await filmed(id, 'b.mp4', { facts: { recordedMs: 1e12 } })
    expect(await files(id)).toMatchObject({ files: ['b.mp4', 'a.mp4'], orderedBy: 'recorded' })
    await filmed(id, 'clip 10.mp4')
    await filmed(id, 'clip 9.mp4')
    expect(await files(id)).toMatchObject({ files: ['a.mp4', 'b.mp4', 'clip 9.mp4', 'clip 10.mp4'], orderedBy: 'name' })
  })
  it('has a second camera beside the file whose sound it shares, which can be made a file of its own', async () => {
    const { createWorkout, addFootage, updateFootage, takeIntoReel, putAside, standAlone, reelOf, camerasOf } =
      await parts()
    const id = await createWorkout(score(circuit()))
    await filmed(id, 'first.mp4')
    const main = await filmed(id, 'main.mp4')
    const camera = await addFootage({ workoutId: id, name: 'wide.mp4', bytes: 1, upload: `wide-${id}` })
    const beside = { id: main, atMs: -2000, driftPpm: 10 }
    await updateFootage(camera, { state: 'ready', facts: FACTS, hash: 'wide', beside })
    await takeIntoReel(camera)
    expect(await files(id)).toMatchObject({ files: ['first.mp4', 'main.mp4'], cameras: ['wide.mp4'] })
    expect(camerasOf(await reelOf(id))).toEqual([
      { id: camera, fromMs: 180_000, toMs: 270_000, atMs: 88_000, driftPpm: 10 },
    ])
    await putAside(main)
    expect(await files(id)).toMatchObject({ files: ['first.mp4'], cameras: [] })
    expect((await (await parts()).footageAside(id)).map(({ name }) => name).sort()).toEqual(['main.mp4', 'wide.mp4'])
    await takeIntoReel(main)
    await takeIntoReel(camera)
    expect(await files(id)).toMatchObject({ cameras: ['wide.mp4'] })
    await standAlone(camera)
    expect(await files(id)).toMatchObject({ files: ['first.mp4', 'main.mp4', 'wide.mp4'], cameras: [] })
  })
  it('has a file of its own where one only overlaps another, and says by how much', async () => {
    const { createWorkout, addFootage, updateFootage, takeIntoReel } = await parts()
    const { progressOf } = await import('../src/server/progress')
    const id = await createWorkout(score(circuit()))
    const first = await filmed(id, 'first.mp4')
    const next = await addFootage({ workoutId: id, name: 'next.mp4', bytes: 1, upload: `next-${id}` })
    const beside = { id: first, atMs: 60_000, driftPpm: 0 }
    await updateFootage(next, { state: 'ready', facts: FACTS, hash: 'next', beside })
    await takeIntoReel(next)
    expect(await files(id)).toMatchObject({ files: ['first.mp4', 'next.mp4'], cameras: [] })
    expect((await progressOf(id)).reel.overlaps).toEqual([{ id: next, other: 'first.mp4', byMs: 30_000 }])
  })
  it('takes a file back in the place of what replaced it, over any number of replacements', async () => {
    const { createWorkout, takeIntoReel } = await parts()
    const id = await createWorkout(score(circuit()))
    const one = await filmed(id, 'one.mp4')
    const two = await filmed(id, 'two.mp4', { replaces: one })
    await filmed(id, 'three.mp4', { replaces: two })
    await filmed(id, 'other.mp4')
    await takeIntoReel(one)
    expect((await files(id)).files.sort()).toEqual(['one.mp4', 'other.mp4'])
    await takeIntoReel(two)
    expect((await files(id)).files.sort()).toEqual(['other.mp4', 'two.mp4'])
  })
})
