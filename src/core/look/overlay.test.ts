import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cuesFor } from '../cue/cues'
import { asPlanned } from '../cut/cut'
import { expand } from '../expand/expand'
import { readShorthand } from '../shorthand/read'
import { writeChapters } from '../write/chapters'
import { writeVtt } from '../write/vtt'
import { overlayAt, overlayChanges } from './overlay'

const laneOf = (text: string) => asPlanned(expand(readShorthand(text).score).segments)

describe('the number on the picture', () => {
  const counts = (way: 'down' | 'up'): (number | null | undefined)[] => {
    const changes = overlayChanges(laneOf('circuit Main: 1 round, 5 on, 3 off, last rest kept\n  Squat\n'), {
      ...{ count: way, countOf: 'filmed' },
    })
    return [0, 900, 1000, 4999, 5000, 7999].map((ms) => overlayAt(changes, ms)?.count)
  }
  it('goes down to the change, or up from the start', () => {
    expect(counts('down')).toEqual([5, 5, 4, 1, 3, 1])
    expect(counts('up')).toEqual([1, 1, 2, 5, 1, 3])
  })
  it('shows nothing while there is talk', () => {
    const changes = overlayChanges(laneOf('talk Hello: about 10\ncircuit Main: 1 round, 5 on\n  Squat\n'))
    expect([overlayAt(changes, 5000), overlayAt(changes, 11_000)?.label]).toEqual([null, 'Squat'])
  })
})

describe('an interval of which hardly anything is left', () => {
  it.each([5000, 4999.6])('is not shown, and what follows it begins with it: from %f ms on', (startMs) => {
    const lane = laneOf('circuit Main: 1 round, 20 on, lead 5\n  Squat\n')
    const changes = overlayChanges(lane.map((laid, at) => (at === 0 ? { ...laid, startMs } : laid)))
    expect(changes[0]).toMatchObject({ fromMs: startMs, state: { ground: 'work', count: 20 } })
    expect(changes[1]).toMatchObject({ fromMs: 6000, state: { count: 19 } })
  })
})

describe('the colours of the picture', () => {
  it('change no more than three times in any second, whatever is planned', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 2000 }), { minLength: 1, maxLength: 30 }), (lengths) => {
        const lane = laneOf(
          `list Main:\n  ${lengths.map((ms, at) => (at % 2 ? `- (${ms / 1000} rest)` : `Squat (${ms / 1000} work)`)).join('; ')}\n`,
        )
        const changes = overlayChanges(lane)
        const turns = changes.filter(({ state }, at) => at > 0 && state?.ground !== changes[at - 1]!.state?.ground)
        for (const { fromMs } of turns)
          expect(
            turns.filter((turn) => turn.fromMs >= fromMs && turn.fromMs < fromMs + 1000).length,
          ).toBeLessThanOrEqual(3)
      }),
    )
  })
})

describe("counters in the creator's words", () => {
  const text =
    'words: round "lap" "laps", station "stop" "stops"\ncircuit Main: 3 rounds, 20 on, 10 off\n  Squat; Lunge\n'
  it('stand on the picture, in captions and in chapters', () => {
    const lane = laneOf(text)
    expect(overlayAt(overlayChanges(lane), 61_000)?.counters).toEqual(['Lap 2 of 3', 'Stop 1 of 2'])
    expect(writeVtt(lane)).toContain('Squat (20 seconds)\nLap 1 of 3')
    expect(writeChapters(lane)).toBe('0:00 Main, Lap 1 of 3\n1:00 Main, Lap 2 of 3\n2:00 Main, Lap 3 of 3\n')
  })
  it('come from the format where none were chosen', () => {
    const counters = (plan: string) => overlayAt(overlayChanges(laneOf(plan)), 1000)?.counters
    expect(counters('pairs Main: 2 times, 20 on\n  Squat + Lunge; Plank + Crunch\n')).toEqual([
      'Pair 1 of 2',
      'Round 1 of 2',
    ])
    expect(counters('ladder Main: 3 rungs, from 10, step 5\n  Squat\n')).toEqual(['Rung 1 of 3'])
    expect(counters('straight Main: 40 then 20 on\n  Squat\n')).toEqual(['Pass 1 of 2'])
    expect(counters('circuit Main: 1 round, 20 on\n  Squat\n')).toEqual([])
  })
  it('make a chapter of each group, not of each interval of a burst', () => {
    expect(writeChapters(laneOf('burst Main: between 40\n  Squat; Lunge; Plank\n')).trim().split('\n')).toEqual([
      '0:00 Main, Burst 1 of 3',
      '4:30 Main, Burst 2 of 3',
      '9:00 Main, Burst 3 of 3',
    ])
  })
})

describe('what is only estimated', () => {
  it('says so in the captions until footage tells', () => {
    const lane = laneOf('finisher Last: 1 round\n  10 Squat\n')
    expect(writeVtt(lane)).toContain('Squat (about 30 seconds)')
    expect(writeVtt(lane.map((laid) => ({ ...laid, endMs: laid.endMs + 4000 })))).toContain('Squat (34 seconds)')
  })
})

describe('work at its own pace', () => {
  const lane = laneOf('finisher Last: 1 round\n  10 Squat; 8 Lunge\ncircuit Main: 1 round, 5 on\n  Plank\n')
  const changes = overlayChanges(lane)
  it('shows its reps, and no clock, as its end is guessed', () => {
    // 10 squats of 3 s: a guess of 30 s.
    expect([0, 5000, 29_500].map((ms) => overlayAt(changes, ms)?.count)).toEqual([null, null, null])
    expect(overlayAt(changes, 5000)).toMatchObject({ label: 'Squat', reps: 10, staff: null, passed: null })
    expect(overlayAt(changes, 5000)?.lines[0]).toEqual({ kind: 'pace', text: 'Your own pace' })
  })
  it('has no tone and no pips at an end that is guessed, and all of them where the clock runs', () => {
    expect(cuesFor(lane).map((cue) => `${cue.atMs} ${cue.sound}`)).toEqual([
      '0 go',
      '56000 pip',
      '57000 pip',
      '58000 pip',
      '59000 end',
    ])
  })
  it('has its tone where footage says when it ended', () => {
    const filmed = lane.map((laid) => ({ ...laid, endTied: true }))
    expect(cuesFor(filmed).filter(({ sound }) => sound === 'go')).toHaveLength(3)
  })
})

describe('every minute by reps', () => {
  const lane = laneOf('minute-reps Main: 2 rounds, last rest kept\n  10 Squat\n')
  it('shows the minute, over work and rest, and sounds at its end alone', () => {
    const changes = overlayChanges(lane)
    // 10 squats are a guess of 30 s; the minute goes on.
    expect([0, 29_000, 31_000, 59_500].map((ms) => overlayAt(changes, ms)?.count)).toEqual([60, 31, 29, 1])
    expect(cuesFor(lane).map((cue) => `${cue.atMs} ${cue.sound}`)).toEqual([
      ...['0 go', '57000 pip', '58000 pip', '59000 pip', '60000 go', '60700 last'],
      ...['117000 pip', '118000 pip', '119000 pip', '120000 end'],
    ])
  })
})

describe('footage that ran otherwise than planned', () => {
  const lane = laneOf('circuit Main: 1 round, 20 on, 10 off, last rest kept\n  Squat\n')
  const filmed = (workMs: number, restMs: number) => {
    let atMs = 0
    return lane.map((laid, index) => {
      const startMs = atMs
      atMs += index ? restMs : workMs
      return { ...laid, startMs, endMs: atMs }
    })
  }
  const at = (ms: number, workMs: number, restMs: number, countOf: 'filmed' | 'planned' = 'filmed') =>
    overlayAt(overlayChanges(filmed(workMs, restMs), { count: 'down', countOf }), ms)?.count
  it('holds the planned number for work that ran to its plan within a second and a half', () =>
    expect(at(0, 21_400, 10_000)).toBe(20))
  it('counts the true length of work that did not, and of every rest', () => {
    expect(at(0, 23_000, 10_000)).toBe(23)
    expect(at(20_000, 20_000, 11_000)).toBe(11)
    // No eleven for the first fiftieth of a second.
    expect([at(20_000, 20_000, 10_020), at(20_021, 20_000, 10_020)]).toEqual([10, 10])
  })
  it('counts as announced where the workout says so', () => {
    expect([at(0, 23_000, 10_000, 'planned'), at(20_000, 20_000, 14_000, 'planned')]).toEqual([20, 10])
  })
})

describe('halves that mean another direction', () => {
  it('sound in the middle and say so, and have no side', () => {
    const lane = laneOf('circuit Main: 1 round, 20 on\n  Arm circles (sides direction)\n')
    expect(cuesFor(lane).filter(({ sound }) => sound === 'switch')).toMatchObject([{ atMs: 10_000 }])
    const changes = overlayChanges(lane)
    expect([1000, 11_000].map((ms) => overlayAt(changes, ms))).toMatchObject([
      { label: 'Arm circles', side: null },
      { label: 'Other way: Arm circles', side: null },
    ])
  })
})

describe('the side that begins', () => {
  it('is shown first in halves', () => {
    const changes = overlayChanges(laneOf('circuit Main: 1 round, 20 on\n  Squat (sides halves, first right)\n'))
    expect([1000, 11_000].map((ms) => overlayAt(changes, ms)?.side)).toEqual(['right', 'left'])
  })
})
