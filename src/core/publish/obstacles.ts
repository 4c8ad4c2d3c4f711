// What stands in the way of publishing a video, in order of harm.
import type { CheckState } from '../proof/proof'
import type { Verified } from '../proof/verify'
import type { Purpose } from '../render/purpose'
import type { Ms } from '../units'
import type { Chapter } from '../write/chapters'
import type { HostLimits } from './host'

/** A host refuses it; viewers are misled by it; it is less than it could be. */
export const HARMS = ['refused', 'misleads', 'less'] as const
export type Harm = (typeof HARMS)[number]

export type Obstacle = { harm: Harm } & (
  | { code: 'host-away' | 'title-missing' | 'outdated' | 'draft' | 'no-description' | 'no-captions' | 'few-chapters' }
  | { code: 'title-long' | 'description-long'; letters: number; most: number }
  | { code: 'video-large'; bytes: number; most: number }
  | { code: 'video-long'; ms: Ms; mostMs: Ms }
  | { code: 'faults'; count: number }
  | { code: 'nothing-tied' }
  | { code: 'left-to-do' | 'open-notes' | 'proofed-before'; count: number }
  | { code: 'unproofed'; count: number; of: number }
)

export interface Publishing {
  title: string
  description: string
  captions: string
  chapters: readonly Chapter[]
  videoBytes: number
  lengthMs: Ms
  purpose: Purpose
  /** Whether anything has changed since it was rendered. */
  isOutdated: boolean
  /** How many questions the ties to the footage leave; null where nothing is tied. */
  leftToDo: number | null
  /** How many changes somebody has found right in Watch, or not yet; null where none can be found. */
  proofed: Record<CheckState, number> | null
  /** How many notes are left there. */
  openNotes: number
  /** Null where nobody looked. */
  verified: Pick<Verified, 'faults'> | null
  /** Null where the host does not answer. */
  limits: HostLimits | null
}

/** Fewer are no chapters to a host. */
const FEWEST_CHAPTERS = 3

/** @returns none where nothing stands in the way. */
export function obstaclesOf(of: Publishing): Obstacle[] {
  const { title, description, limits, verified } = of
  const faults = verified?.faults ?? []
  // What is not heard is missed; a level that is a little off is only heard.
  const ofFaults = faults.some(({ kind }) => kind === 'unheard') ? 'misleads' : 'less'
  const found: (Obstacle | false)[] = [
    !limits && { harm: 'refused', code: 'host-away' },
    !title.trim() && { harm: 'refused', code: 'title-missing' },
    ...(limits ? beyond(of, limits) : []),
    of.isOutdated && { harm: 'misleads', code: 'outdated' },
    of.purpose === 'draft' && { harm: 'misleads', code: 'draft' },
    tiesOf(of.leftToDo),
    ofFaults === 'misleads' && { harm: ofFaults, code: 'faults', count: faults.length },
    of.openNotes > 0 && { harm: 'less', code: 'open-notes', count: of.openNotes },
    ...(of.proofed ? proofOf(of.proofed) : []),
    ofFaults === 'less' && faults.length > 0 && { harm: ofFaults, code: 'faults', count: faults.length },
    of.chapters.length < FEWEST_CHAPTERS && { harm: 'less', code: 'few-chapters' },
    !/-->/.test(of.captions) && { harm: 'less', code: 'no-captions' },
    !description.trim() && { harm: 'less', code: 'no-description' },
  ]
  return found.flatMap((one) => one || [])
}

function tiesOf(leftToDo: number | null): Obstacle | false {
  if (leftToDo === null) return { harm: 'misleads', code: 'nothing-tied' }
  return leftToDo > 0 && { harm: 'misleads', code: 'left-to-do', count: leftToDo }
}

function proofOf({ open, checked, asked }: Record<CheckState, number>): (Obstacle | false)[] {
  return [
    asked > 0 && { harm: 'less', code: 'proofed-before', count: asked },
    open > 0 && { harm: 'less', code: 'unproofed', count: open, of: open + checked + asked },
  ]
}

function beyond({ title, description, videoBytes, lengthMs }: Publishing, limits: HostLimits): (Obstacle | false)[] {
  const harm = 'refused'
  return [
    title.length > limits.title && { harm, code: 'title-long', letters: title.length, most: limits.title },
    description.length > limits.description && {
      ...{ harm, code: 'description-long' as const },
      ...{ letters: description.length, most: limits.description },
    },
    videoBytes > limits.bytes && { harm, code: 'video-large', bytes: videoBytes, most: limits.bytes },
    lengthMs > limits.lengthMs && { harm, code: 'video-long', ms: lengthMs, mostMs: limits.lengthMs },
  ]
}
