// Whatever is typed comes back as a reading: texts of others, damaged in every way that a hand or a clipboard damages.
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { pick, seededRandom } from '../demo/camera/random'
import { EVERY } from './every'
import { readTypedPlan } from '../src/core/read/typedPlan'

const CORPUS = join(process.cwd(), '..', 'shared', 'corpus', 'plans')
/** With `JIVET_EVERY=1` a hundred thousand. */
const TEXTS = EVERY ? 100_000 : 2500

const FOUND = [
  'Tabata 20/10 x 8 / Squat (heavy) / Row (lighter one)',
  'EMOM 12\n min 1: 15 Swings\n min 2: 10 Burpees\n min 3: 40 s Hollow hold, Rest Pause\n-> 4 rounds',
  '8 min desk breaker\n0:00 march\n0(45 squat\n1:30 breathe\n1:45 push-up\n1:45 push-up\n2:30 raise\n8:00 done',
]

/** Lines dropped, doubled, joined and cut, case, units and marks swapped, two texts in one. */
function damaged(texts: readonly string[], random: () => number): string {
  const lines = pick(texts, random).split('\n')
  const place = (line: string): number => Math.floor(random() * line.length)
  const ways: ((at: number, line: string) => void)[] = [
    (at) => void lines.splice(at, 1),
    (at, line) => void lines.splice(at, 0, line),
    (at, line) => void lines.splice(at, 2, line + pick([' ', ' / ', ', ', ' + '], random) + (lines[at + 1] ?? '')),
    (at, line) => void (lines[at] = line.slice(0, place(line))),
    (at, line) => {
      const cut = place(line)
      lines.splice(at, 1, line.slice(0, cut), line.slice(cut))
    },
    (at, line) => void (lines[at] = random() < 0.5 ? line.toUpperCase() : line.toLowerCase()),
    (at, line) => {
      const units = ['s', 'sec', ' min', '"', "'", ' reps', ' kg', '']
      lines[at] = line.replace(/sec\w*|min\w*|s\b|"|'/g, () => pick(units, random))
    },
    (at, line) => {
      lines[at] = line.replace(/[-/x,:;()+>]/g, () => pick([...'-/x,:;()+>–*'], random))
    },
    () => void lines.push(...pick(texts, random).split('\n').slice(0, 5)),
  ]
  for (let times = 1 + Math.floor(random() * 4); times > 0; times--) {
    const at = Math.floor(random() * lines.length)
    pick(ways, random)(at, lines[at] ?? '')
  }
  return lines.join('\n')
}

describe('a text, whatever it is', () => {
  const others = existsSync(CORPUS)
    ? readdirSync(CORPUS)
        .filter((name) => name.endsWith('.txt'))
        .map((name) => readFileSync(join(CORPUS, name), 'utf8'))
    : []

  it.each(FOUND)('is read without a complaint: %s', (text) => {
    const { score, tokens } = readTypedPlan(text)
    expect(score.sections.length + score.below.length).toBeGreaterThan(0)
    expect(tokens.map((token) => token.text).join('')).not.toBe('')
  })

  it(`never throws: ${TEXTS} damaged texts`, () => {
    const random = seededRandom(11)
    for (let number = 0; number < TEXTS; number++) {
      const text = damaged([...FOUND, ...others], random)
      expect(() => readTypedPlan(text), text).not.toThrow()
    }
  }, 900_000)
})
