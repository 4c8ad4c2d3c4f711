// Lines that the coach has recorded. The same line, in whatever workout, is the same recording.
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { Problem } from '../core/problem'
import type { Ms } from '../core/units'
import { trimmedLine, waveMs } from '../engine/voices'
import { sql } from './db'
import { keepBytes, storedFile, withRequestFolder } from './store'

/** Lengths of recordings, by what is said. @param lines only of these; default: of all. */
export async function recordedLines(lines?: readonly string[]): Promise<Map<string, Ms>> {
  const rows = await sql()<{ line: string; ms: number }[]>`
    select line, length_ms as ms from recordings ${lines ? sql()`where line = any(${lines as string[]})` : sql()``}`
  return new Map(rows.map(({ line, ms }) => [line, ms]))
}

/** Their files, by what is said. */
export async function recordingFiles(): Promise<Map<string, string>> {
  const rows = await sql()<{ line: string; hash: string }[]>`select line, hash from recordings`
  return new Map(await Promise.all(rows.map(async ({ line, hash }) => [line, await storedFile(hash)] as const)))
}

/**
 * Keeps a recording of a line, trimmed and as loud as every other, in place of an earlier one.
 * @param sound a file of any kind that ffmpeg reads.
 * @throws Problem `nothing-said`.
 */
export async function keepRecording(line: string, sound: AsyncIterable<Uint8Array>, signal?: AbortSignal): Promise<Ms> {
  return withRequestFolder(async (folder) => {
    const raw = join(folder, 'recorded')
    await writeFile(raw, sound)
    const wave = await trimmedLine(raw, signal).catch((error: unknown) => {
      if (error instanceof Problem && error.code === 'tool-failed') throw new Problem({ code: 'nothing-said' })
      throw error
    })
    if (!wave) throw new Problem({ code: 'nothing-said' })
    const [hash, ms] = [await keepBytes(wave), waveMs(wave)]
    await sql()`
      insert into recordings (line, hash, length_ms) values (${line}, ${hash}, ${ms})
      on conflict (line) do update set hash = excluded.hash, length_ms = excluded.length_ms, created_at = now()`
    return ms
  })
}

export async function forgetRecording(line: string): Promise<void> {
  await sql()`delete from recordings where line = ${line}`
}
