import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { TONE_NAMES, TONES } from './looks/tones'
import { DAY_PALETTE, NIGHT_PALETTE, OVERLAY } from './palette'
import { contrastOf as contrast, VISIONS } from './vision'

describe('the palette', () => {
  const css = readFileSync('src/ui/tokens.css', 'utf8')
  it.each([
    ['day', DAY_PALETTE, ':root'],
    ['night', NIGHT_PALETTE, "[data-theme='night']"],
  ] as const)('is the same in the tokens by %s', (_name, palette, selector) => {
    const block = css.slice(css.indexOf(`${selector} {`)).split('}')[0]
    for (const name of ['ink', 'paper', 'land', 'water', 'deep', 'signal', 'pale'] as const)
      expect(block).toContain(`--${name}: ${palette[name]};`)
  })
  it.each([
    ['day', DAY_PALETTE, '#44584f'],
    ['night', NIGHT_PALETTE, '#a9bdb0'],
  ] as const)(
    'has AA contrast by %s wherever text stands',
    (_name, { ink, paper, pale, signal, land, print }, quiet) => {
      for (const [text, ground] of [
        [ink, paper],
        [ink, pale],
        [quiet, paper],
        [quiet, pale],
        [signal, paper],
        [signal, pale],
        [print, land],
      ] as const)
        expect(contrast(text, ground)).toBeGreaterThanOrEqual(4.5)
    },
  )
  /** Whatever is written, with what it stands on. */
  const written = (name: (typeof TONE_NAMES)[number]): [words: string, ground: string][] => {
    const { plate, text, muted, accent, strip, stripText, call, callText, grounds } = TONES[name]
    return [
      ...[text, muted, accent].map((colour): [string, string] => [colour, plate]),
      [stripText, strip],
      [callText, call],
      ...Object.values(grounds).map(({ block, digits }): [string, string] => [digits, block]),
    ]
  }
  it.each(TONE_NAMES)('has AA contrast on %s plates', (name) => {
    for (const [words, ground] of written(name)) expect(contrast(words, ground)).toBeGreaterThanOrEqual(4.5)
  })
  it.each(VISIONS.flatMap((vision) => TONE_NAMES.map((name) => [vision, name] as const)))(
    'can be read by who sees fewer colours (%s), on %s plates',
    (vision, name) => {
      for (const [words, ground] of written(name)) expect(contrast(words, ground, vision)).toBeGreaterThanOrEqual(4.5)
    },
  )
  it('has AA contrast in the overlay', () => {
    for (const [text, ground] of [
      [OVERLAY.ink, OVERLAY.land],
      [OVERLAY.pale, OVERLAY.water],
      [OVERLAY.pale, OVERLAY.ink],
      [OVERLAY.muted, OVERLAY.ink],
      [OVERLAY.land, OVERLAY.ink],
      [OVERLAY.ink, OVERLAY.pale],
    ] as const) {
      expect(contrast(text, ground)).toBeGreaterThanOrEqual(4.5)
    }
  })
})
