// Prepares footage: keeps the file, measures it, hears its sound, and makes a proxy where a browser needs one.
import { access } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { packPeaks } from '../../core/hear/peaks'
import { Problem } from '../../core/problem'
import { listenTo } from '../../engine/listen'
import { makeProxy } from '../../engine/proxy'
import { probeFootage } from '../../engine/probe'
import { findFootage, updateFootage, type Footage } from '../footage'
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
    if (error instanceof Problem) await updateFootage(footage.id, { state: 'failed', problem: error.message })
    throw error
  }
}

async function prepare(jobId: string, footage: Footage, { signal, onShare }: TaskContext): Promise<void> {
  const path = await claimUpload(footage)
  const facts = await probeFootage(path, signal)
  onShare(0.1)
  const proxyShare = facts.browserPlayable ? 0 : 0.6
  const hearShare = 0.9 - proxyShare
  const heard =
    facts.audioCodec === null
      ? null
      : await listenTo(path, facts.durationMs, { signal, onProgress: (share) => onShare(0.1 + hearShare * share) })
  const peaksHash = heard ? await keepBytes(packPeaks(heard.peaks)) : null
  const proxyHash = facts.browserPlayable
    ? null
    : await keepProxy(jobId, path, facts.durationMs, {
        signal,
        onShare: (share) => onShare(0.1 + hearShare + proxyShare * share),
      })
  const warnings = [
    facts.brokenEnd ? 'The end of this file is missing. What is there can be used.' : '',
    facts.audioCodec === null ? 'This footage has no sound, so there are no beeps to hear. Stitch it by hand.' : '',
  ].filter(Boolean)
  await updateFootage(footage.id, {
    state: 'ready',
    facts,
    problem: null,
    warning: warnings.join(' ') || null,
    beeps: heard?.beeps ?? [],
    ...(peaksHash ? { peaksHash } : {}),
    ...(proxyHash ? { proxyHash } : {}),
  })
}

/** Moves the finished upload into the store. Safe to repeat: a crash in between leaves either the upload or the stored file. */
async function claimUpload(footage: Footage): Promise<string> {
  if (footage.hash) return storedPath(footage.hash)
  const upload = join(uploadsFolder(), basename(footage.upload ?? ''))
  await access(upload).catch(() => {
    throw new Problem('not-found', 'The uploaded file is gone. Add the footage again.')
  })
  const hash = await keepFile(upload)
  await updateFootage(footage.id, { hash })
  await discard(`${upload}.json`)
  return storedPath(hash)
}

function keepProxy(jobId: string, path: string, durationMs: number, { signal, onShare }: TaskContext): Promise<string> {
  return withJobFolder(jobId, async (folder) => {
    const out = join(folder, 'proxy.mp4')
    await makeProxy(path, out, durationMs, { signal, onProgress: onShare })
    return keepFile(out)
  })
}
