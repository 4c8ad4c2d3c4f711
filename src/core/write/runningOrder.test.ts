// What viewers do is read out of a description again, by a reader that knows no more than they do: what stands there.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyScore } from '../arbitraries'
import { tryExpand } from '../expand/expand'
import { withRepeats } from '../score/again'
import type { Segment } from '../score/segment'
import { readShorthand } from '../shorthand/read'
import { formatLength } from '../time/clock'
import { runningOrderOf, type RunningOrder } from './runningOrder'

/** One work interval as it stands there. */
interface Done {
  move: string
  reps: string
  weight: string
  length: string
  turns: boolean
  side: string
}

const SIDES = 'left side|right side|both sides|left then right|right then left|no side'

/** @param way of the line: what is said of it in all rounds. */
function readLine(line: string, usual: string): { of: (round: number) => Done } {
  const [name = '', ...parts] = line.slice(2).split(', ')
  const [, move = name, reps = ''] = / x (.+)$/.exec(name) ? (/^(.*) x (.+)$/.exec(name) ?? []) : []
  const rest = parts.join(', ')
  const byRound = [
    ...rest.matchAll(new RegExp(`(${SIDES}) in (?:round|set)s? ([0-9, and]+?)(?=, (?:${SIDES})|$)`, 'g')),
  ]
  const plain = new RegExp(`(?:^|, )(${SIDES})$`).exec(rest)?.[1] ?? ''
  const facts = {
    move,
    reps,
    weight: /(?:^|, )((?:2 x )?[\d.]+ [a-z]+)(?=,|$)/.exec(rest)?.[1] ?? '',
    length: /(?:^|, )((?:about )?\d+:\d\d(?::\d\d)?(?: to \d+:\d\d(?::\d\d)?)?)(?=,|$)/.exec(rest)?.[1] ?? usual,
    turns: rest.includes('changing direction halfway'),
  }
  const sideIn = (round: number): string =>
    byRound.find(([, , rounds = '']) => rounds.match(/\d+/g)?.map(Number).includes(round))?.[1] ?? plain
  return { of: (round) => ({ ...facts, side: sideIn(round).replace('no side', '') }) }
}

/** @returns all that is done, in order. */
function readBack({ frame, lines }: RunningOrder): Done[] {
  const usual = /(?:^|, )((?:about )?[\d:]+(?: to [\d:]+)?) on(?:,|$)/.exec(frame)?.[1] ?? ''
  const passes: string[][] = []
  for (const line of lines) {
    if (!line.startsWith('- ')) passes.push([])
    else if (passes.length) passes.at(-1)?.push(line)
    else passes.push([line])
  }
  if (lines.some((line) => !line.startsWith('- ')))
    return passes.flatMap((pass) => pass.map((line) => readLine(line, usual).of(1)))
  const slots = Number(/^(\d+) times /.exec(frame)?.[1] ?? 0)
  const inEach = Number(/, (\d+) moves in each/.exec(frame)?.[1] ?? 1)
  const rounds = slots ? (slots * inEach) / lines.length : Number(/^(\d+) (?:rounds|sets)/.exec(frame)?.[1] ?? 1)
  expect(Number.isInteger(rounds), `${frame} of ${lines.length} lines`).toBe(true)
  if (/ of each before the next/.test(frame))
    return lines.flatMap((line) => Array.from({ length: rounds }, (_, round) => readLine(line, usual).of(round + 1)))
  return Array.from({ length: rounds }, (_, round) => lines.map((line) => readLine(line, usual).of(round + 1))).flat()
}

const seconds = (ms: number): string => formatLength(Math.round(ms / 1000) * 1000)
const lengthOf = ({ pace, durationMs, minMs, maxMs }: Segment): string =>
  pace === 'own'
    ? ''
    : pace === 'range'
      ? `${seconds(minMs)} to ${seconds(maxMs ?? durationMs)}`
      : `${pace === 'fixed' ? '' : 'about '}${seconds(durationMs)}`

const done = (work: Segment): Done => ({
  move: work.label,
  reps: work.reps && work.moves.length < 2 ? `${work.reps}${work.repIs ? ` (${work.repIs})` : ''}` : '',
  weight: work.weight ? `${work.weight.pair ? '2 x ' : ''}${work.weight.amount} ${work.weight.unit}` : '',
  length: lengthOf(work),
  turns: work.reverses,
  side:
    work.side === 'switch'
      ? work.firstSide === 'right'
        ? 'right then left'
        : 'left then right'
      : work.side
        ? { left: 'left side', right: 'right side', both: 'both sides' }[work.side]
        : '',
})

/** Names that no reader takes for anything else. */
function named(segments: readonly Segment[]): Segment[] {
  const names = new Map<string, string>()
  return segments.map((segment) => {
    const name = names.get(segment.label) ?? `Move ${String.fromCharCode(65 + names.size)}`
    names.set(segment.label, name)
    return segment.kind === 'work' ? { ...segment, label: name } : segment
  })
}

/** Each section's works, as they are and as they are read back. */
function both(segments: readonly Segment[], key: string): [Done[], Done[], RunningOrder] {
  const own = named(segments.filter(({ sectionKey }) => sectionKey === key))
  const order = runningOrderOf(own, () => '')
  return [readBack(order), own.filter(({ kind }) => kind === 'work').map(done), order]
}

describe('what is done', () => {
  it('can be read out of a description again, whatever was planned: moves, order, sides, reps, weights, lengths', () => {
    fc.assert(
      fc.property(anyScore, (score) => {
        const segments = tryExpand(score).expansion?.segments ?? []
        for (const { key } of withRepeats(score).sections) {
          if (!segments.some((one) => one.sectionKey === key && one.kind === 'work')) continue
          const [read, is, { frame, lines }] = both(segments, key)
          // In slots lengths are those of the slots.
          const bare = (all: Done[]): Done[] =>
            / times /.test(frame) ? all.map((one) => ({ ...one, length: '' })) : all
          expect(bare(read), [frame, ...lines].join('\n')).toEqual(bare(is))
        }
      }),
      { numRuns: 120 },
    )
  })
  it.each([
    ['minute-reps Each: 4 rounds\n  10 Rope pull; 8 Jug lift\n', 8],
    ['minute-reps Each: 4 rounds\n  10 Rope pull + 8 Jug lift\n', 4],
  ])('in slots is told by how many there are: %s', (plan, count) => {
    const segments = tryExpand(readShorthand(plan).score).expansion?.segments ?? []
    const [read, is] = both(segments, segments[0]?.sectionKey ?? '')
    expect([read.length, is.length]).toEqual([count, count])
  })
})
