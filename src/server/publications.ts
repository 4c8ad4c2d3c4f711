// What was handed to hosts. A publication is one video at one host, whatever broke off on the way.
import { Problem } from '../core/problem'
import type { HostVideo } from '../core/publish/host'
import { inTransaction, sql } from './db'
import type { VideoHost } from './hosts/host'
import { standIn } from './hosts/standIn'
import { addJob, tellChange, type Db, type Job } from './jobs'
import type { Pack } from './packs'

/** The hosts that there are, by the names that are kept. */
export const HOSTS: Readonly<Record<string, VideoHost>> = { standIn }
export const USUAL_HOST = 'standIn'

export interface Publication {
  id: string
  workoutId: string
  packId: string
  host: string
  key: string
  videoId: string | null
  page: string | null
  state: 'begun' | 'published' | 'rejected'
  reason: string
}

interface Row {
  id: string
  workout_id: string
  pack_id: string
  host: string
  key: string
  video_id: string | null
  page: string | null
  state: Publication['state']
  reason: string
}

const fromRow = (row: Row): Publication => ({
  ...{ id: row.id, workoutId: row.workout_id, packId: row.pack_id, host: row.host, key: row.key },
  ...{ videoId: row.video_id, page: row.page, state: row.state, reason: row.reason },
})

export const hostOf = ({ host }: Pick<Publication, 'host'>): VideoHost => {
  const found = HOSTS[host]
  if (!found) throw new Problem({ code: 'not-found', what: 'host' })
  return found
}

/**
 * Queues the publishing of a video. What broke off goes on; what was rejected is told to the host anew.
 * @returns the job's id.
 * @throws Problem `published-already`, or `already-publishing`.
 */
export async function askToPublish({ id: packId, workoutId }: Pack, host = USUAL_HOST): Promise<string> {
  return inTransaction(async (tx) => {
    const [row] = await tx<Row[]>`
      insert into publications (workout_id, pack_id, host) values (${workoutId}, ${packId}, ${host})
      on conflict (pack_id, host) do update set state = publications.state returning *`
    if (!row) throw new Problem({ code: 'unexpected' })
    if (row.state === 'published') throw new Problem({ code: 'published-already' })
    const jobId = await addJob(tx, { kind: 'publish', workoutId, footageId: null })
    if (!jobId) throw new Problem({ code: 'already-publishing' })
    const anew = row.state === 'rejected'
    await tx`
      update publications set job_id = ${jobId}
        ${anew ? tx`, state = 'begun', reason = '', key = gen_random_uuid(), video_id = null, page = null` : tx``}
      where id = ${row.id}`
    return jobId
  })
}

/** @throws Problem `not-found`. */
export async function publicationOf(job: Pick<Job, 'id'>): Promise<Publication> {
  const [row] = await sql()<Row[]>`select * from publications where job_id = ${job.id}`
  if (!row) throw new Problem({ code: 'not-found', what: 'video' })
  return fromRow(row)
}

/** @throws Problem `not-found`. */
export async function findPublication(id: string): Promise<Publication> {
  const [row] = await sql()<Row[]>`select * from publications where id = ${id}`
  if (!row) throw new Problem({ code: 'not-found', what: 'video' })
  return fromRow(row)
}

/** The newest first. */
export async function publicationsOf(workoutId: string): Promise<Publication[]> {
  const rows = await sql()<Row[]>`
    select * from publications where workout_id = ${workoutId} order by created_at desc, id desc`
  return rows.map(fromRow)
}

/** What the host calls it, before a byte of it is sent. */
export async function nameThere({ id, workoutId }: Publication, { id: videoId, page }: HostVideo): Promise<void> {
  await sql()`update publications set video_id = ${videoId}, page = ${page} where id = ${id}`
  await tellChange(workoutId)
}

/** In the transaction that ends the job. */
export async function endPublication({ id }: Publication, { state, reason }: HostVideo, tx: Db): Promise<void> {
  await tx`
    update publications set state = ${state === 'ready' ? 'published' : 'rejected'}, reason = ${reason}, ended_at = now()
    where id = ${id}`
}
