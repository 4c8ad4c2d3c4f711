// Words, rules, needs, the beat and the balance of a workout, each seen to act on the score; and every format of the
// menu.
import type { Locator } from 'playwright-core'
import { describe, expect, it } from 'vitest'
import { expand } from '../../src/core/expand/expand'
import { describeSection, FORMAT_NAMES } from '../../src/core/score/formats'
import { aroundFormat, followsAt } from '../../src/core/score/score'
import { formatClock } from '../../src/core/time/clock'
import { scoreTexts as words } from '../../src/core/words/en/score'
import { sharedDesk, type Desk } from './desk'
import { addSection } from './jivet'

let desk: Desk
sharedDesk((opened) => {
  desk = opened
})

const button = (name: string | RegExp): Locator => desk.page.getByRole('button', { name })
const dialog = (): Locator => desk.page.getByRole('dialog')
const findings = (): Locator => desk.page.getByLabel('Findings')
const total = (text: string): Promise<void> =>
  desk.page.getByTestId('totals').getByText(text, { exact: true }).first().waitFor()
async function close(): Promise<void> {
  await desk.page.keyboard.press('Escape')
  await dialog().waitFor({ state: 'detached' })
}

const TWO_ROUNDS = 'circuit Main: 2 rounds, 40 on, 20 off, last rest dropped\n  Squat; Lunge\n'

describe('every format of the menu', () => {
  it('is added with numbers that stand in its fields, in words and in the sum', async () => {
    const { page } = desk
    const id = await desk.open('All of them')
    for (const [index, format] of FORMAT_NAMES.entries()) {
      await addSection(page, words.formats[format][0])
      await expect.poll(() => page.locator('[data-section]').count()).toBe(index + 1)
    }
    await desk.saved()
    const score = await desk.scoreOf(id)
    expect(score.sections.map((section) => section.format)).toEqual(FORMAT_NAMES)
    for (const [index, section] of score.sections.entries()) {
      const card = page.locator(`[data-section="${section.key}"]`)
      await card.scrollIntoViewIfNeeded()
      await card
        .getByText(describeSection(section, aroundFormat(score, section.format, followsAt(score.sections, index))))
        .waitFor()
      expect(await card.getByRole('alert').count()).toBe(0)
    }
    await total(formatClock(expand(score).totalMs))
    await page.reload()
    await desk.ready()
    await total(formatClock(expand(score).totalMs))
  })
})

describe('words and rules', () => {
  it('call things what the creator calls them, on the sheet as well', async () => {
    const id = await desk.open('Laps', TWO_ROUNDS)
    await button('Words and rules').click()
    await desk.enter('Round, one', 'lap', dialog())
    expect(await dialog().getByLabel('Round, many').inputValue()).toBe('laps')
    await close()
    await desk.read('Running sheet')
    await desk.page.locator('[data-row="5"]').getByText('Lap 2/2').waitFor()
    await desk.saved()
    expect((await desk.scoreOf(id)).vocabulary.round).toEqual({ one: 'lap', many: 'laps' })
  })
  it('show every move once where they are told to, each as an estimate', async () => {
    await desk.open('Shown', TWO_ROUNDS)
    // 2 x 2 x (40 + 20) s, the last rest dropped.
    await total('3:40')
    await button('Words and rules').click()
    await dialog().getByLabel('Moves are shown').selectOption('upFront')
    await desk.enter('Each takes about', '15', dialog())
    await close()
    await total('4:10')
    await desk.page.getByTestId('totals').getByText('total, 3:55 to 4:40').waitFor()
    await desk.read('Running sheet')
    expect(await desk.page.locator('[data-row="1"]').innerText()).toContain('Shown: Squat')
    expect(await desk.page.locator('[data-row="1"]').innerText()).toContain('~0:15')
    await button('Words and rules').click()
    await dialog().getByLabel('Moves are shown').selectOption('inRests')
    await close()
    await total('3:40')
    expect(await desk.page.locator('[data-row="2"]').innerText()).toContain('Shown now: Lunge')
  })
  it('say why a reading is the default, and judge the title by the one that is chosen', async () => {
    await desk.open('Tabata on the towpath', 'burst Main: 6 intervals, 20 on, 10 off\n  Squat\n')
    await findings()
      .getByText(/The title says "Tabata"/)
      .waitFor()
    await button('Words and rules').click()
    await dialog()
      .getByText(/Default: strict, because a title that uses the word/)
      .waitFor()
    await dialog().getByLabel('any work that is twice its rest').check()
    await close()
    await expect
      .poll(() =>
        findings()
          .getByText(/The title says "Tabata"/)
          .count(),
      )
      .toBe(0)
  })
  it('miss the cautions when they stand nowhere, and put them back with one press', async () => {
    const id = await desk.open('Bare', TWO_ROUNDS)
    await button('Words and rules').click()
    await dialog().getByLabel('Cautions stand').selectOption('none')
    await close()
    await findings().getByRole('button', { name: 'Put them in both' }).click()
    await expect.poll(() => findings().locator('[data-finding=caution]').count()).toBe(0)
    await desk.saved()
    expect((await desk.scoreOf(id)).caution).toBe('both')
  })
})

describe('the seconds that things take', () => {
  it('are tuned, judged by at once, and put back to the usual', async () => {
    const id = await desk.open('Slow risers', 'circuit Main: 2 rounds, 30 on, 12 off\n  Keel hold; Squat\n')
    const rest = findings().locator('[data-finding=rest]')
    expect(await rest.count()).toBe(0)
    await button('Seconds that things take').click()
    await desk.enter('From the floor to standing', '9', dialog())
    await close()
    // Stand up 9, hear "Squat" 0.4, count in 3.
    await rest
      .getByText(
        'From Keel hold to Squat needs about 12.4 s: stand up 9, hear next move 0.4, count in 3; has 12 s, 2 times.',
      )
      .waitFor()
    await desk.saved()
    expect((await desk.scoreOf(id)).needs).toEqual({ floorToStand: 9 })
    await button('Seconds that things take').click()
    await dialog().getByRole('button', { name: 'Back to the usual' }).click()
    await close()
    await expect.poll(() => rest.count()).toBe(0)
  })
})

describe('on the beat', () => {
  it('finds tempos for the lengths that are chosen, and changes the others to fit one', async () => {
    const id = await desk.open('Beat', 'circuit Main: 2 rounds, 40 on, 17 off, last rest dropped\n  Squat; Lunge\n')
    await button('On the beat').click()
    // 40 s and 17 s share nothing but a second: four beats in it are 240 beats a minute.
    await dialog()
      .getByText(/No tempo from 80 to 180/)
      .waitFor()
    await dialog().getByLabel('0:17').uncheck()
    // Alone, 40 s is 20 bars of four at 120 beats a minute, and 20 reps of four beats.
    await dialog()
      .getByRole('row')
      .filter({ has: desk.page.getByRole('cell', { name: '120', exact: true }) })
      .getByText('20, 20')
      .waitFor()
    await dialog().getByLabel('0:17').check()
    await desk.enter('Wanted tempo', '120', dialog())
    // A bar is 2 s: 17 s becomes 18 s, as halves go up.
    await dialog().getByText('0:18 (+1 s)').waitFor()
    await dialog().getByRole('button', { name: 'Use these lengths' }).click()
    await desk.saved()
    expect((await desk.scoreOf(id)).sections[0]).toMatchObject({ workMs: 40_000, restMs: 18_000 })
  })
})

describe('the balance', () => {
  it('says in words what it draws: by block, side, posture, muscle and impact, with the gear', async () => {
    await desk.open(
      'Weighed',
      'circuit Main: 2 rounds, 40 on, 20 off, last rest dropped\n  Jug lift (sides alternate); Keel hold\n',
    )
    await desk.read('Balance')
    const chart = async (name: string): Promise<string> =>
      (await desk.page.getByRole('img', { name: new RegExp(`^${name}`) }).getAttribute('aria-label')) ?? ''
    expect(await chart('Work and rest by block')).toMatch(/work Main 2:40; rest Main 1:00/)
    expect(await chart('Left and right')).toMatch(/left 0:40, right 0:40/)
    expect(await chart('Posture')).toMatch(/standing 1:20, .*lying face down 1:20/)
    // The jug loads back, hips and thighs; the keel hold trunk and shoulders.
    expect(await chart('Muscles')).toMatch(
      /shoulders 1:20, chest 0:00, back 1:20, .*trunk 1:20, hips 1:20, thighs 1:20/,
    )
    expect(await chart('Impact')).toMatch(/feet stay 2:40, a foot lifts 0:00/)
    await desk.page.getByText('2.7 min').waitFor()
    await desk.page.getByText('water jug 1:20').waitFor()
  })
  it('has nothing to weigh before there is work, and says so', async () => {
    await desk.open('Weightless')
    await desk.read('Balance')
    await desk.page.getByText('No work yet, so there is nothing to weigh.').waitFor()
  })
})
