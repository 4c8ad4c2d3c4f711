// Pieces of music that were brought: kept once each, for every workout.
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { Problem } from '../core/problem'
import type { MusicPiece } from '../core/sound/music'
import { clipped } from '../core/text'
import { makePiece } from '../engine/music'
import type { PieceFile } from '../engine/renderJob'
import { sql } from './db'
import { isStored, keepFile, storedFile, withRequestFolder } from './store'

/** The newest first. */
export async function knownMusic(): Promise<MusicPiece[]> {
  return sql()<MusicPiece[]>`
    select hash, name, length_ms as ms from music order by created_at desc limit 500`
}

/**
 * Keeps a sound file as a piece.
 * @param sound of any kind that ffmpeg reads.
 * @throws Problem `no-music`, `music-too-long`.
 */
export async function keepMusic(
  name: string,
  sound: AsyncIterable<Uint8Array>,
  signal?: AbortSignal,
): Promise<MusicPiece> {
  return withRequestFolder(async (folder) => {
    const raw = join(folder, 'brought')
    await writeFile(raw, sound)
    const made = join(folder, 'piece.flac')
    const ms = await makePiece(raw, made, signal)
    const hash = await keepFile(made)
    const piece = { hash, name: clipped(name.trim(), 300) || 'Music', ms }
    await sql()`
      insert into music (hash, name, length_ms) values (${piece.hash}, ${piece.name}, ${piece.ms})
      on conflict (hash) do update set name = excluded.name`
    return piece
  })
}

/** @throws Problem `not-found`. */
export async function musicFile(hash: string): Promise<PieceFile> {
  const [piece] = await sql()<MusicPiece[]>`select hash, name, length_ms as ms from music where hash = ${hash}`
  if (!piece) throw new Problem({ code: 'not-found', what: 'piece of music' })
  return { ...piece, path: await storedFile(piece.hash) }
}

/** The files of pieces, in their order. @throws Problem `music-gone`. */
export async function musicFiles(pieces: readonly MusicPiece[]): Promise<PieceFile[]> {
  return Promise.all(
    pieces.map(async (piece) => {
      if (!(await isStored(piece.hash))) throw new Problem({ code: 'music-gone', name: piece.name })
      return { ...piece, path: await storedFile(piece.hash) }
    }),
  )
}

/** Takes a piece out of the list. @throws Problem `music-in-use` where a workout plays it. */
export async function forgetMusic(hash: string): Promise<void> {
  const [used] = await sql()<{ title: string }[]>`
    select title from workouts where mix->'music'->'pieces' @> ${sql().json([{ hash }])} limit 1`
  if (used) throw new Problem({ code: 'music-in-use', title: used.title })
  await sql()`delete from music where hash = ${hash}`
}
