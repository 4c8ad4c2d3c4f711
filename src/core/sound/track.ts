// The cue track: sounds laid at their instants, handed out in blocks so that an hour needs no hour of memory.
import type { Cue, Voice } from '../cue/cues'
import type { Hertz, Ms, Samples } from '../units'
import { soundOf } from './family'

/**
 * Yields mono blocks of at most `blockLength` samples that together are exactly `lengthMs` long.
 * A cue at `atMs` has its first sample at round(atMs * sampleRate / 1000); sounds that overlap are added.
 */
export function* cueTrack(
  cues: readonly Cue[],
  lengthMs: Ms,
  sampleRate: Hertz,
  blockLength: Samples = sampleRate * 10,
): Generator<Float32Array> {
  const total: Samples = Math.round((lengthMs * sampleRate) / 1000)
  const sounds = new Map<Voice, Float32Array>()
  const placed = cues.map((cue) => {
    const sound = sounds.get(cue.voice) ?? soundOf(cue.voice, sampleRate)
    sounds.set(cue.voice, sound)
    return { from: Math.round((cue.atMs * sampleRate) / 1000), sound }
  })
  let first = 0
  for (let start: Samples = 0; start < total; start += blockLength) {
    const block = new Float32Array(Math.min(blockLength, total - start))
    while (ended(placed[first], start)) first++
    for (let number = first; number < placed.length; number++) {
      const item = placed[number]
      if (!item || item.from >= start + block.length) break
      mixInto(block, item.sound, item.from - start)
    }
    yield block
  }
}

const ended = (item: { from: Samples; sound: Float32Array } | undefined, at: Samples): boolean =>
  item !== undefined && item.from + item.sound.length <= at

function mixInto(block: Float32Array, sound: Float32Array, offset: Samples): void {
  const from = Math.max(0, -offset)
  const to = Math.min(sound.length, block.length - offset)
  for (let index = from; index < to; index++) block[offset + index] = (block[offset + index] ?? 0) + (sound[index] ?? 0)
}
