// What a keystroke costs while a score is edited: expansion, judgement and terrain, from 10 to 50,000 segments, in one
// run.
//   tsx bench/planning.ts
import { createCanvas } from '@napi-rs/canvas'
import { judge } from '../src/core/check/check'
import { expand } from '../src/core/expand/expand'
import { DAY_PALETTE } from '../src/core/look/palette'
import type { Surface } from '../src/core/look/surface'
import { drawTerrain, stretchesOf } from '../src/core/look/terrain'
import { castOf } from '../src/core/score/cast'
import { balanceOf } from '../src/core/score/balance'
import { printShorthand } from '../src/core/shorthand/print'
import { readShorthand } from '../src/core/shorthand/read'
import { registerFonts } from '../src/engine/fonts'

registerFonts()
const pen = createCanvas(1280, 180).getContext('2d') as unknown as Surface

const BLOCK = 'Jug lift; Lock-gate push; Tiller twist; Pump-out hop; Deck-rail squat'

/** Sections of 10 rounds of 5 stations: 100 segments each. */
const planOf = (segments: number): string =>
  segments <= 50
    ? `circuit: ${segments / 10} rounds, 20 on, 10 off\n  ${BLOCK}\n`
    : Array.from(
        { length: Math.ceil(segments / 100) },
        (_, index) => `circuit Block ${index + 1}: ${segments >= 100 ? 10 : 5} rounds, 1 on, 0.5 off\n  ${BLOCK}\n`,
      ).join('')

function timed(work: () => unknown, atLeastMs = 400): number {
  work()
  let runs = 0
  const start = performance.now()
  do {
    work()
    runs++
  } while (performance.now() - start < atLeastMs)
  return (performance.now() - start) / runs
}

const first: Record<string, number> = {}
process.stdout.write(
  'segments   expand    check  terrain  together  balance     read    print   (ms; µs a segment for the first three; x the cost a segment at 100)\n',
)
for (const size of [10, 100, 1000, 2000, 10_000, 50_000]) {
  const text = planOf(size)
  const { score } = readShorthand(text)
  const expansion = expand(score)
  const count = expansion.segments.length
  const costs = {
    expand: timed(() => expand(score)),
    check: timed(() => judge(score, { expansion, problem: null })),
    terrain: timed(() =>
      drawTerrain(pen, stretchesOf(expansion.segments), {
        width: 1280,
        height: 180,
        fromMs: 0,
        toMs: expansion.totalMs,
        palette: DAY_PALETTE,
        selected: null,
        labels: true,
      }),
    ),
    balance: timed(() => balanceOf(expansion, castOf([]))),
    read: timed(() => readShorthand(text, score)),
    print: timed(() => printShorthand(score)),
  }
  const together = costs.expand + costs.check + costs.terrain
  const each = (together / count) * 1000
  if (count === 100) first.each = each
  const cell = (ms: number): string => ms.toFixed(2).padStart(8)
  process.stdout.write(
    `${String(count).padStart(8)} ${cell(costs.expand)} ${cell(costs.check)} ${cell(costs.terrain)}  ${cell(together)} ${cell(costs.balance)} ${cell(costs.read)} ${cell(costs.print)}   ${each.toFixed(2)} µs  ${first.each ? (each / first.each).toFixed(2) : '    '}\n`,
  )
}
