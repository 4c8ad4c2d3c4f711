// The files of a reel as one film: it behaves like a video element whose time runs through all of them, one after the
// other. Of several video elements the one is seen and heard that the time lies in.
import { filesInRow, type FilesInRow } from '@/core/filesInRow'
import type { Ms } from '@/core/units'

/** A frame of the film: its time in the whole (s), and the page time (ms) at which it is shown. */
export interface ReelFrame {
  mediaTime: number
  expectedDisplayTime: number
}

/** What is needed of a video element. */
export interface FilmElement
  extends
    Pick<HTMLVideoElement, 'currentTime' | 'paused' | 'ended' | 'seeking' | 'playbackRate' | 'pause'>,
    Pick<EventTarget, 'addEventListener' | 'removeEventListener'> {
  play: () => Promise<void>
  requestVideoFrameCallback: (tell: (now: number, frame: VideoFrameCallbackMetadata) => void) => number
  style: { visibility: string }
}

const TOLD = ['play', 'playing', 'pause', 'ended', 'seeking', 'seeked', 'waiting', 'ratechange'] as const

export class ReelFilm extends EventTarget {
  private readonly row: FilesInRow
  private readonly frames = new Set<(frame: ReelFrame) => void>()
  private at = 0
  /** The film goes on in the next file, where the present one has ended. */
  private flows = false

  /**
   * @param elements one for each file.
   * @param fileMs lengths of the files.
   * @param main how many files follow one another by themselves; what lies behind them is only gone to.
   * @param style of what holds the elements.
   */
  constructor(
    readonly elements: readonly FilmElement[],
    fileMs: readonly Ms[],
    private readonly main: number,
    readonly style: { transform: string; visibility: string },
  ) {
    super()
    this.row = filesInRow(fileMs)
    elements.forEach((element, index) => {
      for (const name of TOLD) element.addEventListener(name, () => this.hear(name, index))
      const watch = (): void =>
        void element.requestVideoFrameCallback((_now, frame) => {
          if (index === this.at)
            for (const tell of this.frames)
              tell({ mediaTime: this.beginS + frame.mediaTime, expectedDisplayTime: frame.expectedDisplayTime })
          watch()
        })
      watch()
    })
    this.show(0)
  }

  /** The element that is seen. */
  get picture(): FilmElement | undefined {
    return this.element
  }
  private get element(): FilmElement | undefined {
    return this.elements[this.at]
  }
  private get beginS(): number {
    return (this.row.beginMs[this.at] ?? 0) / 1000
  }

  /** In seconds of the whole. */
  get currentTime(): number {
    return this.beginS + (this.element?.currentTime ?? 0)
  }
  set currentTime(seconds: number) {
    const { footage, footageMs } = this.row.placeOf(seconds * 1000)
    const runs = !this.paused
    if (footage !== this.at) {
      this.element?.pause()
      this.show(footage)
    }
    if (!this.element) return
    this.element.currentTime = footageMs / 1000
    if (runs && this.element.paused) void this.element.play().catch(() => undefined)
  }
  get paused(): boolean {
    return !this.flows && (this.element?.paused ?? true)
  }
  get ended(): boolean {
    return !this.flows && (this.element?.ended ?? false)
  }
  get seeking(): boolean {
    return this.element?.seeking ?? false
  }
  get playbackRate(): number {
    return this.element?.playbackRate ?? 1
  }
  set playbackRate(rate: number) {
    for (const element of this.elements) element.playbackRate = rate
  }
  play(): Promise<void> {
    return this.element?.play() ?? Promise.resolve()
  }
  pause(): void {
    this.flows = false
    this.element?.pause()
  }

  /** @returns what ends it. */
  followFrames(tell: (frame: ReelFrame) => void): () => void {
    this.frames.add(tell)
    return () => void this.frames.delete(tell)
  }

  private hear(name: (typeof TOLD)[number], index: number): void {
    if (index !== this.at) return
    const atEnd = this.element?.ended === true
    // A file that has come to its end is first paused, then ended: neither is the film's, where another follows.
    if (atEnd && (name === 'pause' || name === 'ended') && index + 1 < this.main) {
      if (name === 'pause') this.flows = true
      else this.goOn()
      return
    }
    if (name === 'playing') this.flows = false
    this.dispatchEvent(new Event(name))
  }

  private goOn(): void {
    this.show(this.at + 1)
    if (!this.element) return
    this.element.currentTime = 0
    void this.element.play().catch(() => {
      this.flows = false
      this.dispatchEvent(new Event('pause'))
    })
  }

  private show(at: number): void {
    this.at = at
    this.elements.forEach((element, index) => (element.style.visibility = index === at ? 'inherit' : 'hidden'))
  }
}
