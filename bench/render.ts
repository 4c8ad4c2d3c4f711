// How much longer our render takes than a bare transcode of the same footage with the same encoder settings, in one
// run: wall time and CPU time of all processes, in pairs taken in turn. On a busy machine wall time alone says nothing.
// Then what a render costs after one label has changed, as a part of the whole one, with and without its check.
//   tsx bench/render.ts FOOTAGE.mp4 [PAIRS] [TIMES]   (TIMES: the footage so often end to end; PAIRS 0: the rest alone)
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { USUAL_LOOK } from '../src/core/look/looks/family'
import { readShorthand } from '../src/core/shorthand/read'
import { USUAL_MIX } from '../src/core/sound/mix'
import { ChunkStore } from '../src/engine/chunkStore'
import { encodersFor } from '../src/engine/encoding'
import { loudnessOf } from '../src/engine/loudness'
import { probeFootage } from '../src/engine/probe'
import { renderVideo } from '../src/engine/render'
import type { RenderJob } from '../src/engine/renderJob'
import { runTool } from '../src/engine/tool'
import { verifyRendered } from '../src/engine/verifyRendered'

const [given, pairs = '3', times = '1'] = process.argv.slice(2)
if (!given) throw new Error('usage: tsx bench/render.ts FOOTAGE.mp4 [PAIRS] [TIMES]')

interface Cost {
  wallS: number
  cpuS: number
}
const MINUTE_S = 60

const folder = mkdtempSync(join(tmpdir(), 'jivet-bench-'))
const at = (name: string): string => join(folder, name)
try {
  const footage = await longer(given, Number(times))
  const facts = await probeFootage(footage)
  const minutes = Math.floor(facts.durationMs / 1000 / MINUTE_S)
  const labels = Array.from({ length: minutes }, (_, minute) => `Deck move ${minute + 1}`)
  const loudness = await loudnessOf({ path: footage, facts })
  const jobFor = (names: readonly string[]): RenderJob => {
    const { segments } = expand(readShorthand(`circuit Main: 1 rounds, 40 on, 20 off\n  ${names.join('; ')}\n`).score)
    const tie = { segmentId: segments[0]?.id ?? '', edge: 'start' as const, footageMs: 0 }
    return {
      reel: [{ path: footage, facts, loudness }],
      ...followed(segments, [tie], facts.durationMs),
      out: at('ours.mp4'),
    }
  }
  const bareArgs = [
    ...['-v', 'error', '-nostdin', '-y', '-i', footage, ...encodersFor().picture, ...encodersFor().sound],
    ...['-movflags', '+faststart', at('bare.mp4')],
  ]
  const bare: Cost[] = [],
    ours: Cost[] = []
  for (let pair = 1; pair <= Number(pairs); pair++) {
    bare.push(await costOf(() => runTool('ffmpeg', bareArgs, { limitMs: 3_600_000 })))
    ours.push(await costOf(() => renderVideo(jobFor(labels))))
    print(`pair ${pair}: bare ${shown(bare.at(-1))}, ours ${shown(ours.at(-1))}`)
  }
  const least = (costs: readonly Cost[], part: keyof Cost): number => Math.min(...costs.map((one) => one[part]))
  const ratio = (part: keyof Cost): string => (least(ours, part) / least(bare, part)).toFixed(3)
  if (bare.length)
    print(
      `footage ${(facts.durationMs / 1000).toFixed(1)} s, ${facts.width}x${facts.height}; least of ${pairs}: ` +
        `ours / bare = ${ratio('wallS')} in wall time, ${ratio('cpuS')} in CPU time`,
    )

  const store = new ChunkStore(at('chunks'), 1e12)
  const checked = async (job: RenderJob): Promise<string> => {
    let told = ''
    const rendering = await costOf(async () => {
      const rendered = await renderVideo(job, { store })
      told = `${rendered.made} of ${rendered.chunks.length} chunks`
      const check = await costOf(() =>
        verifyRendered(job.out, { cut: job.cut, look: USUAL_LOOK, mix: USUAL_MIX }, rendered, { store }),
      )
      told += `, check ${shown(check)}`
    })
    costs.push(rendering)
    return `${told}, with it ${shown(rendering)}`
  }
  const costs: Cost[] = []
  print(`whole: ${await checked(jobFor(labels))}`)
  const changed = labels.with(Math.floor(minutes / 2), 'Mast lean')
  print(`one label changed: ${await checked(jobFor(changed))}`)
  const [whole, again] = costs
  if (whole && again)
    print(
      `again / whole = ${(again.wallS / whole.wallS).toFixed(3)} in wall time, ${(again.cpuS / whole.cpuS).toFixed(3)} in CPU time`,
    )
  print(`resident at most: ${Math.round(process.resourceUsage().maxRSS / 1024)} MB in this process`)
} finally {
  rmSync(folder, { recursive: true })
}

/** The same footage end to end, without encoding. */
async function longer(path: string, count: number): Promise<string> {
  if (count === 1) return path
  const list = at('list.txt')
  writeFileSync(list, `ffconcat version 1.0\n${`file '${resolve(path)}'\n`.repeat(count)}`)
  const out = at('long.mp4')
  await runTool('ffmpeg', ['-v', 'error', '-nostdin', '-f', 'concat', '-safe', '0', '-i', list, '-c', 'copy', out])
  return out
}

function print(line: string): void {
  process.stdout.write(`${line}\n`)
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
