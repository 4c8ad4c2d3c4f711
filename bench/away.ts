// Takes the store's folder, the bucket and the database away at random, one or two at a time, while takes come in, are
// tied, put in order, put aside and taken back, and while the sweeps run with a clock that leaps up to ten days ahead
// (files wait fourteen in the trash); then compares what was acknowledged with what stands. Works by the server's own
// modules on a folder of its own; the bucket is simulated.
//   npx tsx bench/away.ts [TIMES] [SEED]
import { randomUUID } from 'node:crypto'
import { existsSync, mkdtempSync, readFileSync, renameSync, rmSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { handStitch, type Stitch } from '../src/core/align/ties'
import { expand } from '../src/core/expand/expand'
import { Problem } from '../src/core/problem'
import { circuit, score } from '../src/core/testing'
import { DAY, SECOND, type Ms } from '../src/core/units'
import { BucketServer } from '../tests/bucketServer'
import { FACTS } from '../tests/filmed'

const [times = '100', seed = '5'] = process.argv.slice(2)
let state = Number(seed)
const random = (): number => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32
const among = (count: number): number => Math.floor(random() * count)
const pause = (ms: Ms): Promise<void> => new Promise((done) => setTimeout(done, ms))

const home = mkdtempSync(join(tmpdir(), 'jivet-away-'))
const bucket = new BucketServer()
await bucket.start()
const { startDatabase } = (await import('../scripts/cluster.mjs' as string)) as {
  startDatabase: (home: string) => Promise<{ url: string; stop: () => Promise<void> }>
}
const database = await startDatabase(home)
Object.assign(process.env, { DATABASE_URL: database.url, JIVET_HOME: home, ...bucket.settings })
const jivet = {
  ...(await import('../src/server/db')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/match')),
  ...(await import('../src/server/migrate')),
  ...(await import('../src/server/reel')),
  ...(await import('../src/server/stitches')),
  ...(await import('../src/server/store')),
  ...(await import('../src/server/tidy')),
  ...(await import('../src/server/workouts')),
}
await jivet.migrate()
await jivet.matchRecords()

/** A workout, and all of it that was acknowledged. */
interface Known {
  id: string
  takes: Map<string, string>
  order: string[]
  /** Whether a change broke off since, so that its order may be that before it or that after it. */
  isUnsure: boolean
  aside: Set<string>
  /** Ties of each take, in its own time. */
  ties: Map<string, number[]>
}
const known: Known[] = []
const { segments } = expand(score(circuit({ rounds: 9 })))
let [done, refused, lost] = [0, 0, 0]
const complain = (what: string): void => {
  lost++
  console.log(what)
}
const reasons = new Map<string, number>()

/** Work that was refused has changed nothing, or it was done though its answer was lost: what stands tells. */
async function attempt(work: () => Promise<void>): Promise<boolean> {
  try {
    await work()
    done++
    return true
  } catch (error) {
    refused++
    const code = error instanceof Problem ? error.code : ((error as { code?: string }).code ?? String(error))
    reasons.set(code, (reasons.get(code) ?? 0) + 1)
    return false
  }
}

async function takeIn(one: Known): Promise<void> {
  const hash = await jivet.keepBytes(Buffer.from(randomUUID()))
  const upload = randomUUID()
  const id = await jivet.addFootage({ workoutId: one.id, name: `${upload}.mp4`, bytes: 36, upload })
  await jivet.inTransaction(async (tx) => {
    await jivet.lockWorkoutOf(id, tx)
    await jivet.updateFootage(id, { state: 'ready', hash, facts: FACTS }, tx)
    await tx`update jobs set state = 'done' where footage_id = ${id}`
    await jivet.takeIntoReel(id, tx)
  })
  one.takes.set(id, hash)
  await standing(one)
}

/** What stands now is what was acknowledged: read back after each change that was. */
async function standing(one: Known): Promise<void> {
  const { files } = await jivet.reelOf(one.id)
  one.order = files.map(({ id }) => id)
  one.isUnsure = false
}

async function change(one: Known): Promise<void> {
  const { order, aside } = one
  const [id = ''] = order.slice(among(Math.max(1, order.length)))
  switch (among(5)) {
    case 0:
      return takeIn(one)
    case 1: {
      if (order.length < 2) return
      const turned = [...order].reverse()
      await jivet.orderReel(one.id, turned)
      await standing(one)
      if (one.order.join() !== turned.join()) complain(`order of ${one.id} is not as it was acknowledged`)
      return
    }
    case 2:
      if (order.length < 3) return
      await jivet.putAside(id)
      aside.add(id)
      return standing(one)
    case 3: {
      const [back] = aside
      if (back === undefined) return
      await jivet.takeIntoReel(back)
      aside.delete(back)
      return standing(one)
    }
    default:
      return order.length ? tie(one) : undefined
  }
}

async function tie(one: Known): Promise<void> {
  const at = 1000 + among(5000)
  const { version } = await jivet.listStitches(one.id)
  const stitches: Stitch[] = one.order.flatMap((_, file) =>
    [0, 1].map((row) => {
      const footageMs = file * FACTS.durationMs + at + row * 30 * SECOND
      return handStitch({ segmentId: segments[file * 2 + row]?.id ?? '', edge: 'start', footageMs })
    }),
  )
  if (one.order.length * 2 > segments.length) return
  const reel = jivet.keyOf(await jivet.reelOf(one.id))
  await jivet.saveStitches(one.id, { stitches, version: { ...version, key: randomUUID() } }, reel)
  for (const id of one.order) one.ties.set(id, [at, at + 30 * SECOND])
}

const AWAY: Record<string, () => Promise<() => void>> = {
  async store() {
    const [from, to] = [jivet.storeFolder(), `${jivet.storeFolder()}-away`]
    renameSync(from, to)
    return () => {
      // What was written meanwhile went to a folder of its own: as on a disk that was not mounted.
      merge(from, to)
      renameSync(to, from)
    }
  },
  async bucket() {
    bucket.broken = 503
    return () => void (bucket.broken = 0)
  },
  async database() {
    // It comes back by itself, as in use; until it has, it is away already.
    const file = join(home, 'database', 'postmaster.pid')
    if (existsSync(file)) process.kill(Number(readFileSync(file, 'utf8').split('\n')[0]), 'SIGQUIT')
    return () => undefined
  },
}

/** Brings what stands in one store folder into another. */
function merge(from: string, to: string): void {
  rmSync(join(from, '.jivet-store'), { force: true })
  try {
    renameSync(from, `${to}-late-${among(1e9)}`)
  } catch {
    // Nothing was written there.
  }
}

for (let number = 0; number < 6; number++) {
  const id = await jivet.createWorkout(score(circuit({ rounds: 9 })))
  known.push({ id, takes: new Map(), order: [], isUnsure: false, aside: new Set(), ties: new Map() })
}
for (const one of known) for (let take = 0; take < 3; take++) await takeIn(one)

let isOver = false
const working = known.map(async (one) => {
  while (!isOver) {
    if (!(await attempt(() => change(one)))) one.isUnsure = true
    await pause(20)
  }
})
const sweeping = (async () => {
  while (!isOver) {
    // A clock that leaps: whatever nobody names is old by it.
    await attempt(async () => void (await jivet.tidyByClock(Date.now() + among(10) * DAY)))
    await attempt(async () => void (await jivet.tidy({ nowMs: Date.now() + 2 * DAY })))
    await attempt(async () => void (await jivet.matchRecords()))
    await attempt(() => jivet.evenOut())
    await pause(50)
  }
})()
const kinds = Object.keys(AWAY)
for (let count = 0; count < Number(times); count++) {
  const chosen = random() < 0.2 ? [kinds[among(3)], kinds[among(3)]] : [kinds[among(3)]]
  const back = []
  for (const kind of new Set(chosen)) back.push(await AWAY[kind ?? '']?.())
  await pause(100 + among(900))
  for (const bring of back) bring?.()
  await pause(300 + among(700))
}
isOver = true
await Promise.all([...working, sweeping])
// The database comes back by itself.
for (let tries = 0; tries < 60; tries++) if (await jivet.sql()`select 1`.catch(() => pause(500))) break
await jivet.matchRecords()

let [takes, ties] = [0, 0]
for (const one of known) {
  const { files } = await jivet.reelOf(one.id)
  // A change whose answer was lost may have come through: then the last that was asked for stands, whole.
  const standingIds = files.map(({ id }) => id)
  const all = new Set([...standingIds, ...(await jivet.footageAside(one.id)).map(({ id }) => id)])
  for (const [id, hash] of one.takes) {
    takes++
    if (!all.has(id)) complain(`take ${id} is gone`)
    else if (!(await jivet.isStored(hash))) complain(`the file of take ${id} is gone`)
    const found = (await jivet.stitchesOf(id)).map(({ footageMs }) => footageMs)
    const wanted = one.ties.get(id) ?? []
    ties += wanted.length
    if (found.length < wanted.length) complain(`ties of ${id}: ${found.join()} in place of ${wanted.join()}`)
  }
  if (!one.isUnsure && standingIds.join() !== one.order.join()) complain(`order of ${one.id}`)
}
console.log(`${times} times away: ${done} changes and sweeps done, ${refused} refused or broken off`)
console.log(`reasons: ${[...reasons].map(([code, count]) => `${code} ${count}`).join(', ')}`)
console.log(`${takes} takes and ${ties} ties that were acknowledged: ${lost} lost`)
await jivet.sql().end({ timeout: 1 })
await database.stop()
await bucket.end()
await rm(home, { recursive: true, force: true })
process.exit(lost ? 1 : 0)
