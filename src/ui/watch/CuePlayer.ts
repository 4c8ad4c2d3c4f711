// Sounds the cues in step with the picture. The footage's sound runs through the same audio graph, so both have the
// same delay to the ear. Cues are scheduled a little ahead on the audio clock, which is tied to the picture's time by
// every frame shown; after a seek, a pause or a change of rate all that was scheduled is dropped and laid anew.
import type { Cue } from '@/core/cue/cue'
import type { Gains, GainPoint } from '@/core/sound/mix'
import { GainWalk } from '@/core/sound/mix'
import { fadeAt, type BedPart } from '@/core/sound/music'
import type { Ms } from '@/core/units'
import type { CutPlayer } from './CutPlayer'

/** How far ahead cues are laid, in seconds of the audio clock. */
const AHEAD_S = 0.6
/** A step of the picture's time that no steady playing explains ... */
const SLIP_S = 0.04
/** ... when so many frames in a row agree on it: the tie is made anew. A single late frame drops no cue. */
const SLIPPED_FRAMES = 2
/** The footage's gain moves in steps of so much. */
const GAIN_STEP_S = 0.02

/** Where the bundle of `limiter.worklet` is served from, and what it is registered as. */
const LIMITER = { address: '/limiter.js', name: 'jivet-limiter' } as const

/** What is heard, as the render mixes it. */
export interface Heard {
  cues: readonly Cue[]
  gains: Gains
  /** Of the mix. */
  channels: 1 | 2
  ducking: readonly GainPoint[]
  bed: {
    parts: readonly BedPart[]
    ducking: readonly GainPoint[]
    /** What each piece is evened by. */
    evenedBy: readonly number[]
    /** Null for what is not there yet; `onCome` is called when it is. */
    bufferOf: (piece: number, context: BaseAudioContext, onCome: () => void) => AudioBuffer | null
  }
  /** At the rate of the context; null for what is not there yet. */
  soundOf: (cue: Cue, context: BaseAudioContext) => AudioBuffer | null
}

/** A film whose elements sound, and which tells of what happens to it. */
type Sounding = EventTarget & { elements: readonly unknown[] }

export class CuePlayer {
  private readonly context = new AudioContext({ latencyHint: 'interactive' })
  private readonly cueGain = this.context.createGain()
  private readonly filmGain = this.context.createGain()
  private readonly bedGain = this.context.createGain()
  /** All that is heard, on its way to the limiter. */
  private readonly whole = this.context.createGain()
  private scheduled: AudioBufferSourceNode[] = []
  /** Picture time (s) and audio time (s) that belong together, and the rate between them. */
  private tie: { mediaS: number; audioS: number; rate: number } | null = null
  private laidUntilS = 0
  private slips = 0
  /** The part of the bed that is laid. */
  private bedPart: BedPart | null = null
  private readonly timer = setInterval(() => this.lay(), 100)
  private readonly halt = new AbortController()

  /** @param player whether output time passes, and how fast: a card stands while the video does not run. */
  constructor(
    film: Sounding,
    private readonly player: Pick<CutPlayer, 'runs' | 'speed' | 'nowMs'>,
    private heard: Heard,
  ) {
    for (const element of film.elements)
      if (element instanceof HTMLVideoElement) this.context.createMediaElementSource(element).connect(this.filmGain)
    this.filmGain.connect(this.whole)
    this.cueGain.connect(this.whole)
    this.bedGain.channelCountMode = 'explicit'
    this.bedGain.connect(this.whole)
    this.whole.connect(this.context.destination)
    void this.limit()
    const again = (): void => this.reset()
    for (const name of ['seeking', 'pause', 'ratechange', 'waiting', 'ended'])
      film.addEventListener(name, again, { signal: this.halt.signal })
    film.addEventListener('playing', () => void this.context.resume(), { signal: this.halt.signal })
    void this.context.resume()
    this.change(heard)
  }

  /** What is heard from now on, in place of what was laid. */
  change(heard: Heard): void {
    this.heard = heard
    // Where the mix has one channel, its music has one, too.
    this.bedGain.channelCount = heard.channels
    this.cueGain.gain.value = heard.gains.cues * heard.gains.whole
    this.reset()
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

  /** Without its limiter all is heard, and clips where the render is held down. */
  private async limit(): Promise<void> {
    try {
      await this.context.audioWorklet.addModule(LIMITER.address)
      const limiter = new AudioWorkletNode(this.context, LIMITER.name, {
        ...{ outputChannelCount: [2], channelCount: 2, channelCountMode: 'explicit' },
      })
      this.whole.disconnect()
      this.whole.connect(limiter).connect(this.context.destination)
    } catch (error) {
      if (!this.halt.signal.aborted) console.warn('No limiter:', error)
    }
  }

  private lay(): void {
    if (!this.tie || !this.player.runs) return
    const { mediaS, audioS, rate } = this.tie
    const untilS = mediaS + (this.context.currentTime + AHEAD_S - audioS) * rate
    const atAudioS = (outS: number): number => Math.max(this.context.currentTime, audioS + (outS - mediaS) / rate)
    for (const cue of this.heard.cues) {
      const cueS = cue.atMs / 1000
      if (cueS < this.laidUntilS || cueS >= untilS) continue
      const buffer = this.heard.soundOf(cue, this.context)
      if (!buffer) continue
      const source = this.context.createBufferSource()
      source.buffer = buffer
      source.connect(this.cueGain)
      source.start(atAudioS(cueS))
      source.onended = () => {
        this.scheduled = this.scheduled.filter((one) => one !== source)
      }
      this.scheduled.push(source)
    }
    this.layBed(untilS, atAudioS)
    const walk = new GainWalk(this.heard.ducking)
    for (let outS = this.laidUntilS; outS < untilS && this.heard.ducking.length; outS += GAIN_STEP_S)
      this.filmGain.gain.linearRampToValueAtTime(this.filmGainAt(walk, outS), atAudioS(outS))
    this.laidUntilS = Math.max(this.laidUntilS, untilS)
  }

  /** Pieces of music that begin by then, or are under way; and how they give way. */
  private layBed(untilS: number, atAudioS: (outS: number) => number): void {
    const { parts, ducking, evenedBy, bufferOf } = this.heard.bed
    if (!parts.length || !this.tie) return
    for (const part of parts) {
      const beginS = part.outMs / 1000,
        endS = beginS + part.lengthMs / 1000
      const isNew = beginS >= this.laidUntilS && beginS < untilS
      const runs = this.bedPart !== part && beginS < this.laidUntilS && this.laidUntilS < endS
      if (!isNew && !runs) continue
      const buffer = bufferOf(part.piece, this.context, () => this.reset())
      if (!buffer) continue
      this.bedPart = part
      const fromS = Math.max(beginS, this.laidUntilS)
      const source = this.context.createBufferSource()
      source.buffer = buffer
      source.playbackRate.value = this.tie.rate
      const evened = this.context.createGain()
      evened.gain.value = evenedBy[part.piece] ?? 1
      source.connect(evened).connect(this.bedGain)
      source.start(atAudioS(fromS), fromS - beginS)
      source.stop(atAudioS(endS))
      this.scheduled.push(source)
    }
    const walk = new GainWalk(ducking)
    for (let outS = this.laidUntilS; outS < untilS; outS += GAIN_STEP_S)
      this.bedGain.gain.linearRampToValueAtTime(this.bedGainAt(walk, outS), atAudioS(outS))
  }

  private bedGainAt(walk: GainWalk, outS: number): number {
    const { gains, bed } = this.heard
    return gains.music * gains.whole * fadeAt(bed.parts, outS * 1000) * walk.gainAt(outS * 1000)
  }

  private filmGainAt(walk: GainWalk, outS: number): number {
    return this.heard.gains.film * this.heard.gains.whole * walk.gainAt(outS * 1000)
  }

  private reset(): void {
    for (const source of this.scheduled) source.stop()
    this.scheduled = []
    this.tie = null
    this.slips = 0
    this.bedPart = null
    const outS = this.player.nowMs / 1000
    this.bedGain.gain.cancelScheduledValues(this.context.currentTime)
    this.bedGain.gain.setValueAtTime(
      this.bedGainAt(new GainWalk(this.heard.bed.ducking), outS),
      this.context.currentTime,
    )
    const now = this.filmGainAt(new GainWalk(this.heard.ducking), outS)
    this.filmGain.gain.cancelScheduledValues(this.context.currentTime)
    this.filmGain.gain.setValueAtTime(now, this.context.currentTime)
  }

  close(): void {
    clearInterval(this.timer)
    this.halt.abort()
    this.reset()
    void this.context.close()
  }
}
