// Renders a workout's video and writes its captions and chapters: the pack.
import { join } from 'node:path'
import { fitted } from '../../core/cut/fit'
import { aimsOf } from '../../core/cut/framing'
import { heardInOutput } from '../../core/cut/heard'
import { inFiles } from '../../core/cut/spans'
import { expand } from '../../core/expand/expand'
import { Problem } from '../../core/problem'
import { FAILURES } from '../../core/proof/verify'
import type { Share } from '../../core/units'
import { faultText } from '../../core/words/en/verify'
import { writeChapters } from '../../core/write/chapters'
import { writeVtt } from '../../core/write/vtt'
import { loudnessOnce } from '../../engine/loudness'
import { renderVideo } from '../../engine/render'
import { verifyVideo } from '../../engine/verify'
import type { Job } from '../jobs'
import { musicFiles } from '../music'
import { addPack } from '../packs'
import { recordingFiles } from '../recordings'
import { endToEnd, filmedOf, lengthsOf, recorded, reelOf } from '../reel'
import { listStitches } from '../stitches'
import { keepFile, storedSize, withAttemptFolder } from '../store'
import { findWorkout } from '../workouts'
import type { Finish, TaskContext } from './task'

/** Of the whole work; then it is decoded and checked. */
const RENDERED: Share = 0.88

export async function renderTask(job: Job, context: TaskContext): Promise<Finish> {
  const { signal, onShare, attempt } = context
  const [workout, reel, { stitches, version }] = await Promise.all([
    findWorkout(job.workoutId),
    reelOf(job.workoutId),
    listStitches(job.workoutId),
  ])
  if (!reel.files.length) throw new Problem({ code: 'footage-not-ready' })
  const { segments } = expand(workout.score)
  const known = new Set(segments.map((segment) => segment.id))
  const tied = stitches.filter((stitch) => known.has(stitch.segmentId))
  if (!tied.length) throw new Problem({ code: 'not-stitched' })
  const filmed = await filmedOf(reel, segments, tied, workout.cut)
  const { cut, shown } = fitted(filmed, workout.cut)
  return withAttemptFolder(attempt, async (folder) => {
    const out = join(folder, 'video.mp4')
    const viewing = workout.score
    const files = await Promise.all(
      endToEnd(reel).map(async (file) => ({ ...recorded(file), loudness: await loudnessOnce(recorded(file)) })),
    )
    const inFilesCut = inFiles(cut, lengthsOf(endToEnd(reel)))
    const { mix, look, cues, framing } = workout
    const aims = endToEnd(reel).map(({ id }) => aimsOf(framing, id))
    const cueAsk = { wishes: cues, moves: viewing.moves, ...heardInOutput(cut, filmed.heard) }
    const asked = { reel: files, cut: inFilesCut, shown, viewing, out, scratch: folder }
    const music = await musicFiles(mix.music.pieces)
    const dressed = {
      mix,
      music,
      look,
      cueAsk,
      framing: { shape: framing.shape, aims },
      recordings: await recordingFiles(),
    }
    const onProgress = (share: Share): void => onShare(share * RENDERED)
    const { changes, sound } = await renderVideo({ ...asked, ...dressed, signal, onProgress })
    const verified = await verifyVideo(out, { cut, changes, look, ...sound, mix }, signal)
    const failure = verified.faults.find(({ kind }) => FAILURES.has(kind))
    if (failure) throw new Problem({ code: 'not-as-planned', fault: faultText(failure) })
    const videoHash = await keepFile(out)
    const pack = {
      workoutId: workout.id,
      jobId: job.id,
      title: workout.score.title,
      videoHash,
      videoBytes: await storedSize(videoHash),
      captions: writeVtt(shown),
      chapters: writeChapters(shown),
      scoreRevision: workout.version.revision,
      stitchRevision: version.revision,
      reel: reel.files.map(({ id }) => id),
      cut: workout.cut,
      ...{ look, framing, cues, mix, verified },
    }
    return (tx) => addPack(pack, tx)
  })
}
