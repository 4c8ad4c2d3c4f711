// Every view and every dialog of planning, by day and by night, through axe: contrast, names, roles, headings.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { describe, expect, it } from 'vitest'
import { startedDesk, type Desk } from './desk'

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')
let desk: Desk
startedDesk((opened) => {
  desk = opened
})

interface Violation {
  id: string
  impact: string | null
  nodes: { target: unknown; any: { message: string }[] }[]
}

/** What axe finds wrong in the page as it stands, or in a part of it, one line each. */
async function faults(within = 'html'): Promise<string[]> {
  const { page } = desk
  await page.evaluate(axe)
  const violations = await page.evaluate(
    async (part) =>
      (
        await (
          window as unknown as { axe: { run: (of: string, how: object) => Promise<{ violations: Violation[] }> } }
        ).axe.run(part, { resultTypes: ['violations'] })
      ).violations,
    within,
  )
  return violations.map(
    ({ id, impact, nodes }) =>
      `${impact ?? ''} ${id}, ${nodes.length} times: ${JSON.stringify(nodes[0]?.target)} ${nodes[0]?.any[0]?.message ?? ''}`,
  )
}

const PLAN =
  'score: demos in rests\ntalk Welcome: about 30\nwarm-up Warm-up: 30 on\n  20 Mooring march\n# by the rail\ncircuit Main: 3 rounds, 40 on, 12 off, 1:00 between\n  Jug lift; Keel hold; Barge waltz\nfinisher Last: 2 rounds\n  10 Squat\n'

describe.each(['day', 'night'] as const)('by %s', (theme) => {
  it('the shelf and the moves', async () => {
    const { page } = desk
    await page.goto(desk.url)
    if (theme === 'night') await page.getByRole('button', { name: 'Change to night' }).click()
    await page.getByRole('button', { name: 'New workout' }).waitFor()
    expect(await faults()).toEqual([])
    await page.goto(`${desk.url}/moves`)
    await page.getByRole('list', { name: 'Moves' }).getByRole('listitem').first().click()
    expect(await faults()).toEqual([])
  })
  it('the four readings of a score', async () => {
    const { page } = desk
    await desk.open(`Readings by ${theme}`, PLAN)
    await page.getByLabel('Findings').locator('[data-finding]').first().waitFor()
    expect(await faults()).toEqual([])
    await desk.read('Running sheet')
    await page.locator('[data-row="4"] > span').nth(1).click()
    await page
      .locator('[data-row="6"] > span')
      .nth(1)
      .click({ modifiers: ['Shift'] })
    await page.getByRole('toolbar').waitFor()
    expect(await faults()).toEqual([])
    await desk.read('Shorthand')
    await page.locator('.cm-content').click()
    await page.keyboard.press('Control+End')
    await page.keyboard.type('circut Slip: 3 rounds')
    await page.keyboard.press('Escape')
    await page.getByText('1 place not understood').waitFor()
    expect(await faults()).toEqual([])
    await desk.read('Balance')
    await page.getByRole('img', { name: /^Muscles/ }).waitFor()
    expect(await faults()).toEqual([])
  })
  it.each(['From a promise', 'Paste a plan', 'Words and rules', 'On the beat', 'Seconds that things take'])(
    'the dialog "%s"',
    async (name) => {
      const { page } = desk
      await page.getByRole('button', { name }).click()
      await page.getByRole('dialog').waitFor()
      // It fades in; contrast is judged when it stands.
      await page.waitForTimeout(400)
      expect(await faults()).toEqual([])
      await page.keyboard.press('Escape')
      await page.getByRole('dialog').waitFor({ state: 'detached' })
    },
  )
  it('the menu of formats, and a score with nothing in it', async () => {
    const { page } = desk
    await desk.open(`Empty by ${theme}`)
    expect(await faults()).toEqual([])
    await page.getByRole('button', { name: 'Add section' }).click()
    await page.getByRole('menu').waitFor()
    expect(await faults('[role=menu]')).toEqual([])
    await page.keyboard.press('Escape')
  })
  it("Sync, Watch and Ship, with the demo's footage and without any", async () => {
    const { page } = desk
    const empty = desk.here()
    await page.goto(desk.url)
    await page
      .getByRole('link', { name: /Deck Hours 12/ })
      .first()
      .click()
    await page.waitForURL('**/score')
    for (const id of [desk.here(), empty]) {
      for (const view of ['sync', 'watch', 'ship']) {
        await page.goto(`${desk.url}/w/${id}/${view}`)
        await page.getByRole('heading', { level: 1 }).first().waitFor({ state: 'attached' })
        await page.waitForTimeout(500)
        expect(await faults(), view).toEqual([])
      }
    }
  })

  it('the proof, and what viewers hear', async () => {
    const { page } = desk
    await desk.open('Heard and proofed', 'circuit Main: 1 round, 40 on, 20 off, lead 8\n  Jug lift\n  Keel hold\n')
    await page.goto(page.url().replace('/score', '/watch'))
    await page.getByRole('button', { name: /^Proof/ }).click()
    await page.getByRole('complementary', { name: 'Proof' }).waitFor()
    await page.getByRole('button', { name: 'It is right' }).click()
    await page.getByText(/^1 of \d+ checked$/).waitFor()
    expect(await faults(), 'proof').toEqual([])
    await page.getByRole('button', { name: /^Sound:/ }).click()
    await page.getByRole('dialog').waitFor()
    await page.getByLabel('Voice').selectOption('own')
    await page.getByText('Lines to record').waitFor()
    await page.waitForTimeout(400)
    expect(await faults('[role=dialog]'), 'sound').toEqual([])
  })

  it('Floor, before a session, while it runs, and after it', async () => {
    const { page } = desk
    await desk.open(
      'Seen and heard',
      'circuit Main: 1 round, 40 on, lead 5, last rest dropped\n  Jug lift (sides none)\n',
    )
    await page.goto(page.url().replace('/score', '/floor'))
    await page.getByRole('radio', { name: 'Rehearse' }).click()
    const read = page.getByRole('checkbox', { name: 'I have read it' })
    if (!(await read.isChecked())) await read.check()
    expect(await faults(), 'before').toEqual([])
    await page.getByRole('button', { name: 'Rehearse', exact: true }).click()
    await page.getByTestId('floor-count').waitFor()
    expect(await faults(), 'counting in').toEqual([])
    await page.keyboard.press('PageDown')
    await page.keyboard.press('PageDown')
    await page.locator('[data-ground=work]').waitFor()
    expect(await faults(), 'work').toEqual([])
    await page.getByRole('button', { name: 'More' }).click()
    await page.getByRole('dialog').waitFor()
    expect(await faults('[role=dialog]'), 'more').toEqual([])
    await page.getByRole('button', { name: 'End', exact: true }).click()
    await page.getByRole('button', { name: 'See what happened' }).click()
    await page.getByRole('table').waitFor()
    expect(await faults(), 'after').toEqual([])
  })
})
