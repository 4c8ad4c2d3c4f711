// How much longer our render takes than a bare transcode of the same footage with the same encoder settings, in one
// run: wall time and CPU time of all processes, in pairs taken in turn. On a busy machine wall time alone says nothing.
//   tsx bench/render.ts FOOTAGE.mp4 [PAIRS]
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { matchEvidence } from '../src/core/align/sync'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { listenTo } from '../src/engine/listen'
import { readPlanFile } from '../src/engine/plan'
import { probeFootage } from '../src/engine/probe'
import { ENCODER, SOUND_ENCODER } from '../src/engine/encoding'
import { renderVideo } from '../src/engine/render'
import { runTool } from '../src/engine/tool'

const [footage, pairs = '3'] = process.argv.slice(2)
if (!footage) throw new Error('usage: tsx bench/render.ts FOOTAGE.mp4 [PAIRS]')

interface Cost {
  wallS: number
  cpuS: number
}

const folder = mkdtempSync(join(tmpdir(), 'jivet-bench-'))
try {
  const { segments } = expand(await readPlanFile('demo/deck-hours.jivet.json'))
  const facts = await probeFootage(footage)
  const { evidence } = await listenTo(footage, facts)
  const { cut, shown: shownSegments } = followed(
    segments,
    matchEvidence(segments, { evidence, footageMs: facts.durationMs }).found,
    facts.durationMs,
  )
  const bareArgs = [
    ...['-v', 'error', '-nostdin', '-y', '-i', footage, ...ENCODER, ...SOUND_ENCODER],
    ...['-movflags', '+faststart', join(folder, 'bare.mp4')],
  ]
  const job = { reel: [{ path: footage, facts }], cut, shown: shownSegments, out: join(folder, 'ours.mp4') }
  const bare: Cost[] = [],
    ours: Cost[] = []
  for (let pair = 1; pair <= Number(pairs); pair++) {
    bare.push(await costOf(() => runTool('ffmpeg', bareArgs)))
    ours.push(await costOf(() => renderVideo(job)))
    process.stdout.write(`pair ${pair}: bare ${shown(bare.at(-1))}, ours ${shown(ours.at(-1))}\n`)
  }
  const ratio = (part: keyof Cost): string =>
    (Math.min(...ours.map((one) => one[part])) / Math.min(...bare.map((one) => one[part]))).toFixed(3)
  process.stdout.write(
    `footage ${(facts.durationMs / 1000).toFixed(1)} s, ${facts.width}x${facts.height}; least of ${pairs}: ` +
      `ours / bare = ${ratio('wallS')} in wall time, ${ratio('cpuS')} in CPU time\n`,
  )
} finally {
  rmSync(folder, { recursive: true })
}

async function costOf(work: () => Promise<unknown>): Promise<Cost> {
  const startS = performance.now() / 1000,
    cpuS = cpuSeconds()
  await work()
  return { wallS: performance.now() / 1000 - startS, cpuS: cpuSeconds() - cpuS }
}

/**
 * CPU time of this process and of its children that have ended, from /proc (fields 14 to 17, in hundredths; proc(5)).
 */
function cpuSeconds(): number {
  const stat = readFileSync('/proc/self/stat', 'utf8')
  const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
  return fields.slice(11, 15).reduce((sum, field) => sum + Number(field), 0) / 100
}

function shown(cost: Cost | undefined): string {
  return cost ? `${cost.wallS.toFixed(1)} s wall, ${cost.cpuS.toFixed(1)} s CPU` : ''
}
