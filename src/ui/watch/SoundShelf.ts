// Sounds and lines as samples, made or fetched once each.
import type { Cue } from '@/core/cue/cue'
import type { CueWishes } from '@/core/cue/wishes'
import { MIX_RATE } from '@/core/sound/mix'
import { tone } from '@/core/sound/voiced'

type Manner = Pick<CueWishes, 'family' | 'voice'>

/** Head of a WAV file of 16-bit samples. */
const HEAD_BYTES = 44

export class SoundShelf {
  private readonly samples = new Map<string, Float32Array>()
  private readonly buffers = new Map<string, AudioBuffer>()

  /** At `MIX_RATE`; null for a line that is not there yet. */
  samplesOf(cue: Cue, manner: Manner): Float32Array | null {
    const key = keyOf(cue, manner)
    const known = this.samples.get(key)
    if (known || cue.sound === null) return known ?? null
    const made = tone(manner.family, cue.sound, MIX_RATE)
    this.samples.set(key, made)
    return made
  }

  bufferOf(cue: Cue, manner: Manner, context: BaseAudioContext): AudioBuffer | null {
    const samples = this.samplesOf(cue, manner)
    const key = keyOf(cue, manner)
    const known = this.buffers.get(key)
    if (known || !samples) return known ?? null
    const buffer = context.createBuffer(1, samples.length, MIX_RATE)
    buffer.copyToChannel(Float32Array.from(samples), 0)
    this.buffers.set(key, buffer)
    return buffer
  }

  /** Fetches the lines that are not there. @returns whether any came. */
  async fetchLines(cues: readonly Cue[], manner: Manner, signal: AbortSignal): Promise<boolean> {
    let came = false
    for (const cue of cues) {
      const key = keyOf(cue, manner)
      if (cue.line === null || this.samples.has(key)) continue
      const said = new URLSearchParams({ voice: manner.voice, text: cue.line })
      const answer = await fetch(`/api/lines?${said.toString()}`, { signal })
      if (!answer.ok) continue
      this.samples.set(key, samplesIn(await answer.arrayBuffer()))
      came = true
    }
    return came
  }

  /** A line that is recorded anew is another sound. */
  forget(line: string): void {
    this.samples.delete(`own: ${line}`)
    this.buffers.delete(`own: ${line}`)
  }
}

const keyOf = ({ sound, line }: Cue, { family, voice }: Manner): string =>
  line === null ? `${family} ${sound ?? ''}` : `${voice}: ${line}`

const samplesIn = (wave: ArrayBuffer): Float32Array =>
  Float32Array.from(new Int16Array(wave.slice(HEAD_BYTES)), (one) => one / 32_767)
