// A short session run by a simulated coach's voice, as a film of a grey picture with the real sound.
import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { QUICK_AAC, QUICK_PICTURE } from '../../demo/quickFilm'
import { tieKey, type BoundaryName } from '../../src/core/align/boundaries'
import { expand } from '../../src/core/expand/expand'
import { readShorthand } from '../../src/core/shorthand/read'
import { seededRandom } from '../../demo/camera/random'
import { addCoach, coachOf } from '../../demo/takes/coach'
import { NO_FAULTS, play } from '../../demo/takes/play'
import { hum, levelOf, mix, music, RATE } from '../../demo/takes/sounds'
import { VOICE_LEVEL } from '../../demo/takes/speech'

export interface SpokenFilm {
  file: string
  /** When a change came, in footage time; null where it never did. */
  trueMs: (change: BoundaryName) => number | null
}

/** @param about `overrunMs` by which breaks run over on average; music by so many dB below the voice. */
export function spokenFilm(
  folder: string,
  plan: string,
  about: { seed: number; overrunMs?: number; musicBelowDb?: number },
): SpokenFilm {
  const random = seededRandom(about.seed)
  const { segments } = expand(readShorthand(plan).score)
  const played = play(segments, { ...NO_FAULTS, overrunMs: about.overrunMs ?? 0 }, about.seed)
  const sound = hum(Math.round((played.footageMs / 1000) * RATE), 0.01, about.seed)
  addCoach(sound, played.stretches, coachOf('test', 'en', true, random), { random, folder: join(folder, 'spoken') })
  if (about.musicBelowDb !== undefined) {
    const song = music(sound.length, about.seed)
    mix(sound, song, 0, (VOICE_LEVEL * 10 ** (-about.musicBelowDb / 20)) / levelOf(song))
  }
  const file = join(folder, `spoken-${about.seed}.mp4`)
  execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', '-y', '-f', 'f32le', '-ar', String(RATE), '-ac', '1', '-i', 'pipe:0'],
      ...['-f', 'lavfi', '-i', `color=c=0x556677:s=320x180:r=10:d=${played.footageMs / 1000}`],
      ...['-map', '1:v', '-map', '0:a', ...QUICK_PICTURE, '-pix_fmt', 'yuv420p'],
      ...[...QUICK_AAC, '-b:a', '96k', '-shortest', '-movflags', '+faststart', file],
    ],
    { input: Buffer.from(sound.buffer, sound.byteOffset, sound.byteLength) },
  )
  return { file, trueMs: (change) => played.truth.get(tieKey(change))?.[0] ?? null }
}
