// Plays a cut from its footage, in output time: goes from span to span, holds pictures and lets cards stand for as long
// as they last. The film is that of a reel, or what behaves like one in a test.
import { outMsIn, sourceMsIn, spanAt, type Cut, type Span } from '@/core/cut/cut'
import type { Ms } from '@/core/units'
import type { ReelFilm } from '../parts/ReelFilm'
import type { FrameListener } from '../parts/useVideoClock'

/** What is needed of a film. */
export type Film = Pick<ReelFilm, 'currentTime' | 'paused' | 'seeking' | 'playbackRate' | 'play' | 'pause' | 'style'>

/** A frame so little before the end of a span is its last. */
const LAST_FRAME_MS: Ms = 20
/** A frame so near to where the film was sent is the one that was asked for. */
const ARRIVED_MS: Ms = 80

export class CutPlayer {
  private at = 0
  private atMs: Ms = 0
  private wanted = false
  /** Where the film was sent, until it is there: frames from before say nothing. */
  private awaitedMs: Ms | null = null
  private ticking = 0
  private pace = 1

  constructor(
    private readonly film: Film,
    private cut: Cut,
    private readonly told: { frame: FrameListener; playing: (playing: boolean) => void },
  ) {
    this.dress()
  }

  get nowMs(): Ms {
    return this.atMs
  }

  /** Whether output time passes. */
  get runs(): boolean {
    return this.wanted && (this.isDrawn || (!this.film.paused && !this.film.seeking))
  }

  /** Output time that passes in a unit of the clock on the wall. */
  get speed(): number {
    return this.pace
  }
  set speed(pace: number) {
    this.pace = pace
    this.dress()
  }

  private get span(): Span | undefined {
    return this.cut.spans[this.at]
  }

  private get isDrawn(): boolean {
    return this.span !== undefined && typeof this.span.source === 'string'
  }

  /** Another cut of the same footage: goes on where the output has got to. */
  change(cut: Cut): void {
    if (cut === this.cut) return
    this.cut = cut
    this.seek(this.atMs)
  }

  toggle(): void {
    if (this.wanted) this.pause()
    else {
      if (this.atMs >= this.cut.outMs) this.seek(0)
      this.want(true)
      this.run()
    }
  }

  pause(): void {
    this.want(false)
    this.film.pause()
  }

  /** @param outMs in output time; beyond the end, the last instant. */
  seek(outMs: Ms): void {
    const toMs = Math.max(0, Math.min(this.cut.outMs - 1, outMs))
    this.enter(spanAt(this.cut, toMs), toMs)
  }

  /** Told of every frame of the film that is on screen. */
  onFrame(filmedMs: Ms, shownAt: number): void {
    const { span } = this
    if (!span || this.isDrawn) return
    if (this.awaitedMs !== null) {
      if (Math.abs(filmedMs - this.awaitedMs) > ARRIVED_MS) return
      this.awaitedMs = null
    }
    const within = (one: Span): boolean =>
      one.source === span.source && filmedMs >= one.fromMs - ARRIVED_MS && filmedMs <= one.toMs + ARRIVED_MS
    if (!within(span)) {
      // The film was moved by something else than this player.
      const found = this.cut.spans.findIndex(within)
      if (found < 0) return
      this.at = found
      this.dress()
    }
    const now = this.span ?? span
    this.show(Math.max(now.outMs, Math.min(now.outMs + now.lengthMs, outMsIn(now, filmedMs))), shownAt)
    if (this.wanted && filmedMs >= now.toMs - LAST_FRAME_MS) this.enter(this.at + 1, null)
  }

  /** The film has come to its own end, or was stopped from outside. */
  onPaused(atEnd: boolean): void {
    if (this.isDrawn || !this.wanted) return
    if (atEnd && this.at + 1 < this.cut.spans.length) this.enter(this.at + 1, null)
    else this.want(false)
  }

  close(): void {
    cancelAnimationFrame(this.ticking)
  }

  private want(wanted: boolean): void {
    this.wanted = wanted
    this.told.playing(wanted)
  }

  /** @param outMs where in the span; null at its beginning, as one flows into the next. */
  private enter(at: number, outMs: Ms | null): void {
    const before = this.span
    const span = this.cut.spans[at]
    if (!span) {
      this.show(this.cut.outMs, performance.now())
      return this.pause()
    }
    this.at = at
    const toMs = outMs ?? span.outMs
    const flows =
      outMs === null && before?.source === span.source && before.toMs === span.fromMs && typeof span.source === 'number'
    this.dress()
    if (!flows && span.source !== 'card') {
      const filmedMs = sourceMsIn(span, toMs)
      this.awaitedMs = span.source === 'still' ? null : filmedMs
      this.film.currentTime = filmedMs / 1000
    }
    this.show(toMs, performance.now())
    this.run()
  }

  private run(): void {
    cancelAnimationFrame(this.ticking)
    if (!this.isDrawn) {
      if (this.wanted && this.film.paused) void this.film.play().catch(() => this.want(false))
      return
    }
    this.film.pause()
    if (!this.wanted) return
    const fromMs = this.atMs,
      since = performance.now()
    const tick = (now: number): void => {
      const { span } = this
      if (!this.wanted || !span || !this.isDrawn) return
      const outMs = fromMs + (now - since) * this.pace
      if (outMs >= span.outMs + span.lengthMs) return this.enter(this.at + 1, null)
      this.show(outMs, now)
      this.ticking = requestAnimationFrame(tick)
    }
    this.ticking = requestAnimationFrame(tick)
  }

  private show(outMs: Ms, shownAt: number): void {
    this.atMs = outMs
    this.told.frame(outMs, shownAt)
  }

  private dress(): void {
    const slowed = typeof this.span?.source === 'number' ? this.span.rate : 1
    // Written only where it changes: each write stops the sound for a moment.
    if (this.film.playbackRate !== this.pace * slowed) this.film.playbackRate = this.pace * slowed
    this.film.style.transform = this.span?.mirrored ? 'scaleX(-1)' : ''
    this.film.style.visibility = this.span?.source === 'card' ? 'hidden' : ''
  }
}
