// A store that several machines share without a common disk, against a simulated bucket: each machine has a folder of
// its own, and whatever one has kept the others have.
import { execFileSync, spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { once } from 'node:events'
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import { circuit, score, station } from '../src/core/testing'
import { BucketServer } from './bucketServer'
import { startedDatabase } from './records'

const parts = async () => ({
  ...(await import('../src/server/bucket')),
  ...(await import('../src/server/db')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/jobs')),
  ...(await import('../src/server/packs')),
  ...(await import('../src/server/reel')),
  ...(await import('../src/server/settings')),
  ...(await import('../src/server/stitches')),
  ...(await import('../src/server/store')),
  ...(await import('../src/server/tasks/prepare')),
  ...(await import('../src/server/tidy')),
  ...(await import('../src/server/workouts')),
})
const server = new BucketServer()
const home = startedDatabase(async () => {
  await (await import('../src/server/migrate')).migrate()
})
const other = mkdtempSync(join(tmpdir(), 'jivet-other-'))
/** Goes on as if on another machine. */
const moveTo = (folder: string): void => void (process.env.JIVET_HOME = folder)

beforeAll(async () => {
  await server.start()
  Object.assign(process.env, server.settings)
})
afterEach(() => {
  server.broken = 0
  moveTo(home)
})
afterAll(async () => {
  for (const name of Object.keys(server.settings)) delete process.env[name]
  await server.end()
  rmSync(other, { recursive: true, force: true })
})

function written(name: string, bytes: Buffer | string): string {
  const path = join(home, name)
  writeFileSync(path, bytes)
  return path
}
const bucketOf = async (settings: Record<string, string> = {}) => {
  const { Bucket, readSettings } = await parts()
  return new Bucket(readSettings({ ...server.settings, ...settings, NODE_ENV: 'test' }))
}

describe('a bucket', () => {
  it('keeps files of any size, in pieces where they are large, and gives them back byte for byte', async () => {
    const bucket = await bucketOf()
    for (const size of [0, 5, 20_000_000]) {
      const bytes = randomBytes(size)
      await bucket.put(`sizes/${size}`, written('sent', bytes))
      expect(await bucket.has(`sizes/${size}`)).toBe(true)
      expect(await bucket.fetch(`sizes/${size}`, join(home, 'came'))).toBe(true)
      expect(readFileSync(join(home, 'came')).equals(bytes)).toBe(true)
    }
    expect(server.asked.filter((one) => one === 'PUT sizes/20000000').length).toBeGreaterThan(2)
  })
  it('lists and removes page by page, and says of what is not there that it is not', async () => {
    const bucket = await bucketOf()
    const names = Array.from({ length: 8 }, (_, at) => `many/${at}`)
    for (const name of names) await bucket.put(name, written('sent', name))
    expect((await bucket.list('many/')).map(({ name, bytes }) => [name, bytes])).toEqual(names.map((name) => [name, 6]))
    await bucket.remove(names)
    expect(await bucket.list('many/')).toEqual([])
    expect(await bucket.has('many/1')).toBe(false)
    expect(await bucket.fetch('many/1', join(home, 'nothing'))).toBe(false)
    expect(existsSync(join(home, 'nothing'))).toBe(false)
  })
  it('makes young again what is used, and only what is old', async () => {
    const bucket = await bucketOf()
    await bucket.put('aged', written('sent', 'aged'))
    const file = server.files.get('aged')!
    const before = file.changedMs
    await bucket.touch('aged')
    expect(server.files.get('aged')!.changedMs).toBe(before)
    file.changedMs -= 48 * 3_600_000
    await bucket.touch('aged')
    expect(Date.now() - server.files.get('aged')!.changedMs).toBeLessThan(60_000)
    expect(server.files.get('aged')!.bytes.toString()).toBe('aged')
  })
  it.each([
    ['another key', { JIVET_S3_KEY: 'stowaway' }, 'InvalidAccessKeyId', 'AccessDenied'],
    ['another bucket', { JIVET_S3_BUCKET: 'another' }, 'NoSuchBucket', 'NoSuchBucket'],
    ['nobody there', { JIVET_S3_URL: 'http://127.0.0.1:9' }, 'ECONNREFUSED', 'ECONNREFUSED'],
  ])('that is not ours to use says so: %s', async (_, settings, reason, bare) => {
    const bucket = await bucketOf(settings)
    const away = { code: 'store-away', message: expect.stringContaining(reason) as string }
    await expect(bucket.list('')).rejects.toMatchObject(away)
    // A name that is not there is told from a bucket that is not, though such an answer names nothing.
    const bareAway = { ...away, message: expect.stringContaining(`(${bare}`) as string }
    await expect(bucket.has('a')).rejects.toMatchObject(bareAway)
    await expect(bucket.put('a', written('sent', 'a'))).rejects.toMatchObject(away)
    await expect(bucket.fetch('a', join(home, 'came'))).rejects.toMatchObject(away)
  })
  it('needs its key and its secret in the settings', async () => {
    const { readSettings } = await parts()
    expect(() => readSettings({ NODE_ENV: 'test', JIVET_S3_BUCKET: 'a', JIVET_S3_KEY: 'b' })).toThrow(/JIVET_S3_KEY/)
    expect(() => readSettings({ ...server.settings, NODE_ENV: 'test', JIVET_S3_URL: 'x' })).toThrow(/JIVET_S3_URL/)
  })
})

describe('a store in a bucket', () => {
  it('gives each machine what another has kept, brings it once, and believes nothing that is damaged', async () => {
    const { keepFile, storedFile, isStored } = await parts()
    const bytes = randomBytes(1000)
    const hash = await keepFile(written('film', bytes))
    moveTo(other)
    expect(await isStored(hash)).toBe(true)
    server.asked.length = 0
    const paths = await Promise.all([storedFile(hash), storedFile(hash), storedFile(hash)])
    expect(server.asked.filter((one) => one.startsWith('GET'))).toHaveLength(1)
    expect(new Set(paths)).toEqual(new Set([join(other, 'store', hash.slice(0, 2), hash)]))
    expect(readFileSync(paths[0]).equals(bytes)).toBe(true)
    rmSync(paths[0])
    server.files.get(`store/${hash.slice(0, 2)}/${hash}`)!.bytes = Buffer.from('something else')
    await expect(storedFile(hash)).rejects.toMatchObject({ code: 'store-away' })
    expect(existsSync(paths[0])).toBe(false)
  })
  it('says when it is away, and loses nothing then', async () => {
    const { keepFile, keepBytes, storedFile, isStored, addFootage, createWorkout, updateFootage } = await parts()
    const { matchRecords } = await import('../src/server/match')
    const hash = await keepBytes(Buffer.from('somewhere'))
    const workoutId = await createWorkout(score(circuit()))
    const id = await addFootage({ workoutId, name: 'a.mp4', bytes: 1, upload: 'gone' })
    await updateFootage(id, { state: 'ready', hash, upload: null } as never)
    moveTo(other)
    server.broken = 503
    await expect(storedFile(hash)).rejects.toMatchObject({ code: 'store-away' })
    await expect(isStored(hash)).rejects.toMatchObject({ code: 'store-away' })
    // What nobody can look for is not lost.
    await expect(matchRecords()).rejects.toMatchObject({ code: 'store-away' })
    expect((await (await parts()).findFootage(id)).state).toBe('ready')
    const kept = written('kept', 'not yet')
    await expect(keepFile(kept)).rejects.toMatchObject({ code: 'store-away' })
    expect(readFileSync(kept, 'utf8')).toBe('not yet')
  })
  it('has the chunks of every machine, with what was noted of them, and is swept like a folder', async () => {
    const { chunkStore } = await parts()
    await chunkStore().keep('chunk-a', written('chunk', 'frames'))
    await chunkStore().note('chunk-a', { turns: 3 })
    moveTo(other)
    expect(await chunkStore().has('chunk-a')).toBe(true)
    expect(await chunkStore().take('chunk-a', join(other, 'taken'))).toBe(true)
    expect(readFileSync(join(other, 'taken'), 'utf8')).toBe('frames')
    expect(await chunkStore().noted('chunk-a')).toEqual({ turns: 3 })
    expect(await chunkStore().take('chunk-b', join(other, 'none'))).toBe(false)
    expect(await chunkStore().noted('chunk-b')).toBeNull()
    const { ChunkStore } = await import('../src/engine/chunkStore')
    const { bucket } = await parts()
    server.files.get('chunks/chunk-a')!.changedMs -= 7_200_000
    await new ChunkStore(join(other, 'chunks'), 1, bucket()).sweep()
    expect([...server.files.keys()].filter((name) => name.startsWith('chunks/'))).toEqual(['chunks/chunk-a.json'])
    await chunkStore().forget(['chunk-a'])
    expect([...server.files.keys()].filter((name) => name.startsWith('chunks/'))).toEqual([])
  })
  it('takes no part that is not what was sent, and ends what was given up in pieces', async () => {
    const { bucket, chunkStore, evenOut } = await parts()
    const made = join(home, 'made-c')
    writeFileSync(made, 'frames')
    await chunkStore().keep('chunk-c', made)
    rmSync(join(home, 'chunks', 'chunk-c'))
    const far = server.files.get('chunks/chunk-c')!
    far.bytes = Buffer.from('framez')
    await expect(chunkStore().take('chunk-c', join(home, 'taken-c'))).rejects.toMatchObject({ code: 'store-away' })
    // What an older Jivet sent does not say what it should be: it is made again.
    delete far.own
    expect(await chunkStore().take('chunk-c', join(home, 'taken-c'))).toBe(false)
    for (const [id, days] of [
      ['old', 8],
      ['new', 1],
    ] as const)
      server.sending.set(id, { key: 'store/x', atMs: Date.now() - days * 86_400_000, own: {}, pieces: new Map() })
    await evenOut()
    expect([...server.sending.keys()]).toEqual(['new'])
    server.sending.clear()
    await bucket()!.remove(['chunks/chunk-c'])
  })
  it('gets what a folder had before there was a bucket, and loses what no row names after a day', async () => {
    const { addFootage, createWorkout, evenOut, keepBytes, nameInStore, storedPath, tidy, updateFootage } =
      await parts()
    const named = await keepBytes(Buffer.from('named'))
    const unnamed = await keepBytes(Buffer.from('unnamed'))
    const workoutId = await createWorkout(score(circuit()))
    const id = await addFootage({ workoutId, name: 'a.mp4', bytes: 1, upload: 'b' })
    await updateFootage(id, { hash: named })
    server.files.delete(nameInStore(named))
    await evenOut()
    expect(server.files.has(nameInStore(named))).toBe(true)
    const swept = (await tidy({ nowMs: Date.now() + 25 * 3_600_000 })).map(({ path }) => path)
    expect(swept).toContain(nameInStore(unnamed))
    expect(swept).not.toContain(nameInStore(named))
    // It lies in the trash first, and is asked for by name once more before it leaves.
    expect(server.files.has(nameInStore(unnamed))).toBe(true)
    await tidy({ nowMs: Date.now() + (24 * 16 + 1) * 3_600_000 })
    expect(server.files.has(nameInStore(unnamed))).toBe(false)
    expect(server.files.has(nameInStore(named))).toBe(true)
    // Beyond what is to be kept here goes what was not used for a day; it is brought again when it is.
    process.env.JIVET_KEPT_GB = '0.1'
    const large = await keepBytes(randomBytes(120_000_000))
    await updateFootage(id, { hash: large })
    utimesSync(storedPath(large), 1, 1)
    await evenOut()
    delete process.env.JIVET_KEPT_GB
    expect(existsSync(storedPath(large))).toBe(false)
    expect(existsSync(await (await parts()).storedFile(large))).toBe(true)
  })
})

describe('a worker on another machine', () => {
  it('renders from the bucket into the bucket, with nothing of the data folder', async () => {
    const { addFootage, addJob, claimJob, createWorkout, finishJob, keyOf, newestPack, nameInStore, prepareTask } =
      await parts()
    const { reelOf, saveStitches, listStitches, sql } = await parts()
    await sql()`delete from workouts`
    const from = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=10:d=24', '-f', 'lavfi', '-i', 'sine=d=24', '-shortest']
    mkdirSync(join(home, 'uploads'), { recursive: true })
    execFileSync('ffmpeg', ['-v', 'error', '-y', ...from, '-pix_fmt', 'yuv420p', join(home, 'film.mp4')])
    copyFileSync(join(home, 'film.mp4'), join(home, 'uploads', 'film'))
    const workoutId = await createWorkout(
      score(
        circuit({ leadInMs: 4000, workMs: 8000, restMs: 2000, stations: [station('Jug lift'), station('Keel hold')] }),
      ),
    )
    await addFootage({ workoutId, name: 'film.mp4', bytes: 1, upload: 'film' })
    const job = (await claimJob('prepare'))!
    const context = { signal: new AbortController().signal, onShare: () => {}, attempt: job.claim }
    await finishJob(job, await prepareTask(job, context))
    const { segments } = (await import('../src/core/expand/expand')).expand(
      (await (await parts()).findWorkout(workoutId)).score,
    )
    const tie = { segmentId: segments[0]!.id, edge: 'start', footageMs: 0, origin: 'hand', confidence: 1, evidence: [] }
    const { version } = await listStitches(workoutId)
    await saveStitches(workoutId, { stitches: [tie] as never, version }, keyOf(await reelOf(workoutId)))
    await addJob(sql(), { kind: 'render', workoutId, footageId: null })
    const alone = mkdtempSync(join(tmpdir(), 'jivet-alone-'))
    const env = { ...process.env, JIVET_HOME: alone, XDG_CACHE_HOME: join(alone, 'cache') }
    const worker = spawn(process.execPath, ['scripts/worker.mjs'], { env, stdio: ['ignore', 'ignore', 'inherit'] })
    try {
      await expect
        .poll(async () => (await sql()`select state, problem from jobs where kind = 'render'`)[0]?.state, {
          timeout: 120_000,
          interval: 300,
        })
        .toBe('done')
      const pack = (await newestPack(workoutId))!
      expect(pack.rendered).toMatchObject({ made: pack.rendered!.chunks })
      const video = server.files.get(nameInStore(pack.videoHash))!
      expect(video.bytes).toHaveLength(pack.videoBytes)
      const shown = written('shown.mp4', video.bytes)
      const told = execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', shown])
      expect(Number(told.toString())).toBeCloseTo(24, 1)
      expect([...server.files.keys()].filter((name) => /^chunks\/.*(?<!\.json)$/.test(name)).length).toBeGreaterThan(1)
    } finally {
      worker.kill('SIGTERM')
      await once(worker, 'exit')
      rmSync(alone, { recursive: true, force: true })
    }
  })
})
