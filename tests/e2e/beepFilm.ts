// A small film of a session that a timer beeped through, once at each change, as the plan says.
import { execFileSync } from 'node:child_process'
import { boundariesOf } from '../../src/core/align/boundaries'
import { expand } from '../../src/core/expand/expand'
import { readShorthand } from '../../src/core/shorthand/read'
import type { Ms } from '../../src/core/units'

/** How long the camera runs before the first change, and after the last. */
const LEAD_S = 6

/** @returns instants of the changes, in order. */
export function filmBeeps(plan: string, out: string): Ms[] {
  const changes = boundariesOf(expand(readShorthand(plan).score).segments).filter(({ audible }) => audible)
  const at = changes.map(({ plannedMs }) => LEAD_S * 1000 + plannedMs)
  const lengthS = (at.at(-1) ?? 0) / 1000 + LEAD_S
  const beeps = at.map((ms) => `between(t,${ms / 1000},${ms / 1000 + 0.2})`).join('+')
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `testsrc=s=320x180:r=10:d=${lengthS}`],
    ...['-f', 'lavfi', '-i', `aevalsrc='0.3*sin(2*PI*1000*t)*(${beeps})+0.002*(random(0)-0.5)':s=48000:d=${lengthS}`],
    ...['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-c:a', 'aac', out],
  ])
  return at
}
