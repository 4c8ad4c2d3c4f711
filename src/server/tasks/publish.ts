// Hands a video to a host: tells of it, sends it, captions it, and waits until it can be watched. Each step is asked of
// the host itself before it is taken, so that whoever takes the job up goes on where it broke off.
import { Problem } from '../../core/problem'
import type { HostVideo } from '../../core/publish/host'
import type { Ms, Share } from '../../core/units'
import type { Job } from '../jobs'
import { findPack } from '../packs'
import { endPublication, hostOf, nameThere, publicationOf } from '../publications'
import { storedFile } from '../store'
import type { Finish, TaskContext } from './task'

/** Of the whole work; then the host works at it. */
const SENT: Share = 0.9
const LOOK_MS: Ms = 1000
/** A host that is away comes back; one that stays away for so long does not. */
const PATIENCE_MS: Ms = 180_000
const MOST_PAUSE_MS: Ms = 8000
/** How long a host may work at a video. */
const WORKS_MOST_MS: Ms = 6 * 3_600_000

export async function publishTask(job: Job, { signal, onShare }: TaskContext): Promise<Finish> {
  const publication = await publicationOf(job)
  const host = hostOf(publication)
  const pack = await findPack(publication.packId)
  const path = await storedFile(pack.videoHash, signal)
  const { key, videoId } = publication
  const told = { key, title: pack.title, description: pack.description, bytes: pack.videoBytes }
  const video = await patiently(signal, () => (videoId ? host.video(videoId, signal) : host.begin(told, signal)))
  if (!videoId) await nameThere(publication, video)
  if (video.state === 'receiving')
    await patiently(signal, async () => {
      // What was sent to the end is no longer received, even where nobody was told so.
      if ((await host.video(video.id, signal)).state !== 'receiving') return
      await host.send(video.id, path, { signal, onShare: (share) => onShare(share * SENT) })
    })
  onShare(SENT)
  if (!video.hasCaptions && pack.captions.includes('-->'))
    await patiently(signal, () => host.caption(video.id, pack.captions, signal))
  const ended = await worked(() => patiently(signal, () => host.video(video.id, signal)), signal)
  return (tx) => endPublication(publication, ended, tx)
}

/** Until the host has worked at it. */
async function worked(look: () => Promise<HostVideo>, signal: AbortSignal): Promise<HostVideo> {
  for (let waitedMs = 0; waitedMs < WORKS_MOST_MS; waitedMs += LOOK_MS) {
    const video = await look()
    if (video.state === 'ready' || video.state === 'rejected') return video
    await pause(LOOK_MS, signal)
  }
  throw new Problem({ code: 'host-slow' })
}

/** Again and again while the host is away, with longer pauses. */
async function patiently<T>(signal: AbortSignal, work: () => Promise<T>): Promise<T> {
  const endMs = performance.now() + PATIENCE_MS
  for (let pauseMs: Ms = 250; ; pauseMs = Math.min(MOST_PAUSE_MS, pauseMs * 2)) {
    try {
      signal.throwIfAborted()
      return await work()
    } catch (error) {
      const isAway = error instanceof Problem && error.code === 'host-away'
      if (!isAway || performance.now() > endMs) throw error
      await pause(pauseMs, signal)
    }
  }
}

const pause = (ms: Ms, signal: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    const end = (): void => {
      clearTimeout(timer)
      signal.removeEventListener('abort', end)
      resolve()
    }
    const timer = setTimeout(end, ms)
    signal.addEventListener('abort', end)
  })
