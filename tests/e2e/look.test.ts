// What viewers read is chosen in Watch: seen at once, kept, handed on as a file, and said to be newer than the video.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { createCanvas } from '@napi-rs/canvas'
import { build } from 'vite'
import { asPlanned } from '../../src/core/cut/cut'
import { expand } from '../../src/core/expand/expand'
import { drawOverlay } from '../../src/core/look/drawOverlay'
import { USUAL_LOOK } from '../../src/core/look/looks/family'
import { overlayChanges } from '../../src/core/look/overlay'
import type { Surface } from '../../src/core/look/surface'
import { readShorthand } from '../../src/core/shorthand/read'
import { registerFonts } from '../../src/engine/fonts'
import { OVERLAY } from '../../src/core/look/palette'
import { probe } from './decode'
import { sharedDesk, type Desk } from './desk'
import { savedIn } from './jivet'
import { filmRoundOne, tieRoundOne } from './roundOne'
import { similarity } from './similarity'

const folder = mkdtempSync(join(tmpdir(), 'jivet-look-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const film = join(folder, 'round-one.mp4')
beforeAll(() => filmRoundOne(film))

let desk: Desk, page: Page
sharedDesk((opened) => {
  desk = opened
  page = opened.page
})

const looks = () => page.getByRole('button', { name: /^Look:/ })
const kept = () => page.waitForResponse((response) => response.url().endsWith('/look') && response.ok())

/** Shares of the overlay that are of a colour, in its left and its right half. */
const coloured = (hex: string): Promise<{ left: number; right: number }> =>
  page.getByTestId('overlay').evaluate((canvas: HTMLCanvasElement, wanted) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height)
    const [red, green, blue] = [1, 3, 5].map((at) => parseInt(wanted.slice(at, at + 2), 16))
    const counts = { left: 0, right: 0 }
    for (let at = 0; at < data.length; at += 4)
      if (data[at] === red && data[at + 1] === green && data[at + 2] === blue)
        counts[(at / 4) % canvas.width < canvas.width / 2 ? 'left' : 'right']++
    const all = data.length / 4
    return { left: counts.left / all, right: counts.right / all }
  }, hex)

it('is seen at once, and again after a reload', async () => {
  await tieRoundOne(desk, 'Dressed', film)
  await page.getByRole('link', { name: 'Watch' }).click()
  await looks().waitFor()
  // Into the first work, whose count stands on the colour of work.
  await expect.poll(() => page.locator('video').evaluate((video: HTMLVideoElement) => video.readyState)).toBe(4)
  for (let change = 0; change < 2; change++) await page.keyboard.press('ArrowDown')
  await expect.poll(() => page.getByTestId('overlay').getAttribute('data-count')).toMatch(/^\d+$/)
  await expect.poll(async () => (await coloured(OVERLAY.land)).left).toBeGreaterThan(0.005)
  expect((await coloured(OVERLAY.land)).right).toBeLessThan(0.001)

  await looks().click()
  const saved = kept()
  await page.getByRole('radio', { name: /Porthole/ }).click()
  await saved
  await page.keyboard.press('Escape')
  await expect.poll(async () => (await coloured(OVERLAY.land)).right).toBeGreaterThan(0.005)
  await page.reload()
  await page.getByRole('button', { name: 'Look: Porthole' }).waitFor()
})

it('tells from where it can be read, by the size that is chosen', async () => {
  await looks().click()
  const onPhone = page.getByRole('row', { name: /Phone on the floor/ }).getByRole('cell')
  await page.getByRole('radio', { name: /Lantern/ }).click()
  const lantern = await onPhone.first().innerText()
  expect(lantern).toBe("41'")
  await page.getByRole('radio', { name: /Linocut/ }).click()
  expect(await onPhone.first().innerText()).toMatch(/^\d\d' !$/)
  const before = parseInt(await onPhone.first().innerText())
  const saved = kept()
  await page.getByLabel('Size').selectOption('1.4')
  await saved
  // Both are told in whole minutes.
  expect(Math.abs(parseInt(await onPhone.first().innerText()) - 1.4 * before)).toBeLessThan(1.3)
})

it('is handed on as a file, and a file of anything else changes nothing', async () => {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save the look' }).click(),
  ])
  const file = join(folder, 'saved.look.json')
  await download.saveAs(file)
  expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({ jivetLook: 1, look: 'linocut', size: 1.4 })
  const inputs = page.getByLabel('Open a look')
  for (const text of ['{"look": "slate"}', '{"jivetLook": 1, "look": "poster"}', 'no json', '', '[]']) {
    const wrong = join(folder, 'wrong.json')
    writeFileSync(wrong, text)
    await inputs.setInputFiles(wrong)
    await page.getByText('This file holds no look of Jivet').first().waitFor()
  }
  expect(await page.getByRole('radio', { name: /Linocut/ }).getAttribute('data-state')).toBe('checked')
  writeFileSync(file, JSON.stringify({ jivetLook: 1, look: 'slate', tone: 'pale' }))
  const saved = kept()
  await inputs.setInputFiles(file)
  await saved
  expect(await page.getByRole('radio', { name: /Slate/ }).getAttribute('data-state')).toBe('checked')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Look: Slate' }).waitFor()
})

it('is kept by a name for every workout, and forgotten', async () => {
  await looks().click()
  await page.getByLabel('Name of this look').fill('Across the room')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await page.getByRole('button', { name: 'Use Across the room' }).waitFor()
  // What is changed and changed back before it is sent is no change.
  const other = kept()
  await page.getByRole('radio', { name: /Ribbon/ }).click()
  await other
  const saved = kept()
  await page.getByRole('button', { name: 'Use Across the room' }).click()
  await saved
  expect(await page.getByRole('radio', { name: /Slate/ }).getAttribute('data-state')).toBe('checked')
  const { looks: named } = (await (await fetch(`${desk.url}/api/looks`)).json()) as { looks: { name: string }[] }
  expect(named.map(({ name }) => name)).toContain('Across the room')
  for (const [name, status] of [
    [' ', 400],
    ['x'.repeat(81), 400],
    ['Half \ud800', 400],
  ] as const) {
    const answer = await fetch(`${desk.url}/api/looks`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name, look: {} }),
    })
    expect(answer.status).toBe(status)
  }
  await page.getByRole('button', { name: 'Forget Across the room' }).click()
  await expect.poll(() => page.getByRole('button', { name: 'Use Across the room' }).count()).toBe(0)
})

it('is shown as large as each screen is to its viewers, and by eyes that see fewer colours', async () => {
  const screens = page.getByTestId('screens')
  const wide = async (screen: string) =>
    (await screens.getByText(screen).locator('..').locator('canvas').boundingBox())!.width
  // 1218 mm at 3.5 m beside 116 mm at 2 m.
  expect((await wide('Television')) / (await wide('Phone'))).toBeCloseTo(1218 / 3500 / (116 / 2000), 0)
  await page.getByLabel('Seen by').selectOption('deutan')
  expect(await screens.locator('canvas').first().locator('..').getAttribute('style')).toContain('#seen-deutan')
  await page.getByLabel('Seen by').selectOption('all')
  await page.keyboard.press('Escape')
})

const framings = () => page.waitForResponse((response) => response.url().endsWith('/framing') && response.ok())
const aimed = () => page.getByTestId('overlay').evaluate((canvas) => getComputedStyle(canvas).getPropertyValue('--aim'))
it('is of another shape, which looks where its keys say', async () => {
  await looks().click()
  const saved = framings()
  await page.getByLabel('Picture').selectOption('upright')
  await saved
  await page.keyboard.press('Escape')
  // 360 lines were filmed.
  expect(await page.getByTestId('overlay').evaluate((one: HTMLCanvasElement) => [one.width, one.height])).toEqual([
    360, 640,
  ])
  const slider = page.getByRole('slider', { name: 'The picture looks' })
  await slider.focus()
  const keyed = framings()
  for (let step = 0; step < 20; step++) await slider.press('ArrowRight')
  const { keys } = savedIn<{ keys: { at: number }[] }>(await keyed)
  expect(keys).toHaveLength(1)
  expect(keys[0]!.at).toBeCloseTo(0.7, 5)
  await expect.poll(aimed).toBe('70.00%')
  await page.getByText('1 key', { exact: true }).waitFor()
  const dropped = framings()
  await page.getByRole('button', { name: 'Take the key here away' }).click()
  await dropped
  await expect.poll(aimed).toBe('50.00%')
  const followed = framings()
  await page.getByRole('button', { name: 'Follow whoever moves' }).click()
  await page.getByText(/follows? whoever moves\./).waitFor({ timeout: 60_000 })
  expect(savedIn<{ keys: unknown[] }>(await followed).keys.length).toBeGreaterThan(0)
})

it('is rendered as it is seen, and a video of another look says so', async () => {
  await page.getByRole('link', { name: 'Ship' }).click()
  await page.getByRole('button', { name: 'Render the video' }).click()
  const link = page.getByRole('link', { name: /Video \(MP4\)/ })
  await link.waitFor({ timeout: 120_000 })
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()])
  const video = join(folder, 'out.mp4')
  await download.saveAs(video)
  expect(probe(video).video).toMatchObject({ width: 360, height: 640 })
  // Upright, the pale slate covers the foot.
  const rgb = execFileSync('ffmpeg', [
    ...['-v', 'error', '-ss', '20', '-i', video, '-frames:v', '1', '-vf', 'crop=320:12:20:622'],
    ...['-f', 'rawvideo', '-pix_fmt', 'rgb24', 'pipe:1'],
  ])
  const pale = rgb.filter((one) => one > 220).length / rgb.length
  expect(pale).toBeGreaterThan(0.6)

  await page.getByRole('link', { name: 'Watch' }).click()
  await looks().click()
  const saved = kept()
  await page.getByRole('radio', { name: /Linocut/ }).click()
  await saved
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: 'Ship' }).click()
  await page.getByText('The look was changed since.').waitFor()
})

it('is drawn in the browser as in the video, at twelve instants, in three looks and two formats', async () => {
  const { score } = readShorthand(
    'circuit Main deck: 2 rounds, 40 on, 20 off, 50 between, lead 5\n  Jug lift (sides halves)\n  Keel hold\n' +
      'sets Second: 2 sets, 20 off\n  12 Deck-rail squat (weight 6 kg)\n',
  )
  const states = overlayChanges(asPlanned(expand(score).segments), score).flatMap(({ state }) => state ?? [])
  const twelve = Array.from({ length: 12 }, (_, at) => states[Math.floor(((at + 0.5) * states.length) / 12)]!)
  const [bundle] = (await build({
    ...{ configFile: false, logLevel: 'silent', root: process.cwd() },
    build: {
      write: false,
      minify: false,
      lib: { entry: 'src/core/look/drawOverlay.ts', formats: ['iife'], name: 'looks' },
    },
  })) as { output: { code: string }[] }[]
  await page.evaluate(`${bundle!.output[0]!.code}; window.looks = looks`)
  registerFonts()
  for (const look of ['linocut', 'slate', 'lantern'] as const)
    for (const frame of [
      { width: 640, height: 360 },
      { width: 360, height: 640 },
    ])
      for (const state of twelve) {
        const wish = { ...USUAL_LOOK, look }
        const here = createCanvas(frame.width, frame.height)
        drawOverlay(here.getContext('2d') as unknown as Surface, state, frame, wish)
        const there = await page.evaluate(
          ([one, size, how]) => {
            const canvas = document.createElement('canvas')
            canvas.width = size.width
            canvas.height = size.height
            const pen = canvas.getContext('2d')!
            const { looks: drawn } = window as unknown as { looks: { drawOverlay: (...of: unknown[]) => void } }
            drawn.drawOverlay(pen, one, size, how)
            let text = ''
            for (const byte of pen.getImageData(0, 0, size.width, size.height).data) text += String.fromCharCode(byte)
            return btoa(text)
          },
          [state, frame, wish] as const,
        )
        const ours = here.getContext('2d').getImageData(0, 0, frame.width, frame.height).data
        const alike = similarity(new Uint8Array(ours.buffer), Buffer.from(there, 'base64'), frame.width, frame.height)
        expect(alike, `${look}, ${frame.width} x ${frame.height}, ${state.label}`).toBeGreaterThanOrEqual(0.98)
      }
})
