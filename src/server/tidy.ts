// Sweeps what nobody needs any more: uploads that were given up, scratch that an attempt left behind, and files in the
// store that no row names, here and in the bucket. Each only after a stated time.
import { readdir, rm, stat } from 'node:fs/promises'
import { basename, join } from 'node:path'
import type { Ms } from '../core/units'
import { sql } from './db'
import { sweepFolder } from '../engine/chunkStore'
import { bucket } from './bucket'
import { readSettings } from './settings'
import {
  isThere,
  nameInStore,
  REQUEST_FOLDER,
  scratchFolder,
  STORE,
  storedPath,
  storeFolder,
  uploadsFolder,
} from './store'

const HOUR: Ms = 3_600_000
/** An upload that nobody went on with. It can be taken up again until then. */
export const UPLOAD_KEPT_MS = 7 * 24 * HOUR
/** What no row names, and no attempt works on. */
export const UNNAMED_KEPT_MS = 24 * HOUR

export interface Swept {
  what: 'upload' | 'scratch' | 'store' | 'bucket'
  /** Or the name in the bucket. */
  path: string
  bytes: number
}

/**
 * @param dry only tells what would go.
 * @param nowMs milliseconds since the epoch.
 */
export async function tidy({ dry = false, nowMs = Date.now() } = {}): Promise<Swept[]> {
  if (!dry) await dropForgotten(nowMs)
  const found = [...(await deadScratch(nowMs)), ...(await givenUpUploads(nowMs)), ...(await unnamed(nowMs))]
  if (dry) return found
  await bucket()?.remove(found.filter(({ what }) => what === 'bucket').map(({ path }) => path))
  for (const { what, path } of found) if (what !== 'bucket') await rm(path, { recursive: true, force: true })
  return found
}

/**
 * With a bucket: sends what it lacks of what is named, as of a data folder that had none before; then what was not used
 * on this machine for a day goes from here, as far as there is more of it than is to be kept.
 * @throws Problem `store-away`; then nothing goes.
 */
export async function evenOut(nowMs: Ms = Date.now()): Promise<void> {
  const far = bucket()
  if (!far) return
  const there = new Set((await far.list(STORE)).map(({ name }) => name))
  for (const hash of await namedHashes()) {
    const isHereOnly = !there.has(nameInStore(hash)) && (await isThere(storedPath(hash)))
    if (isHereOnly) await far.put(nameInStore(hash), storedPath(hash))
  }
  await sweepFolder(storeFolder(), { mostBytes: readSettings().JIVET_KEPT_GB * 1e9, before: nowMs - UNNAMED_KEPT_MS })
}

/** Files that would not do and were laid away lose their rows after a time; then nobody names them. */
async function dropForgotten(nowMs: Ms): Promise<void> {
  await sql()`
    delete from footage where state = 'failed' and put_aside_at < ${new Date(nowMs - UPLOAD_KEPT_MS)}`
}

/** Entries of a folder that were last changed before an instant. A rename is a change, too. */
async function old(what: Swept['what'], folder: string, beforeMs: Ms): Promise<Swept[]> {
  const found: Swept[] = []
  for (const name of await readdir(folder).catch(() => [])) {
    const path = join(folder, name)
    const facts = await stat(path).catch(() => null)
    if (facts && facts.ctimeMs < beforeMs) found.push({ what, path, bytes: facts.size })
  }
  return found
}

/** Folders of attempts that have ended go at once; single files, which are named by nobody, after their time. */
async function deadScratch(nowMs: Ms): Promise<Swept[]> {
  const folders = await readdir(scratchFolder(), { withFileTypes: true }).catch(() => [])
  // Asked after the folder was read: an attempt has its claim before it has a folder.
  const claims = await sql()<{ claim: string }[]>`select claim from jobs where claim is not null`
  const alive = new Set(claims.map(({ claim }) => claim))
  const dead = folders
    .filter((entry) => entry.isDirectory() && !entry.name.startsWith(REQUEST_FOLDER) && !alive.has(entry.name))
    .map(({ name }): Swept => ({ what: 'scratch', path: join(scratchFolder(), name), bytes: 0 }))
  // Single files, and folders of requests.
  const files = await old('scratch', scratchFolder(), nowMs - UNNAMED_KEPT_MS)
  return [...dead, ...files.filter(({ path }) => !dead.some((one) => one.path === path) && !alive.has(basename(path)))]
}

async function givenUpUploads(nowMs: Ms): Promise<Swept[]> {
  const waiting = new Set(
    (
      await sql()<{ upload: string }[]>`
    select upload from footage where upload is not null`
    ).map(({ upload }) => join(uploadsFolder(), upload)),
  )
  const found = await old('upload', uploadsFolder(), nowMs - UPLOAD_KEPT_MS)
  return found.filter(({ path }) => !waiting.has(path.replace(/\.json$/, '')))
}

async function unnamed(nowMs: Ms): Promise<Swept[]> {
  const beforeMs = nowMs - UNNAMED_KEPT_MS
  const found: Swept[] = []
  for (const shelf of await readdir(storeFolder()).catch(() => []))
    found.push(...(await old('store', join(storeFolder(), shelf), beforeMs)))
  for (const { name, bytes, changedMs } of (await bucket()?.list(STORE)) ?? [])
    if (changedMs < beforeMs) found.push({ what: 'bucket', path: name, bytes })
  if (!found.length) return []
  // Asked after the folder was read: what is named since then is kept.
  const named = await namedHashes()
  return found.filter(({ path }) => !named.has(basename(path)))
}

async function namedHashes(): Promise<Set<string>> {
  const rows = await sql()<{ hash: string }[]>`
    select hash from footage union select proxy_hash from footage union select peaks_hash from footage
    union select video_hash from packs union select hash from recordings
    union select hash from music`
  return new Set(rows.flatMap(({ hash }) => hash ?? []))
}
