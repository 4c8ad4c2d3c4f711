// Makes the files of a simulated session: sound as its microphones have it, and a picture in which every frame tells
// its own time. All of it is simulated; only tests and benchmarks read the truth that is written beside each file.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { QUICK_AAC, QUICK_PICTURE } from '../quickFilm'
import type { Ms } from '../../src/core/units'
import { seededRandom } from '../camera/random'
import { resampled } from '../camera/wave'
import { addCoach, coachOf } from '../takes/coach'
import { hum, inRoom, levelOf, mix, music, RATE, tone } from '../takes/sounds'
import { VOICE_LEVEL } from '../takes/speech'
import { playShoot, truthOf, type CameraFile, type Played, type Shoot } from './shoot'

export const FRAME_RATE = 30
/** Cells of a picture; each is drawn as a square of `CELL_PX` pixels. */
const CELLS = { across: 32, down: 18 }
export const CELL_PX = 10
/** Bits of the number that a frame bears, in its top rows; the lowest first. */
const BITS = 16

/** @returns the films, each with its truth beside it. */
export async function recordShoot(shoot: Shoot, folder: string): Promise<{ film: string; played: Played }[]> {
  mkdirSync(folder, { recursive: true })
  const played = playShoot(shoot)
  const room = soundOfRoom(played, folder)
  const films: { film: string; played: Played }[] = []
  for (const file of played.files) {
    const film = join(folder, `${file.name}.mp4`)
    await encode(played, file, soundAt(played, file, room), film)
    writeFileSync(join(folder, `${file.name}.truth.json`), `${JSON.stringify(truthOf(played, file), null, 2)}\n`)
    films.push({ film, played })
  }
  return films
}

const samplesOf = (ms: Ms): number => Math.round((ms / 1000) * RATE)

function soundOfRoom({ shoot, happenings, endMs }: Played, folder: string): Float32Array {
  const random = seededRandom(shoot.seed)
  const dry = new Float32Array(samplesOf(endMs))
  if (shoot.timer) addTimer(dry, happenings)
  if (shoot.coach) {
    const coach = coachOf('tune', 'en', shoot.coach === 'counts', random)
    addCoach(dry, happenings, coach, { random, folder: join(folder, 'spoken') })
  }
  if (shoot.musicBelowDb !== undefined) {
    const song = music(dry.length, shoot.seed)
    mix(dry, song, 0, (VOICE_LEVEL * 10 ** (-shoot.musicBelowDb / 20)) / levelOf(song))
  }
  return dry
}

/** Three counts and a mark before each change, a mark where it is started; it is started again without a sound. */
function addTimer(out: Float32Array, happenings: Played['happenings']): void {
  const count = tone(1568, 80),
    mark = tone(2093, 420)
  for (const { segment, startMs, endMs } of happenings) {
    if (segment.kind === 'talk') continue
    if (segment.kind === 'lead') mix(out, mark, startMs, 0.2)
    for (const before of [3000, 2000, 1000]) mix(out, count, endMs - before, 0.2)
    mix(out, mark, endMs, 0.2)
  }
}

/** What the microphone of a camera has of the room. */
function soundAt({ shoot, slippedMs }: Played, file: CameraFile, room: Float32Array): Float32Array {
  const part = room.subarray(samplesOf(file.fromMs), samplesOf(file.toMs))
  const seed = shoot.seed * 10 + (file.camera === 'far' ? 7 : 0) + file.fromMs
  const noise = hum(part.length, file.camera === 'far' ? 0.008 : 0.006, seed)
  const heard = file.camera === 'far' ? inRoom(part, 0.5, 0.8) : part
  const gain = file.camera === 'far' ? 0.35 : 1
  const random = seededRandom(seed + 1)
  let rustle = 0
  const out = noise.map((value, at) => {
    const ms = file.fromMs + (at / RATE) * 1000
    const slipped = file.camera === 'near' && slippedMs !== null && ms >= slippedMs.fromMs && ms < slippedMs.toMs
    rustle = slipped ? 0.98 * rustle + (random() < 0.01 ? random() - 0.5 : 0) : 0
    return value + (heard[at] ?? 0) * gain * (slipped ? 0.05 : 1) + 0.1 * rustle
  })
  return file.camera === 'far' ? resampled(out, 1 - (shoot.second?.ppm ?? 0) / 1e6) : out
}

async function encode(played: Played, file: CameraFile, sound: Float32Array, out: string): Promise<void> {
  const raw = `${out}.f32`
  writeFileSync(raw, Buffer.from(sound.buffer, sound.byteOffset, sound.byteLength))
  const size = `${CELLS.across}x${CELLS.down}`
  const encoder = spawn(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'gray', '-s', size, '-r', String(FRAME_RATE)],
      ...['-i', 'pipe:0', '-f', 'f32le', '-ar', String(RATE), '-ac', '1', '-i', raw],
      ...['-vf', `scale=${CELLS.across * CELL_PX}:${CELLS.down * CELL_PX}:flags=neighbor,format=yuv420p`],
      ...[...QUICK_PICTURE, '-crf', '18', '-g', '60', ...QUICK_AAC, '-b:a', '96k'],
      ...['-shortest', '-movflags', '+faststart', out],
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  )
  const rate = file.camera === 'far' ? 1 - (played.shoot.second?.ppm ?? 0) / 1e6 : 1
  const frames = Math.floor(((file.toMs - file.fromMs) * rate * FRAME_RATE) / 1000)
  for (let frame = 0; frame < frames; frame++) {
    const roomMs = file.fromMs + (frame * 1000) / FRAME_RATE / rate
    if (!encoder.stdin.write(picture(played, file, roomMs))) await once(encoder.stdin, 'drain')
  }
  encoder.stdin.end()
  const [code] = (await once(encoder, 'close')) as [number]
  rmSync(raw)
  if (code !== 0) throw new Error(`ffmpeg ended with ${code} while filming ${file.name}`)
}

/** The frame's number in the session as bits above, a shade of its row below; the far camera's is dark. */
function picture({ happenings }: Played, { camera }: CameraFile, roomMs: Ms): Buffer {
  const number = Math.round((roomMs * FRAME_RATE) / 1000)
  const row = happenings.findLast(({ startMs }) => startMs <= roomMs)?.row ?? -1
  const shade = camera === 'far' ? 40 : 110 + ((row * 37) % 120)
  const cells = Buffer.alloc(CELLS.across * CELLS.down, shade)
  for (let y = 0; y < 2; y++)
    for (let x = 0; x < CELLS.across; x++) cells[y * CELLS.across + x] = (number >> Math.floor(x / 2)) & 1 ? 235 : 16
  return cells
}

/** The number of the frame of the session that a decoded picture shows. @param luma of a picture, row by row. */
export function numberIn(luma: Uint8Array, width: number): number {
  const step = width / BITS
  return Array.from({ length: BITS }, (_, bit) =>
    (luma[Math.floor(CELL_PX / 2) * width + Math.floor((bit + 0.5) * step)] ?? 0) > 125 ? 2 ** bit : 0,
  ).reduce((total, one) => total + one, 0)
}
