// Parts of a mix, each alone and as loud as it is in the whole: for whoever mixes anew elsewhere.
import { soundEncoder, type SoundEnding } from './encodeSound'
import { DRAWN, type RenderJob } from './renderJob'
import { renderSound, soundPlan, type SoundPlan } from './renderSound'

/** All of it, and its parts. */
export const STEMS = ['mix', 'footage', 'cues', 'music'] as const
export type Stem = (typeof STEMS)[number]

interface Writing {
  stem: Stem
  ending: SoundEnding
  /** A folder for what waits. */
  folder: string
  signal: AbortSignal
}

/** Writes `job.out`, to the sample as long as the video. @throws Problem as `renderVideo` does. */
export async function writeStem(job: RenderJob, { stem, ending, folder, signal }: Writing): Promise<void> {
  const plan = partOf(await soundPlan(job, signal), stem)
  const facts = job.reel[0]?.facts ?? DRAWN
  await renderSound(job, { plan, facts, out: job.out, folder, signal, encoder: soundEncoder(ending) })
}

function partOf(plan: SoundPlan, stem: Stem): SoundPlan {
  if (stem === 'mix') return plan
  const { film, cues, music, whole } = plan.gains
  const gains = {
    film: stem === 'footage' ? film : 0,
    cues: stem === 'cues' ? cues : 0,
    music: stem === 'music' ? music : 0,
    whole,
  }
  return { ...plan, gains, bed: stem === 'music' ? plan.bed : null }
}
