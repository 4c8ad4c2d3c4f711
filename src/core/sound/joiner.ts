// Joins runs of sound so that nothing clicks: the end of each fades into the beginning of the next at equal power.
import type { Samples } from '../units'

export interface Fades {
  /** Of the whole run, its fades included. */
  samples: Samples
  fadeIn: Samples
  fadeOut: Samples
}

export class Joiner {
  /** The faded end of the run before, interleaved. */
  private tail = new Float32Array(0)
  private next = new Float32Array(0)
  private at: Samples = 0
  private run: Fades = { samples: 0, fadeIn: 0, fadeOut: 0 }

  constructor(private readonly channels: number) {}

  /** @param run as long a fade in as the one before has a fade out. */
  begin(run: Fades): void {
    this.tail = this.next
    this.next = new Float32Array(run.fadeOut * this.channels)
    this.run = run
    this.at = 0
  }

  /** @param block interleaved; what goes beyond the run is left out. @returns what is whole by now, interleaved. */
  join(block: Float32Array): Float32Array {
    const { channels } = this
    const { samples, fadeIn, fadeOut } = this.run
    const count = Math.min(block.length / channels, samples - this.at)
    const out = new Float32Array(Math.max(0, Math.min(count, samples - fadeOut - this.at)) * channels)
    for (let sample = 0; sample < count; sample++, this.at++) {
      const left = samples - this.at
      const gain =
        this.at < fadeIn ? rising((this.at + 0.5) / fadeIn) : left <= fadeOut ? rising((left - 0.5) / fadeOut) : 1
      for (let channel = 0; channel < channels; channel++) {
        const value = gain * (block[sample * channels + channel] ?? 0)
        if (left <= fadeOut) this.next[(fadeOut - left) * channels + channel] = value
        else
          out[sample * channels + channel] =
            value + (this.at < fadeIn ? (this.tail[this.at * channels + channel] ?? 0) : 0)
      }
    }
    return out
  }

  /** Silence for what the run still lacks. */
  finish(): Float32Array {
    return this.join(new Float32Array((this.run.samples - this.at) * this.channels))
  }
}

const rising = (share: number): number => Math.sin((Math.PI / 2) * share)
