// The move library: found, made, changed where it is used, brought in from a file.
import type { Page } from 'playwright-core'
import { expect, it } from 'vitest'
import { startedDesk, type Desk } from './desk'

let desk: Desk
let page: Page
startedDesk((opened) => {
  desk = opened
  page = opened.page
})
const rows = () => page.getByRole('list', { name: 'Moves' }).getByRole('listitem')

it('finds moves by word, posture and muscle', async () => {
  await page.goto(`${desk.url}/moves`)
  await page.getByText(/^273 of 273$/).waitFor()
  await page.getByRole('searchbox').fill('water jug')
  await page.getByText(/^2 of 273$/).waitFor()
  expect(await rows().allInnerTexts()).toEqual([
    expect.stringContaining('Anchor row'),
    expect.stringContaining('Jug lift'),
  ])
  await page.getByRole('searchbox').fill('')
  await page.getByLabel('Posture').first().selectOption('seated')
  await page.getByLabel('Muscles').first().selectOption('trunk')
  const shown = (await rows().allInnerTexts()).join('\n')
  for (const name of ['Boat hold', 'Porthole turn', 'Seated march', 'Seated twist', 'Tiller twist'])
    expect(shown).toContain(name)
  expect(shown).not.toContain('Hamstring stretch')
  await page.getByRole('searchbox').fill('zeppelin')
  await page.getByText('No move is like that.').waitFor()
})

it("makes a move of one's own, which a score takes along, and says where it is used when it changes", async () => {
  await page.goto(`${desk.url}/moves`)
  await page.getByRole('button', { name: 'New move' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await page.getByRole('alert').first().waitFor()
  await page.getByLabel('Name', { exact: true }).fill('Punt push')
  await page.getByLabel('Seconds a rep').fill('4.5')
  await page.getByRole('button', { name: 'grip', exact: true }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await page.getByText(/^274 of 274$/).waitFor()

  const id = await desk.open('Deck Hours 18: punt')
  await page.getByRole('tab', { name: 'Shorthand' }).click()
  await page.locator('.cm-content').click()
  await page.keyboard.press('Control+End')
  await page.keyboard.type('finisher Last: 1 round\n10 Punt push', { delay: 5 })
  await page.getByTestId('totals').getByText('0:45').first().waitFor()
  await desk.saved()
  expect((await desk.scoreOf(id)).moves).toMatchObject([{ name: 'Punt push', secondsPerRep: 4.5, muscles: ['grip'] }])

  await page.goto(`${desk.url}/moves`)
  await page.getByRole('searchbox').fill('punt')
  await rows().first().click()
  await page.getByText('Used in 1 workout:').waitFor()
  await page.getByText('Deck Hours 18: punt').waitFor()
  await page.getByLabel('Name', { exact: true }).fill('Quant push')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect.poll(async () => (await desk.scoreOf(id)).moves.map((move) => move.name)).toEqual(['Quant push'])
  expect((await desk.scoreOf(id)).sections[0]).toMatchObject({ stations: [{ label: 'Quant push' }] })
})

it('brings moves in from a table, takes the right ones and says which are wrong', async () => {
  await page.goto(`${desk.url}/moves`)
  const table =
    'name,posture,muscles,effort,gear\nRudder row,seated,back; arms,4,paddle\nBad one,floating,,3,\n,standing,,3,\nSwan neck,standing,flippers,3,\n'
  await page
    .getByLabel('Bring in')
    .setInputFiles({ name: 'moves.csv', mimeType: 'text/csv', buffer: Buffer.from(table) })
  await page.getByText('1 move taken in.').waitFor()
  await page.getByText('3 not taken:').waitFor()
  await page.getByText(/line 3: posture/).waitFor()
  await page
    .getByLabel('Bring in')
    .setInputFiles({ name: 'moves.json', mimeType: 'application/json', buffer: Buffer.from('{') })
  await page.getByText(/This is not JSON/).waitFor()
  await page.getByRole('searchbox').fill('rudder')
  await rows().first().click()
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await page.getByText('No move is like that.').waitFor()
})

it('keeps what was typed of a move while another is looked at, and gives a removed one back', async () => {
  await page.goto(`${desk.url}/moves`)
  await page.getByRole('button', { name: 'New move' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Windlass crank')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await page.getByRole('searchbox').fill('windlass')
  await rows().filter({ hasText: 'Windlass crank' }).click()
  await page.getByLabel('Seconds a rep').fill('7.5')
  await rows().filter({ hasText: 'Windlass turn' }).click()
  await rows().filter({ hasText: 'Windlass crank' }).getByText('not saved').waitFor()
  await rows().filter({ hasText: 'Windlass crank' }).click()
  expect(await page.getByLabel('Seconds a rep').inputValue()).toBe('7.5')

  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect.poll(() => rows().getByText('not saved').count()).toBe(0)
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await page.getByText('"Windlass crank" is removed.').waitFor()
  expect(await rows().filter({ hasText: 'Windlass crank' }).count()).toBe(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await rows().filter({ hasText: 'Windlass crank' }).click()
  expect(await page.getByLabel('Seconds a rep').inputValue()).toBe('7.5')
})
