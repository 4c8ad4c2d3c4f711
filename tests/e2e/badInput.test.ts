// What a user, another tab or another site can do wrong: one clear sentence where they look, and nothing lost.
import { execFileSync } from 'node:child_process'
import { request } from 'node:http'
import { readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { describe, expect, it } from 'vitest'
import { addSection, startedJivet } from './jivet'

let page: Page
const jivet = startedJivet((opened) => {
  page = opened
})

const file = (name: string, content: string | Buffer): string => {
  const path = join(jivet.home, name)
  writeFileSync(path, content)
  return path
}
const film = (name: string, ...args: string[]): string => {
  const path = join(jivet.home, name)
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...args, path])
  return path
}

async function newWorkout(title: string): Promise<string> {
  const answer = await page.request.post(`${jivet.url}/api/workouts`, { data: { title } })
  return ((await answer.json()) as { id: string }).id
}

describe('footage that will not do', () => {
  it('is refused with the reason on the page, and the next file is taken', async () => {
    const id = await newWorkout('Bad footage')
    await page.goto(`${jivet.url}/w/${id}/sync`)
    const choose = page.getByLabel('Choose files')
    const alert = page.getByRole('alert').filter({ hasText: 'This file will not do' })
    await choose.setInputFiles(file('empty.mp4', ''))
    await alert.getByText('0 bytes').waitFor()
    await choose.setInputFiles(file('note.mp4', 'A kettle is not a video.\n'))
    await alert.getByText('not a video').waitFor()
    await choose.setInputFiles(film('voice.m4a', '-f', 'lavfi', '-i', 'sine=d=2', '-c:a', 'aac'))
    await alert.getByText('sound but no picture').waitFor()
    const whole = film(
      'whole.mp4',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=320x240:r=25:d=3',
      '-c:v',
      'libx264',
      '-pix_fmt',
      'yuv420p',
    )
    await choose.setInputFiles(file('cut.mp4', readFileSync(whole).subarray(0, Math.floor(statSync(whole).size * 0.6))))
    await alert.getByText('end of this file is missing').waitFor()
    // No sound, and a name made to hurt: taken, with a word about the sound.
    await choose.setInputFiles({
      name: '../../"quoted" \u{1f6f6} <b>deck</b>.mp4',
      mimeType: 'video/mp4',
      buffer: readFileSync(whole),
    })
    await page.getByText('This footage has no sound').or(page.getByText('Write the score first')).first().waitFor()
  })
})

describe('plans that will not do', () => {
  it.each([
    ['time,what\n1,2\n', 'Line 1: Found the header "time,what"'],
    ['section,round,kind,label,side,seconds\nMain,1,work,Jug lift,,-5\n', 'Line 2: Found "-5" in seconds'],
    ['section,round,kind,label,side,seconds\nMain,1,work,Jug lift,,9e99\n', 'Line 2: Found "9e99" in seconds'],
  ])('say the line: %j', async (text, sentence) => {
    await page.goto(jivet.url)
    await page
      .getByLabel('Open a plan file')
      .setInputFiles({ name: 'plan.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
    await page.getByText(sentence).first().waitFor()
    expect(page.url()).toBe(`${jivet.url}/`)
  })
  it('keep a wrong number out of the score, with the reason at the field', async () => {
    const id = await newWorkout('Wrong numbers')
    await page.goto(`${jivet.url}/w/${id}/score`)
    await addSection(page, 'Circuit')
    const rounds = page.getByLabel('Rounds', { exact: true })
    await rounds.fill('-3')
    await page.getByRole('alert').getByText('A whole number from 1 to 500').waitFor()
    // What was typed and what is wrong with it stay, also when the field is left; Escape puts the number back.
    await rounds.press('Enter')
    await rounds.press('Tab')
    expect(await rounds.inputValue()).toBe('-3')
    await page.getByRole('alert').getByText('A whole number from 1 to 500').waitFor()
    await rounds.press('Escape')
    expect(await rounds.inputValue()).toBe('3')
  })
})

describe('two tabs', () => {
  it('never overwrite one another in silence', async () => {
    const id = await newWorkout('Two tabs')
    const other = await jivet.page()
    for (const tab of [page, other]) await tab.goto(`${jivet.url}/w/${id}/score`)
    await addSection(page, 'Talk')
    await page.getByText('Saved', { exact: true }).waitFor()
    await addSection(other, 'Circuit')
    await other.getByRole('heading', { name: 'Changed in another tab' }).waitFor()
    await other.getByRole('button', { name: 'Keep what I have here' }).click()
    await other.getByText('Saved', { exact: true }).waitFor()
    await other.reload()
    await other.locator('[data-section=main]').waitFor()
    await addSection(page, 'Break')
    await page.getByRole('button', { name: 'Take the other version' }).click()
    await page.locator('[data-section=main]').waitFor()
    expect(await page.locator('[data-section]').count()).toBe(1)
    await other.close()
  })
})

describe('undo', () => {
  it('goes back to empty, survives a reload, and goes forth again', async () => {
    const id = await newWorkout('Undo')
    await page.goto(`${jivet.url}/w/${id}/score`)
    await addSection(page, 'Circuit')
    await page.getByRole('button', { name: 'Add move' }).click()
    await addSection(page, 'Talk')
    for (let step = 0; step < 3; step++) await page.keyboard.press('Control+z')
    expect(await page.locator('[data-section]').count()).toBe(0)
    await page.getByText('Saved', { exact: true }).waitFor()
    await page.reload()
    const redo = page.getByRole('button', { name: /^Redo/ })
    await expect.poll(() => redo.isEnabled()).toBe(true)
    for (let step = 0; step < 3; step++) await redo.click()
    expect(await page.locator('[data-section]').count()).toBe(2)
    expect(await page.locator('[data-section=main] li').count()).toBe(1)
  })
})

describe('who may call', () => {
  const send = (headers: Record<string, string>, method = 'POST', path = '/api/workouts'): Promise<number> =>
    new Promise((done, fail) => {
      const call = request(
        {
          host: '127.0.0.1',
          port: jivet.port,
          path,
          method,
          headers: { 'content-type': 'application/json', ...headers },
        },
        (answer) => {
          answer.resume()
          done(answer.statusCode ?? 0)
        },
      )
      call.on('error', fail)
      call.end(method === 'POST' ? '{"title":"From afar"}' : undefined)
    })
  it('refuses a foreign Host and a foreign Origin, on uploads too', async () => {
    const own = `127.0.0.1:${jivet.port}`
    expect(await send({ host: 'deck.example' })).toBe(403)
    expect(await send({ host: own, origin: 'http://deck.example' })).toBe(403)
    expect(
      await send(
        { host: own, origin: 'http://deck.example', 'tus-resumable': '1.0.0', 'upload-length': '5' },
        'POST',
        '/api/uploads',
      ),
    ).toBe(403)
    expect(await send({ host: 'deck.example' }, 'GET', '/')).toBe(403)
    expect(await send({ host: own, origin: `http://${own}` })).toBe(201)
  })
  it('serves files by id only', async () => {
    for (const [path, status] of [
      // An encoded slash could be read in two ways: it is refused before anybody looks for a file.
      ['/api/footage/..%2f..%2fetc%2fpasswd/picture', 400],
      ['/api/footage/00000000-0000-4000-8000-000000000000/picture', 404],
      ['/api/packs/x/video', 404],
    ] as const)
      expect(await send({ host: `127.0.0.1:${jivet.port}` }, 'GET', path), path).toBe(status)
  })
  it('answers nonsense with a sentence, not with a crash', async () => {
    const answer = await page.request.put(`${jivet.url}/api/workouts/${await newWorkout('Nonsense')}/score`, {
      data: { score: { version: 1, sections: 'many' }, revision: 1 },
    })
    expect(answer.status()).toBe(400)
    expect(((await answer.json()) as { problem: { message: string } }).problem.message).toMatch(/score\./)
  })
})
