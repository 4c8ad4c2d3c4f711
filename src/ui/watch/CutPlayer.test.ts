// A cut played from a film that behaves like a video element, on a clock of the test's own.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { SpanList } from '@/core/cut/spans'
import { CutPlayer, type Film } from './CutPlayer'

class FakeFilm implements Film {
  currentTime = 0
  paused = true
  seeking = false
  playbackRate = 1
  style = { transform: '', visibility: '' }
  play = (): Promise<void> => {
    this.paused = false
    return Promise.resolve()
  }
  pause = (): void => {
    this.paused = true
  }
}

const list = new SpanList()
list.show({ fromMs: 0, toMs: 1000, segmentId: 'one', why: 'filmed' })
list.show({ fromMs: 1000, toMs: 2000, segmentId: 'two', why: 'filmed' })
list.show({ fromMs: 5000, toMs: 6000, segmentId: 'three', why: 'reused', mirrored: true })
list.card(1000, 'four')
list.hold(701, 500, { segmentId: 'four' })
list.show({ fromMs: 2000, toMs: 2500, segmentId: 'five', why: 'filmed' })
const cut = list.cut
const FRAME_MS = 40

let film: FakeFilm, player: CutPlayer, frames: number[], playing: boolean[]

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] })
  vi.stubGlobal('requestAnimationFrame', (tell: FrameRequestCallback) => setTimeout(() => tell(performance.now()), 16))
  vi.stubGlobal('cancelAnimationFrame', clearTimeout)
  film = new FakeFilm()
  frames = []
  playing = []
  player = new CutPlayer(film, cut, { frame: (ms) => frames.push(ms), playing: (is) => playing.push(is) })
})
afterEach(() => {
  player.close()
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

/** Lets time pass as a browser does: the film shows frames while it runs. */
function pass(ms: number): void {
  for (let left = ms; left > 0; left -= FRAME_MS) {
    if (!film.paused) {
      film.currentTime += (FRAME_MS * film.playbackRate) / 1000
      player.onFrame(film.currentTime * 1000, performance.now())
    }
    vi.advanceTimersByTime(FRAME_MS)
  }
}

describe('a cut that is played', () => {
  it('slows the film where a stretch is slowed, at any speed, and output time goes on as ever', () => {
    const slowed = new SpanList()
    slowed.show({ fromMs: 0, toMs: 1000, segmentId: 'one', why: 'filmed' })
    slowed.show({ fromMs: 1000, toMs: 2000, lengthMs: 2000, segmentId: 'one', why: 'slowed' })
    slowed.show({ fromMs: 2000, toMs: 3000, segmentId: 'one', why: 'filmed' })
    player.change(slowed.cut)
    player.speed = 2
    player.toggle()
    const rates: [outMs: number, rate: number][] = []
    for (let left = 50; left > 0; left--) {
      pass(FRAME_MS)
      rates.push([player.nowMs, film.playbackRate])
    }
    const within = (fromMs: number, toMs: number) =>
      new Set(rates.filter(([ms]) => ms > fromMs + 100 && ms < toMs - 100).map(([, rate]) => rate))
    expect([within(0, 1000), within(1000, 3000), within(3000, 4000)]).toEqual([
      new Set([2]),
      new Set([1]),
      new Set([2]),
    ])
    expect(rates.findIndex(([ms]) => ms >= 3900) * FRAME_MS).toBeCloseTo(1950, -2)
    expect(player.nowMs).toBe(slowed.cut.outMs)
  })

  it('shows the whole output once, in order, over leaps, mirrors, cards and held pictures', () => {
    player.toggle()
    pass(cut.outMs + 1500)
    expect(playing).toEqual([true, false])
    expect(frames.every((ms, at) => at === 0 || ms >= frames[at - 1]!)).toBe(true)
    expect(Math.max(...frames.map((ms, at) => ms - (frames[at - 1] ?? 0)))).toBeLessThanOrEqual(FRAME_MS + 20)
    expect(player.nowMs).toBe(cut.outMs)
  })
  it('mirrors, hides and holds the film where the cut does', () => {
    player.seek(2500)
    expect([film.currentTime, film.style.transform]).toEqual([5.5, 'scaleX(-1)'])
    player.seek(3500)
    expect(film.style).toEqual({ transform: '', visibility: 'hidden' })
    player.seek(4200)
    expect([film.currentTime, film.style.visibility]).toEqual([0.7, ''])
  })
  it('runs through a card though the film stands still, and stops in it', () => {
    player.seek(3100)
    player.toggle()
    expect([player.runs, film.paused]).toEqual([true, true])
    pass(400)
    player.toggle()
    const stoppedMs = player.nowMs
    expect(stoppedMs).toBeGreaterThan(3300)
    pass(400)
    expect([player.nowMs, player.runs]).toEqual([stoppedMs, false])
  })
  it('does not leap where one interval flows into the next', () => {
    const set = vi.spyOn(film, 'currentTime', 'set').mockImplementation(() => undefined)
    player.toggle()
    player.onFrame(990, 0)
    player.onFrame(1010, 0)
    expect(set).not.toHaveBeenCalled()
    expect(player.nowMs).toBe(1010)
  })
  it('takes no frame from before a leap for one after it', () => {
    player.toggle()
    player.seek(2000)
    player.onFrame(1500, 0)
    expect(player.nowMs).toBe(2000)
    player.onFrame(5040, 0)
    expect(player.nowMs).toBe(2040)
  })
  it('follows a film that somebody else has moved, and stops where the film is stopped', () => {
    player.onFrame(5500, 0)
    expect(player.nowMs).toBe(2500)
    player.toggle()
    film.pause()
    player.onPaused(false)
    expect(playing).toEqual([true, false])
  })
  it('goes on where it was in another cut, and no further than its end', () => {
    player.seek(4600)
    const shorter = new SpanList()
    shorter.show({ fromMs: 0, toMs: 3000, segmentId: 'one', why: 'filmed' })
    player.change(shorter.cut)
    expect([player.nowMs, film.currentTime]).toEqual([2999, 2.999])
  })
})
