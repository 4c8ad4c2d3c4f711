// Fields that answer while one types: offers of moves, and lists that follow.
import { describe, expect, it } from 'vitest'
import { sharedDesk, type Desk } from './desk'

let desk: Desk
sharedDesk((opened) => {
  desk = opened
})

const PLAN = 'circuit Main: 3 rounds, 40 on, 20 off, 1:00 between\n  Squat; Lunge\n'

const MOVE = 'Move 1'
/** Until the saved score holds a move. */
const holds = (id: string, name: string): Promise<void> =>
  expect.poll(async () => JSON.stringify((await desk.scoreOf(id)).sections)).toContain(`"${name}"`)

describe('a field for a move', () => {
  it('takes the offer that the arrow keys chose on Enter, and what was typed where none is chosen', async () => {
    const { page } = desk
    const id = await desk.open('Offers', PLAN)
    const field = page.getByLabel(MOVE, { exact: true }).first()
    await field.fill('keel')
    await page.getByRole('option', { name: 'Keel hold' }).waitFor()
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Enter')
    await desk.saved()
    await holds(id, 'Keel hold')
    await field.fill('keelish')
    await page.keyboard.press('Enter')
    await holds(id, 'keelish')
  })
  it('takes an offer that is pressed', async () => {
    const { page } = desk
    const id = await desk.open('Pressed', PLAN)
    const field = page.getByLabel(MOVE, { exact: true }).first()
    await field.fill('keel')
    await page.getByRole('option', { name: 'Keel hold' }).click()
    await page.keyboard.press('Tab')
    await holds(id, 'Keel hold')
  })
})

describe('another length', () => {
  it('follows what is typed, and stays where it is when the field is left', async () => {
    const { page } = desk
    await desk.open('Shorter', PLAN)
    await page.getByRole('button', { name: /Another length/ }).click()
    const ways = page.getByRole('dialog').getByRole('list')
    const before = await ways.innerText()
    await page.getByRole('dialog').getByLabel('Wanted').fill('4:00')
    await expect.poll(() => ways.innerText()).not.toBe(before)
    const typed = await ways.innerText()
    await page.keyboard.press('Tab')
    expect(await ways.innerText()).toBe(typed)
  })
})
