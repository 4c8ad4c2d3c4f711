// Makes a copy that any browser plays and seeks quickly, for footage that it would not, or not from the same instant 0.
import { QUICK_SOUND } from './encoding'
import type { FootageFacts } from './probe'
import { progressReader } from './progress'
import { footageInput, patience } from './input'
import { intoRange, usualRange } from './range'
import { COPY_TIMES, pictureOnTime, soundOnTime } from './timebase'
import { runTool } from './tool'
import type { Share } from '../core/units'

const MOST_HEIGHT = 720

const SHAPE =
  `scale='trunc(iw*sar*min(1,${MOST_HEIGHT}/ih)/2)*2':'trunc(min(ih,${MOST_HEIGHT})/2)*2',` + 'setsar=1,format=yuv420p'

/** @throws Problem `tool-failed`, `disk-full`, `tool-missing` or `cancelled`. */
export async function makeProxy(
  path: string,
  out: string,
  facts: FootageFacts,
  options: { signal?: AbortSignal; onProgress?: (share: Share) => void } = {},
): Promise<void> {
  const sound =
    facts.audioCodec === null ? [] : ['-map', '[sound]', '-c:a', 'aac', ...QUICK_SOUND, '-b:a', '128k', '-ac', '2']
  const shape = [...intoRange(facts, usualRange(facts)), SHAPE].join(',')
  const filters = [
    pictureOnTime(facts, { input: '0:V:0', output: 'picture', shape }),
    ...(facts.audioCodec === null ? [] : [`[0:a:0]${soundOnTime(facts)}[sound]`]),
  ]
  await runTool(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', '-y', ...COPY_TIMES, ...footageInput(path)],
      ...['-filter_complex', filters.join(';'), '-map', '[picture]', ...sound],
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '23', '-g', '30', '-bf', '0', '-fps_mode', 'vfr'],
      ...['-movflags', '+faststart', '-f', 'mp4', '-progress', 'pipe:1', `file:${out}`],
    ],
    {
      signal: options.signal,
      limitMs: patience(facts.durationMs, 20),
      onOutput: progressReader(facts.durationMs, options.onProgress),
    },
  )
}
