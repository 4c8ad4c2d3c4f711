// A simulated session as it happens in a room: what runs over, is left out or done twice, when the cameras are off.
// Everything follows from a plan, a seed and what is said here; the truth files are written from it.
import { expand } from '../../src/core/expand/expand'
import type { Segment } from '../../src/core/score/segment'
import { readShorthand } from '../../src/core/shorthand/read'
import type { Ms, Ppm } from '../../src/core/units'

/** Rows are those of the unfolded plan, from 0. */
export interface Shoot {
  name: string
  /** A typed score. */
  plan: string
  seed: number
  /** A watch that beeps: three counts and a mark at each change. */
  timer: boolean
  /** Somebody runs it by voice: counts down, or only calls. */
  coach: 'counts' | 'calls' | null
  /** Music, so many dB below the voice. */
  musicBelowDb?: number
  /** By how much rows last longer than planned: open breaks, late counts, a demonstration in a rest. */
  longer?: Readonly<Record<number, Ms>>
  skipped?: readonly number[]
  /** Work that is done again, with the rest after it: the first time was no good. */
  repeated?: readonly number[]
  /** The watch is stopped in these rows so long after they began, and started again a moment later. */
  restarted?: Readonly<Record<number, Ms>>
  /** Rows, from and up to, in which the cameras were off: where the next file begins. */
  unfilmed?: readonly (readonly [from: number, to: number])[]
  /** Rows, from and up to, in which the microphone had slipped: faint, and rustling. */
  slipped?: readonly [from: number, to: number]
  /** A second camera farther away, begun so much after the first; its clock runs slower by `ppm`. */
  second?: { lateMs: Ms; ppm: Ppm }
}

/** A stretch that was done. `[startMs, endMs)` since the first camera was begun, whether they ran or not. */
export interface Happening {
  segment: Segment
  row: number
  /** Which time it was done, from 1. */
  take: number
  /** The take that is meant to be shown. */
  stands: boolean
  startMs: Ms
  endMs: Ms
}

/** A file that a camera made. */
export interface CameraFile {
  name: string
  camera: 'near' | 'far'
  fromMs: Ms
  toMs: Ms
}

export interface Played {
  shoot: Shoot
  segments: readonly Segment[]
  happenings: Happening[]
  files: CameraFile[]
  /** Stretches in which the microphone had slipped. */
  slippedMs: { fromMs: Ms; toMs: Ms } | null
  endMs: Ms
}

/** Before the first segment, after the last, and round each stretch that was not filmed. */
const MARGIN_MS: Ms = 4000
/** From the last stop of the watch to its next start. */
const STOPPED_MS: Ms = 3000

export function playShoot(shoot: Shoot): Played {
  const { segments } = expand(readShorthand(shoot.plan).score)
  const happenings: Happening[] = []
  let clock = MARGIN_MS
  const add = (row: number, take: number, stands: boolean): void => {
    const segment = segments[row]
    if (!segment) return
    const lostMs = shoot.restarted?.[row] === undefined ? 0 : shoot.restarted[row] + STOPPED_MS
    const endMs = clock + segment.durationMs + (shoot.longer?.[row] ?? 0) + lostMs
    happenings.push({ segment, row, take, stands, startMs: clock, endMs })
    clock = endMs
  }
  segments.forEach((_, row) => {
    if (shoot.skipped?.includes(row)) return
    const again = shoot.repeated?.includes(row) ?? false
    add(row, 1, !again)
    if (!again) return
    if (segments[row + 1]?.kind === 'rest') add(row + 1, 0, false)
    add(row, 2, true)
  })
  const endMs = clock + MARGIN_MS
  const placeOf = (row: number): Ms => happenings.find((one) => one.row >= row)?.startMs ?? endMs - MARGIN_MS
  const slippedMs = shoot.slipped && { fromMs: placeOf(shoot.slipped[0]), toMs: placeOf(shoot.slipped[1]) }
  return {
    ...{ shoot, segments, happenings, endMs, slippedMs: slippedMs ?? null },
    files: filesOf(shoot, placeOf, endMs),
  }
}

function filesOf({ name, unfilmed = [], second }: Shoot, placeOf: (row: number) => Ms, endMs: Ms): CameraFile[] {
  const breaks = unfilmed.map(([from, to]) => ({ fromMs: placeOf(from), toMs: placeOf(to) - MARGIN_MS / 2 }))
  const begins = [0, ...breaks.map(({ toMs }) => toMs)],
    ends = [...breaks.map(({ fromMs }) => fromMs), endMs]
  const near = begins.map((fromMs, at): CameraFile => ({
    name: begins.length > 1 ? `${name}-${at + 1}` : name,
    ...{ camera: 'near', fromMs, toMs: ends[at] ?? endMs },
  }))
  if (!second) return near
  return [...near, { name: `${name}-wide`, camera: 'far', fromMs: second.lateMs, toMs: endMs - MARGIN_MS / 2 }]
}

/** What a file shows, and when. */
export interface Truth {
  simulated: true
  shoot: string
  camera: CameraFile['camera']
  /** Where its instant 0 lies in the session. */
  fromMs: Ms
  durationMs: Ms
  boundaries: { segmentId: string; edge: 'start'; take: number; stands: boolean; footageMs: Ms }[]
}

export function truthOf({ shoot, happenings }: Played, file: CameraFile): Truth {
  const rate = file.camera === 'far' ? 1 - (shoot.second?.ppm ?? 0) / 1e6 : 1
  return {
    simulated: true,
    ...{ shoot: shoot.name, camera: file.camera, fromMs: file.fromMs, durationMs: (file.toMs - file.fromMs) * rate },
    boundaries: happenings
      .filter(({ take, startMs }) => take > 0 && startMs >= file.fromMs && startMs < file.toMs)
      .map(({ segment, take, stands, startMs }) => ({
        ...{ segmentId: segment.id, edge: 'start' as const, take, stands },
        footageMs: (startMs - file.fromMs) * rate,
      })),
  }
}
