// The key of a mix: of all that is heard in it, and of nothing else. A word on the screen changes no sound.
import { createHash } from 'node:crypto'
import { hashOf } from './contentHash'
import { encodersFor } from './encoding'
import { programStamp } from './program'
import type { RenderJob } from './renderJob'
import type { SoundPlan } from './renderSound'

export async function soundKeyOf({ reel, cut, music = [], purpose }: RenderJob, plan: SoundPlan): Promise<string> {
  const { cues, heard, gains, ducking, bed } = plan
  const files = await Promise.all(reel.map(hashOf))
  const spans = cut.spans.map(({ source, fromMs, outMs, lengthMs, rate }) => [source, fromMs, outMs, lengthMs, rate])
  const sum = createHash('sha256')
  sum.update(programStamp())
  sum.update(JSON.stringify([encodersFor(purpose).sound, files, cut.outMs, spans, gains, ducking]))
  sum.update(JSON.stringify(cues.map(({ atMs }) => atMs)))
  for (const cue of cues) sum.update(heard(cue) ?? 'silent')
  if (bed)
    sum.update(
      JSON.stringify([bed.parts, bed.ducking, bed.pieces.map(({ gain }) => gain), music.map(({ hash }) => hash)]),
    )
  return sum.digest('hex')
}
