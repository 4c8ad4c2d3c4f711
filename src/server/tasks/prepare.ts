// Prepares footage: keeps the file, measures it, hears its sound, and makes a proxy where a browser needs one.
import { access } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { packPeaks } from '../../core/hear/peaks'
import { Problem } from '../../core/problem'
import { listenTo } from '../../engine/listen'
import { makeProxy } from '../../engine/proxy'
import { probeFootage, type FootageFacts } from '../../engine/probe'
import { WARNINGS } from '../../core/words/en/problems'
import type { Share } from '../../core/units'
import { becomeTwin, findFootage, saveEvidence, takeIntoReel, twinOf, updateFootage, type Footage } from '../footage'
import type { Job } from '../jobs'
import { discard, keepBytes, keepFile, knownProblem, storedPath, uploadsFolder, withJobFolder } from '../store'
import type { TaskContext } from './task'

export async function prepareTask(job: Job, { signal, onShare }: TaskContext): Promise<void> {
  if (!job.footageId) throw new Error('a prepare job without footage')
  const footage = await findFootage(job.footageId)
  try {
    await prepare(job.id, footage, { signal, onShare })
  } catch (thrown) {
    const error = knownProblem(thrown)
    // A footage that was ready stays so: it was only to be measured anew.
    if (error instanceof Problem && footage.state === 'preparing')
      await updateFootage(footage.id, { state: 'failed', problem: error.message })
    throw error
  }
}

async function prepare(jobId: string, footage: Footage, { signal, onShare }: TaskContext): Promise<void> {
  const hash = await claimUpload(footage)
  const twin = await twinOf(footage, hash)
  if (twin && footage.state === 'preparing') return becomeTwin(footage.id, twin.id)
  const path = storedPath(hash)
  const facts = await probeFootage(path, signal)
  onShare(0.1)
  const proxyShare = facts.browserPlayable ? 0 : 0.6
  const hearShare = 0.9 - proxyShare
  const onHeard = (share: Share): void => onShare(0.1 + hearShare * share)
  const heard = facts.audioCodec === null ? null : await listenTo(path, facts, { signal, onProgress: onHeard })
  const onProxy = (share: Share): void => onShare(0.1 + hearShare + proxyShare * share)
  const proxyHash = facts.browserPlayable ? null : await keepProxy(jobId, path, facts, { signal, onShare: onProxy })
  await saveEvidence(footage.id, heard?.evidence ?? [])
  await updateFootage(footage.id, {
    state: 'ready',
    facts,
    problem: null,
    warning: warningFor(facts),
    peaksHash: heard ? await keepBytes(packPeaks(heard.peaks)) : null,
    proxyHash,
  })
  // Only now does it take the place of what is shown: until it is ready, that stays in use.
  if (footage.state === 'preparing') await takeIntoReel(footage.id)
}

const warningFor = (facts: FootageFacts): string | null =>
  [facts.brokenEnd ? WARNINGS.brokenEnd : '', facts.audioCodec === null ? WARNINGS.noSound : '']
    .filter(Boolean)
    .join(' ') || null

/**
 * Moves the finished upload into the store. Safe to repeat: a crash in between leaves either the upload or the stored
 * file.
 */
/** @returns its hash. */
async function claimUpload(footage: Footage): Promise<string> {
  if (footage.hash) return footage.hash
  const upload = join(uploadsFolder(), basename(footage.upload ?? ''))
  await access(upload).catch(() => {
    throw new Problem({ code: 'upload-gone' })
  })
  const hash = await keepFile(upload)
  await updateFootage(footage.id, { hash })
  await discard(`${upload}.json`)
  return hash
}

function keepProxy(
  jobId: string,
  path: string,
  facts: FootageFacts,
  { signal, onShare }: TaskContext,
): Promise<string> {
  return withJobFolder(jobId, async (folder) => {
    const out = join(folder, 'proxy.mp4')
    await makeProxy(path, out, facts, { signal, onProgress: onShare })
    return keepFile(out)
  })
}
