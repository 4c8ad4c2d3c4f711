// Sounds the cues in step with the picture. The footage's sound runs through the same audio graph, so both have the
// same delay to the ear. Cues are scheduled a little ahead on the audio clock, which is tied to the picture's time by
// every frame shown; after a seek, a pause or a change of rate all that was scheduled is dropped and laid anew.
import type { Cue, Voice } from '@/core/cue/cues'
import { soundOf } from '@/core/sound/family'
import type { Ms } from '@/core/units'
import type { ReelFilm } from '../parts/ReelFilm'
import type { CutPlayer } from './CutPlayer'

/** How far ahead cues are laid, in seconds of the audio clock. */
const AHEAD_S = 0.6
/** A step of the picture's time that no steady playing explains ... */
const SLIP_S = 0.04
/** ... when so many frames in a row agree on it: the tie is made anew. A single late frame drops no cue. */
const SLIPPED_FRAMES = 2

export class CuePlayer {
  private readonly context = new AudioContext({ latencyHint: 'interactive' })
  private readonly cueGain = this.context.createGain()
  private readonly voiceGain = this.context.createGain()
  private readonly sounds = new Map<Voice, AudioBuffer>()
  private scheduled: AudioBufferSourceNode[] = []
  /** Picture time (s) and audio time (s) that belong together, and the rate between them. */
  private tie: { mediaS: number; audioS: number; rate: number } | null = null
  private laidUntilS = 0
  private slips = 0
  private readonly timer = setInterval(() => this.lay(), 100)
  private readonly halt = new AbortController()
  cues: readonly Cue[] = []

  /** @param player whether output time passes, and how fast: a card stands while the video does not run. */
  constructor(
    film: ReelFilm,
    private readonly player: Pick<CutPlayer, 'runs' | 'speed'>,
  ) {
    for (const element of film.elements)
      if (element instanceof HTMLVideoElement) this.context.createMediaElementSource(element).connect(this.voiceGain)
    this.voiceGain.connect(this.context.destination)
    this.cueGain.connect(this.context.destination)
    const again = (): void => this.reset()
    for (const name of ['seeking', 'pause', 'ratechange', 'waiting', 'ended'])
      film.addEventListener(name, again, { signal: this.halt.signal })
    film.addEventListener('playing', () => void this.context.resume(), { signal: this.halt.signal })
    void this.context.resume()
  }

  setLevels(voice: number, cues: number): void {
    this.voiceGain.gain.value = voice
    this.cueGain.gain.value = cues
  }

  /** Told of every frame: its time in the output, and the page time at which it is on screen. */
  onFrame(mediaMs: Ms, shownAt: number): void {
    if (!this.player.runs || this.context.state !== 'running') return
    const stamp = this.context.getOutputTimestamp()
    const audioS = stamp.performanceTime
      ? (stamp.contextTime ?? 0) + (shownAt - stamp.performanceTime) / 1000
      : this.context.currentTime
    const rate = this.player.speed
    const expected = this.tie ? this.tie.mediaS + (audioS - this.tie.audioS) * this.tie.rate : null
    const off = expected !== null && Math.abs(expected - mediaMs / 1000) > SLIP_S * rate
    this.slips = off ? this.slips + 1 : 0
    if (expected === null || this.slips >= SLIPPED_FRAMES) {
      this.reset()
      this.tie = { mediaS: mediaMs / 1000, audioS, rate }
      this.laidUntilS = mediaMs / 1000
    } else if (this.tie && !off) {
      // Single frames come a little early or late; the tie follows their average.
      this.tie = { ...this.tie, mediaS: this.tie.mediaS + 0.05 * (mediaMs / 1000 - expected) }
    }
    this.lay()
  }

  private lay(): void {
    if (!this.tie || !this.player.runs) return
    const { mediaS, audioS, rate } = this.tie
    const untilS = mediaS + (this.context.currentTime + AHEAD_S - audioS) * rate
    for (const cue of this.cues) {
      const cueS = cue.atMs / 1000
      if (cueS < this.laidUntilS || cueS >= untilS) continue
      const source = this.context.createBufferSource()
      source.buffer = this.buffer(cue.voice)
      source.connect(this.cueGain)
      source.start(Math.max(this.context.currentTime, audioS + (cueS - mediaS) / rate))
      source.onended = () => {
        this.scheduled = this.scheduled.filter((one) => one !== source)
      }
      this.scheduled.push(source)
    }
    this.laidUntilS = Math.max(this.laidUntilS, untilS)
  }

  private reset(): void {
    for (const source of this.scheduled) source.stop()
    this.scheduled = []
    this.tie = null
    this.slips = 0
  }

  private buffer(voice: Voice): AudioBuffer {
    const known = this.sounds.get(voice)
    if (known) return known
    const samples = soundOf(voice, this.context.sampleRate)
    const buffer = this.context.createBuffer(1, samples.length, this.context.sampleRate)
    buffer.copyToChannel(Float32Array.from(samples), 0)
    this.sounds.set(voice, buffer)
    return buffer
  }

  close(): void {
    clearInterval(this.timer)
    this.halt.abort()
    this.reset()
    void this.context.close()
  }
}
