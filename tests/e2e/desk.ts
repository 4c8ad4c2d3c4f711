// What tests of planning do again and again: open a workout, wait until it is saved, read the score back from the
// server.
import type { Locator, Page } from 'playwright-core'
import type { Score } from '../../src/core/score/score'
import { sharedJivet, startedJivet } from './jivet'

export class Desk {
  constructor(
    readonly url: string,
    readonly page: Page,
  ) {}

  /** Makes a workout, from a plan where one is given, and opens its score. @returns its id. */
  async open(title: string, plan = ''): Promise<string> {
    const body = plan ? { plan: `title ${title}\n${plan}`, name: 'plan.score.txt' } : { title }
    const made = await fetch(`${this.url}/api/workouts`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
    if (!made.ok) throw new Error(`no workout was made: ${await made.text()}`)
    const { id } = (await made.json()) as { id: string }
    await this.page.goto(`${this.url}/w/${id}/score`)
    await this.ready()
    return id
  }

  /** Until the score on the page answers to keys and clicks: its clock is read after everything is wired up. */
  async ready(): Promise<void> {
    await this.page
      .getByTestId('totals')
      .locator('dl > div', { hasText: 'ends at' })
      .getByText(/^\d\d:\d\d$/)
      .waitFor()
  }

  async saved(): Promise<void> {
    await this.page.getByTestId('save-state').getByText('Saved', { exact: true }).waitFor()
  }

  async scoreOf(id: string): Promise<Score> {
    return ((await (await fetch(`${this.url}/api/workouts/${id}/score`)).json()) as { score: Score }).score
  }

  /** The workout that the page is at. */
  here(): string {
    return this.page.url().split('/').at(-2) ?? ''
  }

  async read(reading: 'Sections' | 'Running sheet' | 'Shorthand' | 'Balance'): Promise<void> {
    await this.page.getByRole('tab', { name: reading }).click()
  }

  /** Types into a field and presses Enter. */
  async enter(label: string, text: string, within = this.page.locator('body')): Promise<void> {
    const field = within.getByLabel(label, { exact: true }).first()
    await field.fill(text)
    await field.press('Enter')
  }
}

/** A Jivet for one file of tests, and a desk in it. @param onDesk called before the first test. */
export function startedDesk(onDesk: (desk: Desk) => void): void {
  const jivet = startedJivet((page) => onDesk(new Desk(jivet.url, page)))
}

/** A desk in the Jivet that is shared: for tests that change nothing but workouts of their own. */
export function sharedDesk(onDesk: (desk: Desk) => void): void {
  const jivet = sharedJivet((page) => onDesk(new Desk(jivet.url, page)))
}

/** Where something stands once it has come to rest: what is judged after an edit moves the page a moment later. */
export async function restingBox(one: Locator): Promise<{ x: number; y: number; width: number; height: number }> {
  for (let tries = 0, before = ''; tries < 20; tries++) {
    const box = await one.boundingBox()
    if (box && before === JSON.stringify(box)) return box
    before = JSON.stringify(box)
    await one.page().waitForTimeout(400)
  }
  throw new Error('it never came to rest')
}
