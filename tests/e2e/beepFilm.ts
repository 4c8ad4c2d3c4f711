// A small film of a session that a timer beeped through, once at each change, as the plan says.
import { execFileSync } from 'node:child_process'
import { QUICK_AAC, QUICK_PICTURE } from '../../demo/quickFilm'
import { hum, mix, RATE, tone } from '../../demo/takes/sounds'
import { boundariesOf } from '../../src/core/align/boundaries'
import { expand } from '../../src/core/expand/expand'
import { readShorthand } from '../../src/core/shorthand/read'

/** How long the camera runs before the first change, and after the last. */
const LEAD_S = 6

export function filmBeeps(plan: string, out: string): void {
  const changes = boundariesOf(expand(readShorthand(plan).score).segments).filter(({ audible }) => audible)
  const at = changes.map(({ plannedMs }) => LEAD_S * 1000 + plannedMs)
  const lengthS = (at.at(-1) ?? 0) / 1000 + LEAD_S
  const sound = hum(Math.round(lengthS * RATE), 0.001, 1)
  for (const ms of at) mix(sound, tone(1000, 200), ms, 0.3)
  execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'f32le', '-ar', String(RATE), '-ac', '1', '-i', 'pipe:0'],
      ...['-f', 'lavfi', '-i', `testsrc=s=320x180:r=10:d=${lengthS}`, '-map', '1:v', '-map', '0:a'],
      ...[...QUICK_PICTURE, '-pix_fmt', 'yuv420p', ...QUICK_AAC, out],
    ],
    { input: Buffer.from(sound.buffer, sound.byteOffset, sound.byteLength) },
  )
}
