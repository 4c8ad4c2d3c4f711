// A plan in other lengths, rows typed one after another, and the shelf with what was taken off it: all by keyboard.
import type { Page } from 'playwright-core'
import { describe, expect, it } from 'vitest'
import { expand } from '../../src/core/expand/expand'
import { sharedDesk, type Desk } from './desk'

let desk: Desk
let page: Page
sharedDesk((opened) => {
  desk = opened
  page = opened.page
})

/** What has the focus, by the name that a reader hears. */
const focused = (): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement as HTMLInputElement | null
    return at?.getAttribute('aria-label') ?? at?.labels?.[0]?.innerText ?? at?.tagName ?? ''
  })

// 3 x (4 x (40 + 20) + 60) - the last break: 14 min, and 10 s of lead-in.
const PLAN = 'circuit Main: 3 rounds, 40 on, 20 off, 60 between, lead 10\n  Squat; Crunch; Plank; Lunge (sides none)\n'

describe('a plan in another length', () => {
  it('is copied from the shelf and made five minutes shorter, by keyboard', async () => {
    const id = await desk.open('Fourteen', PLAN)
    const before = expand(await desk.scoreOf(id)).totalMs
    await page.goto(desk.url)
    await page.getByRole('button', { name: 'Make a copy of "Fourteen"' }).press('Enter')
    await page.waitForURL(/\/w\/[0-9a-f-]+\/score$/)
    const copy = /w\/([0-9a-f-]+)\//.exec(page.url())?.[1] ?? ''
    await desk.ready()
    await page.getByRole('button', { name: 'Another length' }).press('Enter')
    const wanted = page.getByLabel('Wanted')
    await wanted.fill('9')
    await wanted.press('Enter')
    const ways = page.getByRole('list', { name: 'Ways to get there' }).getByRole('button')
    await ways.filter({ hasText: 'By rounds' }).press('Enter')
    await desk.saved()
    const score = await desk.scoreOf(copy)
    const { totalMs } = expand(score)
    expect(score).toMatchObject({ promiseMs: 540_000, sections: [{ rounds: 2 }] })
    expect(Math.round((before - totalMs) / 60_000)).toBe(5)
    // The plan that it was copied from stays as it was.
    expect(expand(await desk.scoreOf(id)).totalMs).toBe(before)
    // One command to undo.
    await page.locator('body').press('Control+z')
    await desk.saved()
    expect(expand(await desk.scoreOf(copy)).totalMs).toBe(before)
  })
  it('has all its rests five seconds longer at one press', async () => {
    const id = await desk.open('Rests', PLAN)
    await page.getByRole('button', { name: 'Rests +5 s' }).press('Enter')
    await desk.saved()
    expect((await desk.scoreOf(id)).sections[0]).toMatchObject({ restMs: 25_000, roundBreakMs: 65_000 })
  })
  it('is offered by the finding that its promise is broken', async () => {
    await desk.open('Promised', `score: promise 9:00\n${PLAN}`)
    await page.locator('[data-finding="promise"]').getByRole('button', { name: 'Fit the plan' }).press('Enter')
    await page.getByRole('list', { name: 'Ways to get there' }).waitFor()
    expect(await page.getByLabel('Wanted').inputValue()).toBe('9:00')
  })
})

describe('moves and sections', () => {
  it('are typed one after another: Add move begins an empty row, Enter the next', async () => {
    const id = await desk.open('Typed', 'circuit Main: 2 rounds, 40 on, 20 off\n  Squat\n')
    await page.getByRole('button', { name: 'Add move' }).press('Enter')
    for (const name of ['Rope pull', 'Keel hold']) {
      await page.waitForFunction(() => document.activeElement?.tagName === 'INPUT')
      await page.keyboard.type(name)
      await page.keyboard.press('Enter')
    }
    await page.waitForFunction(() => document.querySelectorAll('[data-section] ol > li').length === 4)
    await page.keyboard.type('Towel tear')
    await page.keyboard.press('Tab')
    await desk.saved()
    const [section] = (await desk.scoreOf(id)).sections
    expect(section && 'stations' in section ? section.stations.map(({ label }) => label) : []).toEqual([
      ...['Squat', 'Rope pull', 'Keel hold', 'Towel tear'],
    ])
    // A row that goes away does not take the focus with it.
    await page.getByRole('button', { name: 'Remove: Keel hold' }).press('Enter')
    await expect.poll(focused).not.toBe('BODY')
  })
  it('a new section comes into sight with the cursor on its name', async () => {
    await desk.open('Sections', PLAN)
    await page.getByRole('button', { name: 'Add section' }).press('Enter')
    await page.getByRole('menuitem', { name: /^Finisher/ }).press('Enter')
    await expect.poll(focused).toBe('Name of the section')
    expect(await page.evaluate(() => (document.activeElement as HTMLInputElement).value)).toBe('Finisher')
  })
  it('one gap is given a length of its own in the sheet', async () => {
    const id = await desk.open('Gap', 'circuit Main: 2 rounds, 40 on, 20 off\n  Squat; Crunch\n')
    await page.getByRole('tab', { name: 'Running sheet' }).click()
    const row = page.locator('[data-row="2"]')
    await row.getByRole('button', { name: 'Only this gap' }).press('Enter')
    const length = row.getByRole('textbox').first()
    await length.fill('45')
    await length.press('Enter')
    await desk.saved()
    const rests = expand(await desk.scoreOf(id)).segments.filter(({ kind }) => kind === 'rest')
    expect(rests.map(({ durationMs }) => durationMs)).toEqual([45_000, 20_000, 20_000])
  })
})

describe('the shelf', () => {
  it('finds by name and by move, sorts, and gives back what was taken off', async () => {
    await desk.open('Rope day', 'circuit Main: 2 rounds, 40 on\n  Rope pull\n')
    await desk.open('Another evening', 'circuit Main: 1 round, 40 on\n  Rope pull; Squat\n')
    await page.goto(desk.url)
    const names = (): Promise<string[]> => page.locator('article h2').allInnerTexts()
    // Looked for as one types, with the field kept.
    await page.getByLabel('Find by name or move').pressSequentially('rope pull', { delay: 40 })
    await page.waitForURL(/search=rope.pull/)
    expect(await page.evaluate(() => document.activeElement?.getAttribute('name'))).toBe('search')
    await expect
      .poll(async () => (await names()).sort())
      .toEqual(expect.arrayContaining(['Another evening', 'Rope day']))
    expect(await names()).not.toContain('Sections')
    await page.getByLabel('Order').selectOption('name')
    await page.waitForURL(/order=title/)
    await expect
      .poll(async () => (await names()).filter((name) => /Rope|Another/.test(name)))
      .toEqual([...['Another evening', 'Rope day']])
    await page.getByRole('button', { name: 'Take off the shelf: Rope day' }).press('Enter')
    await expect.poll(names).not.toContain('Rope day')
    await page.goto(`${desk.url}/?removed=yes`)
    expect(await page.title()).toBe('Workouts · Jivet')
    await page.locator('article', { hasText: 'Rope day' }).getByRole('button', { name: 'Put it back' }).press('Enter')
    // It is put back before the page is left: a request under way would end with it.
    await expect.poll(names).not.toContain('Rope day')
    await page.goto(`${desk.url}/?search=rope+day`)
    expect(await names()).toEqual(['Rope day'])
  })
  it('gives a plan as a file, and opens it again', async () => {
    await desk.open('Filed', PLAN)
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Save plan file' }).press('Enter'),
    ])
    expect(download.suggestedFilename()).toMatch(/\.jivet\.json$/)
    await page.goto(desk.url)
    await page.getByLabel('Open a plan file').setInputFiles(await download.path())
  })
})

describe('hands and sizes', () => {
  it.each([
    [390, 844],
    [820, 1180],
    [640, 400],
  ])(
    'nothing of shelf, moves and a workout is off-screen at %i x %i, its bar is whole, and heads that stay are low',
    async (width, height) => {
      await desk.open(
        'Narrow',
        `talk Welcome: about 30, shows "Squat, Crunch"\n${PLAN}finisher End: 2 rounds\n  10 Squat\n`,
      )
      await page.setViewportSize({ width, height })
      const score = new URL(page.url()).pathname
      const rooms = ['sync', 'watch', 'ship'].map((room) => score.replace(/score$/, room))
      for (const path of [score, ...rooms, '/', '/moves']) {
        await page.goto(`${desk.url}${path}`)
        await page.waitForTimeout(300)
        const seen = await page.evaluate(() => ({
          wide: document.documentElement.scrollWidth - innerWidth,
          high: [...document.querySelectorAll('body *')]
            .filter((one) => getComputedStyle(one).position === 'sticky' && getComputedStyle(one).top !== 'auto')
            .map((one) => one.getBoundingClientRect().height / innerHeight),
          cut: [...document.querySelectorAll('header a, header button')]
            .filter((one) => one.checkVisibility() && !one.matches('.sr-only'))
            .filter((one) => {
              const { left, right } = one.getBoundingClientRect()
              return left < 0 || right > innerWidth
            })
            .map((one) => one.getAttribute('aria-label') ?? one.textContent),
        }))
        expect(seen.wide, path).toBeLessThanOrEqual(0)
        expect(seen.cut, path).toEqual([])
        for (const share of seen.high) expect(share, path).toBeLessThan(0.2)
      }
      await page.setViewportSize({ width: 1280, height: 800 })
    },
  )
  it('has a way past the head, and keys alone can be switched off', async () => {
    await desk.open('Keys', PLAN)
    await page.keyboard.press('Tab')
    expect(await page.evaluate(() => document.activeElement?.textContent)).toBe('To the content')
    await page.keyboard.press('Enter')
    expect(await page.evaluate(() => location.hash)).toBe('#content')
    await page.locator('body').press('?')
    await page.getByLabel(/Keys alone are shortcuts/).uncheck()
    await page.keyboard.press('Escape')
    await page.getByRole('dialog').waitFor({ state: 'detached' })
    await page.locator('body').press('?')
    expect(await page.getByRole('dialog').count()).toBe(0)
    await page.evaluate(() => localStorage.clear())
  })
})
