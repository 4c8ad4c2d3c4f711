// How often a session whose blocks were filmed in another order is said to be that, and how often one that was filmed
// as written. Sessions of which only the evidence is made (`demo/takes/told.ts`), with every fault and kind of marks.
//   npx tsx bench/otherOrder.ts [sessions of each]
import { seededRandom } from '../demo/camera/random'
import { tellOf } from '../demo/takes/told'
import { otherOrderOf } from '../src/core/align/otherOrder'
import { joinedReel } from '../src/core/align/reel'
import { matchEvidence } from '../src/core/align/sync'
import { expand } from '../src/core/expand/expand'
import type { Score } from '../src/core/score/score'
import { readShorthand } from '../src/core/shorthand/read'

const sessions = Number(process.argv[2] ?? 105)

/** Three blocks between a greeting and a goodbye. */
function planOf(random: () => number): Score {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)] as T
  const block = (name: string, on: number, moves: string): string =>
    `circuit ${name}: ${pick([2, 3])} rounds, ${on} on, ${pick([10, 15, 20])} off, ${pick([30, 45, 60])} between\n  ${moves}\n`
  return readShorthand(
    'talk Welcome: about 20\n' +
      block('One', pick([20, 30]), 'Jug lift; Keel hold; Buoy press') +
      `break Water: ${pick([30, 60])}\n` +
      block('Two', pick([40, 45]), 'Rope pull; Deck-rail squat') +
      block('Three', pick([25, 50]), 'Oar row; Windlass turn; Bilge crawl') +
      'talk Goodbye: about 10\n',
  ).score
}

const blocksOf = ({ sections }: Score): string[] =>
  sections.flatMap(({ format, key }) => (format === 'circuit' ? [key] : []))

/** One block, drawn by lot, in the place of another. */
function filmedOtherwise(score: Score, random: () => number): Score {
  const blocks = score.sections.flatMap((section, at) => (section.format === 'circuit' ? [at] : []))
  const from = Math.floor(random() * blocks.length)
  const to = (from + 1 + Math.floor(random() * (blocks.length - 1))) % blocks.length
  const sections = [...score.sections]
  const [moved] = sections.splice(blocks[from] ?? 0, 1)
  if (moved) sections.splice(blocks[to] ?? 0, 0, moved)
  return { ...score, sections }
}

const counts = { otherwise: 0, saidRight: 0, saidWrong: 0, asWritten: 0, saidFalsely: 0 }
for (let number = 0; number < sessions; number++) {
  const random = seededRandom(9_000_000 + number)
  const score = planOf(random)
  for (const filmed of [score, filmedOtherwise(score, random)]) {
    const { evidence, played } = tellOf(expand(filmed).segments, number)
    const files = [{ evidence, footageMs: played.footageMs }]
    const said = otherOrderOf(score, files, matchEvidence(expand(score).segments, joinedReel(files)).found)
    if (filmed === score) {
      counts.asWritten++
      if (said) counts.saidFalsely++
      continue
    }
    counts.otherwise++
    // Where the break between two blocks was, nobody hears.
    const order = blocksOf(filmed).join()
    if (said?.sections.filter((key) => blocksOf(score).includes(key)).join() === order) counts.saidRight++
    else if (said) counts.saidWrong++
  }
}
console.table([counts])
