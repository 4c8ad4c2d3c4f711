// The floor as a coach has it: a session with things left out, done again and held open, a crash in its middle, taken
// up, and the film of it tied by the record alone. And its sound, over ten minutes, on a page that is kept busy.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { QUICK_AAC, QUICK_PICTURE } from '../../demo/quickFilm'
import { cuesFor } from '../../src/core/cue/cues'
import { expand } from '../../src/core/expand/expand'
import { aheadOf } from '../../src/core/floor/ahead'
import { performanceOf, readFloorLog, type FloorLog } from '../../src/core/floor/log'
import { runOf } from '../../src/core/floor/run'
import { chirpSound } from '../../src/core/sound/chirp'
import { soundOf } from '../../src/core/sound/families'
import { writeWav } from '../../src/core/write/wav'
import { Desk } from './desk'
import { startedJivet } from './jivet'

const folder = mkdtempSync(join(tmpdir(), 'jivet-floor-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

let page: Page
const jivet = startedJivet((opened) => {
  page = opened
})
const desk = (): Desk => new Desk(jivet.url, page)

const stage = () => page.getByTestId('stage')
const shows = (name: 'label' | 'ground' | 'phase', value: string): Promise<void> =>
  expect.poll(() => stage().getAttribute(`data-${name}`), { timeout: 30_000, interval: 40 }).toBe(value)

async function begin(id: string, purpose: 'Film it' | 'Rehearse'): Promise<void> {
  await page.goto(`${jivet.url}/w/${id}/floor`)
  await page.getByRole('radio', { name: purpose }).click()
  await page.getByLabel('Time to get to the mat').selectOption('5')
  const read = page.getByRole('checkbox', { name: 'I have read it' })
  if (!(await read.isChecked())) await read.check()
  await page.getByRole('button', { name: purpose === 'Rehearse' ? 'Rehearse' : 'Begin', exact: true }).click()
}

describe('a session on the floor', () => {
  let id = '',
    breakOpenAt = 0,
    log: FloorLog

  it('counts in, and is told by keys what happens', async () => {
    id = await desk().open(
      'On the floor',
      'circuit Main: 2 rounds, 5 on, 3 off, 6 between, lead 3, last rest dropped\n  Jug lift (sides none)\n  Keel hold\n',
    )
    await begin(id, 'Film it')
    await shows('phase', 'countingIn')
    await shows('label', 'Jug lift')
    await shows('ground', 'work')
    // Done again, in the rest after it.
    await shows('label', 'Rest')
    await page.keyboard.press('ArrowUp')
    await shows('phase', 'countingIn')
    await shows('label', 'Rest')
    // The keel hold of round one is left out.
    await shows('label', 'Keel hold')
    await page.keyboard.press('PageDown')
    await shows('label', 'Break')
    await page.keyboard.press('ArrowDown')
    breakOpenAt = Date.now()
    await page.getByRole('button', { name: 'Go', exact: true }).first().waitFor()
  }, 90_000)

  it('is lost with its server, and goes on where it really is', async () => {
    await page.waitForTimeout(1200)
    await jivet.kill()
    // Told while nobody listens: kept by the browser.
    await page.keyboard.press('a')
    await page.getByText(/The server is away.*1 line waits/).waitFor()
    const context = page.context()
    await page.close()
    await jivet.start()
    page = await jivet.page(context)
    await page.goto(`${jivet.url}/w/${id}/floor`)
    await page.getByRole('heading', { name: 'A session is under way' }).waitFor()
    await page.getByText(/This page was away for/).waitFor()
    await page.getByRole('button', { name: 'Take it up' }).click()
    await shows('label', 'Break')
    // However fast the server came back, the break has run over by what is worth a word.
    await page.waitForTimeout(Math.max(0, breakOpenAt + 10_000 - Date.now()))
    await page.keyboard.press('Space')
    await shows('label', 'Jug lift')
    await shows('label', 'Keel hold')
    await shows('phase', 'ended')
    await page.getByRole('button', { name: 'See what happened' }).click()
    await page.getByText(/Break ran/).waitFor()
    await page.getByRole('row', { name: /Keel hold Round 1 of 2.*left early, to do again/ }).waitFor()
    await page.getByRole('row', { name: /Jug lift Round 1 of 2, take 2/ }).waitFor()
  }, 150_000)

  it('has its film tied by the record alone, each change to the frame', async () => {
    const link = page.getByRole('link', { name: 'Its record (JSON)' })
    log = readFloorLog(await (await page.request.get(jivet.url + (await link.getAttribute('href')))).text())
    const { segments, takes, stands } = performanceOf(log, log.events.at(-1)?.atMs)
    const beginMs = 4321
    const filmMs = Math.ceil(((takes.at(-1)?.toMs ?? 0) + beginMs + 3000) / 1000) * 1000
    // What the microphone had of it: of the eleven chirps three, and all else noise.
    const rate = 48_000
    const sound = Float32Array.from({ length: (filmMs / 1000) * rate }, (_, at) => 0.01 * Math.sin(at * at))
    const heard = takes.filter((_, at) => at % 4 === 1)
    for (const { segmentId, fromMs } of heard) {
      const code = segments.findIndex((segment) => segment.id === segmentId) + 1
      chirpSound(code, 'plain', rate).forEach((sample, at) => {
        const place = Math.round(((fromMs + beginMs) * rate) / 1000) + at
        sound[place] = (sound[place] ?? 0) + 0.4 * sample
      })
    }
    const film = join(folder, 'floor.mp4')
    writeFileSync(join(folder, 'floor.wav'), writeWav([sound], rate))
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `color=c=teal:s=320x180:r=30:d=${filmMs / 1000}`],
      ...['-i', join(folder, 'floor.wav'), ...QUICK_PICTURE, ...QUICK_AAC, film],
    ])
    await page.getByRole('link', { name: 'Use it in Sync' }).click()
    await page.locator('input[type=file]').first().setInputFiles(film)
    const saved = page.waitForResponse(
      (answer) => answer.url().endsWith('/stitches') && answer.request().method() === 'PUT',
    )
    await page.getByRole('button', { name: 'Find the changes' }).click({ timeout: 120_000 })
    await page.getByText('The record of the floor was laid on the footage.').waitFor()
    await saved
    const { stitches } = (await (await page.request.get(`${jivet.url}/api/workouts/${id}/stitches`)).json()) as {
      stitches: { segmentId: string; edge: string; footageMs: number; confidence: number }[]
    }
    const starts = stitches.filter(({ edge }) => edge === 'start')
    expect(starts.map(({ segmentId }) => segmentId)).toEqual(stands.map(({ segmentId }) => segmentId))
    const off = starts.map(({ footageMs }, at) => Math.abs(footageMs - (stands[at]?.fromMs ?? 0) - beginMs))
    expect(Math.max(...off)).toBeLessThan(1000 / 30)
    expect(Math.min(...starts.map(({ confidence }) => confidence))).toBeGreaterThanOrEqual(0.9)
  }, 180_000)
})

describe('the sound of the floor', () => {
  const SPEED = 20
  const TEN_MINUTES =
    'circuit Main: 7 rounds, 40 on, 20 off, 25 between, lead 5, last rest dropped\n  Jug lift (sides none)\n'

  beforeAll(async () => {
    await page.context().addInitScript(() => {
      const played: { beginsS: number; longS: number; atS: number; stopped: boolean }[] = []
      Object.assign(window, { played })
      const { start, stop } = AudioBufferSourceNode.prototype
      const lines = new WeakMap<AudioBufferSourceNode, (typeof played)[number]>()
      AudioBufferSourceNode.prototype.start = function (when = 0, ...more) {
        const line = { beginsS: when, longS: this.buffer?.duration ?? 0, atS: this.context.currentTime, stopped: false }
        played.push(line)
        lines.set(this, line)
        start.call(this, when, ...more)
      }
      AudioBufferSourceNode.prototype.stop = function (when?: number) {
        const line = lines.get(this)
        if (line) line.stopped = true
        stop.call(this, when)
      }
    })
  })

  it('keeps time over ten simulated minutes, and misses nothing while the page is busy', async () => {
    const id = await desk().open('Ten minutes', TEN_MINUTES)
    await page.goto(`${jivet.url}/w/${id}/floor`)
    const opened = await page.request.post(`${jivet.url}/api/workouts/${id}/sessions`, {
      data: { rehearsal: true, speed: SPEED, chirps: null },
    })
    const { id: session } = (await opened.json()) as { id: string }
    const start = { kind: 'start', key: crypto.randomUUID(), atMs: 30_000, countInMs: 60_000 }
    await page.request.post(`${jivet.url}/api/sessions/${session}/events`, {
      data: { events: [start], seenMs: 0, after: 0 },
    })
    await page.reload()
    await page.getByRole('button', { name: 'Take it up' }).click()
    // Seven times a second it has no time for anything for a tenth, and twice for two seconds.
    await page.evaluate(() => {
      const busy = (forMs: number): void => {
        const until = performance.now() + forMs
        while (performance.now() < until);
      }
      setInterval(() => busy(100), 140)
      setTimeout(() => busy(2000), 6000)
      setTimeout(() => busy(2000), 15_000)
    })
    await shows('phase', 'ended')
    const played = await page.evaluate(
      () =>
        (window as unknown as { played: { beginsS: number; longS: number; atS: number; stopped: boolean }[] }).played,
    )
    const { segments } = expand((await desk().scoreOf(id)) as never)
    const { state } = runOf(segments, [{ ...start, kind: 'start' }], 30_000)
    const rate = 48_000
    for (const voice of ['go', 'rest'] as const) {
      const longS = soundOf('bell', voice, rate).length / rate
      const heard = played.filter((one) => !one.stopped && Math.abs(one.longS - longS) < 0.002)
      const wanted = cuesFor(aheadOf(segments, state)).filter((cue) => cue.sound === voice)
      expect(heard.length, `${voice} tones`).toBe(wanted.length)
      const beginS = (heard[0]?.beginsS ?? 0) - (wanted[0]?.atMs ?? 0) / 1000 / SPEED
      const driftMs = wanted.map(({ atMs }, at) => ((heard[at]?.beginsS ?? 0) - beginS - atMs / 1000 / SPEED) * 1000)
      expect(Math.max(...driftMs.map(Math.abs)), `${voice} tones, drift in ms`).toBeLessThan(20)
      // None was laid after its time.
      expect(heard.every(({ beginsS, atS }) => beginsS > atS)).toBe(true)
    }
  }, 150_000)
})
