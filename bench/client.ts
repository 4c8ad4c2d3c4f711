// What the benches that talk to a running Jivet share: workouts, films and uploads as a page makes them.
import { execFileSync } from 'node:child_process'
import { randomBytes, randomUUID } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export const JSON_TYPE = { 'content-type': 'application/json' }
const TUS = { 'tus-resumable': '1.0.0' }

export const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))

/** A short film of so many seconds. */
export function filmed(seconds: number): Buffer {
  const folder = mkdtempSync(join(tmpdir(), 'jivet-bench-'))
  const path = join(folder, 'clip.mp4')
  const [picture, sound] = [`testsrc2=s=320x240:r=25:d=${seconds}`, `sine=d=${seconds}`]
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', picture, '-f', 'lavfi', '-i', sound],
    ...['-shortest', '-pix_fmt', 'yuv420p', path],
  ])
  const bytes = readFileSync(path)
  rmSync(folder, { recursive: true })
  return bytes
}

/** The same film with bytes unlike any other's: a box that readers skip holds random ones. */
export function unlike(clip: Buffer): Buffer {
  const skipped = randomBytes(4096)
  skipped.writeUInt32BE(skipped.length, 0)
  skipped.write('free', 4, 'latin1')
  return Buffer.concat([clip, skipped])
}

export const planBody = (title: string, plan: string): string =>
  JSON.stringify({ plan: `title ${title}\n${plan}`, name: 'bench.score.txt' })
export const SHORT_PLAN = 'circuit Main: 1 round, 2 on, 1 off\n  Jug lift\n'

/** A tie of the short plan's first change, as a page saves it. */
export const tieBody = (revision: number, reel: string): string =>
  JSON.stringify({
    reel,
    stitches: [
      {
        ...{ segmentId: 'main/r1/s1/work', edge: 'start', footageMs: 100 },
        ...{ origin: 'hand', confidence: 1, evidence: ['hand'] },
      },
    ],
    revision,
    key: randomUUID(),
  })

/** Requests of a running Jivet, answered in JSON. */
export const asking =
  (url: string) =>
  async <T>(method: string, path: string, body?: string): Promise<T> => {
    const answer = await fetch(url + path, { method, headers: JSON_TYPE, body })
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status}`)
    return (await answer.json()) as T
  }

/** The beginning of an upload by the tus protocol. */
export const beginUpload = (url: string, workoutId: string, name: string, length: number): Promise<Response> => {
  const encoded = (text: string): string => Buffer.from(text).toString('base64')
  const metadata = `filename ${encoded(name)},workoutId ${encoded(workoutId)}`
  const headers = { ...TUS, 'upload-length': String(length), 'upload-metadata': metadata }
  return fetch(`${url}/api/uploads`, { method: 'POST', headers })
}

/** One piece of an upload. @param place as `beginUpload` was answered. */
export const sendPiece = (place: string, piece: Uint8Array, offset: number): Promise<Response> =>
  fetch(place, {
    method: 'PATCH',
    body: new Uint8Array(piece),
    headers: { ...TUS, 'content-type': 'application/offset+octet-stream', 'upload-offset': String(offset) },
  })

/** How much of an upload the server has. */
export const askOffset = (place: string): Promise<Response> => fetch(place, { method: 'HEAD', headers: TUS })

export const placeOf = (url: string, begun: Response): string =>
  url + new URL(begun.headers.get('location') ?? '', url).pathname
