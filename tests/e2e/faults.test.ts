// Broken off in the middle: workers killed while rendering, the whole server killed while uploading, and started again.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Desk } from './desk'
import { addSection, FILM, startedJivet } from './jivet'
import { filmRoundOne, tieRoundOne } from './roundOne'

const folder = mkdtempSync(join(tmpdir(), 'jivet-faults-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const film = join(folder, 'round-one.mp4')
beforeAll(() => filmRoundOne(film))

let page: Page
const jivet = startedJivet((opened) => {
  page = opened
})

/** Processes of this very Jivet whose command line holds `words`, told from others by their environment. */
function processes(words: string): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        return (
          readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(words) &&
          readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`JIVET_HOME=${jivet.home}`)
        )
      } catch {
        return false
      }
    })
    .map(Number)
}

const killAll = (words: string): void => {
  for (const pid of processes(words)) process.kill(pid, 'SIGKILL')
}

describe('a killed worker', () => {
  it('is replaced, and the render that it was at is done all the same', async () => {
    await tieRoundOne(new Desk(jivet.url, page), 'Rendered twice', film)
    await page.getByRole('link', { name: 'Ship' }).click()
    await page.getByRole('button', { name: 'Render the video' }).click()
    await page
      .getByText(/^[1-9]\d? %/)
      .first()
      .waitFor({ timeout: 60_000 })
    killAll('src/server/worker.ts')
    await page.getByRole('link', { name: /Video \(MP4\)/ }).waitFor({ timeout: 240_000 })
  }, 400_000)

  it('can be told to cancel, and nothing is published', async () => {
    // Another look: of the same one every part is there already.
    const id = page.url().split('/').at(-2) ?? ''
    const look = { method: 'PUT', headers: { 'content-type': 'application/json' }, body: '{"look":"slate"}' }
    expect((await fetch(`${jivet.url}/api/workouts/${id}/look`, look)).status).toBeLessThan(300)
    await page.getByRole('button', { name: 'Render again' }).click()
    await page
      .getByText(/^[1-9]\d? %/)
      .first()
      .waitFor({ timeout: 60_000 })
    await page.getByRole('button', { name: 'Cancel' }).click()
    await page.getByText('The render was cancelled').waitFor()
    await expect.poll(() => execFileSync('find', [`${jivet.home}/scratch`, '-type', 'f']).toString()).toBe('')
  }, 120_000)
})

describe('a killed server', () => {
  it('keeps what was saved, and takes the upload up where it broke off', async () => {
    await page.goto(jivet.url)
    await page.getByRole('button', { name: 'New workout' }).click()
    await page.getByLabel('Name', { exact: true }).fill('Broken off')
    await page.getByRole('button', { name: 'Make it' }).click()
    await page.waitForURL('**/score')
    const id = page.url().split('/').at(-2) ?? ''
    await addSection(page, 'Circuit')
    await page.getByText('Saved', { exact: true }).waitFor()

    // An upload by hand, so that it can be stopped after its first half.
    const bytes = readFileSync(FILM),
      half = Math.floor(bytes.length / 2)
    const tus = { 'tus-resumable': '1.0.0' }
    const base64 = (text: string): string => Buffer.from(text).toString('base64')
    const made = await fetch(`${jivet.url}/api/uploads`, {
      method: 'POST',
      headers: {
        ...tus,
        'upload-length': String(bytes.length),
        'upload-metadata': `filename ${base64('deck.mp4')},workoutId ${base64(id)}`,
      },
    })
    expect(made.status).toBe(201)
    const at = new URL(made.headers.get('location') ?? '', jivet.url).href
    const patch = (from: number, to: number): Promise<Response> =>
      fetch(at, {
        method: 'PATCH',
        headers: { ...tus, 'upload-offset': String(from), 'content-type': 'application/offset+octet-stream' },
        body: bytes.subarray(from, to),
      })
    expect((await patch(0, half)).status).toBe(204)

    killAll('scripts/start.mjs')
    killAll('src/server/worker.ts')
    killAll('next')
    await jivet.start()
    const head = await fetch(at, { method: 'HEAD', headers: tus })
    expect(Number(head.headers.get('upload-offset'))).toBe(half)
    expect((await patch(half, bytes.length)).status).toBe(204)
    await page.goto(`${jivet.url}/w/${id}/score`)
    await page.locator('[data-section=main]').waitFor()
    await page.getByRole('button', { name: 'Add move' }).click()
    await page.getByText('Saved', { exact: true }).waitFor()
    await page.getByRole('link', { name: 'Sync' }).click()
    await page.getByRole('button', { name: 'Find the changes' }).waitFor({ timeout: 60_000 })
  }, 240_000)
})
