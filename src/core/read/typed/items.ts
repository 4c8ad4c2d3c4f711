// Pieces of a line as moves: what each says of itself, and what it says of its block.
import { parseWeight } from '../../score/formats/station'
import { likelyIn } from '../../score/primitives'
import type { Fact, FactOf } from './facts'
import { mark, type Item } from './block'
import { coreOf, isWorded, type Piece } from './lines'
import type { Token } from './tokens'

/** Facts that one move can have for itself. */
const OWN: ReadonlySet<Fact['kind']> = new Set([
  ...([
    'eachSide',
    'halves',
    'byRound',
    'byRep',
    'rightFirst',
    'left',
    'right',
    'reps',
    'setsOfReps',
    'remainder',
    'rest',
    'work',
  ] as const),
])

/** A move of which nothing is said yet but its name. */
export const newItem = (piece: Piece, bulleted: boolean): Item => ({
  ...{ parts: [partOf(piece)], joiner: '', workMs: null, restMs: null, restTokens: [], sets: null, facts: [] },
  ...{ weight: null, ranges: {} },
  ...{ then: piece.mark === 'T' || piece.words[0]?.role === 'T', note: '', bulleted },
})

/** Adds what a piece says to its move. @returns what it says of the block. */
export function takeOwn(item: Item, piece: Piece): { facts: Fact[]; totals: Token[] } {
  takeNote(item, piece)
  const facts = piece.facts.filter((fact) => !takeFact(item, fact, piece))
  const totals: Token[] = []
  for (const token of piece.numbers) {
    if (token.role !== 'L') continue
    if (item.workMs === null) {
      item.workMs = ownLength(item, 'workMs', token)
      mark([token], 'used', 'work')
    } else totals.push(token)
  }
  return { facts, totals }
}

/** "a, b and c", "20 s a + 20 s b": joined by a word or a sign, and yet a move of its own. */
export const standsAlone = (piece: Piece, last: Item, before: number): boolean =>
  (piece.mark === '&' && before > 1) || (last.workMs !== null && piece.numbers.some(({ role }) => role === 'L'))

/** Keeps the bounds, where that is all that was typed. @returns what one plans with. */
function ownLength(item: Item, field: 'workMs' | 'restMs', { low, high }: { low: number; high: number }): number {
  if (low === high) return low
  item.ranges = { ...item.ranges, [field]: [low, high] }
  return likelyIn([low, high], 1000)
}

/** What stands in brackets: a swap in a later round, or a note. */
function takeNote(item: Item, piece: Piece): void {
  const load = piece.aside.find(({ role }) => role === 'K')
  const weight = load ? parseWeight(load.text) : null
  if (load && weight) {
    item.weight = weight
    mark([load], 'used', 'weight')
  }
  const aside = weight ? piece.aside.filter((token) => token !== load) : piece.aside
  if (!aside.length) return
  const note = aside.map(({ text }) => text).join(' ')
  if (!/[\p{L}\p{N}]/u.test(note)) return
  const swap = /^round (\d+)/i.test(note)
  mark(aside, swap ? 'used' : 'kept', swap ? 'swap' : 'remark')
  addNote(item, note)
}

export function addNote(item: Item, note: string): void {
  item.note = [item.note, note].filter(Boolean).join('; ')
}

/** Whether a fact is the move's own. */
function takeFact(item: Item, fact: Fact, piece: Piece): boolean {
  // "4 rounds 30/15 squat, row": said of all.
  const saysRounds = piece.facts.some(
    ({ kind, ...rest }) => kind === 'rounds' && !('unit' in rest && rest.unit === 'set'),
  )
  switch (fact.kind) {
    case 'rest':
      if (item.restMs !== null || saysRounds) return false
      Object.assign(item, { restMs: ownLength(item, 'restMs', fact), restTokens: fact.tokens })
      return true
    case 'work':
      if (item.workMs !== null || saysRounds) return false
      item.workMs = ownLength(item, 'workMs', fact)
      break
    case 'setsOfReps':
      item.sets = fact.low
      item.parts = item.parts.map((part, at) => (at ? part : { ...part, reps: fact.reps }))
      break
    case 'reps':
      item.parts = item.parts.map((part, at) => (at === item.parts.length - 1 ? { ...part, reps: fact.low } : part))
      break
    case 'rounds':
      if (!saysSets(fact, piece)) return false
      item.sets = fact.low
      break
    default:
      if (!OWN.has(fact.kind)) return false
  }
  item.facts = [...item.facts, fact]
  return true
}

/** "Squats, 3 sets", "Jug lift (3 x 30 s)": how often one move is done, and not all of them. */
function saysSets({ unit, low, high, tokens }: FactOf<'rounds'>, piece: Piece): boolean {
  if (low !== high || piece.facts.length > 2 || !isWorded(piece)) return false
  const behind = (tokens[0]?.from ?? 0) > (piece.words[0]?.from ?? 0)
  return unit === 'set' || (unit === 'times' && behind && piece.numbers.some(({ role }) => role === 'L'))
}

/** The name and the reps of a move. */
export function partOf(piece: Piece): Item['parts'][number] {
  const core = coreOf(piece.words)
  const numbers = piece.numbers.filter(({ role }) => role === 'N')
  const spelled = numbers.filter((token) => token.spelled)
  const counted = numbers.find((token) => !token.spelled)
  // A number in words that nothing counts is part of the name: "One arm row".
  const named = [...core, ...spelled].sort((one, other) => one.from - other.from)
  const label = named
    .map(({ text }) => text)
    .join(' ')
    .replace(/\s+([’'])/g, '$1')
  mark(named, 'used', 'move')
  if (counted) mark([counted], 'used', 'reps')
  return { label: label.charAt(0).toUpperCase() + label.slice(1), reps: counted?.low ?? null, tokens: named }
}
