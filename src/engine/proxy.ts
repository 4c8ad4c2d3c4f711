// Makes a copy that any browser plays and seeks quickly, for footage that it would not.
import type { Ms } from '../core/units'
import { progressReader } from './progress'
import { runTool } from './tool'

const MOST_HEIGHT = 720

/** @throws Problem `tool-failed`, `disk-full`, `tool-missing` or `cancelled`. */
export async function makeProxy(
  path: string,
  out: string,
  durationMs: Ms,
  options: { signal?: AbortSignal; onProgress?: (share: number) => void } = {},
): Promise<void> {
  await runTool(
    'ffmpeg',
    [
      '-v',
      'error',
      '-nostdin',
      '-y',
      '-i',
      `file:${path}`,
      '-map',
      '0:V:0',
      '-map',
      '0:a:0?',
      '-vf',
      `scale='trunc(iw*sar*min(1,${MOST_HEIGHT}/ih)/2)*2':'trunc(min(ih,${MOST_HEIGHT})/2)*2',setsar=1,format=yuv420p`,
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-crf',
      '23',
      '-g',
      '30',
      '-bf',
      '0',
      '-fps_mode',
      'vfr',
      '-c:a',
      'aac',
      '-b:a',
      '128k',
      '-ac',
      '2',
      '-af',
      'aresample=async=1:first_pts=0',
      '-movflags',
      '+faststart',
      '-f',
      'mp4',
      '-progress',
      'pipe:1',
      `file:${out}`,
    ],
    { signal: options.signal, onOutput: progressReader(durationMs, options.onProgress) },
  )
}
