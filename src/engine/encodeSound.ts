// Writes sound in the format that the ending of its name says: WAV as it is, FLAC without loss, MP3 for whatever plays
// nothing else.
import { writeFile } from 'node:fs/promises'
import { extname } from 'node:path'
import { QUIET } from './encoding'
import { runTool } from './tool'

const ENCODERS: Record<string, readonly string[]> = {
  '.flac': ['-c:a', 'flac', '-f', 'flac'],
  '.mp3': ['-c:a', 'libmp3lame', '-b:a', '192k', '-f', 'mp3'],
}

export const SOUND_ENDINGS = ['wav', 'flac', 'mp3'] as const
export type SoundEnding = (typeof SOUND_ENDINGS)[number]

/** How ffmpeg writes a sound file of that ending. */
export const soundEncoder = (ending: SoundEnding): readonly string[] =>
  ENCODERS[`.${ending}`] ?? ['-c:a', 'pcm_s16le', '-f', 'wav']

/** @param wave a WAV file. @throws Problem `tool-failed`, `tool-missing` or `disk-full`. */
export async function encodeSound(wave: Uint8Array, out: string): Promise<void> {
  const encoder = ENCODERS[extname(out).toLowerCase()]
  if (!encoder) return writeFile(out, wave)
  await runTool('ffmpeg', [...QUIET, '-f', 'wav', '-i', 'pipe:0', ...encoder, `file:${out}`], {
    feed: async (child) => {
      await new Promise<void>((resolve, reject) => {
        child.stdin?.once('error', reject)
        child.stdin?.end(wave, resolve)
      })
    },
  })
}
