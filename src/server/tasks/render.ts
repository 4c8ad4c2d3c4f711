// Renders a workout's video, checks it and writes its captions and chapters: the pack.
import { join } from 'node:path'
import { Problem } from '../../core/problem'
import { RENDERED } from '../../core/render/plan'
import { FAILURES } from '../../core/proof/verify'
import type { Share } from '../../core/units'
import { faultText } from '../../core/words/en/verify'
import { writeChapters } from '../../core/write/chapters'
import { carriedOver } from '../../core/write/carriedOver'
import { writeDescription } from '../../core/write/description'
import { writeVtt } from '../../core/write/vtt'
import { encoderFor } from '../../engine/hardware'
import { renderVideo } from '../../engine/render'
import { verifyRendered } from '../../engine/verifyRendered'
import type { Job } from '../jobs'
import { addPack, newestPack } from '../packs'
import { renderParts } from '../parts'
import { renderingOf } from '../rendering'
import { chunkStore, keepFile, storedSize, withAttemptFolder } from '../store'
import { shownKey } from '../workoutState'
import type { Finish, TaskContext } from './task'

export async function renderTask(job: Job, context: TaskContext): Promise<Finish> {
  const { signal, onShare, attempt } = context
  const { workout, reel, version, cut, job: asked } = await renderingOf(job.workoutId)
  const { mix, look, shown } = asked
  const { purpose } = job
  const encoder = await encoderFor(purpose)
  const picture = { ...asked, purpose, encoder }
  return withAttemptFolder(attempt, async (folder) => {
    const out = join(folder, 'video.mp4')
    const onProgress = (share: Share): void => onShare(share * RENDERED)
    const store = chunkStore()
    const startMs = performance.now()
    const rendered = await renderVideo(
      { ...picture, out, scratch: folder, signal, onProgress },
      { store, renderRows: (rows, about) => renderParts(job, rows, { ...about, picture }) },
    )
    const tookMs = Math.round(performance.now() - startMs)
    const verified = await verifyRendered(out, { cut, look, mix }, rendered, { store, signal })
    const failure = verified.faults.find(({ kind }) => FAILURES.has(kind))
    if (failure) {
      // One of them may be damaged; next time all are made anew.
      await store.forget(rendered.keys?.chunks ?? [])
      throw new Problem({ code: 'not-as-planned', fault: faultText(failure) })
    }
    await store.sweep()
    const videoHash = await keepFile(out)
    const written = writeDescription({
      ...{ score: workout.score, shown },
      music: mix.music.pieces.map(({ name }) => name),
    })
    const before = await newestPack(job.workoutId)
    const described = carriedOver({ was: before?.written ?? '', edited: before?.description ?? '', written })
    const pack = {
      workoutId: workout.id,
      jobId: job.id,
      title: workout.score.title,
      videoHash,
      videoBytes: await storedSize(videoHash),
      captions: writeVtt(shown),
      chapters: writeChapters(shown),
      ...{ description: described.text, clashes: described.clashes, written, purpose },
      scoreRevision: workout.version.revision,
      stitchRevision: version.revision,
      scoreShown: shownKey(workout.score),
      reel: reel.files.map(({ id }) => id),
      cut: workout.cut,
      ...{ look, framing: workout.framing, cues: workout.cues, mix, verified },
      rendered: {
        chunks: rendered.chunks.length,
        made: rendered.made,
        madeMs: Math.round(rendered.madeMs),
        tookMs,
        encoder,
      },
    }
    return (tx) => addPack(pack, tx)
  })
}
