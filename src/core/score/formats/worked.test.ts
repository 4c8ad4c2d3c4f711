// Holds docs/formats.md to its word: every example there is expanded and compared with the sum worked by hand.
import { existsSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { formatExamples } from '../../../../scripts/formatExamples'
import { tryExpand } from '../../expand/expand'
import { readShorthand } from '../../shorthand/read'

const all = formatExamples(readFileSync('docs/formats.md', 'utf8'))
const examples = all.filter(({ id }) => id.startsWith('F'))
const lengths = all.filter(({ id }) => id.startsWith('L'))

/** Sums, differences and products of whole numbers, as they stand on paper. */
function evaluate(sum: string): number {
  if (!/^[\d\s+x()-]+$/.test(sum)) throw new Error(`not a sum: ${sum}`)
  return Number(new Function(`return ${sum.replaceAll('x', '*')}`)())
}

describe('docs/formats.md', () => {
  it('shows each of F1 to F21 once, with a picture that is there', () => {
    expect(examples.map((one) => one.id)).toEqual(Array.from({ length: 21 }, (_, index) => `F${index + 1}`))
    for (const { id, picture } of examples) expect(existsSync(`docs/${picture}`), id).toBe(true)
  })
  it.each(examples)('$id $title: the sum is right, and the shorthand comes to it', ({ shorthand, sums }) => {
    expect(sums).toHaveLength(1)
    for (const { left, seconds } of sums) {
      expect(evaluate(left)).toBe(seconds)
      const { score, problems } = readShorthand(shorthand)
      expect(problems).toEqual([])
      expect(tryExpand(score).expansion?.totalMs).toBe(seconds * 1000)
    }
  })
  it.each(lengths)('$id $title: the sum, the least and the most are right', ({ shorthand, sums }) => {
    const { score, problems } = readShorthand(shorthand)
    expect(problems).toEqual([])
    const totals = tryExpand(score).expansion
    const told = { Sum: totals?.totalMs, Least: totals?.minMs, Most: totals?.maxMs }
    expect(sums.map(({ what }) => what)).toEqual(['Sum', 'Least', 'Most'])
    for (const { what, left, seconds } of sums) {
      expect(evaluate(left)).toBe(seconds)
      expect(told[what as keyof typeof told], what).toBe(seconds * 1000)
    }
  })
})
