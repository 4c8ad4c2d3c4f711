// What a name that is not in the library is taken for: a spelling of one that is, a head with modifiers, or several
// moves in one. Whatever is inherited or combined is a guess, and says so.
import type { Move } from './move'
import { nameKey, nameWords } from './nameKey'
import type { Impact, Muscle, Posture, SideRule } from './postures'
import { sum } from '../sum'

/** Why a guess is what it is. */
export type Reason =
  { code: 'head'; move: string } | { code: 'modifier'; word: string } | { code: 'combined'; moves: readonly string[] }

/** `known`: by whatever spelling. `guessed`: inherited or combined. `unknown`: nobody knows. */
export type Recognised =
  | { sure: 'known'; move: Move }
  | { sure: 'guessed'; move: Move; endPosture: Posture; because: readonly Reason[] }
  | { sure: 'unknown' }

interface Change {
  impact?: Impact
  effort?: number
  posture?: Posture
  muscles?: readonly Muscle[]
  sideRule?: SideRule
  gear?: string
  secondsPerRep?: number
}

/** What a word beside a head changes of its facts; nothing where it only says how. */
const MODIFIERS: Readonly<Record<string, Change>> = {
  jump: { impact: 'high', effort: 1, secondsPerRep: 2 },
  hop: { impact: 'high', effort: 1, secondsPerRep: 1.5 },
  plyo: { impact: 'high', effort: 1 },
  explosive: { impact: 'high', effort: 1 },
  jack: { impact: 'high', effort: 1 },
  pulse: { impact: 'still', secondsPerRep: 1 },
  hold: { impact: 'still', secondsPerRep: 4 },
  slow: { secondsPerRep: 5 },
  tempo: { secondsPerRep: 5 },
  fast: { effort: 1 },
  weighted: { gear: 'weight', effort: 1 },
  loaded: { gear: 'weight', effort: 1 },
  dumbbell: { gear: 'weight', effort: 1 },
  kettlebell: { gear: 'weight', effort: 1 },
  barbell: { gear: 'weight', effort: 1 },
  band: { gear: 'band' },
  banded: { gear: 'band' },
  jug: { gear: 'water jug', effort: 1 },
  towel: { gear: 'towel' },
  chair: { gear: 'chair' },
  wall: { gear: 'wall' },
  oneleg: { effort: 1 },
  onearm: {},
  alternating: { sideRule: 'byRep' },
  seated: { posture: 'seated' },
  sitting: { posture: 'seated' },
  kneeling: { posture: 'kneeling' },
  standing: { posture: 'standing' },
  lying: { posture: 'faceUp' },
  supine: { posture: 'faceUp' },
  prone: { posture: 'faceDown' },
  knee: {},
  twist: { muscles: ['trunk'] },
  rotation: { muscles: ['trunk'] },
  kick: { impact: 'low', sideRule: 'byRep' },
  tap: { sideRule: 'byRep' },
  walk: { impact: 'low', sideRule: 'byRep' },
  overhead: { muscles: ['shoulders'] },
  bodyweight: {},
  sumo: {},
  wide: {},
  narrow: {},
  close: {},
  deep: {},
  low: {},
  high: {},
  half: {},
  full: {},
  mini: {},
  reverse: {},
  front: {},
  back: {},
  side: {},
  lateral: {},
  diagonal: {},
  forward: {},
  cross: {},
  inner: {},
  outer: {},
  elevated: {},
  incline: { effort: -1 },
  decline: { effort: 1 },
  easy: { effort: -1 },
  modified: { effort: -1 },
  assisted: { effort: -1 },
  combo: {},
  left: {},
  right: {},
}

const JOINS = /\s*(?:\+|&|,|\/|→|\bwith\b|\band\b|\bto\b|\binto\b|\bthen\b|\bplus\b)\s*/i
const COUNT = /^\d+\s*(?:x\s*)?/

const EFFORTS = { least: 1, most: 5 }
const IMPACT_ORDER: readonly Impact[] = ['still', 'low', 'high']

/** So many names are remembered; then all are forgotten. */
const MOST_MET = 5000

/** Looks names up in a library: exactly, by another spelling, or by what they are made of. */
export class Recogniser {
  private readonly byKey = new Map<string, Move>()
  /** The most words that a name of the library has. */
  private longest: number
  private readonly met = new Map<string, Recognised>()

  /**
   * @param moves the first of one name stands.
   * @param others other names, each with the name of its move.
   * @param base asked for what stands in neither.
   */
  constructor(
    moves: Iterable<Move>,
    others: Iterable<readonly [other: string, move: string]>,
    private readonly base: Recogniser | null = null,
  ) {
    this.longest = base?.longest ?? 1
    const named = new Map<string, Move>()
    for (const move of moves) {
      if (!named.has(nameKey(move.name))) named.set(nameKey(move.name), move)
      this.add(move.name, move)
    }
    for (const [other, name] of others) {
      const move = named.get(nameKey(name))
      if (move) this.add(other, move)
    }
  }

  private add(name: string, move: Move): void {
    const key = nameKey(name)
    if (!key || this.byKey.has(key)) return
    this.byKey.set(key, move)
    this.longest = Math.max(this.longest, key.split(' ').length)
  }

  recognise(name: string): Recognised {
    const before = this.met.get(name)
    if (before) return before
    const known = this.lookUp(nameKey(name))
    const found: Recognised = known
      ? { sure: 'known', move: known }
      : (this.combined(name) ?? this.headed(name) ?? { sure: 'unknown' })
    if (this.met.size >= MOST_MET) this.met.clear()
    this.met.set(name, found)
    return found
  }

  private lookUp(key: string): Move | undefined {
    return this.byKey.get(key) ?? this.base?.lookUp(key)
  }

  /** "2 press-ups + 1 burpee", "squat to press": all of its parts have to be somebody's. */
  private combined(name: string): Recognised | null {
    const parts = name
      .split(JOINS)
      .map((part) => part.replace(COUNT, '').trim())
      .filter(Boolean)
    if (parts.length < 2) return null
    const found = parts.map((part) => this.simple(part))
    const [first] = found
    const moves = found.flatMap((one) => one ?? [])
    const last = moves.at(-1)
    if (!first || !last || moves.length < found.length) return null
    return {
      sure: 'guessed',
      move: {
        ...first,
        name,
        sideRule: guessedSides(first),
        short: '',
        cue: '',
        caution: moves.map(({ caution }) => caution).find(Boolean) ?? '',
        muscles: [...new Set(moves.flatMap(({ muscles }) => muscles))],
        impact: IMPACT_ORDER[Math.max(...moves.map(({ impact }) => IMPACT_ORDER.indexOf(impact)))] ?? first.impact,
        effort: Math.max(...moves.map(({ effort }) => effort)),
        gear: [...new Set(moves.flatMap(({ gear }) => gear))],
        secondsPerRep: sum(moves.map(({ secondsPerRep }) => secondsPerRep)),
        tags: [],
      },
      endPosture: last.posture,
      because: [{ code: 'combined', moves: moves.map((move) => move.name) }],
    }
  }

  private simple(name: string): Move | null {
    const known = this.lookUp(nameKey(name))
    if (known) return known
    const headed = this.headed(name)
    return headed?.sure === 'guessed' ? headed.move : null
  }

  /** "Sumo squat": the longest name of the library within it, the last of those as long; the rest modifies it. */
  private headed(name: string): Recognised | null {
    const words = nameWords(name)
    for (let length = Math.min(this.longest, words.length - 1); length > 0; length--) {
      for (let from = words.length - length; from >= 0; from--) {
        const head = this.lookUp([...words.slice(from, from + length)].sort().join(' '))
        const others = [...words.slice(0, from), ...words.slice(from + length)]
        // A word that nobody knows may be anything: it leaves the head a guess only beside a name of its own weight.
        if (head && others.every((word) => word in MODIFIERS || this.lookUp(word) || length >= others.length))
          return guess(name, head, others)
      }
    }
    return null
  }
}

/** A guess never makes two intervals of one, nor puts a side on the screen. */
const guessedSides = ({ sideRule }: Move): SideRule => (sideRule === 'byRep' ? 'byRep' : 'none')

function guess(name: string, head: Move, others: readonly string[]): Recognised {
  const sideRule = guessedSides(head)
  const changes = others.flatMap((word) => MODIFIERS[word] ?? [])
  const move: Move = { ...head, name, sideRule, short: '', cue: '', tags: head.tags.filter((tag) => tag !== 'hold') }
  for (const change of changes) apply(move, change)
  if (others.includes('hold')) move.tags.push('hold')
  const because: Reason[] = [
    { code: 'head', move: head.name },
    ...others.filter((word) => MODIFIERS[word]).map((word): Reason => ({ code: 'modifier', word })),
  ]
  return { sure: 'guessed', move, endPosture: move.posture, because }
}

function apply(move: Move, { effort = 0, muscles = [], gear, ...facts }: Change): void {
  Object.assign(move, facts)
  move.effort = Math.min(EFFORTS.most, Math.max(EFFORTS.least, move.effort + effort))
  move.muscles = [...new Set([...move.muscles, ...muscles])]
  if (gear && !move.gear.includes(gear)) move.gear = [...move.gear, gear]
}
