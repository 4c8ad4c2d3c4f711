// Sounds a session on the floor: tones, chirps and spoken lines, laid far ahead on the audio clock, so that no busy or
// sleeping page is late. Whatever is told anew takes back what was laid and has not begun.
import type { Sound } from '@/core/cue/cue'
import { chirpSound, type ChirpVoice } from '@/core/sound/chirp'
import { FLOOR_CUES, type Sounding } from '@/core/floor/sounding'
import { soundOf } from '@/core/sound/families'
import type { Ms } from '@/core/units'
import type { FloorLink } from './FloorLink'

export interface Levels {
  cues: number
  ear: number
}

/** A page that sleeps wakes once a minute; longer than that is laid ahead. */
const AHEAD_MS: Ms = 70_000
const LAY_EVERY_MS: Ms = 250
/** How fast the tie of the two clocks follows what the browser says of them. */
const FOLLOW = 0.1
/** By more than this no steady clock is off. */
const LEAPT_S = 0.1
/** What should have begun so long ago is left out. */
const TOO_LATE_S = 0.05

interface Laid {
  source: AudioBufferSourceNode
  beginsS: number
}

export class FloorSound {
  readonly context = new AudioContext({ latencyHint: 'interactive' })
  private readonly cueGain = this.context.createGain()
  private readonly earGain = this.context.createGain()
  private readonly buffers = new Map<string, AudioBuffer>()
  private laid: Laid[] = []
  private sounding: Sounding = { cues: [], said: [], chirps: [] }
  private laidUntilMs: Ms
  /** Seconds by which the page's clock is ahead of the audio clock, as far as it was seen to run. */
  private aheadS: number | null = null
  private readonly timer = setInterval(() => this.lay(), LAY_EVERY_MS)

  constructor(
    private readonly link: FloorLink,
    private readonly chirpVoice: ChirpVoice | null,
  ) {
    this.laidUntilMs = link.nowMs()
    this.cueGain.connect(this.context.destination)
    this.earGain.connect(this.context.destination)
  }

  /** Browsers allow sound only after a press. @returns whether it runs now. */
  async wake(): Promise<boolean> {
    await this.context.resume().catch(() => {})
    this.lay()
    return this.context.state === 'running'
  }

  setLevels({ cues, ear }: Levels): void {
    this.cueGain.gain.value = cues
    this.earGain.gain.value = ear
  }

  /** What is heard from now on, in place of what was laid. */
  change(sounding: Sounding): void {
    this.sounding = sounding
    this.takeBack()
    this.lay()
  }

  /** What was laid and has not begun is to be laid anew. */
  private takeBack(): void {
    const nowS = this.context.currentTime
    for (const { source, beginsS } of this.laid) if (beginsS > nowS) source.stop()
    this.laid = this.laid.filter(({ beginsS }) => beginsS <= nowS)
    this.laidUntilMs = this.link.nowMs()
  }

  /** Keeps a line that was spoken for it. */
  async learn(text: string, wave: ArrayBuffer): Promise<void> {
    this.buffers.set(`say ${text}`, await this.context.decodeAudioData(wave))
  }

  close(): void {
    clearInterval(this.timer)
    void this.context.close()
  }

  /** Ties the audio clock to the page's. @returns null while it does not run. */
  private tie(): number | null {
    const { context } = this
    if (context.state !== 'running') return null
    const { contextTime = 0, performanceTime = 0 } = context.getOutputTimestamp()
    const aheadS = performanceTime
      ? performanceTime / 1000 - contextTime
      : performance.now() / 1000 - context.currentTime
    const before = this.aheadS
    if (before !== null && Math.abs(aheadS - before) <= LEAPT_S)
      return (this.aheadS = before + FOLLOW * (aheadS - before))
    this.aheadS = aheadS
    // A clock that leapt was stopped, as by a machine that slept: what was laid by it is not when it should be.
    if (before !== null) this.takeBack()
    return aheadS
  }

  private lay(): void {
    const aheadS = this.tie()
    if (aheadS === null) return
    const fromMs = this.laidUntilMs
    const untilMs = this.link.atClock(performance.now() + AHEAD_MS)
    const within = ({ atMs }: { atMs: Ms }): boolean => atMs >= fromMs && atMs < untilMs
    const { cues, chirps, said } = this.sounding
    for (const { atMs, sound } of cues.filter(within)) if (sound) this.play(this.toneOf(sound), atMs, this.cueGain)
    for (const { atMs, code } of chirps.filter(within)) this.play(this.chirpOf(code), atMs, this.context.destination)
    for (const { atMs, text } of said.filter(within)) this.play(this.buffers.get(`say ${text}`), atMs, this.earGain)
    this.laidUntilMs = Math.max(fromMs, untilMs)
    this.laid = this.laid.filter(({ beginsS }) => beginsS > this.context.currentTime - 30)
  }

  private play(buffer: AudioBuffer | null | undefined, atMs: Ms, into: AudioNode): void {
    if (!buffer) return
    const beginsS = this.link.clockAt(atMs) / 1000 - (this.aheadS ?? 0)
    if (beginsS < this.context.currentTime - TOO_LATE_S) return
    const source = this.context.createBufferSource()
    source.buffer = buffer
    source.connect(into)
    source.start(Math.max(this.context.currentTime, beginsS))
    this.laid.push({ source, beginsS })
  }

  private toneOf(sound: Sound): AudioBuffer {
    return this.kept(sound, () => soundOf(FLOOR_CUES.family, sound, this.context.sampleRate))
  }

  private chirpOf(code: number): AudioBuffer | null {
    const { chirpVoice } = this
    if (!chirpVoice) return null
    return this.kept(`chirp ${code}`, () => chirpSound(code, chirpVoice, this.context.sampleRate))
  }

  private kept(name: string, samplesOf: () => Float32Array): AudioBuffer {
    const known = this.buffers.get(name)
    if (known) return known
    const samples = Float32Array.from(samplesOf())
    const buffer = this.context.createBuffer(1, samples.length, this.context.sampleRate)
    buffer.copyToChannel(samples, 0)
    this.buffers.set(name, buffer)
    return buffer
  }
}
