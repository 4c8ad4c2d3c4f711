// A session of which only the first round was filmed: cut to the score and filled in Watch, rendered, and decoded.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { findCue, framesThatChange, probe, samplesOf } from './decode'
import { sharedDesk, type Desk } from './desk'
import { filmRoundOne, tieRoundOne } from './roundOne'

const folder = mkdtempSync(join(tmpdir(), 'jivet-cut-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const film = join(folder, 'round-one.mp4'),
  out = join(folder, 'out.mp4')

let desk: Desk, page: Page
sharedDesk((opened) => {
  desk = opened
  page = opened.page
})

beforeAll(() => filmRoundOne(film))

const choose = async (fit: string): Promise<void> => {
  const cut = page.waitForResponse((response) => response.url().endsWith('/cut') && response.ok())
  await page.getByRole('radio', { name: fit }).click()
  await cut
}

it('shows what each fit would come to before one is chosen', async () => {
  await tieRoundOne(desk, 'One round filmed', film)
  await page.getByRole('link', { name: 'Watch' }).click()
  await page.getByRole('button', { name: 'Cut: As filmed' }).click()
  const lengths = await page.getByRole('radio').allInnerTexts()
  expect(lengths.map((text) => /\d:\d\d$/.exec(text.trim())?.[0])).toEqual(['1:44', '1:51', '3:11'])
  expect(lengths[2]).toMatch(/47 % shown again|4\d % shown again/)
})

it('fills the second round, marks it, and takes one step back alone', async () => {
  await choose('Filled')
  await page.getByText(/Jug lift, right, Round 2 of 2/).waitFor()
  const rows = page.getByRole('listitem').filter({ hasText: 'shown from where it was' })
  await expect.poll(() => rows.count()).toBe(5)
  const cut = page.waitForResponse((response) => response.url().endsWith('/cut') && response.ok())
  await rows.last().getByRole('button', { name: 'Take back' }).click()
  await cut
  await page
    .getByRole('radio', { name: /^Filled/ })
    .getByText('2:51')
    .waitFor()
  await page.getByRole('button', { name: 'Do it again' }).click()
  await page
    .getByRole('radio', { name: /^Filled/ })
    .getByText('3:11')
    .waitFor()
  await page.getByRole('button', { name: /^Go to Jug lift, right/ }).click()
  await page.getByText('Shown again: this was filmed for another interval.').waitFor()
  expect(
    await page
      .locator('video')
      .evaluate((video: HTMLVideoElement) => [video.parentElement?.style.transform, Math.round(video.currentTime)]),
  ).toEqual(['scaleX(-1)', 16])
  // It plays on from there, over a leap in the film, and the count goes with the output.
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect.poll(() => page.getByTestId('overlay').getAttribute('data-count'), { timeout: 20_000 }).toBe('17')
  await page.getByRole('button', { name: 'Pause', exact: true }).click()
}, 60_000)

it('renders what was chosen: right to the frame, each count and cue where the plan has it', async () => {
  await page.getByRole('link', { name: 'Ship' }).click()
  await page.getByRole('button', { name: 'Render the video' }).click()
  const video = page.getByRole('link', { name: /Video \(MP4\)/ })
  await video.waitFor({ timeout: 240_000 })
  writeFileSync(out, await (await page.request.get(desk.url + (await video.getAttribute('href')))).body())
  const { frames } = probe(out).video
  // Talk as filmed, 11.302 s; lead-in and two rounds as planned.
  const roundTwoMs = 11_302 + 5000 + 80_000 + 15_000
  const endMs = roundTwoMs + 80_000
  expect(Math.abs(frames - (endMs * 30) / 1000)).toBeLessThanOrEqual(1)
  const changed = await framesThatChange(out, { x: 14, y: 284, width: 70, height: 70 }, 3)
  const samples = samplesOf(out)
  for (const [atMs, voice] of [
    [roundTwoMs, 'go'],
    [roundTwoMs + 20_000, 'rest'],
    [roundTwoMs + 30_000, 'go'],
    [roundTwoMs + 60_000, 'go'],
    [endMs - 3000, 'pip'],
  ] as const) {
    expect(
      changed.some((frame) => Math.abs(frame - (atMs * 30) / 1000) <= 1.5),
      `a count at ${atMs}`,
    ).toBe(true)
    const { offMs, match } = findCue(samples, voice, atMs)
    expect([Math.abs(offMs) <= 10, match > 0.3], `${voice} at ${atMs}: ${offMs} ms, ${match}`).toEqual([true, true])
  }
}, 300_000)

it('says that the video is older than the cut', async () => {
  await page.getByText(/^It shows revision \d+ of the score\.$/).waitFor()
  await page.getByRole('link', { name: 'Watch' }).click()
  await page.getByRole('button', { name: 'Cut: Filled' }).click()
  await choose('As filmed')
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: 'Ship' }).click()
  await page.getByText(/The cut was changed since\./).waitFor()
})

it('cuts talk and dead stretches out by a key, and has them back', async () => {
  await page.getByRole('link', { name: 'Watch' }).click()
  await page.getByRole('button', { name: 'Cut: As filmed' }).waitFor()
  const seconds = async (): Promise<number> => {
    const [, minutes = '', rest = ''] = /\/ (\d+):(\d\d)/.exec(await page.locator('main').innerText()) ?? []
    return Number(minutes) * 60 + Number(rest)
  }
  const whole = await seconds()
  await page.keyboard.press('x')
  await page.getByText(/: cut out\.$/).waitFor()
  await expect.poll(seconds, { timeout: 5000 }).toBe(whole - 11)
  await page.getByRole('button', { name: 'Cut: As filmed' }).click()
  await page.getByRole('heading', { name: 'Marked by you' }).waitFor()
  await page.getByRole('button', { name: 'Take back' }).first().click()
  await page.keyboard.press('Escape')
  await expect.poll(seconds, { timeout: 5000 }).toBe(whole)
  await page.keyboard.press('d')
  await page.getByText(/^Dead from/).waitFor()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('d')
  await page.getByText(/is cut out\.$/).waitFor()
  await expect.poll(seconds, { timeout: 5000 }).toBe(whole - 4)
})

it('takes a cut that another program made, and says what is wrong with one that it cannot', async () => {
  const event = (number: number, ...codes: string[]): string =>
    `00${number}  AX       V     C        ${codes.join(' ')}\n`
  const list = [
    event(1, '00:00:10:00', '00:00:40:00', '01:00:00:00', '01:00:30:00'),
    event(2, '00:00:50:00', '00:01:10:00', '01:00:30:00', '01:00:50:00'),
  ].join('')
  const bring = (name: string, text: string): Promise<void> =>
    page.getByLabel('Bring an edit list').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
  await page.getByRole('button', { name: 'Cut: As filmed' }).click()
  await bring('wrong.edl', list.replace('V     C  ', 'V     D  '))
  await page.getByRole('alert').getByText('wrong.edl, line 1: Found "D"').waitFor()
  const cut = page.waitForResponse((response) => response.url().endsWith('/cut') && response.ok())
  await bring('cut.edl', list)
  await cut
  await page
    .getByRole('radio', { name: /^As cut elsewhere/, checked: true })
    .getByText(/0:\d\d$/)
    .waitFor()
  expect(await page.getByRole('alert').count()).toBe(0)
  await page.keyboard.press('Escape')
  // Fifty seconds, less the four that were marked as dead within them.
  await expect.poll(() => page.locator('main').innerText(), { timeout: 5000 }).toMatch(/\/ 0:(50|4\d)/)
})
