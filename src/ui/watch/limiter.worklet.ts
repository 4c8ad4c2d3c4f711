// The render's limiter on the page's audio thread. Bundled by itself (`scripts/machine.mjs`), as such code is loaded
// by its address.
import { CEILING, Limiter } from '@/core/sound/limiter'

// What the audio thread knows beyond a page; the types of the DOM leave it out.
declare const sampleRate: number
declare function registerProcessor(name: string, processor: new () => object): void
declare class AudioWorkletProcessor {}

const CHANNELS = 2

class LimiterProcessor extends AudioWorkletProcessor {
  private readonly limiter = new Limiter(sampleRate, CHANNELS, CEILING)
  private block = new Float32Array(0)

  process([input]: Float32Array[][], [output]: Float32Array[][]): boolean {
    const length = output?.[0]?.length ?? 0
    if (this.block.length !== length * CHANNELS) this.block = new Float32Array(length * CHANNELS)
    for (let channel = 0; channel < CHANNELS; channel++)
      for (let at = 0; at < length; at++) this.block[at * CHANNELS + channel] = input?.[channel]?.[at] ?? 0
    const limited = this.limiter.limit(this.block)
    for (let channel = 0; channel < CHANNELS; channel++)
      output?.[channel]?.forEach((_silent, at, samples) => {
        samples[at] = limited[at * CHANNELS + channel] ?? 0
      })
    return true
  }
}

registerProcessor('jivet-limiter', LimiterProcessor)
