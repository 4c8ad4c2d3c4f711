// A session as one file, opened on a phone that has no network: it runs, waits where nobody knows how long, is held,
// skipped and gone back, and sounds at its changes.
import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { chromium, type Browser, type Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { USUAL_CUES } from '../../src/core/cue/wishes'
import { expand } from '../../src/core/expand/expand'
import { readShorthand } from '../../src/core/shorthand/read'
import { companionPage } from '../../src/engine/companionPage'
import { CHROMIUM } from './jivet'
import { soundOfPage, writeDownSound } from './pageSound'

const folder = mkdtempSync(join(tmpdir(), 'jivet-companion-'))
const file = join(folder, 'session.html')
const PLAN =
  'title Deck </script><b>Hours\ncircuit Main: 1 round, 4 on, 3 off, lead 2, last rest kept\n  Jug lift (sides none)\n  Keel hold\n' +
  'sets Last: 1 set\n  10 Deck-rail squat\n'

let browser: Browser, page: Page
const asked: string[] = []
beforeAll(async () => {
  const { score } = readShorthand(PLAN)
  const { count, countOf, moves } = score
  const segments = expand(score).segments
  const session = { title: score.title, segments, cues: USUAL_CUES, next: 'Deck Hours 13' }
  writeFileSync(file, await companionPage({ ...session, viewing: { count, countOf, moves } }))
  browser = await chromium.launch(CHROMIUM)
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true })
  await context.setOffline(true)
  page = await context.newPage()
  page.on('request', (request) => asked.push(request.url()))
  page.on('pageerror', (error) => asked.push(`error: ${error.message}`))
  await writeDownSound(page)
  await page.goto(pathToFileURL(file).href)
})
afterAll(async () => {
  await browser.close()
  rmSync(folder, { recursive: true, force: true })
})

const count = () => page.getByRole('timer').innerText()

it('is one file below two megabytes, and shows the cautions first', async () => {
  expect(statSync(file).size).toBeLessThan(2_000_000)
  await page.getByRole('heading', { name: 'Deck </script><b>Hours' }).waitFor()
  await page.getByText('Stop on pain, dizziness').waitFor()
})

it('counts down through the intervals, with the easier way and what is next', async () => {
  await page.getByRole('button', { name: 'Start' }).tap()
  await page.getByRole('heading', { name: 'Jug lift' }).waitFor()
  expect(Number(await count())).toBeGreaterThanOrEqual(2)
  await page.getByText('Easier: Half-full jug').waitFor()
  await page.getByText('Next: Rest').waitFor()
  await page.getByRole('heading', { name: 'Rest' }).waitFor()
  await page.getByText(/Next: Keel hold/).waitFor()
})

it('stands still while it is held, and is skipped and gone back', async () => {
  await page.getByRole('button', { name: 'Hold' }).tap()
  const held = await count()
  await page.waitForTimeout(1500)
  expect(await count()).toBe(held)
  await page.getByRole('button', { name: 'Go on' }).tap()
  await page.getByRole('button', { name: 'Skip' }).tap()
  await page.getByRole('heading', { name: 'Keel hold' }).waitFor()
  await page.getByRole('button', { name: 'Back' }).tap()
  await page.getByRole('heading', { name: 'Rest' }).waitFor()
  await page.keyboard.press('ArrowRight')
  await page.getByRole('heading', { name: 'Keel hold' }).waitFor()
})

it('waits where its length is up to who does it, and ends with what comes next', async () => {
  await page.getByRole('heading', { name: 'Deck-rail squat' }).waitFor({ timeout: 20_000 })
  expect(await count()).toBe('x 10')
  await page.waitForTimeout(1000)
  await page.getByText('Your own pace').waitFor()
  await page.getByRole('button', { name: 'Done, next' }).tap()
  await page.getByText('Coming next: Deck Hours 13').waitFor()
})

it('sounded its changes, and asked nobody for anything', async () => {
  const { samples, rate } = await soundOfPage(page)
  let bursts = 0
  for (let from = 0, was = false; from + rate / 20 <= samples.length; from += rate / 20) {
    const isLoud = samples.subarray(from, from + rate / 20).some((one) => Math.abs(one) > 0.05)
    if (isLoud && !was) bursts++
    was = isLoud
  }
  // A lead-in, two works with their pips, and rests.
  expect(bursts).toBeGreaterThan(6)
  expect(asked.filter((url) => !url.startsWith('file:') && !url.startsWith('data:'))).toEqual([])
})
