// The camera simulator: draws, records and encodes a session, and writes the truth beside it.
//   tsx demo/camera/film.ts OUT_FOLDER
// makes deck-hours.mp4 (timer beeps), deck-hours-gap.mp4 (the same, beeps silent for a stretch) and their truth files.
// Everything in the pictures and the sound is simulated; only tests and benchmarks read the truth.
import { execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { once } from 'node:events'
import { join } from 'node:path'
import { createCanvas } from '@napi-rs/canvas'
import { expand } from '../../src/core/expand/expand'
import { readWorkoutFile } from '../../src/core/read/workoutFile'
import { drawCabin, FLOOR_Y, PICTURE, STAGE } from './cabin'
import { blend, drawFigure, motionOf, poseAt } from './figure'
import { playSession, type Faults, type Session } from './session'
import { recordSound, SOUND_RATE } from './soundtrack'

const SEED = 12
const BASE: Faults = {
  talksMs: [11_300, 7_400],
  restart: { segmentId: 'main/r1/break', extraMs: 3_400 },
  driftPpm: 60,
  silentBeeps: null,
  beeps: true,
}

/** Fades from what she did before into what she does now. */
const CHANGE_MS = 900

async function filmPicture(session: Session, out: string): Promise<void> {
  const frames = Math.round((session.durationMs / 1000) * PICTURE.rate)
  const cabin = drawCabin()
  const still = `${out}.png`
  writeFileSync(still, cabin.toBuffer('image/png'))
  const encoder = spawn(
    'ffmpeg',
    [
      '-v',
      'error',
      '-y',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      '-s',
      `${STAGE.width}x${STAGE.height}`,
      '-r',
      String(PICTURE.rate),
      '-i',
      'pipe:0',
      '-i',
      still,
      '-filter_complex',
      `[1:v]format=yuv420p,loop=-1:1:0,fps=${PICTURE.rate}[cabin];[0:v]format=yuv420p[stage];[cabin][stage]overlay=${STAGE.x}:${STAGE.y}:shortest=1:format=yuv420`,
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-crf',
      '26',
      '-g',
      '60',
      '-pix_fmt',
      'yuv420p',
      out,
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  )
  const canvas = createCanvas(STAGE.width, STAGE.height)
  const pen = canvas.getContext('2d')
  pen.translate(-STAGE.x, -STAGE.y)
  for (let frame = 0; frame < frames; frame++) {
    pen.drawImage(cabin, 0, 0)
    drawMoment(pen, session, (frame / PICTURE.rate) * 1000)
    if (!encoder.stdin.write(Buffer.from(canvas.data()))) await once(encoder.stdin, 'drain')
  }
  encoder.stdin.end()
  const [code] = (await once(encoder, 'close')) as [number]
  rmSync(still)
  if (code !== 0) throw new Error(`ffmpeg ended with ${code} while filming`)
}

function drawMoment(
  pen: ReturnType<ReturnType<typeof createCanvas>['getContext']>,
  session: Session,
  ms: number,
): void {
  const at = Math.max(
    0,
    session.happenings.findLastIndex((one) => one.startMs <= ms),
  )
  const now = session.happenings[at],
    before = session.happenings[at - 1]
  if (!now) return
  const side =
    now.segment.side === 'switch' ? (ms < (now.startMs + now.endMs) / 2 ? 'left' : 'right') : now.segment.side
  const motion = motionOf(now.segment.kind, now.segment.label, side)
  const into = ms - now.startMs
  let pose = poseAt(motion, into)
  if (before && into < CHANGE_MS) {
    const earlier = motionOf(before.segment.kind, before.segment.label, before.segment.side)
    pose = blend(
      poseAt(earlier, before.endMs - before.startMs),
      pose,
      0.5 - 0.5 * Math.cos((Math.PI * into) / CHANGE_MS),
    )
  }
  pen.save()
  pen.translate(640, FLOOR_Y)
  drawFigure(pen, pose, {
    tall: 430,
    jug: motion.jug && into > CHANGE_MS / 2,
    jugSide: side === 'left' ? 'left' : 'right',
  })
  pen.restore()
}

function addSound(session: Session, picture: string, out: string): void {
  const sound = recordSound(session, SEED)
  const raw = `${out}.f32`
  writeFileSync(raw, Buffer.from(sound.buffer))
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-i',
    picture,
    '-f',
    'f32le',
    '-ar',
    String(SOUND_RATE),
    '-ac',
    '1',
    '-i',
    raw,
    '-c:v',
    'copy',
    '-c:a',
    'aac',
    '-aac_coder',
    'fast',
    '-b:a',
    '128k',
    '-movflags',
    '+faststart',
    out,
  ])
  rmSync(raw)
}

function writeTruth(session: Session, faults: Faults, out: string): void {
  const boundaries = session.happenings.map(({ segment, startMs }) => ({
    segmentId: segment.id,
    edge: 'start',
    footageMs: startMs,
    silent: isSilent(startMs, faults),
  }))
  writeFileSync(
    out,
    `${JSON.stringify({ simulated: true, seed: SEED, durationMs: session.durationMs, faults, boundaries }, null, 2)}\n`,
  )
}

const isSilent = (ms: number, { silentBeeps }: Faults): boolean =>
  silentBeeps !== null && ms >= silentBeeps.fromMs && ms < silentBeeps.toMs

async function main(folder: string): Promise<void> {
  mkdirSync(folder, { recursive: true })
  const score = readWorkoutFile(readFileSync(new URL('../deck-hours.jivet.json', import.meta.url), 'utf8'))
  const { segments } = expand(score)
  const session = playSession(segments, BASE, SEED)
  const picture = join(folder, 'picture.mp4')
  if (!existsSync(picture)) {
    await filmPicture(session, join(folder, 'picture.part.mp4'))
    renameSync(join(folder, 'picture.part.mp4'), picture)
  }
  const gap: Faults = { ...BASE, silentBeeps: { fromMs: 60_000, toMs: 105_000 } }
  for (const [name, faults] of [
    ['deck-hours', BASE],
    ['deck-hours-gap', gap],
  ] as const) {
    const played = playSession(segments, faults, SEED)
    addSound(played, picture, join(folder, `${name}.part.mp4`))
    writeTruth(played, faults, join(folder, `${name}.truth.json`))
    renameSync(join(folder, `${name}.part.mp4`), join(folder, `${name}.mp4`))
  }
  rmSync(picture)
}

const [folder] = process.argv.slice(2)
if (!folder) {
  process.stderr.write('usage: tsx demo/camera/film.ts OUT_FOLDER\n')
  process.exit(2)
}
await main(folder)
