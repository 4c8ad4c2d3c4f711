// A session in two files with a late count, a watch that was started again, a round that was not filmed and a station
// left out: put in order, tied, settled with a few keys, rendered to the score and filled. Every frame of the simulated
// films tells its own time, so that what was rendered is known from its pixels.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { isSure, type Stitch } from '../../src/core/align/ties'
import { filmedFrom, fitted, type Fit, type Fitted } from '../../src/core/cut/fit'
import { inFiles } from '../../src/core/cut/spans'
import type { Evidence } from '../../src/core/evidence'
import { filesInRow } from '../../src/core/filesInRow'
import type { Progress } from '../../src/server/progress'
import { CELL_PX, FRAME_RATE, numberIn, recordShoot } from '../../demo/shoots/record'
import type { Played } from '../../demo/shoots/shoot'
import { TWO_FILES } from '../../demo/shoots/shoots'
import { probe, SAMPLE_RATE, samplesOf } from './decode'
import { alsoEvery } from '../every'
import { Desk } from './desk'
import { startedJivet } from './jivet'

const folder = mkdtempSync(join(tmpdir(), 'jivet-two-files-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

let page: Page, desk: Desk, films: string[], played: Played
const jivet = startedJivet((opened) => {
  page = opened
})
beforeAll(async () => {
  const made = await recordShoot(TWO_FILES, folder)
  films = made.map(({ film }) => film)
  played = made[0]!.played
  desk = new Desk(jivet.url, page)
}, 120_000)

let id = ''
const get = async <T>(path: string): Promise<T> =>
  (await (await fetch(`${jivet.url}/api/workouts/${id}/${path}`)).json()) as T
const summary = () => page.getByTestId('sync-summary')

/** What really began at an instant of the files in a row; null where nothing did. */
async function trueRow(wholeMs: number): Promise<number | null> {
  const { reel } = await get<Progress>('progress')
  const lengths = reel.files.map(({ facts }) => facts?.durationMs ?? 0)
  const { footage, footageMs } = filesInRow(lengths).placeOf(wholeMs)
  const sessionMs = (played.files[footage]?.fromMs ?? 0) + footageMs
  return played.happenings.find(({ startMs }) => Math.abs(startMs - sessionMs) <= 150)?.row ?? null
}

const isFilmed = (row: number): boolean =>
  played.happenings.some(
    (one) => one.row === row && played.files.some(({ fromMs, toMs }) => one.startMs >= fromMs && one.startMs < toMs),
  )

describe('a session in two files', () => {
  it('is put in order, whichever file came first', async () => {
    id = await desk.open('Two files', TWO_FILES.plan)
    await page.goto(`${jivet.url}/w/${id}/sync`)
    await page
      .locator('input[type=file]')
      .first()
      .setInputFiles([...films].reverse())
    await page.getByRole('button', { name: 'Footage: 2' }).click({ timeout: 120_000 })
    const rows = page.getByRole('list', { name: 'Footage' }).getByRole('listitem')
    expect(await rows.allInnerTexts()).toEqual([
      expect.stringMatching(/^1\s+two-files-1\.mp4\s+0:00 to 2:06 of the whole/) as string,
      expect.stringMatching(/^2\s+two-files-2\.mp4\s+2:06 to 3:02 of the whole/) as string,
    ])
    await page.keyboard.press('Escape')
  }, 180_000)

  it('is tied in one pass and three answers by keyboard', async () => {
    await page.getByRole('button', { name: 'Find the changes' }).click()
    await summary()
      .getByText(/[1-9]\d* of 19 tied/)
      .waitFor()
    const answers: string[] = []
    const looked = (): Promise<unknown> => page.waitForResponse((answer) => answer.url().endsWith('/align'))
    await page.keyboard.press('n')
    await page.waitForTimeout(300)
    for (let asked = 0; asked < 4; asked++) {
      if (await page.getByRole('radio', { name: 'To do: 0' }).count()) break
      const chosen = page.locator('[aria-current=true]')
      const segmentId = (await chosen.getAttribute('data-change'))?.replace(/ start$/, '') ?? ''
      const row = played.segments.findIndex((segment) => segmentId.startsWith(segment.id))
      const segment = played.segments[row]
      const done = isFilmed(row)
      const roundDone = played.segments.some((one, at) => one.round === segment?.round && isFilmed(at))
      if (!done || !roundDone) {
        answers.push(roundDone ? 'not done' : 'round not done')
        await Promise.all([looked(), page.keyboard.press(roundDone ? 'x' : 'Shift+X')])
      } else {
        const places = await get<{ stitches: Stitch[] }>('stitches')
        const tie = places.stitches.find((one) => one.segmentId === segment?.id)
        const right = tie && (await trueRow(tie.footageMs)) === row
        if (!right) {
          answers.push('next place')
          await page.keyboard.press('c')
        } else answers.push('right')
        await Promise.all([looked(), page.keyboard.press('y')])
      }
      await expect.poll(() => page.getByRole('button', { name: 'Finding the changes' }).count()).toBe(0)
      await page.waitForTimeout(300)
    }
    expect(answers.length, answers.join(', ')).toBeLessThanOrEqual(3)
    await page.getByRole('radio', { name: 'To do: 0' }).waitFor()
    const { stitches } = await get<{ stitches: Stitch[] }>('stitches')
    const wrong: string[] = []
    for (const tie of stitches) {
      const row = played.segments.findIndex((segment) => segment.id === tie.segmentId)
      const isMeant = tie.done !== false && isSure(tie)
      if (isMeant && tie.edge === 'start' && (await trueRow(tie.footageMs)) !== row)
        wrong.push(`${row}@${tie.footageMs}`)
    }
    expect(wrong).toEqual([])
    const left = stitches.filter(({ done }) => done === false).map(({ segmentId }) => segmentId)
    const notFilmed = played.segments.filter((_, row) => !isFilmed(row)).map(({ id: segmentId }) => segmentId)
    expect(left.sort()).toEqual(notFilmed.sort())
  }, 120_000)

  // As filmed, and filled, are held by tests/cut.test.ts too, and by shelfToShip.
  it.each(['score', ...alsoEvery('fill')] as const)(
    'is rendered to the frame, sound in step at every cut: %s',
    async (fit) => {
      // By the browser: while the pictures of the last video were looked through, a connection of our own was given up.
      const at = `${jivet.url}/api/workouts/${id}`
      const kept = [
        await page.request.put(`${at}/cut`, { data: { fit, mirrors: true } }),
        await page.request.put(`${at}/mix`, { data: { voice: 1, cues: 1, cuesOn: false } }),
      ]
      expect(kept.map((answer) => answer.ok())).toEqual([true, true])
      await page.goto(`${jivet.url}/w/${id}/ship`)
      const before = (await get<Progress>('progress')).pack?.id
      await startRender()
      await expect
        .poll(async () => (await get<Progress>('progress')).pack?.id !== before, { timeout: 240_000, interval: 500 })
        .toBe(true)
      await page.reload()
      const video = page.getByRole('link', { name: /Video \(MP4\)/ })
      const out = join(folder, `${fit}.mp4`)
      writeFileSync(out, await (await page.request.get(jivet.url + (await video.getAttribute('href')))).body())
      const made = await cutAs(fit)
      expect(Math.abs(probe(out).video.frames - (made.cut.outMs * FRAME_RATE) / 1000)).toBeLessThanOrEqual(1)
      const numbers = numbersIn(out)
      expect(offPictures(numbers, made)).toEqual([])
      expect(offSounds(out, made)).toEqual([])
      expect(otherMoves(numbers, made)).toEqual([])
    },
    300_000,
  )
})

/** A press before the page answers to presses is lost. */
async function startRender(): Promise<void> {
  for (let tries = 0; tries < 5; tries++) {
    await page.getByRole('button', { name: /^Render/ }).click()
    const begun = page.getByRole('button', { name: 'Cancel' })
    if (
      await begun.waitFor({ timeout: 4000 }).then(
        () => true,
        () => false,
      )
    )
      return
  }
}

/** The cut as the workout has it, in the files' own times. */
async function cutAs(fit: Fit): Promise<Fitted> {
  const { reel } = await get<Progress>('progress')
  const { stitches } = await get<{ stitches: Stitch[] }>('stitches')
  const heard = await get<Evidence[]>('evidence')
  const made = fitted(filmedFrom(played.segments, stitches, { footageMs: reel.footageMs, heard }), { fit })
  const lengths = reel.files.map(({ facts }) => facts?.durationMs ?? 0)
  return { ...made, cut: inFiles(made.cut, lengths) }
}

/** Numbers of the session's frames that the pictures of a video show. */
function numbersIn(file: string): number[] {
  const width = 320,
    height = 2 * CELL_PX
  const bytes = execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-i', file, '-vf', `crop=${width}:${height}:0:0`],
      ...['-f', 'rawvideo', '-pix_fmt', 'gray', 'pipe:1'],
    ],
    { maxBuffer: 2 ** 28 },
  )
  const size = width * height
  return Array.from({ length: bytes.length / size }, (_, at) =>
    numberIn(bytes.subarray(at * size, (at + 1) * size), width),
  )
}

const sessionFrame = (file: number, ms: number): number =>
  Math.round((((played.files[file]?.fromMs ?? 0) + ms) * FRAME_RATE) / 1000)

/** Spans whose first, middle or last picture is not the one that the cut names, by more than a frame. */
function offPictures(numbers: readonly number[], { cut }: Fitted): string[] {
  return cut.spans.flatMap(({ source, fromMs, outMs, lengthMs }) => {
    if (typeof source === 'string') return []
    return [1, lengthMs / 2, lengthMs - 40].flatMap((into) => {
      const frame = Math.min(numbers.length - 1, Math.round(((outMs + into) * FRAME_RATE) / 1000))
      const shown = numbers[frame] ?? -1,
        meant = sessionFrame(source, fromMs + into)
      return Math.abs(shown - meant) <= 1 ? [] : [`${Math.round(outMs + into)} ms: ${shown}, not ${meant}`]
    })
  })
}

/** Spans at whose beginning the sound is not that of the picture, by more than a frame. */
function offSounds(file: string, { cut }: Fitted): string[] {
  const out = samplesOf(file)
  const sources = films.map(samplesOf)
  return cut.spans.flatMap(({ source, fromMs, outMs, lengthMs }) => {
    if (typeof source === 'string' || lengthMs < 500) return []
    const off = lagOf(sources[source] ?? out, fromMs + 60, out, outMs + 60, Math.min(2000, lengthMs - 120))
    return Math.abs(off) <= 1000 / FRAME_RATE ? [] : [`at ${Math.round(outMs)} ms the sound is ${off} ms off`]
  })
}

/** By how much later `out` has what `source` has, by where they go along best. */
function lagOf(source: Float32Array, fromMs: number, out: Float32Array, outMs: number, lengthMs: number): number {
  const at = (ms: number): number => Math.round((ms * SAMPLE_RATE) / 1000)
  let best = -1,
    lag = NaN
  for (let shiftMs = -100; shiftMs <= 100; shiftMs += 0.5) {
    let product = 0,
      power = 0
    for (let step = 0; step < at(lengthMs); step += 3) {
      const value = out[at(outMs + shiftMs) + step] ?? 0
      product += value * (source[at(fromMs) + step] ?? 0)
      power += value * value
    }
    const match = power ? product / Math.sqrt(power) : 0
    if (match > best) [best, lag] = [match, shiftMs]
  }
  return lag
}

/** Work that is shown by a picture of other work, by what really happened. */
function otherMoves(numbers: readonly number[], { cut, shown }: Fitted): string[] {
  return shown.flatMap(({ segment, startMs, endMs }) => {
    const middle = (startMs + endMs) / 2
    const span = cut.spans.find((one) => middle >= one.outMs && middle < one.outMs + one.lengthMs)
    if (segment.kind !== 'work' || endMs <= startMs || typeof span?.source !== 'number') return []
    const sessionMs = ((numbers[Math.round((middle * FRAME_RATE) / 1000)] ?? 0) * 1000) / FRAME_RATE
    const happens = played.happenings.find((one) => sessionMs >= one.startMs && sessionMs < one.endMs)
    return happens?.segment.label === segment.label ? [] : [`${segment.id} shows ${happens?.segment.id ?? 'nothing'}`]
  })
}
