// Two channels into one. A microphone wired the wrong way round gives one channel upside down: added up, they are
// silence, and then their difference is what sounds.

/** Frames over which it is decided. */
const STRETCH = 4096
/** One channel is the other upside down where their difference has so many times the energy of their sum. */
const UPSIDE_DOWN = 16

export class MonoMixer {
  private readonly held = new Float32Array(2 * STRETCH)
  private count = 0

  /** @param onBlock called with mono samples, in order; each block is new. */
  constructor(private readonly onBlock: (block: Float32Array) => void) {}

  /** @param samples left and right in turn; a frame may be cut in two between blocks. */
  push(samples: Float32Array): void {
    for (let from = 0; from < samples.length;) {
      const part = samples.subarray(from, from + this.held.length - this.count)
      this.held.set(part, this.count)
      this.count += part.length
      from += part.length
      if (this.count === this.held.length) this.mix()
    }
  }

  /** Ends the recording. */
  finish(): void {
    this.mix()
  }

  private mix(): void {
    const frames = Math.floor(this.count / 2)
    let sum = 0,
      difference = 0
    for (let frame = 0; frame < frames; frame++) {
      const left = this.held[2 * frame] ?? 0,
        right = this.held[2 * frame + 1] ?? 0
      sum += (left + right) ** 2
      difference += (left - right) ** 2
    }
    const sign = difference > UPSIDE_DOWN * sum ? -1 : 1
    const block = new Float32Array(frames)
    for (let frame = 0; frame < frames; frame++)
      block[frame] = ((this.held[2 * frame] ?? 0) + sign * (this.held[2 * frame + 1] ?? 0)) / 2
    this.count = 0
    if (frames) this.onBlock(block)
  }
}
