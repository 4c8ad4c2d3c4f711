// A small film of the demo's first round: in the break after it the camera was switched off.
import { execFileSync } from 'node:child_process'
import { copyFileSync, existsSync } from 'node:fs'
import { basename, join } from 'node:path'
import type { Desk } from './desk'
import { FILM, FILMS } from './jivet'

const FILMED_S = 104

/** Filmed once, for all files of tests. */
export function filmRoundOne(out: string): void {
  const kept = join(import.meta.dirname, '..', '..', 'tmp', `round-one-${basename(FILMS)}.mp4`)
  const small = ['-vf', 'scale=640:360', '-c:v', 'libx264', '-preset', 'ultrafast', '-c:a', 'copy']
  if (!existsSync(kept)) {
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', FILM, '-t', String(FILMED_S), ...small, out])
    // Files of tests that need it come one after the other.
    copyFileSync(out, kept)
  } else copyFileSync(kept, out)
}

/** What was meant to be filmed. */
const ROUND_ONE_PLAN = [
  'talk Welcome: about 10',
  'circuit Main: 2 rounds, 20 on, 10 off, 15 between, lead 5, last rest dropped',
  '  Jug lift (sides alternate)',
  '  Lock-gate push (sides none)',
  '  Tiller twist (sides halves)',
  '',
].join('\n')

/** Makes a workout of it, adds the film in Sync, and finds the changes that it has. @returns its id. */
export async function tieRoundOne(desk: Desk, title: string, film: string): Promise<string> {
  const { page, url } = desk
  const id = await desk.open(title, ROUND_ONE_PLAN)
  await page.goto(`${url}/w/${id}/sync`)
  await page.locator('input[type=file]').first().setInputFiles(film)
  await page.getByRole('button', { name: 'Find the changes' }).click({ timeout: 120_000 })
  await page
    .getByTestId('sync-summary')
    .getByText(/7 of 13 tied/)
    .waitFor()
  return id
}
