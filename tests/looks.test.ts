// Every look drawn as it is rendered: each fact is seen, no layer cuts what another way of drawing shows, and nothing
// leaves the picture however long its words are.
import { createCanvas } from '@napi-rs/canvas'
import { beforeAll, describe, expect, it } from 'vitest'
import { asPlanned } from '../src/core/cut/cut'
import { expand } from '../src/core/expand/expand'
import { drawOverlay, overlayLayers, type Frame } from '../src/core/look/drawOverlay'
import { GRAPHICS_SAFE, LOOK_NAMES, USUAL_LOOK, type LookName, type LookWish } from '../src/core/look/looks/family'
import { TONE_NAMES } from '../src/core/look/looks/tones'
import { overlayChanges, type OverlayState } from '../src/core/look/overlay'
import type { Surface } from '../src/core/look/surface'
import { readShorthand } from '../src/core/shorthand/read'
import { registerFonts } from '../src/engine/fonts'
import { measuringSurface } from '../src/engine/strip'

beforeAll(registerFonts)

const WIDE = { width: 640, height: 360 },
  UPRIGHT = { width: 360, height: 640 }
const FRAMES = [
  ['wide', WIDE],
  ['upright', UPRIGHT],
] as const

const { score } = readShorthand(
  'score: demos up front, each demo 10\n' +
    'circuit Main deck: 2 rounds, 40 on, 20 off, 50 between, lead 5\n  Jug lift (sides halves)\n  Keel hold\n  Oar row\n' +
    'break Water: 60\nsets Second: 2 sets, 20 off\n  12 Deck-rail squat (weight 6 kg)\nstraight Last: 25 on\n  Towel tear\n',
)
const STATES = overlayChanges(asPlanned(expand(score).segments), score).flatMap(({ state }) => state ?? [])

function drawn(frame: Frame, draw: (surface: Surface) => void): Buffer {
  const canvas = createCanvas(frame.width, frame.height)
  draw(canvas.getContext('2d') as unknown as Surface)
  return Buffer.from(canvas.data())
}
const picture = (state: OverlayState, wish: LookWish, frame: Frame = WIDE): Buffer =>
  drawn(frame, (surface) => drawOverlay(surface, state, frame, wish))

describe.each(LOOK_NAMES)('%s', (look) => {
  it.each(FRAMES)('has no layer that cuts anything, %s', (_, frame) => {
    for (const [at, tone] of TONE_NAMES.entries()) {
      const wish = { ...USUAL_LOOK, look, tone, size: at ? 1.2 : 1, footFree: at ? 12 : 0, edgeFree: at ? 5 : 0 }
      const layers = overlayLayers(frame, STATES, measuringSurface(), wish)
      for (const state of STATES.filter((_, number) => number % 18 === 0)) {
        const apart = drawn(frame, (surface) => {
          for (const { x, y, width, height, draw } of layers) {
            const layer = createCanvas(width, height)
            const own = layer.getContext('2d') as unknown as Surface
            own.translate(-x, -y)
            draw(own, state, frame)
            ;(surface as unknown as { drawImage: (...of: unknown[]) => void }).drawImage(layer, x, y)
          }
        })
        expect(unlike(apart, picture(state, wish, frame))).toBe(0)
      }
    }
  })

  it.each(FRAMES)('keeps out of the edges that a television may not show, %s', (_, frame) => {
    const wish = { ...wishOf(look), edgeFree: GRAPHICS_SAFE }
    const [left, top] = [frame.width, frame.height].map((side) => Math.floor((side * GRAPHICS_SAFE) / 100) - 1)
    const within = (x: number, y: number): boolean =>
      x >= left! && y >= top! && x < frame.width - left! && y < frame.height - top!
    for (const state of STATES.filter((_, number) => number % 25 === 0)) {
      const pixels = picture(state, wish, frame)
      let drawnOutside = 0
      for (let at = 0; at < frame.width * frame.height; at++)
        if (pixels[4 * at + 3]! > 40 && !within(at % frame.width, Math.floor(at / frame.width))) drawnOutside++
      expect(drawnOutside).toBe(0)
    }
  })

  it.each(FRAMES)('shows a card and nothing else while it stands, whole and inside the picture, %s', (_, frame) => {
    const text = ['Before you begin', 'Stop on pain, dizziness or unusual breathlessness. '.repeat(3)]
    for (const size of [0.7, 1, 2]) {
      const wish = { ...wishOf(look), size }
      const state = { ...STATES[5]!, card: text }
      const own = picture(state, wish, frame)
      expect(unlike(own, picture({ ...state, label: 'Rope pull', count: 3 }, wish, frame))).toBe(0)
      expect(unlike(own, picture({ ...state, card: ['Another', 'card'] }, wish, frame))).toBeGreaterThan(20)
      const corners = [0, frame.width - 1, (frame.height - 1) * frame.width, frame.width * frame.height - 1]
      expect(corners.map((at) => own[4 * at + 3])).toEqual([0, 0, 0, 0])
    }
  })

  it('shows what it says that it shows', () => {
    const work = STATES.find(({ ground, count }) => ground === 'work' && count === 30)!
    const rest = STATES.find(({ ground, next }) => ground === 'rest' && next)!
    const seen: [what: string, state: OverlayState, change: Partial<OverlayState>][] = [
      ['the move', work, { label: 'Rope pull', short: '' }],
      ['the side', work, { side: work.side === 'left' ? 'right' : 'left' }],
      ['no side', work, { side: null }],
      ['the count', work, { count: 29 }],
      ['time left as a share', work, { staff: 2 }],
      ['reps beside a count', work, { reps: 12 }],
      ['reps in place of a count', work, { reps: 12, count: null, staff: null }],
      ['the ground', work, { ground: 'rest' }],
      ['what is next', rest, { next: 'Rope pull' }],
      ['how long that is', rest, { nextMs: 35_000, nextDiffers: true }],
      ['a call', work, { lines: [{ kind: 'halfway', text: 'Halfway' }] }],
      ['a line', work, { lines: [{ kind: 'gear', text: 'Rolled rope' }] }],
      ['how much is over', work, { passed: 70 }],
    ]
    const more: typeof seen = [
      ['counters', work, { counters: ['Round 9 of 9'] }],
      ['marks', work, { marks: { done: 4, of: 7 } }],
      ['the title', { ...work, lines: [] }, { begins: true }],
    ]
    for (const [what, state, change] of look === 'lantern' ? seen : [...seen, ...more])
      expect([what, unlike(picture(state, wishOf(look)), picture({ ...state, ...change }, wishOf(look))) > 20]).toEqual(
        [what, true],
      )
  })

  it.each(FRAMES)(
    'covers the footage wherever something is written, so that its contrast is the same in every frame, %s',
    (_, frame) => {
      for (const tone of TONE_NAMES)
        for (const state of STATES.filter((_, number) => number % 40 === 0))
          expect(throughSeen(picture(state, { ...wishOf(look), tone }, frame), frame)).toBe(0)
    },
  )

  it('leaves out what is not wished', () => {
    const wish = wishOf(look)
    const bare = { ...wish, shows: { counters: false, next: false, lines: false, titles: false, whole: false } }
    const rest = STATES.find(({ ground, next, lines }) => ground === 'rest' && next && lines.length)!
    const less = { ...rest, counters: [], marks: null, next: '', lines: [], begins: false, passed: null }
    expect(unlike(picture(rest, bare), picture(less, wish))).toBe(0)
    expect(unlike(picture(rest, bare), picture(rest, wish))).toBeGreaterThan(20)
  })

  it.each(FRAMES)('keeps the longest words inside the picture, %s', (_, frame) => {
    const long = 'Lantern reach beyond the starboard rail '.repeat(8).slice(0, 300)
    const base = STATES.find(({ ground, side }) => ground === 'work' && side)!
    const longest: OverlayState = {
      ...{ ...base, label: long, next: long, section: long.slice(0, 100), begins: true },
      counters: [long.slice(0, 60), long.slice(0, 60)],
      lines: [{ kind: 'switch', text: 'Other side' }, ...[1, 2].map(() => ({ kind: 'easier' as const, text: long }))],
    }
    for (const ground of ['work', 'rest'] as const) {
      // Drawn on a larger ground, so that what leaves the picture is seen.
      const margin = 200
      const large = { width: frame.width + 2 * margin, height: frame.height + 2 * margin }
      const pixels = drawn(large, (surface) => {
        surface.translate(margin, margin)
        drawOverlay(surface, { ...longest, ground }, frame, wishOf(look))
      })
      let outside = 0
      for (let y = 0; y < large.height; y++)
        for (let x = 0; x < large.width; x++) {
          const isInside = x >= margin && y >= margin && x < large.width - margin && y < large.height - margin
          if (!isInside && (pixels[4 * (y * large.width + x) + 3] ?? 0) > 40) outside++
        }
      expect(outside).toBe(0)
    }
  })
})

const wishOf = (look: LookName): LookWish => ({ ...USUAL_LOOK, look })

/** How many pixels the footage is seen through, other than along the edge of what is drawn. */
function throughSeen(pixels: Buffer, { width, height }: Frame): number {
  const isFree = (x: number, y: number): boolean => pixels[4 * (y * width + x) + 3]! < 8
  let count = 0
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      const alpha = pixels[4 * (y * width + x) + 3]!
      if (alpha < 8 || alpha > 230) continue
      let isEdge = false
      for (let down = -2; down <= 2; down++)
        for (let right = -2; right <= 2; right++) isEdge ||= isFree(x + right, y + down)
      if (!isEdge) count++
    }
  return count
}

/** How many pixels differ by more than rounding. */
function unlike(one: Buffer, other: Buffer): number {
  let count = 0
  for (let at = 0; at < one.length; at += 4)
    if ([0, 1, 2, 3].some((channel) => Math.abs(one[at + channel]! - other[at + channel]!) > 24)) count++
  return count
}
