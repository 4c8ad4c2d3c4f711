// A video is published on the simulated host over a network that breaks, watched there, and what is said there comes
// back.
import { spawn, type ChildProcess } from 'node:child_process'
import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Progress } from '../../src/server/progress'
import { Desk } from './desk'
import { freePort, startedJivet, savedIn } from './jivet'

const folder = mkdtempSync(join(tmpdir(), 'jivet-host-test-'))
let host: ChildProcess | null = null
let page: Page, desk: Desk, id: string

const hostPort = await freePort()
const hostUrl = `http://127.0.0.1:${hostPort}`

async function startHost(breaks = 0): Promise<void> {
  const env = {
    ...process.env,
    ...{
      PORT: String(hostPort),
      JIVET_HOST_FOLDER: folder,
      JIVET_HOST_PROCESS_MS: '600',
      JIVET_HOST_BREAKS: String(breaks),
    },
  }
  host = spawn(process.execPath, ['--import', 'tsx', 'demo/host/host.ts'], {
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  await once(host.stdout!, 'data')
}
async function stopHost(signal: 'SIGKILL' | 'SIGTERM' = 'SIGTERM'): Promise<void> {
  if (!host || host.exitCode !== null) return
  host.kill(signal)
  await once(host, 'exit')
}
afterAll(async () => {
  await stopHost()
  rmSync(folder, { recursive: true, force: true })
})

const jivet = startedJivet(
  (opened) => {
    page = opened
  },
  { JIVET_HOST_URL: hostUrl },
)
beforeAll(() => {
  desk = new Desk(jivet.url, page)
})
const progress = async (): Promise<Progress> =>
  (await (await fetch(`${jivet.url}/api/workouts/${id}/progress`)).json()) as Progress
const there = async (): Promise<{ id: string; state: string }[]> =>
  (await (await fetch(`${hostUrl}/api/videos`)).json()) as { id: string; state: string }[]

const breaks = (share: number): Promise<unknown> =>
  fetch(`${hostUrl}/api/simulated/network`, { method: 'PUT', body: JSON.stringify({ breaks: share }) })

const PLAN = 'circuit Main: 1 rounds, 10 on, 2 off\n  Jug lift; Keel hold; Boom row\n'
const section = () => page.getByRole('region', { name: 'Publish' })

const words = () => page.getByRole('textbox', { name: 'Description' })

describe('a video for the simulated host', () => {
  it('says that the host is away, and takes nothing', async () => {
    id = await desk.open('Deck card', PLAN)
    await page.goto(`${jivet.url}/w/${id}/ship`)
    await page.getByRole('button', { name: 'Render the companion video' }).click()
    await page.getByRole('link', { name: /Video \(MP4\)/ }).waitFor({ timeout: 120_000 })
    await section().getByText('does not answer').waitFor()
    expect(
      await section()
        .getByRole('button', { name: /^Publish/ })
        .isDisabled(),
    ).toBe(true)
  })
  it('of which a word has changed is made anew only where it shows the word, and what was written to it stays', async () => {
    const first = (await progress()).pack!
    await words().fill(`Wet weather on deck\n${await words().inputValue()}`)
    await words().blur()
    await expect.poll(async () => (await progress()).pack!.description, { timeout: 5000 }).toMatch(/^Wet weather/)
    await page.goto(`${jivet.url}/w/${id}/score`)
    await desk.ready()
    await desk.read('Shorthand')
    await page.locator('.cm-content').click()
    await page.keyboard.press('Control+a')
    await page.keyboard.insertText(`title Deck card\n${PLAN.replace('Boom row', 'Mast lean')}`)
    await expect.poll(async () => JSON.stringify(await desk.scoreOf(id)), { timeout: 10_000 }).toContain('Mast lean')
    await page.goto(`${jivet.url}/w/${id}/ship`)
    const told = await page.getByText(/^A new render makes \d+ of \d+ parts/).textContent({ timeout: 20_000 })
    const [made, all] = [...told!.matchAll(/\d+/g)].map(Number)
    expect(made).toBeGreaterThan(0)
    expect(made).toBeLessThan(all!)
    await page.getByRole('button', { name: 'Render the companion video' }).click()
    await expect.poll(async () => (await progress()).pack!.id, { timeout: 120_000 }).not.toBe(first.id)
    const { pack } = await progress()
    expect(pack!.description).toMatch(/^Wet weather on deck\n[^]*Mast lean/)
    expect(pack!.clashes).toBe(0)
    expect(pack!.verified!.faults.filter(({ kind }) => kind !== 'peak')).toEqual([])
    await expect.poll(() => words().inputValue(), { timeout: 10_000 }).toMatch(/^Wet weather on deck\n[^]*Mast lean/)
    expect(await page.locator('video').count()).toBe(1)
    await page.getByRole('button', { name: 'Back to what Jivet wrote' }).click()
    await expect.poll(async () => (await progress()).pack!.description, { timeout: 5000 }).toBe(pack!.written)
  })
  it('has a thumbnail of an instant, with words that are chosen, and that stay chosen', async () => {
    const thumbnail = page.getByRole('region', { name: 'Thumbnail' })
    await thumbnail.getByRole('img', { name: 'Deck card' }).waitFor()
    await thumbnail.getByLabel('Words').fill('Jug lift')
    await thumbnail.getByLabel('Letters').selectOption('large')
    await thumbnail.getByRole('img', { name: 'Jug lift' }).waitFor()
    const made = await fetch(`${jivet.url}/api/workouts/${id}/thumbnail?text=Jug&size=large&atMs=5000`)
    const bytes = Buffer.from(await made.arrayBuffer())
    expect([made.headers.get('content-type'), bytes.readUInt16BE(0)]).toEqual(['image/jpeg', 0xffd8])
    const all = await fetch(`${jivet.url}/api/packs/${(await progress()).pack!.id}/all`)
    const archive = Buffer.from(await all.arrayBuffer())
    expect(archive.length).toBe(Number(all.headers.get('x-jivet-length') ?? archive.length))
    for (const ending of ['.mp4', '.vtt', '-chapters.txt', '-description.txt', '-thumbnail.jpg'])
      expect(archive.includes(`deck-card${ending}`), ending).toBe(true)
    const overlay = await fetch(`${jivet.url}/api/workouts/${id}/overlay?as=mov`)
    expect([overlay.status, overlay.headers.get('content-type')]).toEqual([200, 'video/quicktime'])
    const wrong = await fetch(`${jivet.url}/api/workouts/${id}/thumbnail?size=huge`)
    expect(wrong.status).toBe(400)
    // What was chosen is there again, however soon the page is left.
    await thumbnail.getByLabel('Letters').selectOption('small')
    await page.goto(`${jivet.url}/w/${id}/score`)
    await expect
      .poll(
        async () => {
          await page.goto(`${jivet.url}/w/${id}/ship`)
          return thumbnail.getByLabel('Letters').inputValue()
        },
        { timeout: 10_000 },
      )
      .toBe('small')
  })
  it('says how many of its changes nobody has proofed, and how many are others since they were', async () => {
    await page.goto(`${jivet.url}/w/${id}/watch`)
    await page.getByRole('button', { name: /^Proof/ }).click()
    const told = await page.getByText(/^0 of \d+ checked$/).innerText()
    const all = Number(told.split(' ')[2])
    const saved = page.waitForResponse((answer) => answer.url().endsWith('/proof') && answer.ok())
    await page.locator('body').click({ position: { x: 5, y: 300 } })
    for (let change = 0; change < 2; change++) {
      await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
      await page.keyboard.press('Enter')
    }
    const { checked } = savedIn<{ checked: Record<string, string> }>(await saved)
    await page.getByText(`2 of ${all} checked`).waitFor()
    const proofs = async () => {
      const at = `${jivet.url}/api/packs/${(await progress()).pack!.id}/publish`
      const { obstacles } = (await (await fetch(at)).json()) as { obstacles: { code: string; count?: number }[] }
      return obstacles.filter(({ code }) => /proofed/.test(code)).map(({ code, count }) => [code, count])
    }
    // The server knows a change by the same signature as the browser does.
    await expect.poll(proofs, { timeout: 10_000 }).toEqual([['unproofed', all - 2]])
    const [first = ''] = Object.keys(checked)
    await fetch(`${jivet.url}/api/workouts/${id}/proof`, {
      ...{ method: 'PUT', headers: { 'content-type': 'application/json' } },
      body: JSON.stringify({ checked: { [first]: 'another' }, notes: [] }),
    })
    expect(await proofs()).toEqual([
      ['proofed-before', 1],
      ['unproofed', all - 1],
    ])
    await page.goto(`${jivet.url}/w/${id}/ship`)
  })
  it('is published once over a network that breaks, however often host and network fail', async () => {
    await startHost()
    await section().getByRole('button', { name: 'Look again' }).click()
    await section()
      .getByRole('button', { name: /^Publish on Towpath/ })
      .and(page.locator(':enabled'))
      .waitFor()
    await section().getByText('One change is another since it was proofed.').waitFor()
    await breaks(0.35)
    await section()
      .getByRole('button', { name: /^Publish on Towpath/ })
      .click()
    await expect.poll(async () => (await progress()).published.length, { timeout: 20_000 }).toBe(1)
    await stopHost('SIGKILL')
    await startHost(0.35)
    await section().getByText('Published: Towpath').waitFor({ timeout: 110_000 })
    await breaks(0)
    const all = await there()
    expect(all).toEqual([expect.objectContaining({ state: 'ready', hasCaptions: true })])
    const sent = Buffer.from(await (await fetch(`${hostUrl}/file/${all[0]!.id}`)).arrayBuffer())
    const own = Buffer.from(
      await (await fetch(`${jivet.url}/api/packs/${(await progress()).pack!.id}/video`)).arrayBuffer(),
    )
    const sum = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex')
    expect(sum(sent)).toBe(sum(own))
    const again = await fetch(`${jivet.url}/api/packs/${(await progress()).pack!.id}/publish`, { method: 'POST' })
    expect(again.status).toBe(409)
  })
  it('is watched there, with its chapters, and what is said there comes back', async () => {
    const [opened] = await Promise.all([
      page.waitForEvent('popup'),
      section().getByRole('link', { name: 'See it there' }).click(),
    ])
    await opened.getByText('a SIMULATED video host').waitFor()
    const video = opened.locator('video')
    await expect.poll(() => video.evaluate((one: HTMLVideoElement) => one.readyState), { timeout: 10_000 }).toBe(4)
    await opened
      .getByRole('button', { name: /^0:[12]\d/ })
      .first()
      .click()
    await expect.poll(() => video.evaluate((one: HTMLVideoElement) => one.currentTime)).toBeGreaterThan(9)
    await opened.getByLabel('Name').fill('A neighbour')
    await opened.getByLabel('Comment').fill('<b>Good</b> for a wet morning')
    await opened.getByRole('button', { name: 'Say it' }).click()
    await opened.getByText('<b>Good</b> for a wet morning').waitFor()
    await opened.close()
    await page.reload()
    await section().getByText('<b>Good</b> for a wet morning').waitFor()
    await section().getByText('simulated: nobody watched').waitFor()
  })
  it('is refused in words where the host does not take it, before a byte is sent', async () => {
    const answer = await fetch(`${hostUrl}/api/videos`, {
      method: 'POST',
      body: JSON.stringify({ key: 'longer than eight', title: 'x'.repeat(101), description: '', bytes: 5 }),
    })
    expect([answer.status, await answer.json()]).toEqual([422, { reason: 'A title has 100 letters at most.' }])
    expect((await there()).length).toBe(1)
  })
})
