// The server's records against a real PostgreSQL: revisions, stitches, jobs that die and come back.
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Problem } from '../src/core/problem'
import { describe, expect, it } from 'vitest'
import { moveSchema } from '../src/core/score/move'
import { readShorthand } from '../src/core/shorthand/read'
import type { Stitch } from '../src/core/align/ties'
import { EVIDENCE_KINDS, EVIDENCE_VERSION, type Evidence } from '../src/core/evidence'
import type { Version } from '../src/core/version'
import { circuit, score, station, talk } from '../src/core/testing'
import { filmed, save } from './filmed'
import { rendered, startedDatabase } from './records'

const home = startedDatabase()

const at = (revision: number): Version => ({ revision, key: null })

const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/migrate')),
  ...(await import('../src/server/workouts')),
  ...(await import('../src/server/stitches')),
  ...(await import('../src/server/jobs')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/reel')),
  ...(await import('../src/server/store')),
  ...(await import('../src/server/progress')),
  ...(await import('../src/server/packs')),
  ...(await import('../src/server/moves')),
})

/** What any kind of evidence says of itself besides; what another kind says is left out where it is read. */
const PAYLOADS = {
  ...{ hz: 1000, durationMs: 200, word: 'work', text: 'and go', likeMs: 5, code: 3, begins: true, event: 'start' },
  ...{ amount: 45, counted: 'seconds' },
}

describe('migrations', () => {
  it('run once each, also when two start at the same moment', async () => {
    const { migrate } = await parts()
    const runs = await Promise.all([migrate(), migrate()])
    expect(runs.flat()).toEqual([
      '001_workouts.sql',
      '002_moves.sql',
      '003_reel.sql',
      '004_station_keys',
      '005_safe_keeping.sql',
      '006_heard_pieces.sql',
      '007_cut.sql',
      '008_floor.sql',
      '009_candidates.sql',
      '010_reel_files.sql',
      '011_looks.sql',
      '012_said_numbers.sql',
      '013_cues.sql',
      '014_proof.sql',
      '015_dress.sql',
      '016_ship.sql',
      '017_standing_leg.sql',
      '018_ship_out.sql',
      '019_passes.sql',
      '020_safe_store.sql',
      '021_what_is_shown.sql',
      '022_last_rest',
    ])
    expect(await migrate()).toEqual([])
  })
})

describe('moves', () => {
  const punt = moveSchema.parse({ name: 'Punt push', secondsPerRep: 2.4, muscles: ['grip'], gear: ['pole'] })
  const typed = (title: string) => ({
    ...readShorthand('circuit Main: 1 round, 40 on\n  Punt push; Squat (from 2 punt push)\n').score,
    title,
    moves: [punt],
  })

  it('come back as they were saved, one by one name whatever its capitals', async () => {
    const { saveMove, listMoves, removeMove } = await parts()
    await saveMove({ move: punt, was: null, changePublished: false })
    expect(await listMoves()).toEqual([punt])
    await expect(
      saveMove({ move: { ...punt, name: 'PUNT push' }, was: null, changePublished: false }),
    ).rejects.toMatchObject({ code: 'move-exists' })
    await removeMove('punt PUSH')
    await expect(removeMove('punt push')).rejects.toMatchObject({ code: 'move-unknown' })
    expect(await listMoves()).toEqual([])
  })
  it('change in the workouts that use them; published ones keep the old text unless told otherwise', async () => {
    const { saveMove, usesOfMove, createWorkout, findWorkout, addPack, addJob, sql } = await parts()
    await saveMove({ move: punt, was: null, changePublished: false })
    const draft = await createWorkout(typed('Draft')),
      published = await createWorkout(typed('Published')),
      other = await createWorkout(score(circuit()))
    await addPack(
      rendered(
        {
          workoutId: published,
          jobId: (await addJob(sql(), { kind: 'render', workoutId: published, footageId: null })) ?? '',
        },
        { title: 'Published' },
      ),
    )
    expect((await usesOfMove('punt push')).map(({ title, published: out }) => [title, out]).sort()).toEqual([
      ['Draft', false],
      ['Published', true],
    ])

    const quant = { ...punt, name: 'Quant push', cue: 'long and low' }
    await saveMove({ move: quant, was: 'Punt push', changePublished: false })
    expect((await findWorkout(draft)).score).toMatchObject({
      moves: [quant],
      sections: [
        { stations: [{ label: 'Quant push' }, { label: 'Squat', swaps: [{ from: 2, label: 'Quant push' }] }] },
      ],
    })
    expect((await findWorkout(published)).score).toMatchObject({
      moves: [punt],
      sections: [{ stations: [{ label: 'Punt push' }, {}] }],
    })
    expect((await findWorkout(other)).version.revision).toBe(1)

    await saveMove({ move: { ...quant, cue: 'lower still' }, was: 'Quant push', changePublished: true })
    expect((await findWorkout(draft)).score.moves).toMatchObject([{ cue: 'lower still' }])
    await saveMove({ move: { ...punt, cue: 'hand over hand' }, was: 'Punt push', changePublished: true })
    expect((await findWorkout(published)).score.moves).toMatchObject([{ name: 'Punt push', cue: 'hand over hand' }])
  })
  it('change all of it or nothing', async () => {
    const { saveMove, listMoves, sql } = await parts()
    const before = await listMoves()
    await expect(
      saveMove({ move: { ...punt, name: 'Quant push' }, was: 'Punt push', changePublished: true }),
    ).rejects.toMatchObject({ code: 'move-exists' })
    expect(await listMoves()).toEqual(before)
    await sql()`delete from moves`
  })
})

describe('workouts', () => {
  it('are saved over the revision they were made from, and never over another', async () => {
    const { createWorkout, saveScore, findWorkout } = await parts()
    const id = await createWorkout(score(circuit()))
    expect(await saveScore(id, score(circuit(), talk('bye', null)), at(1))).toEqual(at(2))
    await expect(saveScore(id, score(), at(1))).rejects.toMatchObject({ code: 'stale' })
    expect(await findWorkout(id)).toMatchObject({
      version: at(2),
      score: { sections: [{ key: 'main' }, { key: 'bye', guessMs: null }] },
    })
  })
  it('let exactly one of many saves from the same revision through', async () => {
    const { createWorkout, saveScore } = await parts()
    const id = await createWorkout(score())
    const results = await Promise.allSettled(
      Array.from({ length: 8 }, (_, index) => saveScore(id, score(talk(`t${index}`, 1000)), at(1))),
    )
    expect(results.filter((one) => one.status === 'fulfilled')).toHaveLength(1)
  })
  it('come off the shelf and back, with nothing erased', async () => {
    const { createWorkout, shelfPage, setRemoved, findWorkout } = await parts()
    const id = await createWorkout(score(circuit()))
    await setRemoved(id, true)
    expect((await shelfPage(null)).entries.map((one) => one.id)).not.toContain(id)
    await expect(findWorkout(id)).rejects.toMatchObject({ code: 'not-found' })
    await setRemoved(id, false)
    expect((await findWorkout(id)).score.sections).toHaveLength(1)
  })
})

describe('stitches', () => {
  const work = 'main/r1/s1/work',
    rest = 'main/r1/s1/rest'
  const tie = (segmentId: string, footageMs: number): Stitch => ({
    segmentId,
    edge: 'start',
    footageMs,
    origin: 'heard',
    confidence: 0.67,
    evidence: ['beep'],
  })
  const fresh = async () => {
    const all = await parts()
    const workoutId = await all.createWorkout(score(circuit()))
    const footageId = await filmed(workoutId)
    const { version } = await all.listStitches(workoutId)
    /** The version so many saves after the file came in. */
    const after = (saves: number) => at(version.revision + saves)
    return { ...all, saveStitches: save, workoutId, footageId, after }
  }

  it('are saved whole, in order of time, with a revision of their own', async () => {
    const { saveStitches, listStitches, workoutId, after } = await fresh()
    expect(await saveStitches(workoutId, { stitches: [tie(rest, 2000), tie(work, 1000)], version: after(0) })).toEqual(
      after(1),
    )
    expect(await listStitches(workoutId)).toEqual({ stitches: [tie(work, 1000), tie(rest, 2000)], version: after(1) })
    await expect(saveStitches(workoutId, { stitches: [], version: after(0) })).rejects.toMatchObject({ code: 'stale' })
    expect((await listStitches(workoutId)).stitches).toHaveLength(2)
    await saveStitches(workoutId, { stitches: [], version: after(1) })
    expect(await listStitches(workoutId)).toEqual({ stitches: [], version: after(2) })
  })
  it('that cross, stand twice or lie outside the footage are refused, and what was there stays', async () => {
    const { saveStitches, listStitches, workoutId, after } = await fresh()
    await saveStitches(workoutId, { stitches: [tie(work, 1000)], version: after(0) })
    const put = (...stitches: Stitch[]) => saveStitches(workoutId, { stitches, version: after(1) })
    await expect(put(tie(work, 5000), tie(rest, 4000))).rejects.toMatchObject({ code: 'tie-crosses' })
    await expect(put(tie(work, 90_001))).rejects.toMatchObject({ code: 'tie-outside' })
    await expect(put(tie(work, 1000), tie(work, 2000))).rejects.toMatchObject({ code: 'tie-twice' })
    expect(await listStitches(workoutId)).toEqual({ stitches: [tie(work, 1000)], version: after(1) })
  })
  it('go with their footage when another takes its place, and come back with it', async () => {
    const { saveStitches, listStitches, progressOf, takeIntoReel, currentFootage, ...first } = await fresh()
    const { footageId, workoutId, after } = first
    await saveStitches(workoutId, { stitches: [tie(work, 1000), tie(rest, 2000)], version: after(0) })
    const second = await filmed(workoutId, 'second.mp4', { replaces: footageId })
    expect((await currentFootage(workoutId))?.id).toBe(second)
    expect((await listStitches(workoutId)).stitches).toEqual([])
    expect((await progressOf(workoutId)).aside).toEqual([{ id: footageId, name: 'deck.mp4', ties: 2, bytes: 1000 }])

    await takeIntoReel(footageId)
    expect((await currentFootage(workoutId))?.id).toBe(footageId)
    expect((await listStitches(workoutId)).stitches).toHaveLength(2)
    expect((await progressOf(workoutId)).aside).toEqual([{ id: second, name: 'second.mp4', ties: 0, bytes: 1000 }])
  })
  it('wait also where the footage was taken out and nothing put in its place', async () => {
    const { saveStitches, listStitches, putAside, currentFootage, takeIntoReel, ...first } = await fresh()
    const { footageId, workoutId, after } = first
    await saveStitches(workoutId, { stitches: [tie(work, 1000)], version: after(0) })
    await putAside(footageId)
    expect(await currentFootage(workoutId)).toBeNull()
    await takeIntoReel(footageId)
    expect((await listStitches(workoutId)).stitches).toEqual([tie(work, 1000)])
  })
  it('are had back by uploading the same file once more', async () => {
    const { saveStitches, listStitches, addFootage, findFootage, twinOf, becomeTwin, currentFootage, ...fresher } =
      await fresh()
    await saveStitches(fresher.workoutId, { stitches: [tie(work, 1000)], version: fresher.after(0) })
    await filmed(fresher.workoutId, 'second.mp4', { replaces: fresher.footageId })
    const again = await addFootage({
      workoutId: fresher.workoutId,
      name: 'deck again.mp4',
      bytes: 1000,
      upload: `again-${fresher.workoutId}`,
    })
    const twin = await twinOf(await findFootage(again), 'deck.mp4')
    expect(twin?.id).toBe(fresher.footageId)
    await fresher.sql().begin((tx) => becomeTwin(tx, again, fresher.footageId))
    expect((await currentFootage(fresher.workoutId))?.id).toBe(fresher.footageId)
    await expect(findFootage(again)).rejects.toMatchObject({ code: 'not-found' })
    expect((await listStitches(fresher.workoutId)).stitches).toHaveLength(1)
  })
  it('may be as many as the largest score has changes', async () => {
    const { createWorkout, listStitches } = await parts()
    const moves = Array.from({ length: 100 }, (_, place) => station(`Move ${place}`, { key: `s${place + 1}` }))
    const id = await createWorkout(score(circuit({ rounds: 250, workMs: 1000, restMs: 1000, stations: moves })))
    await filmed(id)
    const { version } = await listStitches(id)
    const stitches = Array.from({ length: 25_000 }, (_, place) => {
      const turn = `main/r${Math.floor(place / 100) + 1}/s${(place % 100) + 1}`
      // The very last rest is no interval of its own.
      return [tie(`${turn}/work`, place * 3), ...(place < 24_999 ? [tie(`${turn}/rest`, place * 3 + 1)] : [])]
    }).flat()
    expect(await save(id, { stitches, version })).toEqual(at(version.revision + 1))
    expect((await listStitches(id)).stitches).toHaveLength(49_999)
  })
  it('of several files lie in the time of the whole, and each goes with its own file', async () => {
    const { saveStitches, listStitches, putAside, takeIntoReel, orderReel, ...first } = await fresh()
    const { footageId, workoutId } = first
    const second = await filmed(workoutId, 'second.mp4', { facts: { durationMs: 60_000 } })
    const { version } = await listStitches(workoutId)
    await saveStitches(workoutId, { stitches: [tie(work, 1000), tie(rest, 95_000)], version })
    const places = async () => (await listStitches(workoutId)).stitches.map(({ footageMs }) => footageMs)
    expect(await places()).toEqual([1000, 95_000])
    await expect(
      saveStitches(workoutId, { stitches: [tie(work, 150_001)], version: at(version.revision + 1) }),
    ).rejects.toMatchObject({ code: 'tie-outside' })
    await putAside(footageId)
    expect(await places()).toEqual([5000])
    await takeIntoReel(footageId)
    expect(await places()).toEqual([1000, 95_000])
    // The other way round they cross: what cannot hold is not shown, and comes back with the order.
    await orderReel(workoutId, [second, footageId])
    expect(await places()).toHaveLength(1)
    await orderReel(workoutId, [footageId, second])
    expect(await places()).toEqual([1000, 95_000])
    await expect(orderReel(workoutId, [second])).rejects.toMatchObject({ code: 'reel-changed' })
    const { saveStitches: saveOf } = await parts()
    const now = (await listStitches(workoutId)).version
    await expect(saveOf(workoutId, { stitches: [], version: now }, second)).rejects.toMatchObject({
      code: 'reel-changed',
    })
  })
})

describe('the shelf', () => {
  it('goes on past every page, and one that cannot be read never breaks it', async () => {
    const { createWorkout, shelfPage, storedScore, findWorkout, sql } = await parts()
    const { factsOfStored, writeFacts } = await import('../src/server/shelfFacts')
    await sql()`update workouts set removed_at = now()`
    const ids: string[] = []
    for (let made = 0; made < 60; made++) ids.push(await createWorkout(score(circuit({ rounds: made + 1 }))))
    const torn = ids[30] as string
    await sql().begin(async (tx) => {
      await tx`update workouts set score = ${tx.json({ title: 'Torn page' })} where id = ${torn}`
      await writeFacts(tx, torn, factsOfStored({ title: 'Torn page' }))
    })

    const seen = []
    let page = await shelfPage(null)
    for (;;) {
      seen.push(...page.entries)
      if (!page.next) break
      page = await shelfPage(page.next)
    }
    expect(seen.map(({ id }) => id)).toEqual(ids.reverse())
    expect(seen.find(({ id }) => id === torn)).toMatchObject({ title: 'Torn page', planState: 'damaged', score: null })
    expect(await storedScore(torn)).toEqual({ title: 'Torn page', score: { title: 'Torn page' } })
    await expect(findWorkout(torn)).rejects.toThrow()
    expect(seen.at(-1)).toMatchObject({ totalMs: 30_000, workMs: 20_000, planState: 'planned', filmed: false })
  })
  it('says what a workout has: footage, ties, a video', async () => {
    const { createWorkout, shelfPage, putAside } = await parts()
    const id = await createWorkout(score(circuit()))
    const entry = async () => (await shelfPage(null)).entries.find((one) => one.id === id)
    expect(await entry()).toMatchObject({ filmed: false, tied: false, rendered: false })
    const footageId = await filmed(id)
    await save(id, {
      stitches: [
        {
          segmentId: 'main/r1/s1/work',
          edge: 'start',
          footageMs: 0,
          origin: 'hand',
          confidence: 1,
          evidence: ['hand'],
        },
      ],
      version: at(1),
    })
    expect(await entry()).toMatchObject({ filmed: true, tied: true, rendered: false })
    await putAside(footageId)
    expect(await entry()).toMatchObject({ filmed: false, tied: false })
  })
})

describe('a render that waits', () => {
  it('says behind what, and how many', async () => {
    const { createWorkout, addJob, claimJob, progressOf, sql } = await parts()
    const renders = async (title: string): Promise<string> => {
      const workoutId = await createWorkout({ ...score(circuit()), title })
      await addJob(sql(), { kind: 'render', workoutId, footageId: null })
      return workoutId
    }
    await sql()`delete from jobs where kind = 'render'`
    await renders('First')
    const second = await renders('Second')
    const third = await renders('Third')
    const waits = async (id: string) => (await progressOf(id)).jobs[0]?.waitsFor
    await claimJob('render')
    expect(await waits(second)).toEqual({ title: 'First', others: 0, leftMs: null })
    expect(await waits(third)).toEqual({ title: 'First', others: 1, leftMs: null })
    await sql()`delete from jobs where workout_id <> ${third}`
    expect(await waits(third)).toBeNull()
  })
})

describe('a score beyond the limits', () => {
  const beyond = score(...Array.from({ length: 6 }, (_, at) => circuit({ key: `k${at}`, rounds: 10_000 })))
  it('is refused when it is saved, with the reason, and what was there stays', async () => {
    const { createWorkout, saveScore, findWorkout } = await parts()
    await expect(createWorkout(beyond)).rejects.toMatchObject({ code: 'too-many' })
    const id = await createWorkout(score(circuit()))
    await expect(saveScore(id, beyond, at(1))).rejects.toMatchObject({ code: 'too-many' })
    expect(await findWorkout(id)).toMatchObject({ version: at(1), score: { sections: [{ rounds: 1 }] } })
  })
})

describe('footage', () => {
  it('is recorded once per upload, and a failed one never hides a good one', async () => {
    const { createWorkout, addFootage, updateFootage, currentFootage, progressOf } = await parts()
    const id = await createWorkout(score())
    const good = await filmed(id)
    expect(await addFootage({ workoutId: id, name: 'deck.mp4', bytes: 1000, upload: `upload-${id}-deck.mp4` })).toBe(
      good,
    )
    const bad = await addFootage({ workoutId: id, name: 'note.txt', bytes: 10, upload: 'upload-2' })
    await updateFootage(bad, { state: 'failed', problem: 'This is not a video.' })
    expect((await currentFootage(id))?.id).toBe(good)
    expect((await progressOf(id)).failedUpload).toEqual({ id: bad, name: 'note.txt', problem: 'This is not a video.' })
  })
  it('keeps evidence of every kind that there is', async () => {
    const { createWorkout, sql, evidenceOf } = await parts()
    const id = await filmed(await createWorkout(score(circuit())))
    for (const kind of EVIDENCE_KINDS)
      await sql()`
        insert into evidence (footage_id, engine, kind, at_ms, spread_ms, strength, payload)
        values (${id}, ${EVIDENCE_VERSION}, ${kind}, 1000, 10, 0.5, ${sql().json(PAYLOADS)})`
    expect((await evidenceOf(id)).map(({ kind }) => kind).sort()).toEqual([...EVIDENCE_KINDS].sort())
  })
  it('keeps what was heard in it, as it was heard, in order of time', async () => {
    const { createWorkout, saveEvidence, evidenceOf, sql } = await parts()
    const footageId = await filmed(await createWorkout(score()))
    const heard: Evidence[] = [
      { kind: 'beep', atMs: 1.5, spreadMs: 3, strength: 0.5, hz: 2000, durationMs: 80 },
      { kind: 'word', atMs: 20.25, spreadMs: 120, strength: 0.25, word: 'rest' },
    ]
    await sql().begin((tx) => saveEvidence(tx, footageId, [...heard].reverse()))
    expect(await evidenceOf(footageId)).toEqual(heard)
    await sql().begin((tx) => saveEvidence(tx, footageId, []))
    expect(await evidenceOf(footageId)).toEqual([])
  })
  it('that an older Jivet measured is measured again', async () => {
    const { createWorkout, outdatedFootage, sql } = await parts()
    const workoutId = await createWorkout(score()),
      id = await filmed(workoutId)
    expect(await outdatedFootage()).not.toContainEqual({ id, workoutId })
    await sql()`update footage set facts = facts - 'zeroS' where id = ${id}`
    expect(await outdatedFootage()).toContainEqual({ id, workoutId })
  })
  it('that an older Jivet did not look at for high dynamic range is measured again', async () => {
    const { createWorkout, outdatedFootage, sql } = await parts()
    const workoutId = await createWorkout(score()),
      id = await filmed(workoutId, 'phone.mov', { facts: { videoCodec: 'hevc' } })
    expect(await outdatedFootage()).toContainEqual({ id, workoutId })
    await sql()`update footage set facts = facts || '{"hdr": null}' where id = ${id}`
    expect(await outdatedFootage()).not.toContainEqual({ id, workoutId })
  })
  it('that an older engine heard is heard again', async () => {
    const { createWorkout, outdatedFootage, saveEvidence, sql } = await parts()
    const workoutId = await createWorkout(score()),
      id = await filmed(workoutId)
    await sql().begin((tx) =>
      saveEvidence(tx, id, [{ kind: 'beep', atMs: 1000, spreadMs: 3, strength: 0.5, hz: 2000, durationMs: 300 }]),
    )
    expect(await outdatedFootage()).not.toContainEqual({ id, workoutId })
    await sql()`update evidence set engine = 1 where footage_id = ${id}`
    expect(await outdatedFootage()).toContainEqual({ id, workoutId })
  })
})

describe('the store', () => {
  it('keeps a file once, by its content, and leaves no second copy', async () => {
    const { keepFile, keepBytes, storedPath, storedSize } = await parts()
    const path = join(home, 'one.bin')
    writeFileSync(path, 'kettle')
    const hash = await keepFile(path)
    expect(existsSync(path)).toBe(false)
    expect(await keepBytes(new TextEncoder().encode('kettle'))).toBe(hash)
    expect(readFileSync(storedPath(hash), 'utf8')).toBe('kettle')
    expect(await storedSize(hash)).toBe(6)
  })
  it('names a full disk, whoever reports it', async () => {
    const { knownProblem } = await parts()
    expect(knownProblem(Object.assign(new Error(), { code: 'ENOSPC' }))).toMatchObject({ code: 'disk-full' })
    expect(knownProblem(Object.assign(new Error(), { code: '53100' }))).toMatchObject({ code: 'disk-full' })
    // All that kills of a database were seen to end in.
    for (const code of ['CONNECTION_ENDED', 'CONNECT_TIMEOUT', 'UNSAFE_TRANSACTION', 'ECONNRESET', 'EPIPE', '57P03'])
      expect(knownProblem(Object.assign(new Error(), { code })), code).toMatchObject({ code: 'database-away' })
    expect(knownProblem(Object.assign(new Error(), { code: '23505' }))).not.toBeInstanceOf(Problem)
  })
})
