// Sounds the tones of a session a little ahead on the audio clock; what was laid is taken back where the session leaps.
import type { Cue } from '@/core/cue/cue'
import type { FamilyName } from '@/core/sound/families/names'
import { MIX_RATE } from '@/core/sound/mix'
import { tone } from '@/core/sound/voiced'
import type { Ms } from '@/core/units'
import type { Run } from './run'

const AHEAD_MS: Ms = 400
/** Phones are soft. */
const GAIN = 2.5

export class Sounds {
  private readonly context = new AudioContext()
  private readonly gain = this.context.createGain()
  private readonly buffers = new Map<string, AudioBuffer>()
  private laid: AudioBufferSourceNode[] = []
  private laidUntilMs: Ms = 0

  constructor(
    private readonly cues: readonly Cue[],
    private readonly family: FamilyName,
  ) {
    this.gain.gain.value = GAIN
    this.gain.connect(this.context.destination)
  }

  /** After a press, without which browsers keep silent. */
  wake(): void {
    void this.context.resume()
  }

  lay(run: Run): void {
    const fromMs = run.planMs
    const untilMs = Math.min(fromMs + AHEAD_MS, run.steadyUntilMs)
    for (const cue of this.cues) {
      if (cue.sound === null || cue.atMs < this.laidUntilMs || cue.atMs >= untilMs) continue
      const source = this.context.createBufferSource()
      source.buffer = this.bufferOf(cue.sound)
      source.connect(this.gain)
      source.start(this.context.currentTime + Math.max(0, cue.atMs - fromMs) / 1000)
      this.laid.push(source)
    }
    this.laidUntilMs = Math.max(this.laidUntilMs, untilMs)
  }

  /** The session is somewhere else, or stands still. */
  leap(toMs: Ms): void {
    for (const source of this.laid) source.stop()
    this.laid = []
    this.laidUntilMs = toMs
  }

  private bufferOf(sound: NonNullable<Cue['sound']>): AudioBuffer {
    const known = this.buffers.get(sound)
    if (known) return known
    const samples = tone(this.family, sound, MIX_RATE)
    const buffer = this.context.createBuffer(1, samples.length, MIX_RATE)
    buffer.copyToChannel(Float32Array.from(samples), 0)
    this.buffers.set(sound, buffer)
    return buffer
  }
}
