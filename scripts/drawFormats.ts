// Draws the picture of each format in docs/formats.md from the shorthand that stands there.
//   tsx scripts/drawFormats.ts
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createCanvas } from '@napi-rs/canvas'
import { expand } from '../src/core/expand/expand'
import { DAY_PALETTE } from '../src/core/look/palette'
import { drawRuler } from '../src/core/look/ruler'
import type { Surface } from '../src/core/look/surface'
import { drawTerrain, stretchesOf } from '../src/core/look/terrain'
import { readShorthand } from '../src/core/shorthand/read'
import { registerFonts } from '../src/engine/fonts'
import { formatExamples } from './formatExamples'

const WIDTH = 720,
  HEIGHT = 132,
  RULER = 22

registerFonts()
mkdirSync('docs/formats', { recursive: true })
for (const { id, shorthand, picture } of formatExamples(readFileSync('docs/formats.md', 'utf8'))) {
  if (!picture) continue
  const { segments, totalMs } = expand(readShorthand(shorthand).score)
  const canvas = createCanvas(WIDTH, HEIGHT)
  const pen = canvas.getContext('2d') as unknown as Surface
  const view = { width: WIDTH, fromMs: 0, toMs: totalMs, palette: DAY_PALETTE }
  pen.fillStyle = DAY_PALETTE.paper
  pen.fillRect(0, 0, WIDTH, HEIGHT)
  drawTerrain(pen, stretchesOf(segments), { ...view, height: HEIGHT - RULER, selected: null, labels: false })
  pen.translate(0, HEIGHT - RULER)
  drawRuler(pen, { ...view, height: RULER, totalMs })
  writeFileSync(`docs/formats/${id.toLowerCase()}.png`, canvas.toBuffer('image/png'))
}
