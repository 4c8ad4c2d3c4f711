// How exactly a second camera is laid beside the first by its sound, and whether sessions of one plan are taken for one
// another: the simulated sessions, heard by the real engine. `npx tsx bench/cameras.ts`
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ofKind } from '../src/core/evidence'
import { together, type Recording } from '../src/core/hear/together'
import { contentHash } from '../src/engine/contentHash'
import { gatherOnce } from '../src/engine/gatherOnce'
import { probeFootage } from '../src/engine/probe'
import { recordShoot } from '../demo/shoots/record'
import { SHOOTS } from '../demo/shoots/shoots'

const folder = mkdtempSync(join(tmpdir(), 'jivet-cameras-'))

async function recordingOf(path: string): Promise<Recording> {
  const { evidence, peaks } = await gatherOnce({ path, hash: await contentHash(path) }, await probeFootage(path))
  return { peaks: peaks ?? [], tonesMs: ofKind(evidence, 'beep').map(({ atMs }) => atMs) }
}

const firsts: Recording[] = []
for (const shoot of SHOOTS) {
  const films = await recordShoot(shoot, join(folder, shoot.name))
  const recordings = await Promise.all(films.map(({ film }) => recordingOf(film)))
  firsts.push(...recordings.slice(0, 1))
  const [first, second] = recordings
  if (!shoot.second || !first || !second) continue
  const found = together(first, second)
  const { lateMs, ppm } = shoot.second
  const offs = [0, 5, 10].map((minutes) => {
    const ms = minutes * 60_000
    const trueMs = lateMs + ms / (1 - ppm / 1e6)
    return found ? Math.abs(found.atMs + ms * (1 + found.driftPpm / 1e6) - trueMs) : Infinity
  })
  console.log(
    `${shoot.name}: off by at most ${Math.max(...offs).toFixed(2)} ms, clock ${found?.driftPpm.toFixed(1)} ppm`,
  )
}
let pairs = 0,
  taken = 0
firsts.forEach((one, at) =>
  firsts.slice(at + 1).forEach((other) => {
    pairs++
    if (together(one, other)) taken++
  }),
)
console.log(`sessions of one plan taken for one another: ${taken} of ${pairs} pairs`)
rmSync(folder, { recursive: true, force: true })
