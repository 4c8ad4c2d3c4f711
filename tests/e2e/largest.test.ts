// The largest scores: only what is in sight is drawn, and nothing typed is lost by scrolling.
import { describe, expect, it } from 'vitest'
import { startedDesk, type Desk } from './desk'

let desk: Desk
startedDesk((opened) => {
  desk = opened
})

const MOVES = ['Jug lift', 'Lock-gate push', 'Tiller twist', 'Pump-out hop', 'Deck-rail squat']
const inputs = (): Promise<number> => desk.page.locator('[data-section] input').count()
const scrollTo = (share: number): Promise<void> =>
  desk.page.evaluate((to) => window.scrollTo(0, document.body.scrollHeight * to), share)

describe('three hundred sections', () => {
  const plan = Array.from(
    { length: 300 },
    (_, index) => `circuit Block ${index + 1}: 1 round, 20 on, 10 off\n  ${MOVES.join('; ')}\n`,
  ).join('')
  it('are drawn where the window is, and edited there', async () => {
    const { page } = desk
    const id = await desk.open('Three hundred', plan)
    expect(await page.locator('[data-section]').count()).toBe(300)
    expect(await inputs()).toBeLessThan(200)
    const last = page.locator('[data-section="block-300"]')
    expect(await last.locator('input').count()).toBe(0)
    await scrollTo(1)
    await last.getByLabel('Work', { exact: true }).first().waitFor()
    expect(await inputs()).toBeLessThan(300)
    expect(await page.locator('[data-section="block-1"] input').count()).toBe(0)
    await desk.enter('Work', '25', last)
    await desk.saved()
    expect((await desk.scoreOf(id)).sections.at(-1)).toMatchObject({ key: 'block-300', workMs: 25_000 })
    // 300 x 5 x 30 s without the last rest, and five works of five seconds more.
    await page.getByTestId('totals').getByText('12:30:15').waitFor()
  })
  it('keep half a word that was typed and scrolled away from, and stay folded', async () => {
    const { page } = desk
    const first = page.locator('[data-section="block-1"]')
    await scrollTo(0)
    const name = first.getByLabel('Name of the section')
    await name.fill('Half a wo')
    await scrollTo(0.5)
    await page.locator('[data-section="block-150"] input').first().waitFor()
    await page.keyboard.type('rd')
    await scrollTo(0)
    expect(await name.inputValue()).toBe('Half a word')
    await name.press('Enter')
    await desk.saved()
    expect((await desk.scoreOf(desk.here())).sections[0]?.name).toBe('Half a word')

    await first.getByRole('button', { name: 'Fold', exact: true }).click()
    await scrollTo(1)
    await page.locator('[data-section="block-300"] input').first().waitFor()
    expect(await first.locator('input').count()).toBe(1)
    await page.evaluate(() => (document.activeElement as HTMLElement).blur())
    await expect.poll(() => first.locator('input').count()).toBe(0)
    await scrollTo(0)
    await first.getByRole('button', { name: 'Unfold' }).waitFor()
  })
})

describe('a finding far down', () => {
  it('brings the section that it is about into sight', async () => {
    const { page } = desk
    await desk.open(
      'Far down',
      `${Array.from({ length: 60 }, (_, index) => `circuit Block ${index + 1}: 2 rounds, 20 on, 20 off\n  Squat; Lunge\n`).join('')}circuit Last: 3 rounds, 40 on, 20 off\n  Jug lift\n`,
    )
    const last = page.locator('[data-section=last]')
    expect(await last.locator('input').count()).toBe(0)
    await page
      .getByLabel('Findings')
      .locator('[data-finding=sides]')
      .getByRole('button', { name: 'Show where' })
      .click()
    await last.getByLabel('Work', { exact: true }).first().waitFor()
    await expect.poll(async () => (await last.boundingBox())?.y ?? -1).toBeGreaterThan(80)
    expect((await last.boundingBox())?.y).toBeLessThan(700)
    expect(await last.locator('li.bg-chosen').count()).toBe(1)
  })
})

describe('three thousand stations in one section', () => {
  const plan = `circuit Long watch: 1 round, 20 on, 5 off\n${Array.from({ length: 3000 }, (_, index) => `  ${MOVES[index % 5] ?? ''}`).join('\n')}\n`
  it('are drawn in stretches, each row with its number', async () => {
    const { page } = desk
    const id = await desk.open('Three thousand', plan)
    expect(await page.locator('[data-section] li').count()).toBeLessThan(150)
    await scrollTo(1)
    const rows = page.locator('[data-section] li')
    await rows
      .filter({ hasText: /^3000/ })
      .getByLabel(/^Move \d+$/)
      .fill('Rope pull')
    await page.keyboard.press('Enter')
    await desk.saved()
    const [section] = (await desk.scoreOf(id)).sections
    expect(section?.format === 'circuit' && section.stations.map((station) => station.label).slice(-2)).toEqual([
      'Pump-out hop',
      'Rope pull',
    ])
    expect(await rows.count()).toBeLessThan(150)
  })
  it('move by their grips, by keyboard', async () => {
    const { page } = desk
    const lastGrip = page
      .locator('[data-section] li')
      .filter({ hasText: /^3000/ })
      .getByRole('button', { name: /^Move this row/ })
    await lastGrip.focus()
    await page.keyboard.press('Space')
    await page.waitForTimeout(150)
    await page.keyboard.press('ArrowUp')
    await page.waitForTimeout(300)
    await page.keyboard.press('Space')
    await desk.saved()
    await expect
      .poll(async () => {
        const [section] = (await desk.scoreOf(desk.here())).sections
        return section?.format === 'circuit' && section.stations.map((station) => station.label).slice(-2)
      })
      .toEqual(['Rope pull', 'Pump-out hop'])
  })
})

describe('ten thousand stations and more', () => {
  it('are refused in words, and what was saved stays', async () => {
    const id = await desk.open('Too many', 'circuit Main: 1 round, 1 on\n  Squat\n')
    const score = await desk.scoreOf(id)
    const [main] = score.sections
    if (main?.format !== 'circuit' || !main.stations[0]) throw new Error('a circuit was written')
    const [squat] = main.stations
    const half = Array.from({ length: 5001 }, () => ({ ...squat, key: '' }))
    const sections = [
      { ...main, stations: half },
      { ...main, key: 'more', stations: half },
    ]
    const put = await fetch(`${desk.url}/api/workouts/${id}/score`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ revision: 1, score: { ...score, sections } }),
    })
    expect([put.status, await put.text()]).toEqual([400, expect.stringMatching(/More than 10,000 stations/)])
    expect(await desk.scoreOf(id)).toEqual(score)
  })
  it('nor is a score of more than a day: the last picture stays, and an undo is saved', async () => {
    const { page } = desk
    const id = await desk.open('Too long', 'circuit Main: 1 round, 10:00 on\n  Squat\n')
    await desk.enter('Rounds', '500')
    await page
      .getByRole('alert')
      .getByText(/24 hours/)
      .waitFor()
    await page.getByLabel('Findings').getByText('The score is longer than 24 hours.').waitFor()
    await page
      .getByTestId('save-state')
      .getByText(/^Not saved: .*24 hours/)
      .waitFor()
    await page.getByRole('button', { name: /^Undo/ }).click()
    await desk.saved()
    expect((await desk.scoreOf(id)).sections).toMatchObject([{ rounds: 1 }])
  })
})

describe('more sections than a score may have', () => {
  it('are not saved, with the reason, and saved again when one is taken back', async () => {
    const { page } = desk
    const id = await desk.open(
      'Five hundred',
      Array.from({ length: 500 }, (_, index) => `circuit Block ${index + 1}: 1 round, 20 on\n  Squat\n`).join(''),
    )
    await page.getByRole('button', { name: 'Section: Block 1', exact: true }).click()
    await page.getByRole('menuitem', { name: 'Duplicate' }).click()
    await page
      .getByTestId('save-state')
      .getByText(/^Not saved: .*500/)
      .waitFor()
    await page.getByRole('button', { name: /^Undo/ }).click()
    await desk.enter('Name of the section', 'First', page.locator('[data-section="block-1"]'))
    await desk.saved()
    const { sections } = await desk.scoreOf(id)
    expect([sections.length, sections[0]?.name]).toEqual([500, 'First'])
  })
})
