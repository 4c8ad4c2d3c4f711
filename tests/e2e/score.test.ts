// Planning as a creator does it: typed, pasted, solved for, judged and mended, by keyboard where it says so.
import type { Page } from 'playwright-core'
import { describe, expect, it } from 'vitest'
import { expand } from '../../src/core/expand/expand'
import type { Score } from '../../src/core/score/score'
import { restingBox, sharedDesk, type Desk } from './desk'
import { addSection } from './jivet'

let desk: Desk
let page: Page
sharedDesk((opened) => {
  desk = opened
  page = opened.page
})

const saved = (): Promise<void> => desk.saved()
const open = (title: string, plan = ''): Promise<string> => desk.open(title, plan)
const scoreOf = (id: string): Promise<Score> => desk.scoreOf(id)

/** Tab, as often as it takes, to the element of that name. */
async function tabTo(name: RegExp): Promise<void> {
  for (let press = 0; press < 60; press++) {
    await page.keyboard.press('Tab')
    const text = await page.evaluate(() => {
      const at = document.activeElement as HTMLElement | null
      return at
        ? at.getAttribute('aria-label') || at.innerText || (at as HTMLInputElement).labels?.[0]?.innerText || ''
        : ''
    })
    if (name.test(text)) return
  }
  throw new Error(`no way by keyboard to ${String(name)}`)
}

const COMPOUND =
  'compound Main: 2 passes, long 1:00, rest 20, short 20, after each slot 40\nAnchor row (sides none, from 2 Rope pull) + Shadow boxing + Keel hold + Shadow boxing'

describe('the shorthand', () => {
  it('builds a compound slot with a swap in its second pass from nothing, by keyboard alone', async () => {
    await page.goto(desk.url)
    await page.getByRole('button', { name: 'New workout' }).waitFor()
    await tabTo(/^New workout/)
    await page.keyboard.press('Enter')
    await page.getByLabel('Name', { exact: true }).waitFor()
    await page.keyboard.type('Deck Hours 16: by keyboard')
    await page.keyboard.press('Enter')
    await page.waitForURL('**/score')
    await desk.ready()
    await tabTo(/^Sections$/)
    for (const reading of ['Running sheet', 'Shorthand']) {
      await page.keyboard.press('ArrowRight')
      await page.getByRole('tab', { name: reading, selected: true }).waitFor()
    }
    await page.locator('.cm-content').waitFor()
    await tabTo(/typed words/)
    await page.keyboard.press('Control+End')
    await page.keyboard.type(COMPOUND, { delay: 5 })
    // Twice (60 + 20 + 3 x 20 + 40), without the rest after the last.
    await page.getByTestId('totals').getByText('5:20').waitFor()
    await page.getByText('All understood').waitFor()
    await saved()
    const { segments } = expand(await scoreOf(desk.here()))
    expect(segments.filter((one) => one.kind === 'work').map((one) => one.label)).toEqual([
      'Anchor row',
      'Shadow boxing',
      'Keel hold',
      'Shadow boxing',
      'Rope pull',
      'Shadow boxing',
      'Keel hold',
      'Shadow boxing',
    ])
  })
  it('marks what it does not understand where it stands, offers a mend, and loses nothing over a reload', async () => {
    const id = await open('Slip')
    await page.getByRole('tab', { name: 'Shorthand' }).click()
    await page.locator('.cm-content').click()
    await page.keyboard.press('Control+End')
    await page.keyboard.type('circut Main: 3 rounds, 40 on # mornings\nJug lift', { delay: 5 })
    await page.getByText('1 place not understood').waitFor()
    await saved()
    await page.reload()
    await desk.ready()
    await page.getByRole('tab', { name: 'Shorthand' }).click()
    await page.locator('.cm-content').getByText('? circut Main: 3 rounds, 40 on # mornings').waitFor()
    await page.locator('.cm-content').getByText('? Jug lift').waitFor()
    expect((await scoreOf(id)).sections).toHaveLength(0)
    await page.locator('.cm-content').click()
    await page.keyboard.press('Control+a')
    await page.keyboard.type('circut Main: 3 rounds, 40 on', { delay: 5 })
    await page.locator('.cm-lintRange-error').first().hover()
    await page.getByRole('button', { name: 'circuit' }).click()
    await page.getByText('All understood').waitFor()
    await saved()
    expect((await scoreOf(id)).sections).toMatchObject([{ format: 'circuit', rounds: 3, workMs: 40_000 }])
  })
  it('keeps comments while another reading changes the score', async () => {
    await open('Remarks', '# on the roof\ncircuit Main: 3 rounds, 40 on, 20 off\n  Jug lift\n')
    const rounds = page.getByLabel('Rounds', { exact: true })
    await rounds.fill('4')
    await rounds.press('Enter')
    await page.getByRole('tab', { name: 'Shorthand' }).click()
    expect(await page.locator('.cm-content').innerText()).toMatch(
      /# on the roof\ncircuit Main: 4 rounds, 40 on, 20 off\n +Jug lift/,
    )
  })
})

describe('a plan from elsewhere', () => {
  it('is pasted as people type it, with what was not understood marked', async () => {
    const id = await open('Pasted')
    await page.getByRole('button', { name: 'Paste a plan' }).click()
    await page
      .getByRole('dialog')
      .getByRole('textbox')
      .fill(
        'Deck Hours 17\nBring a friend and something to drink, the more the merrier!\n3 rounds: 40s lantern reach / 20s rest, 40s jug lift / 20s rest',
      )
    await page.getByText('kept as a remark').waitFor()
    await page.getByRole('button', { name: 'Add to the score' }).click()
    await saved()
    // 3 x (40 + 20 + 40 + 20) s, without the last 20.
    await page.getByTestId('totals').getByText('5:40').waitFor()
    const kept = await scoreOf(id)
    expect(kept).toMatchObject({ title: 'Pasted', sections: [{ format: 'circuit', rounds: 3 }] })
    expect(JSON.stringify(kept)).toContain('# Bring a friend and something to drink, the more the merrier!')
  })
  it.each([
    ['on and off', 'Legs\n30s on 15s off, 3 rounds\n- Squats\n- Lunges', '4:15', 'circuit'],
    ['every minute', 'EMOM 8\n10 squats\n8 press-ups', '8:00', 'minuteReps'],
    ['a ladder', 'Ladder: 10/20/30 each, rest = work\nSquats', '1:30', 'ladder'],
    ['sets', '3x12 squats\n60s rest between sets', '3:48', 'sets'],
    ['chapters', '0:00 Intro\n0:30 Squats\n1:10 Rest\n1:30 Plank\n2:10 End', '2:10', 'talk'],
  ])('is pasted, taken and saved by keyboard: %s', async (name, text, total, format) => {
    const id = await open(`Typed: ${name}`)
    await page.getByRole('button', { name: 'Paste a plan' }).focus()
    await page.keyboard.press('Enter')
    await page.keyboard.insertText(text)
    const dialog = page.getByRole('dialog')
    await dialog.getByRole('region', { name: 'Understood as' }).getByText(total).waitFor()
    const add = dialog.getByRole('button', { name: 'Add to the score' })
    for (let tabs = 0; tabs < 20 && !(await add.evaluate((one) => one === document.activeElement)); tabs++)
      await page.keyboard.press('Tab')
    await page.keyboard.press('Enter')
    await saved()
    await page.getByTestId('totals').getByText(total, { exact: true }).waitFor()
    expect(await scoreOf(id)).toHaveProperty('sections.0.format', format)
  })
  it('asks what is meant, takes the answer, and lets guessed moves be accepted, by keyboard', async () => {
    const id = await open('Asked')
    await page.getByRole('button', { name: 'Paste a plan' }).click()
    await page.keyboard.insertText('20/10, 8 rounds\nWeighted lunge\nBarge waltz')
    const dialog = page.getByRole('dialog')
    await dialog.getByText('What is meant? eight rounds with two moves').waitFor()
    await dialog.getByRole('radio', { name: 'eight in turn, 3:50' }).focus()
    await page.keyboard.press('ArrowRight')
    await dialog.getByRole('region', { name: 'Understood as' }).getByText('7:50').waitFor()
    await dialog.getByRole('button', { name: 'Add to the score' }).press('Enter')
    await saved()
    await page.getByTestId('totals').getByText('7:50', { exact: true }).waitFor()
    const findings = page.getByLabel('Findings')
    await findings
      .getByText('"Weighted lunge" is taken for a move like it; "Barge waltz" is not known at all.')
      .waitFor()
    await findings.getByRole('button', { name: 'Look at them' }).press('Enter')
    await dialog.getByRole('combobox', { name: 'Weighted lunge: Is like' }).waitFor()
    await page.keyboard.press('Tab')
    await page.keyboard.insertText('Skater')
    await page.keyboard.press('Enter')
    await saved()
    await findings.getByText('is not known at all').waitFor({ state: 'detached' })
    expect((await scoreOf(id)).moves).toMatchObject([
      { name: 'Weighted lunge', gear: ['weight'] },
      { name: 'Barge waltz', impact: 'high' },
    ])
  })
  it('is copied from the shelf by keyboard, and the copy is a workout of its own', async () => {
    const id = await open('Copied', 'circuit Main: 2 rounds, 40 on, 20 off\n  Squat\n')
    await page.goto(desk.url)
    await page.getByRole('button', { name: 'Make a copy of "Copied"' }).press('Enter')
    await page.waitForURL(/\/w\/[0-9a-f-]+\/score$/)
    const copy = /w\/([0-9a-f-]+)\//.exec(page.url())?.[1] ?? ''
    expect(copy).not.toBe(id)
    expect(await scoreOf(copy)).toMatchObject({ title: 'Copied (copy)', sections: [{ format: 'circuit', rounds: 2 }] })
  })
  it('comes from a spreadsheet and goes back to it', async () => {
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write'], { origin: desk.url })
    const id = await open('Rows', 'circuit Main: 2 rounds, 40 on, 20 off\n  Squat\n')
    await page.getByRole('tab', { name: 'Running sheet' }).click()
    await page.evaluate(() =>
      navigator.clipboard.writeText('Roof\t1\twork\tLantern reach\tleft\t35\nRoof\t1\trest\t\t\t15'),
    )
    await page.locator('[data-row="1"] > span').nth(1).click()
    await page.keyboard.press('Control+v')
    await page.getByText('2 rows put in as a free list.').waitFor()
    await page.locator('[data-row="5"] > span').nth(1).click()
    await page.keyboard.press('Control+c')
    await page.getByText('1 row copied.').waitFor()
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(
      'section\tround\tkind\tlabel\tside\tseconds\nRoof\t1\twork\tLantern reach\tleft\t35',
    )
    await saved()
    expect((await scoreOf(id)).sections[1]).toMatchObject({
      format: 'list',
      rows: [{ label: 'Lantern reach', side: 'left', durationMs: 35_000 }, { kind: 'rest' }],
    })
  })
  it('is solved for from a promise, and the total kept when a number changes', async () => {
    const id = await open('Solved')
    await page.getByRole('button', { name: 'From a promise' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('Minutes for this section').fill('12')
    await dialog.getByLabel('Moves').fill('4')
    await dialog.getByLabel('Moves').press('Enter')
    await dialog.getByRole('button', { name: 'Take this' }).first().click()
    await saved()
    const { totalMs } = expand(await scoreOf(id))
    expect(Math.abs(totalMs - 720_000)).toBeLessThanOrEqual(60_000)
    expect((await scoreOf(id)).promiseMs).toBe(720_000)
    await page.getByLabel('Keep the total by changing').selectOption('restMs')
    const work = page.locator('[data-section=main]').getByLabel('Work', { exact: true }).first()
    await work.fill('22')
    await work.press('Enter')
    await page.getByText(/The total is 0:0\d (longer|shorter): whole numbers/).waitFor()
    await saved()
    const after = await scoreOf(id)
    const [main] = after.sections
    expect(main).toMatchObject({ workMs: 22_000 })
    // Rests of whole seconds: the total is as near as they bring it.
    expect(main && 'restMs' in main ? main.restMs % 1000 : null).toBe(0)
    const kept = expand(after)
    const rests = kept.segments.filter(({ kind }) => kind === 'rest').length
    expect(rests).toBeGreaterThan(0)
    expect(Math.abs(kept.totalMs - totalMs)).toBeLessThanOrEqual(rests * 500)
  })
})

describe('judgement', () => {
  it('is mended three times, set aside once, and undone back to empty, over a reload and forth again', async () => {
    const id = await open('Judged')
    await addSection(page, 'Circuit')
    const section = page.locator('[data-section=main]')
    for (const name of ['Keel hold', 'Jug lift', 'Pump-out hop']) {
      await section.getByRole('button', { name: 'Add move' }).click()
      const field = section.getByLabel(/^Move \d+$/).last()
      await field.fill(name)
      await field.press('Tab')
    }
    const rest = section.getByLabel('Rest', { exact: true }).first()
    await rest.fill('8')
    await rest.press('Enter')
    const findings = page.getByLabel('Findings')
    const mend = (name: string | RegExp): Promise<void> => findings.getByRole('button', { name }).first().click()
    await findings.getByText(/From Keel hold to Jug lift, left needs about/).waitFor()
    await mend(/^Make it/)
    await mend('Both sides in every turn')
    await mend('Add a warm-up')
    await expect.poll(() => findings.locator('[data-finding="warm-up"], [data-finding=sides]').count()).toBe(0)
    await findings.locator('[data-finding="cool-down"]').getByText('Set aside', { exact: true }).click()
    await page.keyboard.type('in its own video')
    await page.keyboard.press('Enter')
    await findings.getByText('1 set aside').waitFor()
    await saved()
    expect(await scoreOf(id)).toMatchObject({
      sections: [{ format: 'warmUp' }, { stations: [{}, { sideRule: 'halves' }, {}] }],
      dismissed: [{ reason: 'in its own video' }],
    })
    const whole = await scoreOf(id)

    const undo = page.getByRole('button', { name: /^Undo/ }),
      redo = page.getByRole('button', { name: /^Redo/ })
    let steps = 0
    while (await undo.isEnabled()) {
      await undo.click()
      steps++
    }
    expect(steps).toBeGreaterThan(8)
    expect(await page.locator('[data-section]').count()).toBe(0)
    await saved()
    await page.reload()
    await desk.ready()
    await expect.poll(() => redo.isEnabled()).toBe(true)
    for (let step = 0; step < steps; step++) await redo.click()
    await saved()
    expect(await scoreOf(id)).toEqual(whole)
  })
})

describe('the sheet and the terrain', () => {
  it('changes many rows at once, and orders moves by keyboard', async () => {
    const id = await open('Bulk', 'circuit Main: 2 rounds, 40 on, 20 off\n  Squat; Lunge; Plank\n')
    await page.getByRole('tab', { name: 'Running sheet' }).click()
    await page.locator('[data-row="1"] > span').nth(1).click()
    await page
      .locator('[data-row="5"] > span')
      .nth(1)
      .click({ modifiers: ['Shift'] })
    const bar = page.getByRole('toolbar')
    await bar.getByText('5 chosen').waitFor()
    await bar.getByLabel('Length of all').fill('45')
    await bar.getByLabel('Length of all').press('Enter')
    await bar.getByLabel('Sides of all').selectOption('halves')
    await saved()
    expect((await scoreOf(id)).sections[0]).toMatchObject({
      workMs: 45_000,
      restMs: 20_000,
      stations: [{ sideRule: 'halves' }, { sideRule: 'halves' }, { sideRule: 'halves' }],
    })
    await page.locator('[data-row="1"] > span').nth(1).click()
    await page.keyboard.press('Alt+ArrowDown')
    await saved()
    await expect
      .poll(async () => (await scoreOf(id)).sections[0])
      .toMatchObject({ stations: [{ label: 'Lunge' }, { label: 'Squat' }, { label: 'Plank' }] })
  })
  it('drags an edge of a ladder, which changes its step', async () => {
    const id = await open('Edges', 'ladder Main: 3 rungs, from 20, step 10, last rest dropped\n  Squat\n')
    const canvas = page.getByRole('img', { name: /intervals/ })
    const box = await restingBox(canvas)
    // Works of 20, 30, 40 s and rests of 20 and 30: the second work ends after 70 of 140 s.
    const y = box.y + box.height * 0.5,
      x = box.x + box.width / 2
    await page.mouse.move(x, y)
    await page.mouse.down()
    await page.mouse.move(x + (box.width / 140) * 5, y, { steps: 4 })
    await page.getByText(/Step becomes 0:15/).waitFor()
    await page.mouse.up()
    await saved()
    await expect.poll(async () => (await scoreOf(id)).sections[0]).toMatchObject({ startMs: 20_000, stepMs: 15_000 })
    await page.getByRole('button', { name: /^Undo/ }).click()
    await saved()
    await expect.poll(async () => (await scoreOf(id)).sections[0]).toMatchObject({ stepMs: 10_000 })
  })
  it('turns a section into a free list and recognises it again', async () => {
    const id = await open('Listed', 'slot Main: 3 rungs, from 20, step 10, shape up and down\n  Squat\n')
    const menu = async (item: string): Promise<void> => {
      await page.getByRole('button', { name: /^Section: / }).click()
      await page.getByRole('menuitem', { name: item }).click()
    }
    await menu('Turn into a free list')
    await saved()
    const list = await scoreOf(id)
    expect(list.sections[0]).toMatchObject({ format: 'list', from: 'slot' })
    await menu('Recognise the format')
    await page.getByText('This is: Fixed slot.').waitFor()
    await saved()
    const again = await scoreOf(id)
    expect(again.sections[0]).toMatchObject({ format: 'slot', startMs: 20_000, stepMs: 10_000, shape: 'upAndDown' })
    expect(expand(again).totalMs).toBe(expand(list).totalMs)
  })
})

describe('on paper', () => {
  const pages = async (path: string): Promise<number> => {
    await page.goto(desk.url + path)
    await page.getByRole('button', { name: 'Print' }).waitFor()
    const pdf = await page.pdf({ format: 'A4', margin: { top: '10mm', bottom: '10mm', left: '10mm', right: '10mm' } })
    return (pdf.toString('latin1').match(/\/Type\s*\/Page\b(?!s)/g) ?? []).length
  }
  it('a running sheet stands on one page, a wall board on one for each block', async () => {
    const short = await open(
      'Short',
      'warm-up: 30 on\n  Heel digs\ncircuit Main: 3 rounds, 40 on, 20 off\n  Jug lift; Keel hold; Towel tear; Rope pull; Squat\n',
    )
    expect(await pages(`/w/${short}/print?as=sheet`)).toBe(1)
    expect(await pages(`/w/${short}/print?as=board`)).toBe(2)
    const long = await open(
      'Long',
      'circuit Main: 30 rounds, 40 on, 20 off\n  Jug lift; Keel hold; Towel tear; Rope pull; Squat\n',
    )
    expect(await pages(`/w/${long}/print?as=sheet`)).toBe(1)
  })
})
