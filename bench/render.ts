// How much longer our render takes than a bare transcode of the same footage with the same encoder settings, in one run.
//   tsx bench/render.ts FOOTAGE.mp4 [ROUNDS]
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { boundariesOf } from '../src/core/align/boundaries'
import { syncByBeeps } from '../src/core/align/sync'
import { lay } from '../src/core/cut/lane'
import { expand } from '../src/core/expand/expand'
import { listenTo } from '../src/engine/listen'
import { readPlanFile } from '../src/engine/plan'
import { probeFootage } from '../src/engine/probe'
import { ENCODER, renderVideo, SOUND_ENCODER } from '../src/engine/render'
import { runTool } from '../src/engine/tool'

const [footage, rounds = '2'] = process.argv.slice(2)
if (!footage) throw new Error('usage: tsx bench/render.ts FOOTAGE.mp4 [ROUNDS]')

const folder = mkdtempSync(join(tmpdir(), 'jivet-bench-'))
try {
  const { segments } = expand(await readPlanFile('demo/deck-hours.jivet.json'))
  const facts = await probeFootage(footage)
  const { beeps } = await listenTo(footage, facts.durationMs)
  const lane = lay(
    segments,
    boundariesOf(segments),
    syncByBeeps(segments, beeps, facts.durationMs).stitches,
    facts.durationMs,
  )
  const bare: number[] = [],
    ours: number[] = []
  for (let round = 0; round < Number(rounds); round++) {
    bare.push(
      await seconds(() =>
        runTool('ffmpeg', [
          '-v',
          'error',
          '-nostdin',
          '-y',
          '-i',
          footage,
          ...ENCODER,
          ...SOUND_ENCODER,
          '-movflags',
          '+faststart',
          join(folder, 'bare.mp4'),
        ]),
      ),
    )
    ours.push(await seconds(() => renderVideo({ footage, facts, lane, out: join(folder, 'ours.mp4') })))
    process.stdout.write(`round ${round + 1}: bare ${bare.at(-1)?.toFixed(1)} s, ours ${ours.at(-1)?.toFixed(1)} s\n`)
  }
  const ratio = Math.min(...ours) / Math.min(...bare)
  process.stdout.write(
    `footage ${(facts.durationMs / 1000).toFixed(1)} s, ${facts.width}x${facts.height}; fastest of ${rounds}: ours / bare = ${ratio.toFixed(3)}\n`,
  )
} finally {
  rmSync(folder, { recursive: true })
}

async function seconds(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now()
  await work()
  return (performance.now() - start) / 1000
}
