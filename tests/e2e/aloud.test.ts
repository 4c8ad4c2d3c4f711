// Sessions that no timer beeps through: run by a coach's voice, tied in one press.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, describe, expect, it } from 'vitest'
import { QUICK_AAC, QUICK_PICTURE } from '../../demo/quickFilm'
import { storyOf } from '../../src/core/align/story'
import { SURE, type Stitch } from '../../src/core/align/ties'
import { expand } from '../../src/core/expand/expand'
import { readShorthand } from '../../src/core/shorthand/read'
import { sharedDesk, type Desk } from './desk'
import { filmBeeps } from './beepFilm'
import { seekVideo } from './jivet'
import { spokenFilm, type SpokenFilm } from './spokenFilm'

const folder = mkdtempSync(join(tmpdir(), 'jivet-aloud-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

let desk: Desk
let page: Page
sharedDesk((opened) => {
  desk = opened
  page = opened.page
})

const PLAN = 'circuit Main: 3 rounds, 20 on, 10 off, 20 between\n  Jug lift; Keel hold; Tiller twist\n'
const OTHER = 'ladder Main: 6 rungs, from 12, step 7\n  Deck-rail squat\n'

/** Makes a workout, adds the film in Sync, and waits until it can be worked with. */
async function filmed(title: string, plan: string, file: string): Promise<void> {
  const id = await desk.open(title, plan)
  await page.goto(`${desk.url}/w/${id}/sync`)
  await page.locator('input[type=file]').first().setInputFiles(file)
  await page.getByRole('button', { name: 'Find the changes' }).waitFor({ timeout: 120_000 })
}

async function find(): Promise<void> {
  await page.getByRole('button', { name: 'Find the changes' }).click()
  await page
    .getByRole('button', { name: 'Find the changes' })
    .and(page.locator(':enabled'))
    .waitFor({ timeout: 60_000 })
}

const sureIn = (ties: readonly Stitch[]): Stitch[] => ties.filter(({ confidence }) => confidence >= SURE)

function allRight(ties: readonly Stitch[], film: SpokenFilm): void {
  const off = (tie: Stitch): number => Math.abs(tie.footageMs - (film.trueMs(tie) ?? Infinity))
  expect(sureIn(ties).filter((tie) => off(tie) > 400)).toEqual([])
}

async function tiesOnServer(): Promise<Stitch[]> {
  const id = page.url().split('/').at(-2) ?? ''
  const answer = await fetch(`${desk.url}/api/workouts/${id}/stitches`)
  return ((await answer.json()) as { stitches: Stitch[] }).stitches
}

/** By the sheet of the footage, which is closed again. */
async function addCaptions(file: string): Promise<void> {
  await page.getByRole('button', { name: /^Footage/ }).click()
  await page.locator('input[type=file][aria-label^="Add captions"]').setInputFiles(file)
  await page.keyboard.press('Escape')
}

describe('a session counted aloud', () => {
  let film: SpokenFilm
  it('is tied in one press, and says how it went', async () => {
    film = spokenFilm(folder, PLAN, { seed: 41, overrunMs: 25_000 })
    await filmed('Aloud', PLAN, film.file)
    await find()
    const summary = page.getByTestId('sync-summary')
    await summary.getByText('Called aloud; no timer heard.').waitFor()
    await summary.getByText(/ran \d+ s, not 20 s/).waitFor()
    await expect.poll(tiesOnServer).not.toEqual([])
    const ties = await tiesOnServer()
    expect(sureIn(ties).length).toBeGreaterThan(12)
    allRight(ties, film)
  })
  it('keeps what a hand tied when it is looked through again', async () => {
    const rows = page.locator('[data-origin]')
    await rows.nth(3).getByRole('button').first().click()
    await page.getByRole('button', { name: 'Later by 10 ms' }).click()
    const hands = async (): Promise<Stitch[]> => (await tiesOnServer()).filter(({ origin }) => origin === 'hand')
    await expect.poll(hands).toHaveLength(1)
    const before = await hands()
    await find()
    expect(await hands()).toEqual(before)
  })
  it('under loud music asks for one tie, and is tied after it', async () => {
    const loud = spokenFilm(folder, PLAN, { seed: 52, musicBelowDb: 0 })
    await filmed('Loud', PLAN, loud.file)
    await find()
    await expect.poll(tiesOnServer).not.toEqual([])
    const { ask } = storyOf(expand(readShorthand(PLAN).score).segments, await tiesOnServer())
    if (!ask) throw new Error('nothing was asked for')
    await page.getByTestId('ask').getByRole('button', { name: 'Go there' }).click()
    await seekVideo(page, loud.trueMs(ask) ?? 0)
    await page.getByRole('button', { name: 'Tie here' }).click()
    await page.getByRole('button', { name: 'Find the changes' }).and(page.locator(':enabled')).waitFor()
    await expect.poll(async () => sureIn(await tiesOnServer()).length).toBeGreaterThan(13)
    allRight(await tiesOnServer(), loud)
  })
  it('that nobody could hear is tied by its captions', async () => {
    const { segments, totalMs } = expand(readShorthand(PLAN).score)
    const beganMs = 3000
    const murmur = join(folder, 'murmur.mp4')
    const inputs = ['color=c=gray:s=64x36:r=5', 'anoisesrc=a=0.01:r=16000'].flatMap((one) => ['-f', 'lavfi', '-i', one])
    const coded = [...QUICK_PICTURE, '-pix_fmt', 'yuv420p', ...QUICK_AAC]
    execFileSync('ffmpeg', ['-v', 'error', ...inputs, ...coded, '-t', String((totalMs + 8000) / 1000), murmur])
    await filmed('Captioned', PLAN, murmur)
    const stamp = (ms: number): string => new Date(ms).toISOString().slice(11, 23)
    const lines = segments.map(({ kind, startMs }) => {
      const atMs = beganMs + startMs
      const text = kind === 'work' ? 'go' : 'and rest'
      return `${stamp(atMs)} --> ${stamp(atMs + 1500)}\n${text}\n`
    })
    const captions = join(folder, 'captions.vtt')
    writeFileSync(captions, ['WEBVTT\n', ...lines].join('\n'))
    await addCaptions(captions)
    await page.getByText(/\d+ calls read from the captions/).waitFor()
    await expect.poll(async () => (await tiesOnServer()).length, { timeout: 60_000 }).toBeGreaterThan(10)
    expect((await tiesOnServer()).some(({ evidence }) => evidence.includes('caption'))).toBe(true)
    await page.getByRole('button', { name: 'What changes are found by' }).click()
    await page.getByRole('menuitemcheckbox', { name: /Captions/ }).click()
    await page.keyboard.press('Escape')
    await find()
    await page.getByText('This does not sound like this score').waitFor()
    const wrong = join(folder, 'wrong.vtt')
    writeFileSync(wrong, 'A kettle is no caption.\n')
    await addCaptions(wrong)
    await page.getByText(/No line of captions/).waitFor()
  })
  it('is refused in words for a score that it is none of, and asks where to begin', async () => {
    await filmed('Another', OTHER, film.file)
    await find()
    await page.getByText('This does not sound like this score').waitFor()
    // Workouts of its own plan stand on the shelf.
    await page.getByText(/^It sounds like ".*" instead\.$/).waitFor()
    expect(sureIn(await tiesOnServer())).toEqual([])
    await page.getByTestId('ask').getByRole('button', { name: 'Go there' }).click()
    expect(await page.locator('[aria-current=true]').count()).toBe(1)
  })
})

describe('a session whose blocks were filmed in another order', () => {
  const ONE = 'circuit One: 2 rounds, 20 on, 10 off, 30 between\n  Jug lift (sides none)\n  Keel hold\n',
    TWO = 'circuit Two: 2 rounds, 35 on, 15 off, 45 between\n  Buoy press\n  Rope pull\n'
  it('is said to be that, and planned so by one press', async () => {
    const film = join(folder, 'turned.mp4')
    filmBeeps(TWO + ONE, film)
    await filmed('Turned', ONE + TWO, film)
    await find()
    await page.getByText('It sounds as if "One" was filmed last.').waitFor()
    await page.getByRole('button', { name: 'Plan it so' }).click()
    await page.getByText('The plan has its sections in another order now.').waitFor()
    await expect.poll(async () => sureIn(await tiesOnServer()).length, { timeout: 30_000 }).toBeGreaterThan(12)
    const { sections } = await desk.scoreOf(desk.here())
    expect(sections.map(({ name }) => name)).toEqual(['Two', 'One'])
  })
  it('is told what numbers its captions say that the score does not have', async () => {
    const captions = join(folder, 'numbers.vtt')
    // In the first rest of 15 s, which begins at 41 s: 35 s of work follow, and not 55.
    writeFileSync(captions, 'WEBVTT\n\n00:42.000 --> 00:45.000\nFifty-five seconds of rope pulls\n')
    await addCaptions(captions)
    await page.getByText(/No call that marks a change stands/).waitFor()
    await page.getByRole('button', { name: 'How it ran' }).click()
    await page.getByText(/"fifty-five seconds of rope pulls" is said: nothing near Rope pull lasts 55 s/).waitFor()
    await page.keyboard.press('Escape')
  })
})
