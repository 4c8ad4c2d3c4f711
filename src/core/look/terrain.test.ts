import { describe, expect, it } from 'vitest'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { DAY_PALETTE } from './palette'
import { drawRuler } from './ruler'
import type { Surface } from './surface'
import { drawTerrain, stretchAt, stretchesOf, waterlineOf, type Stretch } from './terrain'

interface Drawn {
  kind: string
  colour: string
  x: number
  y: number
  wide: number
  tall: number
  text: string
}

/** A surface that writes down what is drawn on it. */
function recorder(): { surface: Surface; drawn: Drawn[]; calls: () => number } {
  const drawn: Drawn[] = []
  let calls = 0
  const state: Record<string, unknown> = { fillStyle: '' }
  const surface = new Proxy(state, {
    get: (target, name) =>
      typeof name === 'string' && name in target
        ? target[name]
        : (...args: number[]) => {
            calls++
            if (name === 'measureText') return { width: String(args[0]).length * 7 }
            if (name === 'fillRect')
              drawn.push({
                kind: 'rect',
                colour: String(target.fillStyle),
                x: args[0]!,
                y: args[1]!,
                wide: args[2]!,
                tall: args[3]!,
                text: '',
              })
            if (name === 'fillText')
              drawn.push({
                kind: 'text',
                colour: String(target.fillStyle),
                x: args[1]!,
                y: args[2]!,
                wide: 0,
                tall: 0,
                text: String(args[0]),
              })
            return undefined
          },
    set: (target, name, value) => {
      target[String(name)] = value
      return true
    },
  }) as unknown as Surface
  return { surface, drawn, calls: () => calls }
}

const stretches = (text: string): { all: Stretch[]; totalMs: number } => {
  const { segments, totalMs } = expand(readShorthand(text).score)
  return { all: stretchesOf(segments), totalMs }
}
const view = (totalMs: number, change: object = {}) => ({
  width: 1200,
  height: 200,
  fromMs: 0,
  toMs: totalMs,
  palette: DAY_PALETTE,
  selected: null,
  labels: true,
  ...change,
})

describe('the terrain', () => {
  it('costs no more for tens of thousands of intervals than the width has columns', () => {
    const costOf = (rounds: number): number => {
      const { all, totalMs } = stretches(
        `circuit Main: ${rounds} rounds, 1 on, 0.5 off\n  ${Array.from({ length: 40 }, () => 'Squat; Plank').join('; ')}\n`,
      )
      const { surface, calls } = recorder()
      drawTerrain(surface, all, view(totalMs))
      return calls()
    }
    expect(costOf(250)).toBeLessThan(2 * 1200 + 50)
    expect(costOf(250)).toBeLessThanOrEqual(costOf(25) + 1200)
  })
  it('draws narrow work as high as its effort, above the water, and rest below it', () => {
    const { all, totalMs } = stretches('circuit Main: 100 rounds, 1 on, 1 off\n  Heel digs; Jump squat\n')
    const { surface, drawn } = recorder()
    drawTerrain(surface, all, view(totalMs))
    const level = waterlineOf(view(totalMs))
    const land = drawn.filter((one) => one.colour === DAY_PALETTE.land),
      deep = drawn.filter((one) => one.colour === DAY_PALETTE.deep)
    expect(new Set(land.map((one) => Math.round(one.tall))).size).toBe(2)
    for (const one of land) expect(one.y + one.tall).toBeCloseTo(level)
    for (const one of deep) expect(one.y).toBe(level)
  })
  it('keeps neighbours apart while they can be told apart', () => {
    const { all, totalMs } = stretches(
      'straight Main: 10 on\n  ' + Array.from({ length: 240 }, () => 'Squat').join('; ') + '\n',
    )
    const { surface, drawn } = recorder()
    drawTerrain(surface, all, view(totalMs))
    const land = drawn.filter((one) => one.colour === DAY_PALETTE.land)
    expect(land).toHaveLength(240)
    expect(Math.max(...land.map((one) => one.wide))).toBeLessThan(5)
  })
  it('draws only the stretch of time that is shown', () => {
    const { all, totalMs } = stretches('circuit Main: 50 rounds, 20 on, 10 off\n  Squat\n')
    const { surface, drawn } = recorder()
    drawTerrain(surface, all, view(totalMs, { fromMs: 600_000, toMs: 640_000 }))
    expect(drawn.filter((one) => one.kind === 'text').every((one) => one.text === 'Squat')).toBe(true)
    expect(drawn.filter((one) => one.kind === 'text').length).toBeLessThan(4)
  })
  it('finds the stretch under a point, and none beyond the end', () => {
    const { all, totalMs } = stretches('circuit Main: 1 round, 30 on, 10 off, last rest kept\n  Squat; Plank\n')
    const at = (x: number): string | undefined => stretchAt(all, view(totalMs), x)?.id
    // 80 s on 1200 pixels: 15 pixels a second.
    expect([at(0), at(449), at(450), at(600), at(1200)]).toEqual([
      'main/r1/s1/work',
      'main/r1/s1/work',
      'main/r1/s1/rest',
      'main/r1/s2/work',
      undefined,
    ])
  })
})

describe('the ruler', () => {
  const labels = (totalMs: number, change: object = {}): string[] => {
    const { surface, drawn } = recorder()
    drawRuler(surface, { width: 1200, height: 24, fromMs: 0, toMs: totalMs, totalMs, palette: DAY_PALETTE, ...change })
    return drawn.filter((one) => one.kind === 'text').map((one) => one.text)
  }
  it('says time into and time left, in steps that leave room', () => {
    expect(labels(900_000)).toEqual([
      '15:00 in all',
      '2:00 in, 13:00 left',
      '4:00 in, 11:00 left',
      '6:00 in, 9:00 left',
      '8:00 in, 7:00 left',
      '10:00 in, 5:00 left',
      '12:00 in, 3:00 left',
      '14:00 in, 1:00 left',
    ])
    expect(labels(60_000)[1]).toBe('0:10 in, 0:50 left')
  })
  it('holds for an empty score, a day, and a window of it', () => {
    expect(labels(0)).toEqual(['0:00 in all'])
    expect(labels(86_400_000).length).toBeLessThan(14)
    expect(labels(900_000, { fromMs: 300_000, toMs: 360_000 })[0]).toBe('5:00 in, 10:00 left')
  })
})
