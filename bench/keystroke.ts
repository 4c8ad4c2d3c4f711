// What a keystroke costs in the browser with a score of 2,000 segments: the longest tasks between key and picture.
//   JIVET_URL=http://127.0.0.1:4310 tsx bench/keystroke.ts   (with Jivet running)
import { chromium } from 'playwright-core'

const url = process.env.JIVET_URL ?? 'http://127.0.0.1:4310'
const plan = Array.from({ length: 20 }, (_, index) => `circuit Block ${index + 1}: 10 rounds, 20 on, 10 off\n  Jug lift; Lock-gate push; Tiller twist; Pump-out hop; Deck-rail squat\n`).join('')
const made = await fetch(`${url}/api/workouts`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ plan: `title Bench of 2,000\n${plan}`, name: 'bench.score.txt' }) })
const { id } = (await made.json()) as { id: string }
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-background-networking', '--disable-component-update', '--disable-sync'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`${url}/w/${id}/score`)
await page.getByTestId('save-state').waitFor()

/** Milliseconds from each key event to the end of the frame that shows it. */
async function measure(reading: string, type: () => Promise<void>): Promise<void> {
  await page.getByRole('tab', { name: reading }).click()
  await page.waitForTimeout(800)
  await page.evaluate(() => {
    const store = window as unknown as { costs: number[]; hooked?: boolean }
    store.costs = []
    if (store.hooked) return
    store.hooked = true
    window.addEventListener('keydown', () => {
      const from = performance.now()
      requestAnimationFrame(() => {
        const channel = new MessageChannel()
        channel.port1.onmessage = () => { store.costs.push(performance.now() - from) }
        channel.port2.postMessage(null)
      })
    }, true)
  })
  await type()
  await page.waitForTimeout(600)
  const costs = (await page.evaluate(() => (window as unknown as { costs: number[] }).costs)).sort((one, other) => one - other)
  const at = (share: number): string => (costs[Math.floor((costs.length - 1) * share)] ?? 0).toFixed(1)
  process.stdout.write(`${reading.padEnd(14)} ${String(costs.length).padStart(3)} keys   median ${at(0.5)} ms   nine in ten below ${at(0.9)} ms   worst ${at(1)} ms\n`)
}

await measure('Shorthand', async () => {
  await page.locator('.cm-content').click()
  await page.keyboard.press('Control+End')
  await page.keyboard.type('circuit More: 2 rounds, 35 on, 15 off', { delay: 60 })
})
await measure('Sections', async () => {
  for (let press = 0; press < 12; press++) {
    const field = page.getByLabel('Work', { exact: true }).first()
    await field.fill(String(21 + press))
    await field.press('Enter')
    await page.waitForTimeout(250)
  }
})
await measure('Running sheet', async () => {
  await page.locator('[data-row="1"] > span').nth(1).click()
  for (let press = 0; press < 20; press++) await page.keyboard.press('ArrowDown', { delay: 40 })
})
await browser.close()
await fetch(`${url}/api/workouts/${id}/removed`, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ removed: true }) })
