// A video with its captions and chapters inside, to be switched on by whoever watches: nothing is encoded again, so it
// takes as long as a copy does.
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Chapter } from '../core/write/chapters'
import { chapterMetadata } from '../core/write/ffmetadata'
import type { Ms } from '../core/units'
import { QUIET } from './encoding'
import { footageInput, patience } from './input'
import { readMadeBox, writeMadeBox } from './madeBox'
import { runTool } from './tool'

interface Soft {
  /** An MP4. */
  video: string
  lengthMs: Ms
  title: string
  /** WebVTT. */
  captions: string
  chapters: readonly Chapter[]
  out: string
  /** A folder for what waits. */
  folder: string
  signal?: AbortSignal
}

/** Writes an MP4. @throws Problem `tool-failed`, `tool-missing`, `disk-full` or `cancelled`. */
export async function withSoftText(soft: Soft): Promise<void> {
  const { video, lengthMs, title, captions, chapters, out, folder, signal } = soft
  const vtt = join(folder, 'captions.vtt'),
    metadata = join(folder, 'chapters.txt')
  await writeFile(vtt, captions)
  await writeFile(metadata, chapterMetadata(chapters, { endMs: lengthMs, title }))
  await runTool(
    'ffmpeg',
    [
      ...[...QUIET, ...footageInput(video), '-f', 'webvtt', '-i', `file:${vtt}`, '-f', 'ffmetadata', '-i', metadata],
      ...['-map', '0:v', '-map', '0:a?', '-map', '1', '-map_metadata', '2', '-map_chapters', '2', '-c', 'copy'],
      ...['-c:s', 'mov_text', '-metadata:s:s:0', 'language=eng', '-movflags', '+faststart', '-f', 'mp4', `file:${out}`],
    ],
    { ...(signal ? { signal } : {}), limitMs: patience(lengthMs, 2) },
  )
  const made = await readMadeBox(video)
  if (made) await writeMadeBox(out, made)
}
