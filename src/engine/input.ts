// What ffmpeg may open: one file of a kind that a camera, a recorder or an editor writes, no list of other files,
// nothing of the network, no picture beyond reason. Every file, from outside or our own, is opened by what stands here.
import { Problem } from '../core/problem'
import { DAY, type Ms } from '../core/units'

/** Names of ffmpeg's readers. None of them follows a reference to another file. */
const READERS = [
  ...[
    'mov',
    'mp4',
    'm4a',
    '3gp',
    '3g2',
    'mj2',
    'matroska',
    'webm',
    'avi',
    'mpegts',
    'mpeg',
    'flv',
    'asf',
    'ogg',
    'mxf',
  ],
  // Sound alone is music or a line; it is not footage, but is told apart from what is no recording at all.
  ...['wav', 'mp3', 'aac', 'flac', 'aiff', 'caf', 'w64', 'amr'],
]

/** The largest picture: 8K, upright or not. */
const MOST_PIXELS = 7680 * 4320
/** The longest footage: a day. */
export const LONGEST_MS: Ms = DAY

const ALLOWED = ['-protocol_whitelist', 'file,pipe', '-format_whitelist', READERS.join(',')]

/** Arguments that open a footage, for ffmpeg. */
export const footageInput = (path: string): string[] => [
  ...ALLOWED,
  // What cannot be decoded is a gap; how much of the file is damaged decides nothing.
  ...['-max_error_rate', '1'],
  ...['-max_pixels:v', String(MOST_PIXELS), '-i', `file:${path}`],
]

/**
 * Arguments that open a footage from an instant on, or a little before it, for ffmpeg with `COPY_TIMES`.
 * @param fromMs in footage time. ffmpeg counts it from the container's own beginning, which is never after instant 0.
 */
export const footageFrom = (path: string, fromMs: Ms): string[] =>
  fromMs > 0 ? ['-ss', (fromMs / 1000).toFixed(6), ...footageInput(path)] : footageInput(path)

/** Arguments that open a file of sound, for ffmpeg. */
export const soundInput = (path: string): string[] => [...ALLOWED, '-i', `file:${path}`]

/** Arguments that open a file, for ffprobe; they stand last. */
export const probeInput = (path: string): string[] => [...ALLOWED, `file:${path}`]

/** How long work on a footage may take before it is stopped: `times` its own length, and ten minutes. */
export const patience = (durationMs: Ms, times: number): Ms =>
  Math.min(LONGEST_TIMER_MS, Math.round(600_000 + durationMs * times))
/** What Node's timers can wait: 24 days. */
const LONGEST_TIMER_MS: Ms = 2 ** 31 - 1

/** @throws Problem `footage-too-long` or `picture-too-large`. */
export function refuseBeyond({ durationMs, width, height }: { durationMs: Ms; width: number; height: number }): void {
  if (durationMs > LONGEST_MS) throw new Problem({ code: 'footage-too-long', durationMs })
  if (width * height > MOST_PIXELS) throw new Problem({ code: 'picture-too-large', width, height })
}
