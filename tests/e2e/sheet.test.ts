// The running sheet, the terrain and paper, as hands use them: edit in place, fold, choose, drag, zoom, hover, print.
import type { Locator } from 'playwright-core'
import { describe, expect, it } from 'vitest'
import { restingBox, sharedDesk, type Desk } from './desk'

let desk: Desk
sharedDesk((opened) => {
  desk = opened
})

const row = (number: number): Locator => desk.page.locator(`[data-row="${number}"]`)
const cell = (number: number): Locator => row(number).locator('> span').nth(1)
const THREE = 'circuit Main: 2 rounds, 40 on, 20 off, 1:00 between, last rest dropped\n  Squat; Lunge; Jug lift\n'

describe('the running sheet', () => {
  it('shows start, end, counters, side, gear and cue words of every interval', async () => {
    await desk.open('Rows', THREE)
    await desk.read('Running sheet')
    // 40 + 20 + 40 + 20 = 120 s before the third work; jugs are lifted left in the first round.
    const third = (await row(5).innerText())
      .split('\n')
      .map((text) => text.trim())
      .filter(Boolean)
    expect(third).toEqual(expect.arrayContaining(['5', '2:00', '2:40', 'water jug', 'hips back, jug close']))
    expect(await row(5).locator('select').inputValue()).toBe('left')
    expect(await row(5).innerText()).toMatch(/Round 1\/2, Station 3\/3/)
    expect(await row(11).locator('select').inputValue()).toBe('right')
  })
  it('changes the plan behind a length, a name and a side, and undoes each', async () => {
    const id = await desk.open('In place', THREE)
    await desk.read('Running sheet')
    await desk.enter('Length', '35', row(3))
    await desk.enter('What', 'Plank', row(9))
    await row(1).getByLabel('Side').selectOption('halves')
    await desk.saved()
    // The length of one work is the length of all of them; the name is the station's, so it changes in both rounds.
    expect((await desk.scoreOf(id)).sections[0]).toMatchObject({
      workMs: 35_000,
      stations: [{ label: 'Squat', sideRule: 'halves' }, { label: 'Plank' }, { label: 'Jug lift' }],
    })
    await desk.page.getByTestId('totals').getByText('5:50').waitFor()
    for (let step = 0; step < 3; step++) {
      await cell(1).click()
      await desk.page.keyboard.press('Control+z')
    }
    await desk.page.getByTestId('totals').getByText('6:20').waitFor()
    await desk.saved()
    expect((await desk.scoreOf(id)).sections[0]).toMatchObject({
      workMs: 40_000,
      stations: [{ sideRule: null }, { label: 'Lunge' }, {}],
    })
  })
  it('says what is wrong with a length at the field, where it stands until it is mended, and keeps the old one', async () => {
    const id = await desk.open('Wrong', THREE)
    await desk.read('Running sheet')
    for (const wrong of ['-5', 'soon', '25:00:01', '1e9']) {
      await row(1).getByLabel('Length').fill(wrong)
      await row(1).getByRole('alert').waitFor()
      await desk.page.keyboard.press('Enter')
      expect(await row(1).getByLabel('Length').inputValue()).toBe(wrong)
    }
    await row(1).getByLabel('Length').press('Escape')
    expect(await row(1).getByLabel('Length').inputValue()).toBe('0:40')
    expect((await desk.scoreOf(id)).sections[0]).toMatchObject({ workMs: 40_000 })
  })
  it('folds a section to its name, count and length, and unfolds it', async () => {
    await desk.open('Folded', `warm-up Warm-up: 30 on\n  Heel digs\n${THREE}`)
    await desk.read('Running sheet')
    const head = desk.page.getByRole('button', { name: /^Main/ })
    expect(await head.innerText()).toMatch(/11 · 6:20/)
    await head.click()
    await expect.poll(() => desk.page.locator('[data-row]').count()).toBe(1)
    await head.click()
    await expect.poll(() => desk.page.locator('[data-row]').count()).toBe(12)
  })
  it('takes rows by Ctrl and Shift, from the keyboard too, and renames or removes their moves', async () => {
    const { page } = desk
    const id = await desk.open('Chosen', THREE)
    await desk.read('Running sheet')
    const bar = page.getByRole('toolbar')
    await cell(1).click()
    await cell(5).click({ modifiers: ['Control'] })
    await bar.getByText('2 chosen').waitFor()
    await page.keyboard.press('Escape')
    await bar.waitFor({ state: 'detached' })
    await cell(3).click()
    await page.keyboard.press('Shift+ArrowDown')
    await page.keyboard.press('Shift+ArrowDown')
    await bar.getByText('3 chosen').waitFor()
    // Two works and the rest between them: the works are renamed, the rest stays one.
    await bar.getByLabel('Move for all').fill('Plank')
    await page.keyboard.press('Enter')
    await desk.saved()
    expect((await desk.scoreOf(id)).sections[0]).toMatchObject({
      stations: [{ label: 'Squat' }, { label: 'Plank' }, { label: 'Plank' }],
    })
    await bar.getByRole('button', { name: 'Remove moves' }).click()
    await desk.saved()
    expect((await desk.scoreOf(id)).sections[0]).toMatchObject({ stations: [{ label: 'Squat' }] })
    await cell(1).click()
    await page.keyboard.press('Delete')
    await desk.page.getByText('No intervals yet.').waitFor()
    await page.keyboard.press('Control+z')
    await desk.saved()
    expect((await desk.scoreOf(id)).sections[0]).toMatchObject({ stations: [{ label: 'Squat' }] })
  })
  it('moves a station by dragging its grip', async () => {
    const { page } = desk
    const id = await desk.open('Dragged', THREE)
    await desk.read('Running sheet')
    const grip = await restingBox(row(1).getByRole('button', { name: /^Move this row/ }))
    const goal = await restingBox(row(3))
    await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2)
    await page.mouse.down()
    await page.mouse.move(grip.x + grip.width / 2, goal.y + goal.height / 2, { steps: 5 })
    await page.mouse.up()
    await desk.saved()
    await expect
      .poll(async () => (await desk.scoreOf(id)).sections[0])
      .toMatchObject({ stations: [{ label: 'Lunge' }, { label: 'Squat' }, { label: 'Jug lift' }] })
  })
  it('refuses what is no table from the clipboard, and says why', async () => {
    const { page } = desk
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write'], { origin: desk.url })
    const id = await desk.open('Clipboard', THREE)
    await desk.read('Running sheet')
    const before = await desk.scoreOf(id)
    await page.evaluate(() => navigator.clipboard.writeText('a\tb\tc'))
    await cell(1).click()
    await page.keyboard.press('Control+v')
    await page.getByText(/The clipboard holds no table/).waitFor()
    expect(await desk.scoreOf(id)).toEqual(before)
  })
})

describe('the terrain', () => {
  it('tells counters and time into and left where the pointer is, and selects what is pressed', async () => {
    const { page } = desk
    await desk.open('Hovered', THREE)
    const canvas = page.getByRole('img', { name: /11 intervals, 6:20/ })
    const box = await restingBox(canvas)
    // 130 of 380 s: ten seconds into the third work, jugs left.
    const x = box.x + (box.width * 130) / 380,
      y = box.y + box.height / 2
    await page.mouse.move(x, y)
    await page
      .getByText(
        /Jug lift, left {2}· {2}0:40 {2}· {2}Round 1 of 2 {2}· {2}Station 3 of 3 {2}· {2}about 13 reps {2}· {2}2:1\d in, 4:[01]\d left/,
      )
      .waitFor()
    await page.mouse.click(x, y)
    await expect.poll(() => page.locator('[data-section] li.bg-chosen').innerText()).toContain('3')
  })
  it('brings what is pressed into sight in the sheet', async () => {
    const { page } = desk
    await desk.open('Followed', 'circuit Main: 40 rounds, 40 on, 20 off\n  Squat; Lunge; Jug lift\n')
    await desk.read('Running sheet')
    expect(await row(230).count()).toBe(0)
    const box = await restingBox(page.getByRole('img', { name: /239 intervals/ }))
    await page.mouse.click(box.x + box.width * 0.958, box.y + box.height / 2)
    const selected = page.locator('[role=row].bg-land\\/20')
    await selected.waitFor()
    // 95.8 % of 120 works and rests; neighbours this narrow are drawn, and pressed, as one.
    expect(Math.abs(Number(await selected.getAttribute('data-row')) - 230)).toBeLessThan(8)
  })
  it('zooms in on what is wanted and back to the whole', async () => {
    const { page } = desk
    const frame = page.getByLabel('Terrain', { exact: true })
    const widthOf = (): Promise<number> => frame.evaluate((element) => element.scrollWidth / element.clientWidth)
    expect(await widthOf()).toBeCloseTo(1, 1)
    await page.getByRole('button', { name: 'Closer' }).click()
    await page.getByRole('button', { name: 'Closer' }).click()
    await expect.poll(widthOf).toBeCloseTo(2.56, 1)
    await page.getByRole('button', { name: 'Whole score' }).click()
    await expect.poll(widthOf).toBeCloseTo(1, 1)
  })
})

describe('on paper', () => {
  it('the sheet names every interval with its start, the wall board every move once', async () => {
    const { page } = desk
    const id = await desk.open('Deck Hours 13: rope and rail', THREE)
    await page.goto(`${desk.url}/w/${id}/print?as=sheet`)
    const sheet = await page.locator('main').innerText()
    expect(sheet).toContain('Deck Hours 13: rope and rail')
    for (const start of ['0:00', '1:00', '2:00', '2:40', '3:40', '5:40']) expect(sheet).toContain(start)
    await page.goto(`${desk.url}/w/${id}/print?as=board`)
    const board = await page.locator('main').innerText()
    for (const name of ['Squat', 'Lunge', 'Jug lift']) expect(board.split(name)).toHaveLength(2)
    expect(board).toMatch(/2 rounds/)
  })
})
