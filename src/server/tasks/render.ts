// Renders a workout's video and writes its captions and chapters: the pack.
import { join } from 'node:path'
import { boundariesOf } from '../../core/align/boundaries'
import { lay } from '../../core/cut/lane'
import { expand } from '../../core/expand/expand'
import { Problem } from '../../core/problem'
import { writeChapters } from '../../core/write/chapters'
import { writeVtt } from '../../core/write/vtt'
import { renderVideo } from '../../engine/render'
import { findFootage } from '../footage'
import type { Job } from '../jobs'
import { addPack } from '../packs'
import { listStitches } from '../stitches'
import { keepFile, storedPath, storedSize, withJobFolder } from '../store'
import { findWorkout } from '../workouts'
import type { TaskContext } from './task'

export async function renderTask(job: Job, { signal, onShare }: TaskContext): Promise<void> {
  const [workout, footage, stitches] = await Promise.all([
    findWorkout(job.workoutId),
    findFootage(job.footageId ?? ''),
    listStitches(job.workoutId),
  ])
  if (!footage.facts || !footage.hash) throw new Problem('conflict', 'The footage is not ready yet.')
  const { segments } = expand(workout.score)
  const known = new Set(segments.map((segment) => segment.id))
  const tied = stitches.filter((stitch) => known.has(stitch.segmentId))
  if (!tied.length)
    throw new Problem('not-stitched', 'No interval is tied to the footage yet. Stitch at least one in Sync.')
  const lane = lay(segments, boundariesOf(segments), tied, footage.facts.durationMs)
  const facts = footage.facts,
    source = storedPath(footage.hash)
  await withJobFolder(job.id, async (folder) => {
    const out = join(folder, 'video.mp4')
    await renderVideo({
      footage: source,
      facts,
      lane,
      count: workout.score.count,
      out,
      scratch: folder,
      signal,
      onProgress: onShare,
    })
    const videoHash = await keepFile(out)
    await addPack({
      workoutId: workout.id,
      jobId: job.id,
      title: workout.score.title,
      videoHash,
      videoBytes: await storedSize(videoHash),
      captions: writeVtt(lane),
      chapters: writeChapters(lane),
    })
  })
}
