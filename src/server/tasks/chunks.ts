// Renders some chunks of a video that another task puts together, and keeps each as it is finished.
import { Problem } from '../../core/problem'
import { framesOf, rowsOf } from '../../core/render/plan'
import type { Piece } from '../../core/render/runs'
import { chunkKeys, picturePlan } from '../../engine/picturePlan'
import { renderRow } from '../../engine/renderRow'
import type { Job } from '../jobs'
import { gotOn, pictureOf } from '../parts'
import { chunkStore, withAttemptFolder } from '../store'
import type { Finish, TaskContext } from './task'

export async function chunksTask(job: Job, { signal, onShare, attempt }: TaskContext): Promise<Finish> {
  const { part } = job
  if (!part) throw new Problem({ code: 'claim-lost' })
  const picture = await pictureOf(part.parentId, signal)
  const plan = picturePlan(picture)
  const keys = await chunkKeys(picture, plan)
  const store = chunkStore()
  const keyOf = (chunk: Piece): string => keys[plan.chunks.indexOf(chunk)] ?? ''
  const missing: Piece[] = []
  // What an attempt before this one had finished is there.
  for (const chunk of plan.chunks.slice(part.first, part.last + 1))
    if (!(await store.has(keyOf(chunk)))) missing.push(chunk)
  const total = framesOf(missing)
  let done = 0
  await withAttemptFolder(attempt, async (folder) => {
    for (const row of rowsOf(missing)) {
      const frames = framesOf(row)
      await renderRow(picture, plan, row, {
        ...{ folder, signal },
        onProgress: (share) => onShare((done + share * frames) / total),
        onChunk: (chunk, path) => store.keep(keyOf(chunk), path),
      })
      done += frames
    }
  })
  return (tx) => gotOn(part.parentId, tx)
}
