// Prepares footage: keeps the file, measures it, gathers what is heard and seen in it, and makes a proxy where a
// browser needs one.
import { basename, join } from 'node:path'
import { shownPlanMs } from '../../core/align/order'
import { matchEvidence } from '../../core/align/sync'
import { tryExpand } from '../../core/expand/expand'
import { packPeaks } from '../../core/hear/peaks'
import { Problem } from '../../core/problem'
import type { Share } from '../../core/units'
import { WARNINGS } from '../../core/words/en/problems'
import type { Gathered } from '../../engine/gather'
import { gatherOnce } from '../../engine/gatherOnce'
import type { ListenOptions } from '../../engine/listen'
import { probeFootage, type FootageFacts } from '../../engine/probe'
import { loudnessOnce } from '../../engine/loudness'
import { makeProxy } from '../../engine/proxy'
import { findBeside } from '../beside'
import { hashAsSent, PIECES } from '../flushedStore'
import { findFootage, heardPieces, keepPiece, saveEvidence, twinOf, updateFootage, type Footage } from '../footage'
import type { Job } from '../jobs'
import { becomeTwin, lockWorkoutOf, takeIntoReel } from '../reel'
import {
  discard,
  isStored,
  isThere,
  keepBytes,
  keepFile,
  moveIntoStore,
  storedFile,
  uploadsFolder,
  withAttemptFolder,
} from '../store'
import { findWorkout } from '../workouts'
import type { Finish, TaskContext } from './task'

export async function prepareTask(job: Job, { signal, onShare, attempt }: TaskContext): Promise<Finish> {
  if (!job.footageId) throw new Error('a prepare job without footage')
  const footage = await findFootage(job.footageId)
  const hash = await claimUpload(footage)
  const twin = await twinOf(footage, hash)
  if (twin && footage.state === 'preparing') return (tx) => becomeTwin(tx, footage.id, twin.id)
  const path = await storedFile(hash, signal)
  const facts = await probeFootage(path, signal)
  onShare(0.1)
  const proxyShare = facts.browserPlayable ? 0 : 0.6
  const hearShare = 0.9 - proxyShare
  const onHeard = (share: Share): void => onShare(0.1 + hearShare * share)
  const gathered = await gatherOn(footage.id, { path, hash }, facts, { signal, onProgress: onHeard })
  const onProxy = (share: Share): void => onShare(0.1 + hearShare + proxyShare * share)
  const proxyHash = facts.browserPlayable ? null : await keepProxy(path, facts, { signal, onShare: onProxy, attempt })
  const peaksHash = gathered.peaks && (await keepBytes(packPeaks(gathered.peaks)))
  const [planMs, beside] = await Promise.all([
    planShown(footage, facts, gathered),
    findBeside(footage, gathered),
    // Kept beside what was heard, for whoever mixes; a sound that cannot be measured is no reason to refuse a film.
    loudnessOnce({ path, hash, facts }).catch(() => null),
  ])
  return async (tx) => {
    await lockWorkoutOf(footage.id, tx)
    await saveEvidence(tx, footage.id, gathered.evidence)
    const known = { facts, warning: warningFor(facts, gathered), peaksHash, proxyHash, planMs, beside }
    await updateFootage(footage.id, { state: 'ready', problem: null, ...known }, tx)
    // Only now does it take the place of what is shown: until it is ready, that stays in use.
    if (footage.state === 'preparing') await takeIntoReel(footage.id, tx)
  }
}

/** What of the plan it shows, as far as that is sure. */
async function planShown(
  { workoutId }: Footage,
  { durationMs }: FootageFacts,
  { evidence }: Gathered,
): Promise<number | null> {
  const { expansion } = tryExpand((await findWorkout(workoutId)).score)
  return (
    expansion &&
    shownPlanMs(expansion.segments, matchEvidence(expansion.segments, { evidence, footageMs: durationMs }).found)
  )
}

/** Hears on from where an earlier attempt was ended. */
async function gatherOn(
  footageId: string,
  file: { path: string; hash: string },
  facts: FootageFacts,
  options: ListenOptions,
): Promise<Gathered> {
  const kept: Promise<void>[] = []
  const gathered = await gatherOnce(file, facts, {
    ...{ ...options, known: await heardPieces(footageId) },
    // What could not be kept is heard again, if it comes to that.
    onPiece: (piece, evidence) => void kept.push(keepPiece(footageId, piece, evidence).catch(() => undefined)),
  })
  await Promise.all(kept)
  return gathered
}

const warningFor = (facts: FootageFacts, { deaf, blind }: Gathered): string | null =>
  [
    facts.brokenEnd ? WARNINGS.brokenEnd : '',
    facts.audioCodec === null ? WARNINGS.noSound : '',
    deaf?.message ?? '',
    blind ? WARNINGS.notWatched : '',
  ]
    .filter(Boolean)
    .join(' ') || null

/**
 * Moves the finished upload into the store. Its hash is noted before it moves, so that whatever is killed in between,
 * the file is found by it; to be repeated safely.
 * @returns the hash.
 */
async function claimUpload({ id, hash: noted, upload: name }: Footage): Promise<string> {
  const upload = join(uploadsFolder(), basename(name ?? ''))
  const waits = name !== null && (await isThere(upload))
  if (!waits && !(noted && (await isStored(noted)))) throw new Problem({ code: 'upload-gone' })
  const hash = noted ?? (await hashAsSent(basename(upload)))
  if (!noted) await updateFootage(id, { hash })
  if (waits) await moveIntoStore(upload, hash)
  for (const beside of ['.json', PIECES]) await discard(`${upload}${beside}`)
  return hash
}

function keepProxy(path: string, facts: FootageFacts, { signal, onShare, attempt }: TaskContext): Promise<string> {
  return withAttemptFolder(attempt, async (folder) => {
    const out = join(folder, 'proxy.mp4')
    await makeProxy(path, out, facts, { signal, onProgress: onShare })
    return keepFile(out)
  })
}
