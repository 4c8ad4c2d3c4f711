// Sync by hand and the score by keyboard: what is done without a timer and without a mouse.
import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { describe, expect, it } from 'vitest'
import { restingBox } from './desk'
import { FILM, seekVideo, startedJivet, truthOf } from './jivet'

let page: Page
const jivet = startedJivet(async (opened) => {
  page = opened
  await page.goto(jivet.url)
  await page.getByRole('link', { name: /Deck Hours 12/ }).click()
})
const truth = truthOf(FILM)
const trueMs = (id: string): number => truth.boundaries.find((one) => one.segmentId === id)!.footageMs

const rows = () => page.locator('[data-origin]')
/** Footage time of a row of the list, in milliseconds. */
async function timeOf(row: number): Promise<number> {
  const text = await rows().nth(row).locator('span').first().innerText()
  const [minutes, seconds] = text.split(':')
  return Math.round((Number(minutes) * 60 + Number(seconds)) * 1000)
}
const seek = (ms: number): Promise<void> => seekVideo(page, ms)

describe('stitching by hand', () => {
  it('ties two changes, and the rest follow by offset and rate', async () => {
    await page.getByRole('link', { name: 'Sync' }).click()
    await page.getByRole('button', { name: 'Tie here' }).waitFor({ timeout: 90_000 })
    await rows().nth(1).getByRole('button').first().click()
    await seek(trueMs('main/r1/s1/work'))
    await page.locator('body').press('Enter')
    await rows().nth(5).getByRole('button').first().click()
    await seek(trueMs('main/r1/s3/work'))
    await page.locator('body').press('Enter')
    await page.getByTestId('sync-summary').getByText('2 of 13 tied').waitFor()
    for (const [row, id] of [
      [2, 'main/r1/s1/rest'],
      [3, 'main/r1/s2/work'],
      [4, 'main/r1/s2/rest'],
      [6, 'main/r1/break'],
    ] as const) {
      expect(Math.abs((await timeOf(row)) - trueMs(id))).toBeLessThan(10)
    }
  })
  it('nudges by 10 ms and by a frame, undoes, and keeps it all over a reload', async () => {
    await rows().nth(1).getByRole('button').first().click()
    const before = await timeOf(1)
    await page.getByRole('button', { name: 'Later by 10 ms' }).click()
    expect(await timeOf(1)).toBe(before + 10)
    await page.locator('main').press('ArrowRight')
    await expect.poll(() => timeOf(1)).toBe(before + 43)
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Control+z')
    expect(await timeOf(1)).toBe(before)
    await page.waitForTimeout(800)
    await page.reload()
    await page.getByTestId('sync-summary').getByText('2 of 13 tied').waitFor()
    expect(await timeOf(1)).toBe(before)
    expect(await page.locator('[data-origin=hand]').count()).toBe(2)
  })
  it('keeps what was tied by hand when the beeps are found', async () => {
    const before = await timeOf(1)
    await page.getByRole('button', { name: 'Find the changes' }).click()
    await page.getByTestId('sync-summary').getByText('13 of 13 tied').waitFor()
    expect(await timeOf(1)).toBe(before)
    expect(await page.locator('[data-origin=hand]').count()).toBe(2)
  })
})

describe('what is to do', () => {
  const chosen = () => page.locator('[data-change][aria-current=true]')
  const todo = () => page.getByRole('radio', { name: /^To do/ })
  const left = async (): Promise<number> => Number(/\d+/.exec(await todo().innerText())?.[0])

  it('is worked through by keyboard, most harmful first, until every count is right', async () => {
    for (const which of ['All that were heard', 'Those made by hand']) {
      await page.getByRole('button', { name: 'Forget ties' }).click()
      await page.getByRole('menuitem', { name: which }).click()
    }
    await page.getByTestId('sync-summary').getByText('0 of 13 tied').waitFor()
    await page.waitForTimeout(800)
    // Opened anew, nothing is looked for by itself after each tie.
    await page.reload()
    await page.getByTestId('sync-summary').getByText('0 of 13 tied').waitFor()
    await todo().click()
    let ties = 0
    while ((await left()) > 0 && ties < 9) {
      await page.locator('main').press('n')
      const [id = '', edge] = (await chosen().getAttribute('data-change'))?.split(' ') ?? []
      const at = truth.boundaries.find((one) => one.segmentId === id && one.edge === edge)
      await seek(at?.footageMs ?? 0)
      await page.locator('main').press('Enter')
      await page.getByTestId('sync-summary').getByText(`${++ties} of 13 tied`).waitFor()
    }
    expect(ties).toBeLessThanOrEqual(5)
    await page.getByText('Nothing is left to do').first().waitFor()
    await page.getByRole('radio', { name: /^All/ }).click()
    const truly = new Map(truth.boundaries.map((one) => [`${one.segmentId} ${one.edge}`, one.footageMs]))
    for (let row = 0; row < (await rows().count()); row++) {
      const key = (await rows().nth(row).getAttribute('data-change')) ?? ''
      expect(Math.abs((await timeOf(row)) - (truly.get(key) ?? Infinity)), key).toBeLessThan(150)
    }
  }, 90_000)

  it('nudges by a millisecond, takes a guess at its word, and marks what was not done', async () => {
    await rows().nth(4).getByRole('button').first().click()
    const before = await timeOf(4)
    await page.locator('main').press('Alt+ArrowRight')
    await expect.poll(() => timeOf(4)).toBe(before + 1)
    await rows().nth(2).getByRole('button').first().click()
    await page.locator('main').press('y')
    await expect.poll(() => rows().nth(2).getAttribute('data-origin')).toBe('hand')
    // The push of round one, left out: it lasts nothing.
    await rows().nth(3).getByRole('button').first().click()
    await page.locator('main').press('x')
    await expect.poll(async () => (await timeOf(3)) - (await timeOf(4))).toBe(0)
    await page.getByRole('button', { name: 'How it ran' }).click()
    await page.getByRole('row', { name: /Lock-gate push Round 1 of 2 0:20 0:00 -0:20/ }).waitFor()
    const table = page.getByRole('link', { name: 'As a table (CSV)' })
    expect(decodeURIComponent((await table.getAttribute('href')) ?? '')).toContain('Lock-gate push,20,0,-20')
    await page.keyboard.press('Escape')
  })
})

describe('the score by keyboard', () => {
  it('moves a station by its grip', async () => {
    await page.getByRole('link', { name: 'Score' }).click()
    const labels = (): Promise<string[]> =>
      page
        .locator('[data-section=main] li')
        .getByLabel(/^Move \d+$/)
        .evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value))
    await expect.poll(labels).toEqual(['Jug lift', 'Lock-gate push', 'Tiller twist'])
    await page
      .locator('[data-section=main] li')
      .first()
      .getByRole('button', { name: /^Move this row/ })
      .focus()
    for (const key of ['Space', 'ArrowDown', 'Space']) {
      await page.keyboard.press(key)
      await page.waitForTimeout(300)
    }
    await expect.poll(labels).toEqual(['Lock-gate push', 'Jug lift', 'Tiller twist'])
    await page.getByRole('button', { name: /^Undo/ }).click()
    await expect.poll(labels).toEqual(['Jug lift', 'Lock-gate push', 'Tiller twist'])
  })
  it('moves it by dragging too', async () => {
    const labels = (): Promise<string[]> =>
      page
        .locator('[data-section=main] li')
        .getByLabel(/^Move \d+$/)
        .evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value))
    const grips = page.locator('[data-section=main] li').getByRole('button', { name: /^Move this row/ })
    await grips.nth(2).scrollIntoViewIfNeeded()
    const from = await restingBox(grips.nth(2)),
      to = await restingBox(grips.nth(0))
    await page.mouse.move(from.x + 10, from.y + 15)
    await page.mouse.down()
    await page.mouse.move(from.x + 10, from.y - 10, { steps: 4 })
    await page.mouse.move(to.x + 10, to.y + 8, { steps: 8 })
    await page.waitForTimeout(200)
    await page.mouse.up()
    await expect.poll(labels).toEqual(['Tiller twist', 'Jug lift', 'Lock-gate push'])
  })
})

describe('footage that no browser plays', () => {
  it('gets a proxy and plays', async () => {
    const film = join(jivet.home, 'old.avi')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=320x240:r=25:d=4',
      '-f',
      'lavfi',
      '-i',
      'sine=d=4',
      '-c:v',
      'mpeg4',
      '-c:a',
      'mp3',
      film,
    ])
    await page.getByRole('link', { name: 'Sync' }).click()
    await page.getByRole('button', { name: 'Footage', exact: true }).click()
    await page.locator('input[type=file][aria-label^="Replace"]').setInputFiles(film)
    await expect
      .poll(
        () =>
          page
            .locator('video')
            .evaluate((video: HTMLVideoElement) => Math.round(video.duration))
            .catch(() => 0),
        { timeout: 60_000 },
      )
      .toBe(4)
    expect(
      await page.locator('video').evaluate((video: HTMLVideoElement) => [video.videoWidth, video.error === null]),
    ).toEqual([320, true])
  })
})
