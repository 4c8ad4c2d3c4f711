import { describe, expect, it } from 'vitest'
import { expand } from '../../expand/expand'
import { printShorthand } from '../../shorthand/print'
import { readShorthand } from '../../shorthand/read'
import { newStation, newSwap, parseWeight, stationIn, weightText } from './station'

const works = (text: string): string[] => {
  const { score, problems } = readShorthand(text)
  expect(problems).toEqual([])
  return expand(score)
    .segments.filter(({ kind }) => kind === 'work')
    .map(({ label, side, reps, durationMs }) =>
      `${reps ?? ''} ${label} ${side ?? ''} ${durationMs / 1000}`.replace(/ +/g, ' '),
    )
}

describe('a station in a later pass', () => {
  it('has fewer reps from pass to pass: 6, then 5, then 4', () => {
    const station = newStation('Squat', { reps: 6, swaps: [newSwap(2, '', { reps: 5 }), newSwap(3, '', { reps: 4 })] })
    expect([1, 2, 3, 4].map((pass) => stationIn(station, pass).reps)).toEqual([6, 5, 4, 4])
  })
  it('keeps its reps where only the move changes, and the move where only the reps do', () => {
    const station = newStation('Squat', {
      reps: 6,
      swaps: [newSwap(2, 'Lunge', { sideRule: 'none' }), newSwap(3, '', { reps: 4 })],
    })
    expect(stationIn(station, 2)).toMatchObject({ label: 'Lunge', reps: 6, sideRule: 'none' })
    expect(stationIn(station, 3)).toMatchObject({ label: 'Lunge', reps: 4 })
  })
  it("takes another move's own sides, and not those of the move before it", () => {
    // 10 squats of 3 s; then jug lifts of 3 s, each side for itself.
    expect(works('finisher Main: 2 rounds\n  10 Squat (sides none, from 2 Jug lift, from 2 sides each)\n')).toEqual([
      '10 Squat 30',
      ...['10 Jug lift left 30', '10 Jug lift right 30'],
    ])
    expect(works('circuit Main: 2 rounds, 30 on\n  Jug lift (sides each, from 2 Squat)\n')).toEqual([
      ...['Jug lift left 30', 'Jug lift right 30'].map((one) => ` ${one}`.replace(/^ /, ' ')),
      ' Squat 30',
    ])
  })
})

describe('what is lifted', () => {
  it.each([
    ['12 kg', '12 kg'],
    ['2 x 8 kg', '2 x 8 kg'],
    ['2x7,5kg', '2 x 7.5 kg'],
    ['15 lbs', '15 lb'],
  ])('%s is read as %s', (typed, shown) => {
    const weight = parseWeight(typed)
    expect(weight && weightText(weight)).toBe(shown)
  })
  it.each(['heavy', '12', '12 stone', '0 kg', '-3 kg', '2 x kg'])('%s is no weight', (typed) =>
    expect(parseWeight(typed)).toBeNull(),
  )
  it('goes with the segment, and what one rep is goes with it', () => {
    const text = 'sets Main: 1 set\n  10 Plank taps (weight 2 x 8 kg, rep is "each side counts one")\n'
    const [work] = expand(readShorthand(text).score).segments
    expect(work).toMatchObject({ weight: { amount: 8, unit: 'kg', pair: true }, repIs: 'each side counts one' })
  })
})

describe('a length of its own of which only the bounds are known', () => {
  it('is planned with the middle and says how far it may be off', () => {
    const text = 'circuit Main: 1 round, 30 on, last rest kept\n  Squat (10-20 off); Lunge (sides none)\n'
    const { totalMs, minMs, maxMs } = expand(readShorthand(text).score)
    // 30 + 15 + 30, five seconds either way.
    expect([totalMs, minMs, maxMs]).toEqual([75_000, 70_000, 80_000])
    expect(printShorthand(readShorthand(text).score)).toContain('Squat (10-20 off)')
  })
})

describe('a gap of its own', () => {
  it('lasts otherwise than its like, and only there', () => {
    const text = 'circuit Main: 2 rounds, 20 on, 10 off, last rest kept, gap r1/s1/rest 40\n  Squat; Crunch\n'
    const rests = expand(readShorthand(text).score).segments.filter(({ kind }) => kind === 'rest')
    expect(rests.map(({ durationMs }) => durationMs)).toEqual([40_000, 10_000, 10_000, 10_000])
    expect(rests[0]?.origin?.length?.field).toEqual(['gaps', 'r1/s1/rest'])
  })
})

describe('formats', () => {
  it('count in before every later round, pair or burst', () => {
    const leads = (text: string): string[] =>
      expand(readShorthand(text).score)
        .segments.filter(({ kind }) => kind === 'lead')
        .map(({ id, durationMs }) => `${id} ${durationMs}`)
    expect(leads('circuit Main: 3 rounds, 20 on, lead 10, lead each 5\n  Squat\n')).toEqual([
      ...['main/lead 10000', 'main/r2/lead 5000', 'main/r3/lead 5000'],
    ])
    expect(leads('burst Main: lead each 5\n  Squat\n  Crunch\n')).toEqual(['main/s2/lead 5000'])
    expect(leads('pairs Main: 2 times, 20 on, lead each 5\n  Squat + Crunch\n  Plank + Squat\n')).toEqual([
      'main/s3/lead 5000',
    ])
  })
  it('come down a pyramid on the clock where it has one', () => {
    const text = 'pyramid Main: climb 2:00, 2 reps, 2 more each, down 1:30\n  Squat\n'
    const down = expand(readShorthand(text).score).segments.at(-1)
    expect(down).toMatchObject({ durationMs: 90_000, pace: 'fixed', label: 'Down: Squat' })
  })
  it('go through uneven groups in the order that they say', () => {
    const order = (how: string): string =>
      works(`uneven Main: 2 rounds, 20 on${how}\n  Squat\n  Crunch\n`)
        .map((one) => one.trim().charAt(0))
        .join('')
    expect([order(''), order(', order by round')]).toEqual(['SSCC', 'SCSC'])
  })
  it('do a section once more as it is there, under a key of its own, and change with it', () => {
    const text = (on: number): string =>
      `circuit Main: 1 round, ${on} on\n  Squat; Crunch\nbreak Rest: long 60\nagain Twice: of main\n`
    const { segments, totalMs } = expand(readShorthand(text(30)).score)
    expect(totalMs).toBe(180_000)
    expect(segments.map(({ id }) => id)).toEqual([
      ...['main/r1/s1/work', 'main/r1/s2/work', 'rest/break'],
      ...['twice/r1/s1/work', 'twice/r1/s2/work'],
    ])
    expect(segments.at(-1)).toMatchObject({ section: 'Twice', origin: null })
    expect(expand(readShorthand(text(20)).score).totalMs).toBe(140_000)
  })
})
