// The whole way, as a new user goes it: from the shelf to a downloaded video, which is then decoded and measured.
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { describe, expect, it } from 'vitest'
import { decodedCues, expectedCountChanges } from './expected'
import { findCue, framesThatChange, probe, samplesOf } from './decode'
import { addSection, FILM, startedJivet, truthOf } from './jivet'

let page: Page
const jivet = startedJivet((opened) => {
  page = opened
})
const truth = truthOf(FILM)
const FRAME_MS = 1000 / 30

const fill = async (label: string, value: string, within = page.locator('main')): Promise<void> => {
  const field = within.getByLabel(label, { exact: true }).first()
  await field.fill(value)
  await field.press('Enter')
}

describe('from the shelf to a downloaded video', () => {
  const out = join(jivet.home, 'out.mp4')

  it('makes a workout and writes its score', async () => {
    await page.goto(jivet.url)
    await page.getByRole('heading', { name: 'Deck Hours 12: jug, gate, tiller' }).waitFor()
    await page.getByRole('button', { name: 'New workout' }).click()
    await page.getByLabel('Name', { exact: true }).fill('Deck Hours 13: by test')
    await page.getByRole('button', { name: 'Make it' }).click()
    await page.waitForURL('**/score')
    await addSection(page, 'Talk')
    await addSection(page, 'Circuit')
    const circuit = page.locator('[data-section=main]')
    await fill('Rounds', '2', circuit)
    await fill('Work', '20', circuit)
    await fill('Rest', '0:10', circuit)
    await fill('Between rounds', '15s', circuit)
    await fill('Lead-in', '5', circuit)
    await circuit.getByLabel('Last rest').selectOption('dropped')
    for (const name of ['Jug lift', 'Lock-gate push', 'Tiller twist']) {
      await circuit.getByRole('button', { name: 'Add move' }).click()
      const field = circuit.getByLabel(/^Move \d+$/).last()
      await field.fill(name)
      await field.press('Tab')
    }
    await addSection(page, 'Talk')
    await page.getByTestId('totals').getByText('4:00').first().waitFor()
    await page.getByRole('status').getByText('Saved', { exact: true }).waitFor()
    expect(await page.getByTestId('totals').innerText()).toMatch(/4:00[\s\S]*2:00[\s\S]*0:55/)
  })

  it('takes the footage, hears its beeps and ties every change', async () => {
    await page.getByRole('link', { name: 'Sync' }).click()
    await page.getByLabel('Choose files').setInputFiles(FILM)
    await page.getByRole('button', { name: 'Find the changes' }).click({ timeout: 60_000 })
    await page.getByTestId('sync-summary').getByText('13 of 13 tied').waitFor()
    expect(await page.locator('[data-origin=reckoned]').count()).toBe(0)
  })

  it('stands the count on the boundaries in Watch', async () => {
    await page.getByRole('link', { name: 'Watch' }).click()
    await page.waitForURL('**/watch')
    const overlay = page.getByTestId('overlay')
    const start = truth.boundaries.find((one) => one.segmentId === 'main/r1/s1/work')!.footageMs
    const showsAt = async (ms: number, count: string): Promise<void> => {
      await page.locator('video').evaluate((video: HTMLVideoElement, seconds) => {
        video.currentTime = seconds
      }, ms / 1000)
      await expect.poll(() => overlay.getAttribute('data-count'), { timeout: 10_000 }).toBe(count)
    }
    await showsAt(start - 500, '1')
    await showsAt(start + 100, '20')
    await showsAt(start + 19_500, '1')
    await showsAt(start + 20_100, '10')
  })

  it('sounds the cues in step with the picture, and again after a seek, a pause and a change of rate', async () => {
    await page.evaluate(() => {
      const heard: { mediaMs: number; stopped: boolean }[] = []
      Object.assign(window, { heard })
      const start = AudioBufferSourceNode.prototype.start,
        stop = AudioBufferSourceNode.prototype.stop
      const entries = new WeakMap<AudioNode, { stopped: boolean }>()
      AudioBufferSourceNode.prototype.start = function (when = 0): void {
        const video = document.querySelector('video')!
        const entry = {
          mediaMs: (video.currentTime + (when - this.context.currentTime) * video.playbackRate) * 1000,
          stopped: false,
        }
        entries.set(this, entry)
        heard.push(entry)
        start.call(this, when)
      }
      AudioBufferSourceNode.prototype.stop = function (when?: number): void {
        const entry = entries.get(this)
        if (entry) entry.stopped = true
        stop.call(this, when)
      }
    })
    const cues = decodedCues(truth).map((cue) => cue.atMs)
    // By the session's own time, however slowly a busy machine plays it.
    const hearFrom = async (fromMs: number, { forMs = 0, waitMs = 0 }): Promise<number[]> => {
      await page.evaluate((seconds) => {
        ;(window as unknown as { heard: unknown[] }).heard.length = 0
        document.querySelector('video')!.currentTime = seconds
      }, fromMs / 1000)
      if (forMs)
        await page.waitForFunction(
          (untilSeconds) => document.querySelector('video')!.currentTime >= untilSeconds,
          (fromMs + forMs) / 1000,
          { timeout: 60_000 },
        )
      await page.waitForTimeout(waitMs)
      return page.evaluate(() =>
        (window as unknown as { heard: { mediaMs: number; stopped: boolean }[] }).heard
          .filter((one) => !one.stopped)
          .map((one) => one.mediaMs),
      )
    }
    /** Within 90 ms for the listener: at double speed that is twice as much of the session. */
    const inStep = (heard: number[], fewest: number, rate = 1): void => {
      expect(heard.length).toBeGreaterThanOrEqual(fewest)
      for (const ms of heard)
        expect(Math.min(...cues.map((cue) => Math.abs(cue - ms))), `a cue at ${ms.toFixed(0)} ms`).toBeLessThan(
          90 * rate,
        )
    }
    /**
     * Where the machine stutters, picture and cues start anew together; then it is listened to again. What is heard has
     * to be in step each time.
     */
    const listen = async (fromMs: number, forMs: number, rate = 1): Promise<void> => {
      let heard: number[] = []
      for (let attempt = 0; attempt < 4 && heard.length < 3; attempt++) {
        heard = await hearFrom(fromMs, { forMs })
        inStep(heard, 0, rate)
      }
      inStep(heard, 3, rate)
    }
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await listen(12_500, 6000)
    await listen(62_500, 6000)
    await page.getByLabel('Speed').selectOption('2')
    await listen(112_000, 10_000, 2)
    await page.getByLabel('Speed').selectOption('1')
    await page.getByRole('button', { name: 'Pause', exact: true }).click()
    expect(await hearFrom(30_000, { waitMs: 1500 })).toEqual([])
  }, 240_000)

  it('renders the video and hands it over', async () => {
    await page.getByRole('link', { name: 'Ship' }).click()
    await page.getByRole('button', { name: 'Render the video' }).click()
    await page.getByRole('progressbar').waitFor()
    const video = page.getByRole('link', { name: /Video \(MP4\)/ })
    await video.waitFor({ timeout: 240_000 })
    await page.getByRole('link', { name: 'Ship done' }).waitFor()
    const [download] = await Promise.all([page.waitForEvent('download'), video.click()])
    expect(download.suggestedFilename()).toBe('deck-hours-13-by-test.mp4')
    await download.saveAs(out)
    const chapters = await page.request.get(
      jivet.url + (await page.getByRole('link', { name: /Chapters/ }).getAttribute('href')),
    )
    expect(await chapters.text()).toMatch(/^0:00 Welcome\n0:16 Main, Round 1 of 2\n/)
    const captions = await page.request.get(
      jivet.url + (await page.getByRole('link', { name: /Captions/ }).getAttribute('href')),
    )
    expect(await captions.text()).toMatch(/^WEBVTT\n[\s\S]*Jug lift, left \(20 seconds\)/)
  }, 300_000)

  it('is as large, as fast and as long as the footage, in picture and sound', () => {
    const filmed = probe(FILM),
      rendered = probe(out)
    expect(rendered.video).toMatchObject({
      codec: 'h264',
      width: 1280,
      height: 720,
      rate: '30/1',
      frames: filmed.video.frames,
    })
    expect(rendered.audio.codec).toBe('aac')
    expect(rendered.faststart).toBe(true)
    expect(Math.abs(rendered.video.durationMs - filmed.video.durationMs)).toBeLessThanOrEqual(FRAME_MS)
    expect(Math.abs(rendered.audio.durationMs - filmed.video.durationMs)).toBeLessThanOrEqual(FRAME_MS)
  })

  it('changes its digits at the true boundaries and at every second before them, within one frame, and nowhere else', async () => {
    const changed = await framesThatChange(out, { x: 30, y: 572, width: 140, height: 140 }, 4)
    const expected = expectedCountChanges(truth)
    for (const ms of expected) {
      const frame = Math.ceil((ms / 1000) * 30 - 1e-6)
      expect(
        changed.some((one) => Math.abs(one - frame) <= 1),
        `a change at ${ms.toFixed(0)} ms, frame ${frame}`,
      ).toBe(true)
    }
    expect(changed.length).toBe(expected.length)
  }, 120_000)

  it('sounds every pip and tone within 10 ms of its instant', () => {
    const samples = samplesOf(out)
    const cues = decodedCues(truth)
    expect(cues.length).toBeGreaterThan(40)
    for (const { voice, atMs } of cues) {
      const { offMs, match } = findCue(samples, voice, atMs)
      expect(Math.abs(offMs), `${voice} at ${atMs.toFixed(0)} ms is off by ${offMs.toFixed(1)}`).toBeLessThanOrEqual(10)
      // The coach's own timer beeps and her voice sound at the same time.
      expect(match).toBeGreaterThan(0.3)
    }
  }, 120_000)
})

describe('a video that is there', () => {
  const view = (name: string) => page.getByRole('banner').getByRole('link', { name })

  it('says which revision it shows, and what has changed since', async () => {
    await page.getByText(/^It shows revision \d+ of the score\.$/).waitFor()
    await page.getByRole('heading', { name: 'Your video', exact: true }).waitFor()
    await view('Score').click()
    await page.getByRole('status').getByText('Saved', { exact: true }).waitFor()
    await fill('Rounds', '3')
    await page.getByTestId('totals').getByText('5:35').first().waitFor()
    await page.getByRole('status').getByText('Saved', { exact: true }).waitFor()
    await view('Ship').click()
    await page.getByRole('heading', { name: 'Your video, from before the last changes' }).waitFor()
    await page.getByText(/The score has changed since; it is at revision \d+ now\./).waitFor()
    expect(await page.getByText('Ties were changed since.').count()).toBe(0)
  })

  it('has the mix that was set in Watch, which is kept', async () => {
    await view('Watch').click()
    await page.getByRole('slider', { name: 'Footage' }).focus()
    await page.keyboard.press('Home')
    const saved = page.waitForResponse((response) => response.url().endsWith('/mix') && response.ok())
    await page.getByRole('button', { name: 'Leave the cues out' }).click()
    await saved
    await page.reload()
    await page.getByRole('button', { name: 'Sound the cues' }).waitFor()
    expect(await page.getByRole('slider', { name: 'Footage' }).getAttribute('aria-valuenow')).toBe('0')
  })

  it('is tied to its footage: put aside, the ties go with it, and come back with it', async () => {
    await view('Sync').click()
    const tied = await page
      .getByTestId('sync-summary')
      .getByText(/13 of \d+ tied/)
      .innerText()
    await page.getByRole('button', { name: 'Footage', exact: true }).click()
    await page.getByRole('button', { name: 'Put aside' }).click()
    await page.getByRole('heading', { name: 'Add footage' }).waitFor()
    await view('Ship').click()
    await page.getByText('Add the session in Sync').waitFor()
    // Without footage the plan itself can be rendered, and that is said.
    await page.getByRole('button', { name: 'Render the companion video' }).waitFor()
    await page.getByText('There is no footage, so the plan itself is drawn').waitFor()
    expect(await page.getByRole('button', { name: 'Render again' }).count()).toBe(0)

    await view('Sync').click()
    await page.getByRole('button', { name: 'Footage, 1 put aside' }).click()
    await page.getByText('13 ties with it').waitFor()
    await page.getByRole('button', { name: 'Take back' }).click()
    await page.getByTestId('sync-summary').getByText(tied).waitFor()
  })

  it('keeps a tie by hand over what was heard, and refuses one that would change places with it', async () => {
    const stitchAt = async (seconds: number): Promise<void> => {
      await page.locator('video').evaluate((video: HTMLVideoElement, at) => {
        video.currentTime = at
      }, seconds)
      await page.getByRole('button', { name: 'Tie here' }).click()
    }
    await stitchAt(190)
    await page.getByText(/ties that were heard and cannot hold beside this one were taken away/).waitFor()
    await stitchAt(20)
    await page
      .getByText(/cannot be tied at 0:20\.000: .* is tied at 3:10\.000, and the two would change places/)
      .waitFor()
    await page.locator('main').getByRole('button', { name: 'Undo' }).click()
    await page
      .getByTestId('sync-summary')
      .getByText(/13 of \d+ tied/)
      .waitFor()
  })
})
