// A data folder as the commit before ties belonged to their footage left it, brought up to date: nothing is lost. The
// dump and what it held were written by that commit's own code.
import { readFileSync } from 'node:fs'
import postgres from 'postgres'
import { expect, it } from 'vitest'
import { expand } from '../src/core/expand/expand'
import { startedDatabase } from './records'

const parts = async () => ({
  ...(await import('../src/server/db')),
  ...(await import('../src/server/migrate')),
  ...(await import('../src/server/workouts')),
  ...(await import('../src/server/stitches')),
  ...(await import('../src/server/footage')),
  ...(await import('../src/server/reel')),
  ...(await import('../src/server/progress')),
  ...(await import('../src/server/moves')),
})

startedDatabase(async (url) => {
  // On a connection of its own: the dump empties its search path.
  const loader = postgres(url, { max: 1, onnotice: () => undefined })
  await loader.unsafe(readFileSync(new URL('data/before-footing.sql', import.meta.url), 'utf8'))
  await loader.end()
  const { migrate } = await parts()
  expect(await migrate()).toEqual([
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
})

type TiedRow = [row: number, edge: 'start' | 'end', footageMs: number]
const EXPECTED = JSON.parse(readFileSync(new URL('data/before-footing.json', import.meta.url), 'utf8')) as Record<
  string,
  { rows: TiedRow[] }
>

const shelf = async () => (await (await parts()).shelfPage(null)).entries
const idOf = async (title: string): Promise<string> => {
  const entry = (await shelf()).find((one) => one.title === title)
  if (!entry) throw new Error(`${title} is not on the shelf`)
  return entry.id
}

it.each(Object.entries(EXPECTED))('every tie of %s holds the same row at the same instant', async (title, { rows }) => {
  const { listStitches, findWorkout } = await parts()
  const id = await idOf(title)
  const { segments } = expand((await findWorkout(id)).score)
  const rowOf = new Map(segments.map((segment, at) => [segment.id, at + 1]))
  const { stitches, version } = await listStitches(id)
  expect(stitches.map((tie): TiedRow => [rowOf.get(tie.segmentId) ?? -1, tie.edge, tie.footageMs])).toEqual(rows)
  expect(version).toEqual({ revision: 2, key: null })
  expect(new Set(stitches.map(({ origin }) => origin))).toEqual(new Set(['hand', 'heard']))
})

it('every station has a key, once in its section', async () => {
  const { sql } = await parts()
  interface Stations {
    key?: string
    stations?: { key?: string }[]
    groups?: { key?: string }[][]
    rows?: unknown[]
  }
  const rows = await sql()<{ score: { sections?: Stations[] } }[]>`
    select score from workouts where plan_state in ('planned', 'beyond')`
  const sections = rows.flatMap(({ score }) => score.sections ?? [])
  const stations = sections.map((one) => [...(one.stations ?? []), ...(one.groups ?? []).flat()])
  expect(stations.flat().length).toBeGreaterThan(30)
  for (const one of stations) {
    const keys = one.map(({ key }) => key)
    expect(keys.every((key) => /^[a-z]\w*$/.test(key ?? ''))).toBe(true)
    expect(new Set(keys).size).toBe(keys.length)
  }
})

it.each(Object.keys(EXPECTED))(
  '%s keeps replaced and failed footage, evidence, its video and its job',
  async (title) => {
    const { currentFootage, progressOf, evidenceOf, takeIntoReel } = await parts()
    const id = await idOf(title)
    expect(await progressOf(id)).toMatchObject({
      footage: { name: 'deck.mp4', state: 'ready' },
      failedUpload: { name: 'note.txt', problem: 'This is not a video that can be read.' },
      aside: [{ name: 'first-take.mp4', ties: 0 }],
      jobs: [{ kind: 'render', state: 'queued' }],
      pack: { title, scoreRevision: null, changed: { score: false, ties: false, footage: false } },
    })
    const current = await currentFootage(id)
    expect((await evidenceOf(current?.id ?? '')).length).toBeGreaterThan(0)
    const [first] = (await progressOf(id)).aside
    await takeIntoReel(first?.id ?? '')
    expect((await currentFootage(id))?.name).toBe('first-take.mp4')
    await takeIntoReel(current?.id ?? '')
  },
)

it('all that an older Jivet measured is measured again, and only that', async () => {
  const { outdatedFootage, sql } = await parts()
  const [count] = await sql()<{ ready: number }[]>`select count(*)::integer as ready from footage where state = 'ready'`
  expect(await outdatedFootage()).toHaveLength(count?.ready ?? -1)
})

it('the shelf has all six but the one put away, the torn one as damaged', async () => {
  const { sql, storedScore, setRemoved, findWorkout } = await parts()
  const entries = await shelf()
  expect(entries.map(({ planState }) => planState).sort()).toEqual([
    'beyond',
    'damaged',
    'planned',
    'planned',
    'planned',
  ])
  expect(entries.filter(({ rendered }) => rendered)).toHaveLength(2)
  const torn = entries.find(({ planState }) => planState === 'damaged')
  expect(torn?.score).toBeNull()
  expect((await storedScore(torn?.id ?? '')).score).toBeTypeOf('object')
  const [away] = await sql()<{ id: string }[]>`select id from workouts where removed_at is not null`
  await setRemoved(away?.id ?? '', false)
  expect((await findWorkout(away?.id ?? '')).score.sections.length).toBeGreaterThan(0)
})

it('own moves are found in the workouts that use them', async () => {
  const { listMoves, usesOfMove } = await parts()
  expect(await listMoves()).toMatchObject([{ name: 'Punt push', gear: ['pole'] }])
  expect(await usesOfMove('PUNT PUSH')).toMatchObject([{ published: false }])
})
