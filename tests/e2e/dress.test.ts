// What viewers hear is chosen in Watch, cue by cue; and every change is proofed, and asked again only where it changed.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { CueWishes } from '../../src/core/cue/wishes'
import { CEILING } from '../../src/core/sound/limiter'
import { findCue, SAMPLE_RATE, samplesOf } from './decode'
import { sharedDesk, type Desk } from './desk'
import { savedIn } from './jivet'
import { forgetSound, levelsBeside, soundOfPage, workletsOf, writeDownSound } from './pageSound'
import { filmRoundOne, tieRoundOne } from './roundOne'

const folder = mkdtempSync(join(tmpdir(), 'jivet-dress-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const film = join(folder, 'round-one.mp4')
beforeAll(() => filmRoundOne(film))

let desk: Desk, page: Page
sharedDesk((opened) => {
  desk = opened
  page = opened.page
})

const kept = (what: string) => page.waitForResponse((response) => response.url().endsWith(`/${what}`) && response.ok())
const sounds = () => page.getByRole('button', { name: /^Sound:/ })
const cueRow = (text: RegExp) => page.getByRole('listitem').filter({ hasText: text }).first()

it('plays the plan before there is footage', async () => {
  const id = await desk.open('Not filmed', 'circuit Main: 1 round, 20 on, 10 off, lead 5\n  Jug lift\n  Keel hold\n')
  const alone = await fetch(`${desk.url}/api/workouts/${id}/companion`)
  expect([alone.status, alone.headers.get('content-disposition')]).toEqual([
    200,
    expect.stringContaining('not-filmed.html'),
  ])
  expect(await alone.text()).toContain('id="jivet-session"')
  await page.getByRole('link', { name: 'Watch' }).click()
  await page.getByText('There is no footage yet.').waitFor()
  await page.keyboard.press('ArrowDown')
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  // Any count after the first two: a busy machine does not look every second.
  await expect
    .poll(() => page.getByTestId('overlay').getAttribute('data-count'), { timeout: 20_000 })
    .toMatch(/^1[0-8]$/)
  await page.getByRole('button', { name: 'Pause', exact: true }).click()
})

it('keeps the family of tones that is chosen', async () => {
  await tieRoundOne(desk, 'Dressed by ear', film)
  await page.getByRole('link', { name: 'Watch' }).click()
  await sounds().click()
  const saved = kept('cues')
  await page.getByRole('radio', { name: /Rope/ }).click()
  await saved
  await page.keyboard.press('Escape')
  await page.reload()
  await page.getByRole('button', { name: 'Sound: Rope' }).click()
  const back = kept('cues')
  await page.getByRole('radio', { name: /Bell/ }).click()
  await back
})

let wishes: CueWishes
it('silences a cue, moves another, and has them back', async () => {
  const [answer] = await Promise.all([
    kept('cues'),
    cueRow(/Rest.*Rest/)
      .getByRole('button', { name: /^Silence/ })
      .click(),
  ])
  expect(savedIn(answer)).toMatchObject({ edits: { [restId(savedIn<CueWishes>(answer))]: { muted: true } } })
  await cueRow(/Rest.*silent/).waitFor()
  const moved = kept('cues')
  for (let times = 0; times < 3; times++)
    await cueRow(/^\d+:\d+Go/)
      .getByRole('button', { name: /0.1 s later$/ })
      .click()
  wishes = savedIn<CueWishes>(await moved)
  expect(
    Object.values(wishes.edits)
      .map(({ shiftMs }) => shiftMs)
      .sort(),
  ).toEqual([0, 300])
  await cueRow(/\+0\.3 s/).waitFor()
})
const restId = ({ edits }: CueWishes): string => Object.keys(edits)[0] ?? ''

it('records a line with the microphone, and says it in the coach’s own voice', async () => {
  await page.getByLabel('Voice').selectOption('own')
  await page.getByText('Lines to record').waitFor()
  await page.getByRole('button', { name: 'Record "Halfway"' }).click()
  await page.getByRole('button', { name: 'Stop' }).waitFor()
  await page.waitForTimeout(1500)
  const put = page.waitForResponse(
    (response) => response.url().includes('/api/recordings') && response.request().method() === 'PUT',
  )
  await page.getByRole('button', { name: 'Stop' }).click()
  expect((await put).status()).toBe(200)
  await page.getByRole('button', { name: 'Forget the recording of "Halfway"' }).waitFor()
  const { lines } = (await (await fetch(`${desk.url}/api/recordings`)).json()) as { lines: Record<string, number> }
  expect(lines.Halfway).toBeGreaterThan(100)
})

it('refuses a recording in which nothing is said, and one that is no sound', async () => {
  const put = (body: Buffer | string, line = 'Rest') =>
    fetch(`${desk.url}/api/recordings?line=${encodeURIComponent(line)}`, {
      method: 'PUT',
      body: new Uint8Array(Buffer.from(body)),
    })
  const silence = join(folder, 'silence.wav')
  execFileSync('ffmpeg', ['-v', 'error', '-f', 'lavfi', '-i', 'anullsrc=d=1', silence])
  for (const body of [execFileSync('cat', [silence]), 'no sound at all', '']) {
    const answer = await put(body)
    expect(answer.status).toBe(422)
    expect(((await answer.json()) as { problem: { message: string } }).problem.message).toMatch(/Nothing can be heard/)
  }
  expect((await put('x', '')).status).toBe(400)
})

it('tells what does not fit, and a press leaves it out', async () => {
  await page.getByLabel('Voice').selectOption('flite')
  const unfit = page.getByRole('heading', { name: /cues? do(es)? not fit/ })
  await unfit.waitFor({ timeout: 30_000 })
  const before = parseInt(await unfit.innerText())
  const saved = kept('cues')
  await page.getByRole('button', { name: 'Leave it out' }).first().click()
  await saved
  if (before > 1) await expect.poll(async () => parseInt(await unfit.innerText())).toBe(before - 1)
  else await page.getByText('Everything fits.').waitFor()
  await page.keyboard.press('Escape')
})

const rows = () => page.getByRole('complementary', { name: 'Proof' }).getByRole('listitem')
const open = () => page.getByRole('button', { name: /^Proof/ })
it('proofs change by change, by a key, once its lines are there', async () => {
  await sounds().click()
  const voice = page.getByLabel('Voice')
  const told = page.waitForResponse((response) => response.url().endsWith('/api/lines'))
  await voice.selectOption('espeak')
  await told
  await page.route('**/api/lines', async (route) => {
    await new Promise((done) => setTimeout(done, 5000))
    await route.continue()
  })
  await voice.selectOption('flite')
  await page.keyboard.press('Escape')
  await open().click()
  expect(await page.getByRole('button', { name: 'Lines are being said ...' }).isDisabled()).toBe(true)
  await page.getByRole('button', { name: 'It is right' }).waitFor()
  await page.unroute('**/api/lines')
  await page.getByText(/^0 of \d+ checked$/).waitFor()
  const all = await rows().count()
  await page.locator('body').click({ position: { x: 5, y: 300 } })
  const saved = kept('proof')
  // After a press on a row Enter finds it right, as it does everywhere.
  await rows().first().getByRole('button').first().click()
  await page.keyboard.press('Enter')
  for (let change = 1; change < 3; change++) {
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
    await page.keyboard.press('Enter')
  }
  await saved
  await page.getByText(`3 of ${all} checked`).waitFor()
  // What is seen stands on the first picture from the change on; its tone was moved, and that is told.
  expect(await rows().nth(1).innerText()).toMatch(/seen (0|\+[12]?\d|\+3[0-4])\s+sounded \+300/)
  await page
    .getByRole('button', { name: 'Pause', exact: true })
    .click()
    .catch(() => {})
})

it('notes at an instant, and has the note done', async () => {
  await page.getByLabel('A note at this instant').fill('The jug is out of the picture')
  const noted = kept('proof')
  await page.getByRole('button', { name: 'Keep' }).click()
  await noted
  const note = page.getByRole('list', { name: 'Notes' }).getByRole('listitem')
  await note.filter({ hasText: 'The jug' }).waitFor()
  const saved = kept('proof')
  await page.getByRole('button', { name: 'Done: The jug is out of the picture' }).click()
  await saved
  expect(await note.count()).toBe(0)
})

it('plays changes only', async () => {
  await page.getByLabel('Play', { exact: true }).selectOption('changes')
  // Into the middle of the first work, where nothing changes: it leaps to where the next change begins.
  await page.getByRole('slider', { name: 'Place in the session' }).focus()
  const places = await rows().nth(1).getByRole('button').first().innerText()
  expect(places).toMatch(/\d:\d\d/)
  await rows().nth(1).getByRole('button').first().click()
  const clock = () =>
    page.evaluate(() =>
      Number(document.querySelector('[aria-label="Place in the session"]')?.getAttribute('aria-valuenow')),
    )
  const from = await clock()
  await expect.poll(clock, { timeout: 12_000 }).toBeGreaterThan(from + 12_000)
  await page.getByLabel('Play', { exact: true }).selectOption('whole')
  await page.getByRole('button', { name: 'Pause', exact: true }).click()
})

it('asks again only for the change that became another', async () => {
  const checkedBefore = await page.getByText(/^3 of \d+ checked$/).innerText()
  await sounds().click()
  const saved = kept('cues')
  // The third change that was checked loses its tone.
  await cueRow(/^\d+:\d+Go/)
    .getByRole('button', { name: /^Silence/ })
    .click()
  await saved
  await page.keyboard.press('Escape')
  await page.getByText('changed since it was checked').first().waitFor()
  expect(await page.getByText('changed since it was checked').count()).toBe(1)
  await page.getByText(checkedBefore.replace('3 of', '2 of')).waitFor()
})

it('brings music, which the next workout has too, and refuses what is none', async () => {
  await sounds().click()
  const input = page.getByLabel('Bring a piece')
  const silent = join(folder, 'silence.wav')
  await input.setInputFiles(silent)
  await page.getByText('No sound was found in this file').waitFor()
  const piece = join(folder, 'Slow water.wav')
  const beat = '0.5*sin(2*PI*330*t)*(0.3+0.7*lt(mod(t,0.5),0.2))'
  execFileSync('ffmpeg', ['-v', 'error', '-f', 'lavfi', '-i', `aevalsrc='${beat}|${beat}':d=40:s=44100`, piece])
  const saved = kept('mix')
  await input.setInputFiles(piece)
  await page.getByRole('list', { name: 'Music' }).getByText('Slow water').waitFor()
  expect(savedIn(await saved)).toMatchObject({ music: { pieces: [{ name: 'Slow water', ms: 40_000 }] } })
  await page.getByText('Music is somebody’s.').waitFor()
  const { pieces } = (await (await fetch(`${desk.url}/api/music`)).json()) as { pieces: { hash: string }[] }
  const answer = await fetch(`${desk.url}/api/music/${pieces[0]!.hash}`, { method: 'DELETE' })
  expect(answer.status).toBe(409)
  await page.keyboard.press('Escape')
})

let sounded: { rate: number; samples: Float32Array }
const SOUNDED_MS = 19_000
it('sounds in Watch, limited like a render', async () => {
  await writeDownSound(page)
  await page.reload()
  const readyState = () => page.locator('video').evaluate((video: HTMLVideoElement) => video.readyState)
  await expect.poll(readyState, { timeout: 20_000 }).toBe(4)
  await page.keyboard.press('ArrowDown')
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await page.waitForTimeout(1500)
  expect(await workletsOf(page)).toEqual(['jivet-limiter'])
  await forgetSound(page)
  await page.waitForTimeout(SOUNDED_MS)
  sounded = await soundOfPage(page)
  await page.getByRole('button', { name: 'Pause', exact: true }).click()
  // Of the samples, not between them: where a busy page writes down late, blocks are missing, and a leap is no sound.
  expect(sounded.samples.reduce((peak, sample) => Math.max(peak, Math.abs(sample)), 0)).toBeLessThan(CEILING * 1.01)
})
it('renders what was chosen: silenced and moved cues are not where they were', async () => {
  await page.getByRole('link', { name: 'Ship' }).click()
  await page.getByRole('button', { name: 'Render the video' }).click()
  const video = page.getByRole('link', { name: /Video \(MP4\)/ })
  await video.waitFor({ timeout: 240_000 })
  const out = join(folder, 'out.mp4')
  writeFileSync(out, await (await page.request.get(desk.url + (await video.getAttribute('href')))).body())
  const samples = samplesOf(out)
  const { seconds, whole, alike } = levelsBeside(sounded, { rate: SAMPLE_RATE, samples })
  expect(alike).toBeGreaterThan(0.8)
  expect(seconds.length).toBeGreaterThan(15)
  console.log(
    `Watch beside the render: ${whole.toFixed(2)} dB; by seconds ${seconds.map((one) => one.toFixed(2)).join(' ')}`,
  )
  expect(Math.abs(whole)).toBeLessThanOrEqual(0.5)
  // Where a pip falls on a beep of the timer that was filmed, a millisecond decides how both add up.
  const near = seconds.filter((one) => Math.abs(one) <= 0.5)
  expect(near.length / seconds.length, seconds.join(' ')).toBeGreaterThanOrEqual(0.75)
  const { stderr } = await import('node:child_process').then(({ spawnSync }) =>
    spawnSync('ffmpeg', ['-nostats', '-i', out, '-af', 'ebur128=peak=true', '-vn', '-f', 'null', '-'], {
      encoding: 'utf8',
    }),
  )
  const summary = stderr.slice(stderr.lastIndexOf('Summary'))
  expect(Number(/I:\s+(-?[\d.]+)/.exec(summary)?.[1])).toBeCloseTo(-14, 0)
  expect(Number(/Peak:\s+(-?[\d.]+)/.exec(summary)?.[1])).toBeLessThanOrEqual(-1)
  // The go of the second work is where it was, that of the first was silenced.
  const gos = await page.evaluate(async (id) => {
    const answer = await fetch(`/api/workouts/${id}/stitches`)
    return (await answer.json()) as { stitches: { segmentId: string; footageMs: number }[] }
  }, desk.here())
  const works = gos.stitches.filter(({ segmentId }) => segmentId.endsWith('/work')).map(({ footageMs }) => footageMs)
  const second = findCue(samples, 'go', works[1] ?? 0)
  expect([Math.abs(second.offMs) <= 10, second.match > 0.3], JSON.stringify(second)).toEqual([true, true])
  expect(findCue(samples, 'go', works[0] ?? 0).match).toBeLessThan(0.3)
})
