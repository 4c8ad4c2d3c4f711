// Sessions on the floor in a real PostgreSQL: what was told is there, once, whatever was killed in the meantime.
import { fork, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'vite'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { expand } from '../src/core/expand/expand'
import type { FloorEvent } from '../src/core/floor/events'
import { readFloorLog } from '../src/core/floor/log'
import { isHeard } from '../src/core/floor/machine'
import { runOf } from '../src/core/floor/run'
import { circuit, score, station } from '../src/core/testing'
import { FloorLink, type LinkOutside, type Told } from '../src/ui/floor/FloorLink'
import { startedDatabase } from './records'

startedDatabase(async () => {
  const { migrate } = await import('../src/server/migrate')
  await migrate()
})
const parts = async () => ({ ...(await import('../src/server/sessions')), ...(await import('../src/server/workouts')) })

const plan = score(
  circuit({
    ...{ leadInMs: 5000, rounds: 30, roundBreakMs: 15_000 },
    stations: [station('Jug lift'), station('Keel hold'), station('Rope pull')],
  }),
)
const WISHES = { rehearsal: false, speed: 1, chirps: 'plain' as const }
let count = 0
const key = (): string => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`
const started = async (): Promise<string> => {
  const { openSession, createWorkout } = await parts()
  return openSession(await createWorkout(plan), WISHES)
}

describe('a session in the database', () => {
  it('stands alone on its floor until it is ended', async () => {
    const { openSession, createWorkout, tellSession, sessionUnderWay, sessionsBefore, wasFilmedHere } = await parts()
    const workout = await createWorkout(plan)
    const both = await Promise.allSettled([openSession(workout, WISHES), openSession(workout, WISHES)])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const under = await sessionUnderWay(workout)
    expect(under).toMatchObject({ rehearsal: false, speed: 1, chirps: 'plain', ended: false })
    await tellSession(under?.id ?? '', { events: [{ kind: 'end', key: key(), atMs: 3000 }], seenMs: 3000, after: 0 })
    expect([await sessionUnderWay(workout), (await sessionsBefore(workout)).length]).toEqual([null, 1])
    expect(await wasFilmedHere(workout)).toBe(true)
    await openSession(workout, WISHES)
  })

  it('takes a line once, however often it is told, and hands out what others told', async () => {
    const { tellSession, toldSince } = await parts()
    const id = await started()
    const start: FloorEvent = { kind: 'start', key: key(), atMs: 10, countInMs: 5000 }
    const note: FloorEvent = { kind: 'note', key: key(), atMs: 900, segmentId: 'main/lead', text: 'the jug leaks' }
    const first = await tellSession(id, { events: [start], seenMs: 400, after: 0 })
    const again = await tellSession(id, { events: [start, note], seenMs: 300, after: first.last })
    expect([first.events, again.events, again.seenMs]).toEqual([[start], [note], 400])
    expect((await toldSince(id, 0)).events).toEqual([start, note])
  })

  it('goes by a clock that never goes back, and never before what was seen', async () => {
    const { tellSession, toldSince } = await parts()
    const id = await started()
    const { nowMs } = await tellSession(id, { events: [], seenMs: 120_000, after: 0 })
    expect(nowMs).toBeGreaterThanOrEqual(120_000)
    const later = [await toldSince(id, 0), await toldSince(id, 0), await toldSince(id, 0)].map((told) => told.nowMs)
    expect(later).toEqual([...later].sort((one, other) => one - other))
  })

  it('is a file that means the same, and whose plan is the one that was run', async () => {
    const { tellSession, floorLogOf, findSession, saveScore, recordFor } = await parts()
    const id = await started()
    await tellSession(id, { events: [{ kind: 'start', key: key(), atMs: 0, countInMs: 5000 }], seenMs: null, after: 0 })
    await tellSession(id, { events: [{ kind: 'end', key: key(), atMs: 47_000 }], seenMs: null, after: 0 })
    const { workoutId } = await findSession(id)
    const other = score(circuit({ stations: [station('Rope pull', { key: 'new' })] }))
    await saveScore(workoutId, other, { revision: 1, key: null })
    const log = readFloorLog(JSON.stringify(await floorLogOf(id)))
    expect(expand(log.score).segments.length).toBe(expand(plan).segments.length)
    // Nothing of it is planned any more, but the lead-in.
    expect((await recordFor(workoutId, expand(plan).segments))?.events.length).toBe(2)
    expect(await recordFor(workoutId, expand(other).segments.slice(1, 2))).toBeNull()
  })

  it('says what is missing', async () => {
    const { tellSession, findSession, openSession, createWorkout } = await parts()
    const nobody = '00000000-0000-4000-8000-00000000dead'
    await expect(findSession(nobody)).rejects.toMatchObject({ code: 'not-found' })
    await expect(tellSession(nobody, { events: [], seenMs: 0, after: 0 })).rejects.toMatchObject({ code: 'not-found' })
    await expect(openSession(await createWorkout(score()), WISHES)).rejects.toMatchObject({ code: 'floor-empty' })
  })
})

/** A server that writes down, ready to be asked. */
interface Writer {
  child: ChildProcess
  port: number
}

const KILLS = 200

describe(`a server that is killed ${KILLS} times`, () => {
  const folder = join(process.cwd(), 'tmp', `floor-server-${process.pid}`)
  const waiting: Promise<Writer>[] = []
  beforeAll(async () => {
    await build({
      ...{ logLevel: 'silent', configFile: false, ssr: { noExternal: true } },
      build: {
        ssr: 'tests/floorServer.ts',
        outDir: folder,
        emptyOutDir: true,
        rollupOptions: { output: { entryFileNames: 'server.mjs' } },
      },
    })
  })
  afterAll(async () => {
    for (const writer of waiting) (await writer).child.kill('SIGKILL')
    rmSync(folder, { recursive: true, force: true })
  })

  const next = (): Promise<Writer> => {
    const child = fork(join(folder, 'server.mjs'), { execArgv: [] })
    return once(child, 'message').then(([port]) => ({ child, port: port as number }))
  }

  it('has every line, once, and goes on where the session really is', async () => {
    const id = await started()
    const { toldSince } = await parts()
    let writer: Writer | null = null
    const kept = new Map<string, string>()
    const outside = (): LinkOutside => ({
      clock: () => performance.now(),
      newKey: key,
      storage: {
        get length() {
          return kept.size
        },
        key: (at) => [...kept.keys()][at] ?? null,
        getItem: (place) => kept.get(place) ?? null,
        setItem: (place, text) => void kept.set(place, text),
        removeItem: (place) => void kept.delete(place),
      },
      send: async (telling) => {
        const answer = await fetch(`http://127.0.0.1:${writer?.port ?? 1}`, {
          method: 'POST',
          body: JSON.stringify({ id, ...telling }),
        })
        if (!answer.ok) throw new Error(await answer.text())
        return (await answer.json()) as Told
      },
    })
    const { segments } = expand(plan)
    // A hundred times as fast, so that a session has room for all of it.
    const facts = { sessionId: id, speed: 100, looksOn: false }
    let link = new FloorLink(facts, await toldSince(id, 0), outside())
    const told: FloorEvent[] = [link.tell({ kind: 'start', countInMs: 5000 })]
    const commands = ['hold', 'goOn', 'skip', 'back', 'repeat', 'open', 'next'] as const
    for (let kill = 0; kill < KILLS; kill++) {
      while (waiting.length < 3) waiting.push(next())
      writer = (await waiting.shift()) ?? null
      // Told while it lives, while it dies, and after it; the page is lost now and then as well.
      const dies = new Promise<void>((done) => setTimeout(() => done(), (kill * 7) % 23))
      for (let line = 0; line < 3; line++) {
        const state = runOf(segments, link.state.events, link.nowMs()).state
        const kind = commands[(kill * 5 + line * 3) % commands.length] ?? 'hold'
        if (isHeard(segments, state, kind)) told.push(link.tell({ kind, on: state.at }))
        told.push(link.tell({ kind: 'note', segmentId: 'main/lead', text: `line ${kill}.${line}` }))
        if (line === 1) await dies.then(() => writer?.child.kill('SIGKILL'))
      }
      await link.pulse()
      if (kill % 10 === 9) link = new FloorLink(facts, { ...(await toldSince(id, 0)), nowMs: link.nowMs() }, outside())
    }
    writer = await next()
    waiting.push(Promise.resolve(writer))
    await expect.poll(async () => (await link.pulse(), link.state.unsent), { timeout: 20_000 }).toBe(0)
    const { events } = await toldSince(id, 0)
    const keys = events.map((event) => event.key)
    expect(new Set(keys).size).toBe(keys.length)
    expect(new Set(keys)).toEqual(new Set(told.map((event) => event.key)))
    const endMs = link.nowMs()
    expect(runOf(segments, events, endMs)).toEqual(runOf(segments, told, endMs))
    expect(kept.size).toBe(0)
  }, 180_000)
})
