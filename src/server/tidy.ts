// Sweeps what nobody needs any more: uploads that were given up, scratch that an attempt left behind, and files in the
// store that no row names, here and in the bucket. Each only after a stated time.
import { readdir, rm, stat } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { Problem } from '../core/problem'
import { DAY, HOUR, type Ms } from '../core/units'
import { sql } from './db'
import { sweepFolder } from '../engine/chunkStore'
import { bucket } from './bucket'
import { readSettings } from './settings'
import {
  isThere,
  nameInStore,
  REQUEST_FOLDER,
  scratchFolder,
  shelves,
  STORE,
  storedPath,
  storeFolder,
  uploadsFolder,
} from './store'
import { agreeOnStore, namedHashes } from './storeIdentity'
import { emptyTrash, intoTrash, TRASH_KEPT_MS } from './trash'

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

/** Of a store with fewer files any share may go. */
const FEW_FILES = 10
/** More than this share of a store is not swept by itself. */
const MOST_SHARE = 1 / 3

interface Tidying {
  /** Only tells what would go. */
  dry?: boolean
  /** Sweeps however much of the store it is. */
  anyway?: boolean
  /** Milliseconds since the epoch. */
  nowMs?: Ms
}

/**
 * Sweeps what nobody needs. What leaves the store lies in the trash first.
 * @throws Problem `store-of-another`, `store-away`, or `sweep-too-large` where more than a third of the store is named
 * by nothing; then nothing goes.
 */
export async function tidy({ dry = false, anyway = false, nowMs = Date.now() }: Tidying = {}): Promise<Swept[]> {
  await agreeOnStore()
  if (!dry) await dropForgotten(nowMs)
  const { found: unneeded, inStore } = await unnamed(nowMs)
  const found = [...(await deadScratch(nowMs)), ...(await givenUpUploads(nowMs)), ...unneeded]
  if (dry) return found
  const files = unneeded.filter(({ what }) => what === 'store').length
  if (!anyway && inStore >= FEW_FILES && files > inStore * MOST_SHARE)
    throw new Problem({ code: 'sweep-too-large', files, of: inStore })
  for (const { what, path } of found) {
    if (what === 'store') await intoTrash(path, basename(path), nowMs)
    else if (what !== 'bucket') await rm(path, { recursive: true, force: true })
  }
  await emptyBucketTrash(
    found.filter(({ what }) => what === 'bucket').map(({ path }) => path),
    nowMs,
  )
  await emptyTrash(await namedHashes(), nowMs)
  return found
}

/** After a leap of the clock files are only looked at so many times. */
const HOLDS = 6
const LEAP_MS: Ms = 2 * DAY

/**
 * As `tidy`, every hour: holds off where the wall clock leapt, as files look older by it than they are. A machine that
 * was off for days looks the same; it sweeps a few hours later.
 * @returns null where it held off.
 */
export async function tidyByClock(nowMs: Ms = Date.now()): Promise<Swept[] | null> {
  const [row] = await sql()<{ looked_at: Date | null; holds: number }[]>`select looked_at, holds from store_identity`
  const sinceMs = row?.looked_at ? nowMs - row.looked_at.getTime() : 0
  const leapt = sinceMs > LEAP_MS || sinceMs < -HOUR
  const holds = row?.holds ? row.holds - 1 : leapt ? HOLDS : 0
  await sql()`update store_identity set looked_at = ${new Date(nowMs)}, holds = ${holds}`
  return holds > 0 ? null : tidy({ nowMs })
}

/** Lets go of what has been named by nothing for the trash's time; what was named again meanwhile stays. */
async function emptyBucketTrash(names: readonly string[], nowMs: Ms): Promise<void> {
  const far = bucket()
  if (!far) return
  const since = new Date(nowMs)
  if (names.length)
    await sql()`
      insert into bucket_trash ${sql()(names.map((name) => ({ name, since })))} on conflict (name) do nothing`
  await sql()`delete from bucket_trash where name <> all(${names as string[]})`
  const gone = await sql()<{ name: string }[]>`
    delete from bucket_trash where since < ${new Date(nowMs - TRASH_KEPT_MS)} returning name`
  await far.remove(gone.map(({ name }) => name))
}

/**
 * With a bucket: sends what it lacks of what is named, as of a data folder that had none before; then what was not used
 * on this machine for a day goes from here, as far as there is more of it than is to be kept.
 * @throws Problem `store-away`; then nothing goes.
 */
export async function evenOut(nowMs: Ms = Date.now()): Promise<void> {
  const far = bucket()
  if (!far) return
  await far.endGivenUp(nowMs - UPLOAD_KEPT_MS)
  const there = new Set((await far.list(STORE)).map(({ name }) => name))
  for (const hash of await namedHashes()) {
    const isHereOnly = !there.has(nameInStore(hash)) && (await isThere(storedPath(hash)))
    if (isHereOnly) await far.put(nameInStore(hash), storedPath(hash))
  }
  await sweepFolder(storeFolder(), { mostBytes: readSettings().JIVET_KEPT_GB * 1e9, before: nowMs - UNNAMED_KEPT_MS })
}

/** Files that would not do and were laid away lose their rows after a time, but not where ties were made on them. */
async function dropForgotten(nowMs: Ms): Promise<void> {
  await sql()`
    delete from footage where state = 'failed' and put_aside_at < ${new Date(nowMs - UPLOAD_KEPT_MS)}
      and not exists (select 1 from stitches where footage_id = footage.id)`
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
  const uploadOf = (path: string): string => path.replace(/\.(?:json|pieces)$/, '')
  const found = await old('upload', uploadsFolder(), nowMs - UPLOAD_KEPT_MS)
  const young = new Set((await old('upload', uploadsFolder(), Infinity)).map(({ path }) => path))
  for (const { path } of found) young.delete(path)
  // An upload and what is noted beside it go together, or stay.
  const goingOn = new Set([...young].map(uploadOf))
  return found.filter(({ path }) => !waiting.has(uploadOf(path)) && !goingOn.has(uploadOf(path)))
}

/** @returns what no row names, and how many files the store holds. */
async function unnamed(nowMs: Ms): Promise<{ found: Swept[]; inStore: number }> {
  const beforeMs = nowMs - UNNAMED_KEPT_MS
  const found: Swept[] = []
  let inStore = 0
  for (const shelf of await shelves()) {
    inStore += (await readdir(shelf)).length
    found.push(...(await old('store', shelf, beforeMs)))
  }
  for (const { name, bytes, changedMs } of (await bucket()?.list(STORE)) ?? [])
    if (changedMs < beforeMs) found.push({ what: 'bucket', path: name, bytes })
  // Asked after the folder was read: what is named since then is kept.
  const named = await namedHashes()
  return { found: found.filter(({ path }) => !named.has(basename(path))), inStore }
}
