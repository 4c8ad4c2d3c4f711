// What a keystroke costs in the browser: from the key to the end of the frame that shows it, with a score of 2,000
// intervals and, in the same run, with one of ten, as machines and their screens differ.
//   JIVET_URL=http://127.0.0.1:4310 tsx bench/keystroke.ts   (with Jivet running)
import { chromium, type Page } from 'playwright-core'

const url = process.env.JIVET_URL ?? 'http://127.0.0.1:4310'
const sections = (count: number, rounds: number): string =>
  Array.from(
    { length: count },
    (_, index) =>
      `circuit Block ${index + 1}: ${rounds} rounds, 20 on, 10 off\n  Jug lift; Lock-gate push; Tiller twist; Pump-out hop; Deck-rail squat\n`,
  ).join('')
const json = { 'content-type': 'application/json' }

async function open(page: Page, title: string, plan: string): Promise<string> {
  const made = await fetch(`${url}/api/workouts`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ plan: `title ${title}\n${plan}`, name: 'bench.score.txt' }),
  })
  const { id } = (await made.json()) as { id: string }
  await page.goto(`${url}/w/${id}/score`)
  await page.getByTestId('save-state').waitFor()
  return id
}

/** Milliseconds from each key event to the end of the frame that shows it, in order of size. */
async function measure(page: Page, reading: string, type: () => Promise<void>): Promise<number[]> {
  await page.getByRole('tab', { name: reading }).click()
  await page.waitForTimeout(800)
  await page.evaluate(() => {
    const store = window as unknown as { costs: number[]; hooked?: boolean }
    store.costs = []
    if (store.hooked) return
    store.hooked = true
    window.addEventListener(
      'keydown',
      () => {
        const from = performance.now()
        requestAnimationFrame(() => {
          const channel = new MessageChannel()
          channel.port1.onmessage = () => {
            store.costs.push(performance.now() - from)
          }
          channel.port2.postMessage(null)
        })
      },
      true,
    )
  })
  await type()
  await page.waitForTimeout(600)
  return (await page.evaluate(() => (window as unknown as { costs: number[] }).costs)).sort((one, other) => one - other)
}

const readings = (page: Page): [string, () => Promise<void>][] => [
  [
    'Shorthand',
    async () => {
      await page.locator('.cm-content').click()
      await page.keyboard.press('Control+End')
      await page.keyboard.type('circuit More: 2 rounds, 35 on, 15 off', { delay: 60 })
    },
  ],
  [
    'Sections',
    async () => {
      for (let press = 0; press < 20; press++) {
        const field = page.getByLabel('Work', { exact: true }).first()
        await field.fill(String(21 + press))
        await field.press('Enter')
        await page.waitForTimeout(250)
      }
    },
  ],
  [
    'Running sheet',
    async () => {
      // The sheet opens at what was chosen last, wherever that is.
      await page.locator('[data-row]').nth(3).locator('> span').nth(1).click()
      for (let press = 0; press < 20; press++) await page.keyboard.press('ArrowDown', { delay: 40 })
    },
  ],
]

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
const at = (costs: readonly number[], share: number): number => costs[Math.floor((costs.length - 1) * share)] ?? 0
const made: string[] = []
const small = new Map<string, number>()
for (const [name, plan] of [
  ['ten', sections(1, 1)],
  ['2,000', sections(20, 10)],
] as const) {
  made.push(await open(page, `Bench of ${name}`, plan))
  for (const [reading, type] of readings(page)) {
    const costs = await measure(page, reading, type)
    const median = at(costs, 0.5),
      base = small.get(reading)
    small.set(reading, median)
    process.stdout.write(
      `${name.padStart(6)}  ${reading.padEnd(14)} ${String(costs.length).padStart(3)} keys   median ${median.toFixed(1)} ms   nine in ten below ${at(costs, 0.9).toFixed(1)} ms${base ? `   ${(median / base).toFixed(2)} times that of ten` : ''}\n`,
    )
  }
}
await browser.close()
for (const id of made)
  await fetch(`${url}/api/workouts/${id}/removed`, {
    method: 'PUT',
    headers: json,
    body: JSON.stringify({ removed: true }),
  })
