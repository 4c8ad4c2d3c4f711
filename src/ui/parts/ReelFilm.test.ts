// The film of a reel, played from elements that behave like videos of browsers: paused first, then ended, at their end.
import { beforeEach, describe, expect, it } from 'vitest'
import { ReelFilm, type FilmElement } from './ReelFilm'

class FakeVideo extends EventTarget implements FilmElement {
  private at = 0
  paused = true
  ended = false
  seeking = false
  playbackRate = 1
  style = { visibility: '' }
  refuses = false
  private tell: ((now: number, frame: VideoFrameCallbackMetadata) => void) | null = null

  constructor(private readonly lengthS: number) {
    super()
  }
  get currentTime(): number {
    return this.at
  }
  set currentTime(seconds: number) {
    this.at = seconds
    this.ended = false
    this.say('seeking')
    this.say('seeked')
  }
  play = (): Promise<void> => {
    if (this.refuses) return Promise.reject(new Error('not allowed'))
    this.paused = false
    this.say('play')
    this.say('playing')
    return Promise.resolve()
  }
  pause = (): void => {
    if (this.paused) return
    this.paused = true
    this.say('pause')
  }
  requestVideoFrameCallback = (tell: NonNullable<typeof this.tell>): number => {
    this.tell = tell
    return 1
  }
  /** Plays on by so much, to its end at most. */
  run(seconds: number): void {
    if (this.paused) return
    this.at = Math.min(this.lengthS, this.at + seconds)
    const { tell } = this
    tell?.(0, { mediaTime: this.at, expectedDisplayTime: 0 } as VideoFrameCallbackMetadata)
    if (this.at < this.lengthS) return
    this.paused = true
    this.ended = true
    this.say('pause')
    this.say('ended')
  }
  private say(name: string): void {
    this.dispatchEvent(new Event(name))
  }
}

let videos: FakeVideo[], film: ReelFilm, heard: string[], times: number[]
beforeEach(() => {
  videos = [new FakeVideo(10), new FakeVideo(20), new FakeVideo(5)]
  // Two files follow one another; the third is a second camera.
  film = new ReelFilm(videos, [10_000, 20_000, 5000], 2, { transform: '', visibility: '' })
  heard = []
  times = []
  for (const name of ['play', 'pause', 'ended', 'seeked']) film.addEventListener(name, () => heard.push(name))
  film.followFrames(({ mediaTime }) => times.push(mediaTime))
})
const seen = (): boolean[] => videos.map(({ style }) => style.visibility !== 'hidden')

describe('a film of several files', () => {
  it('runs from one into the next without a stop, and stops at the end of the last', async () => {
    await film.play()
    videos[0]?.run(9)
    videos[0]?.run(1)
    expect([film.paused, film.ended, seen()]).toEqual([false, false, [false, true, false]])
    videos[1]?.run(0.5)
    videos[1]?.run(30)
    expect(times).toEqual([9, 10, 10.5, 30])
    expect([film.paused, film.ended]).toEqual([true, true])
    expect(heard.filter((name) => name === 'pause' || name === 'ended')).toEqual(['pause', 'ended'])
  })
  it('goes to any instant of any of them, also behind those that follow one another', () => {
    film.currentTime = 12.5
    expect([videos[1]?.currentTime, film.currentTime, seen()]).toEqual([2.5, 12.5, [false, true, false]])
    film.currentTime = 31
    expect([videos[2]?.currentTime, film.currentTime, seen()]).toEqual([1, 31, [false, false, true]])
    expect(heard).toEqual(['seeked', 'seeked'])
  })
  it('plays on where it is sent while it plays, and the file that it left is silent', async () => {
    await film.play()
    film.currentTime = 15
    expect(videos.map(({ paused }) => paused)).toEqual([true, false, true])
    film.pause()
    film.currentTime = 1
    expect(videos.map(({ paused }) => paused)).toEqual([true, true, true])
  })
  it('tells of no frame of a file that is not seen', () => {
    void videos[1]?.play()
    videos[1]?.run(1)
    expect(times).toEqual([])
  })
  it('says that it stopped where the next file may not play', async () => {
    await film.play()
    if (videos[1]) videos[1].refuses = true
    videos[0]?.run(10)
    await Promise.resolve()
    await Promise.resolve()
    expect([film.paused, heard.at(-1)]).toEqual([true, 'pause'])
  })
  it('has one speed', () => {
    film.playbackRate = 2
    expect(videos.map(({ playbackRate }) => playbackRate)).toEqual([2, 2, 2])
  })
})
