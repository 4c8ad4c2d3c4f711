// What the numbers of a line say: patterns over the parts that its tokens play. Each pattern takes its tokens away, so
// that none is read twice; what is left over are words.
import type { Token } from './tokens'

/** What a break stands between. */
export type Between = 'round' | 'set' | 'station' | 'block' | 'unsaid'

export type Fact = { tokens: readonly Token[] } & (
  | { kind: 'work'; low: number; high: number }
  | { kind: 'rest'; low: number; high: number }
  | { kind: 'step'; low: number; high: number }
  | { kind: 'start'; low: number; high: number }
  | { kind: 'up'; low: number; high: number }
  | { kind: 'down'; low: number; high: number }
  | { kind: 'slot'; low: number; high: number }
  | { kind: 'between'; low: number; high: number; what: Between }
  | { kind: 'rounds'; low: number; high: number; unit: 'round' | 'set' | 'times' | 'interval' | 'block'; each: boolean }
  | { kind: 'roundNo' | 'moveCount' | 'burstCount'; value: number }
  | { kind: 'pairs'; pairs: readonly (readonly [workMs: number, restMs: number])[] }
  | { kind: 'lengths'; of: 'work' | 'rest'; values: readonly number[] }
  | { kind: 'setsOfReps'; low: number; high: number; reps: number }
  | { kind: 'reps'; low: number; high: number }
  | { kind: 'restAfterRound'; round: number; ms: number }
  | { kind: Marker }
)
/** What is said without a number. */
type Marker =
  | ('restIsWork' | 'eachSide' | 'halves' | 'byRound' | 'byRep' | 'rightFirst' | 'left' | 'right')
  | ('remainder' | 'ownWay' | 'upAndDown' | 'same' | 'noRest' | 'stationByStation')
export type FactOf<K extends Fact['kind']> = Fact & { kind: K }

/** The tokens of a pattern's named groups, the first of each. */
type Groups = Readonly<Record<string, Token | undefined>>
interface Found {
  groups: Groups
  tokens: readonly Token[]
}
interface Rule {
  pattern: RegExp
  read: (found: Found) => readonly FactBody[]
}
/** A fact without its tokens; the compiler is to keep the kinds apart. */
type FactBody = Fact extends infer One ? (One extends { tokens: unknown } ? Omit<One, 'tokens'> : never) : never

/** A bare number beside words of the clock is seconds. */
const msOf = (token: Token | undefined): { low: number; high: number } =>
  token?.role === 'N'
    ? { low: token.low * 1000, high: token.high * 1000 }
    : { low: token?.low ?? 0, high: token?.high ?? 0 }
const length = (
  kind: 'work' | 'rest' | 'step' | 'start' | 'up' | 'down' | 'slot',
  token: Token | undefined,
): FactBody => ({ kind, ...msOf(token) })
const WHAT: Readonly<Record<string, Between>> = {
  o: 'round',
  s: 'set',
  m: 'station',
  i: 'station',
  k: 'block',
  F: 'block',
}
const between = (token: Token | undefined, what: Token | undefined): FactBody => ({
  kind: 'between',
  ...msOf(token),
  what: what ? (WHAT[what.role] ?? 'unsaid') : 'unsaid',
})
const UNIT: Readonly<Record<string, FactOf<'rounds'>['unit']>> = {
  o: 'round',
  s: 'set',
  t: 'times',
  x: 'times',
  i: 'interval',
  k: 'block',
}
const rounds = (token: Token | undefined, unit: Token | undefined, each = false): FactBody => ({
  kind: 'rounds',
  low: token?.low ?? 1,
  high: token?.high ?? 1,
  unit: UNIT[unit?.role ?? 'x'] ?? 'times',
  each,
})
const seconds = (tokens: readonly Token[]): number[] => {
  const numbers = tokens.filter(({ role }) => role === 'L' || role === 'N')
  const last = numbers.at(-1)
  // "20, 30, 40 seconds": the unit stands at the last.
  const unit =
    last?.role === 'L' && /min|m$|'/i.test(last.text) && numbers.some(({ role }) => role === 'N') ? 60_000 : 1000
  return numbers.map((token) => (token.role === 'N' ? token.low * unit : token.low))
}
const marker = (kind: Marker) => (): FactBody[] => [{ kind }]

const rule = (pattern: string, read: Rule['read']): Rule => ({ pattern: new RegExp(pattern, 'dgu'), read })

/** In the order in which they are tried: what says more before what says less. */
const RULES: readonly Rule[] = [
  // The list of a table's rounds: "40/20, 35/15, 30/10".
  rule('[LN]/[LN](?:[,|&T]*g*[LN]/[LN])+', ({ tokens }) => {
    const all = seconds(tokens)
    const pairs = Array.from({ length: all.length / 2 }, (_, at) => [all[at * 2] ?? 0, all[at * 2 + 1] ?? 0] as const)
    return [{ kind: 'pairs', pairs }]
  }),
  rule('rg?:?(?:[LN](?:/[LN]){2,}|[LN](?:,[LN]){2,}|N(?:-N)+-[LN])(?!x?[osti])', ({ tokens }) => [
    { kind: 'lengths', of: 'rest', values: seconds(tokens) },
  ]),
  rule('(?:[LN](?:/[LN]){2,}|[LN](?:,[LN]){2,}|N(?:-N)+-[LN])(?:(?<=L)|(?!W))(?!x?[osti])(?:g*[we])?', ({ tokens }) => [
    { kind: 'lengths', of: 'work', values: seconds(tokens) },
  ]),
  rule('rg*[q=][gq]*w|rg*q(?=[.,)]|$)', marker('restIsWork')),
  // "60 s left, 60 s right".
  rule('(?<d>L)g*[l\\[]g*[,/&+T]*g*(?<right>L)g*[R\\]]', ({ groups }) => [
    length('work', groups.d),
    { kind: 'eachSide' },
  ]),
  rule('^f|f', marker('rightFirst')),
  rule('V', marker('byRound')),
  rule('v', marker('byRep')),
  rule('H', marker('halves')),
  rule('E', marker('eachSide')),
  rule('(?<d>[LN])g?rg?>', ({ groups }) => [between(groups.d, { role: 'm' } as Token), { kind: 'stationByStation' }]),
  rule('>', marker('stationByStation')),
  rule('\\[', marker('left')),
  rule('\\]', marker('right')),
  rule('(?<=^|[-(,:/_W])l(?=$|[(),.|])', marker('left')),
  rule('(?<=^|[-(,:/_W])R(?=$|[(),.|])', marker('right')),
  rule('y', marker('ownWay')),
  rule('u', marker('remainder')),
  rule('\\^', marker('upAndDown')),
  rule('0', marker('noRest')),
  // Growing numbers.
  rule('(?<d>[LN])p?B', ({ groups }) => [growth(groups.d)]),
  rule('Ag*(?<d>[LN])p?(?:g*e?[ot]?)', ({ groups }) => [growth(groups.d)]),
  rule('(?<d>L)z(?=[,;.])', ({ groups }) => [start(groups.d)]),
  rule('zg*(?<d>[LN])p?', ({ groups }) => [start(groups.d)]),
  rule('(?<d>L)g?Y', ({ groups }) => [length('slot', groups.d)]),
  rule('(?<d>L)g?U|Ug*(?<d2>L)', ({ groups }) => [length('up', groups.d ?? groups.d2)]),
  rule('(?<d>L)g?D|Dg*(?<d2>L)', ({ groups }) => [length('down', groups.d ?? groups.d2)]),
  rule('rg?(?<d>[LN])g*bo(?<no>N)|(?<d2>[LN])g?r?g*bo(?<no2>N)|bo(?<no3>N)g*r?g*(?<d3>[LN])', ({ groups }) => [
    {
      kind: 'restAfterRound',
      round: (groups.no ?? groups.no2 ?? groups.no3)?.low ?? 1,
      ms: msOf(groups.d ?? groups.d2 ?? groups.d3).low,
    },
  ]),
  rule('1r:?g?(?<d>[LN])', ({ groups }) => [{ kind: 'restAfterRound', round: 1, ms: msOf(groups.d).low }]),
  // No rest.
  rule('nr(?:g*[be]*g*[eb]*[osmi])?|n(?=,|$)r', marker('noRest')),
  rule('(?<d>N)r(?![g]*[LN])', ({ groups }) => [groups.d?.low === 0 ? { kind: 'noRest' } : length('rest', groups.d)]),
  // Breaks between parts.
  rule('(?<d>[LN])g*r?g*bg*e?g*(?<what>[osmkiF])', ({ groups }) => [between(groups.d, groups.what)]),
  rule('rg*bg*e?g*(?<what>[osmkiF])g*[:=-]?g*(?<d>[LN])', ({ groups }) => [between(groups.d, groups.what)]),
  rule('r?g*(?<d>[LN])g*bg*e?g*(?<what>[osmkiF])', ({ groups }) => [between(groups.d, groups.what)]),
  rule('bg*e?g*(?<what>[osmkF])[:=,]*g*(?<d>L)', ({ groups }) => [between(groups.d, groups.what)]),
  rule('(?<d>[LN])g?rg?b(?=[,.)|]|$)', ({ groups }) => [between(groups.d, undefined)]),
  rule('(?<d>[LN])g*C', ({ groups }) => [between(groups.d, { role: 'm' } as Token)]),
  rule('(?<d>[LN])g*b(?=[,.;&)|]|$)', ({ groups }) => [between(groups.d, undefined)]),
  // Work and rest.
  rule('(?<w>[LN])g*w[,/|&+.:T-]*g*(?<r>[LN])g*r', ({ groups }) => [
    length('work', groups.w),
    length('rest', groups.r),
  ]),
  rule('wg*[:=-]?g*(?<w>[LN])[,/|&.T-]*g*rg*[:=-]?g*(?<r>[LN])', ({ groups }) => [
    length('work', groups.w),
    length('rest', groups.r),
  ]),
  rule('(?<w>[LN])g?w?/(?<r>[LN])g?r?', ({ groups }) => [length('work', groups.w), length('rest', groups.r)]),
  rule('(?<w>[LN])g*w[,/|&+.:T-]*nr', ({ groups }) => [length('work', groups.w), { kind: 'noRest' }]),
  // Sets of reps.
  rule(
    '(?<s>N)x(?<r>N)p?(?![LN/:])|(?<s2>N)sg?(?<r2>N)(?!g*[we])p?|(?<s3>N)sx(?<r3>N)p?|(?<s4>N)s-(?<r4>N)p',
    ({ groups }) => {
      const sets = groups.s ?? groups.s2 ?? groups.s3 ?? groups.s4
      const perSet = groups.r ?? groups.r2 ?? groups.r3 ?? groups.r4
      return [{ kind: 'setsOfReps', low: sets?.low ?? 1, high: sets?.high ?? 1, reps: perSet?.low ?? 1 }]
    },
  ),
  // Rounds.
  rule('jg*[:-]?(?<a>N)x?[ostm]?[,/;&.|]*jg*[:-]?(?<b>N)x?(?<u>[ost])', ({ groups }) => [
    { ...rounds(groups.a, groups.u), ...spanOf(groups.a, groups.b) } as FactBody,
  ]),
  rule('em(?<n>N)[xt]', ({ groups }) => [rounds(groups.n, { role: 's' } as Token), { kind: 'stationByStation' }]),
  // "Rest 30 s, then one more round."
  rule('rg*(?<d>[LN])[,.&T]*g*(?<n>N)Mg*[ot]?', ({ groups }) => [
    between(groups.d, { role: 'o' } as Token),
    oneMore(groups.n),
  ]),
  rule('rg*(?<d>[LN])[,.&T]*g*Z', ({ groups }) => [between(groups.d, { role: 'o' } as Token), oneMore(undefined)]),
  rule('Z', () => [oneMore(undefined)]),
  // "and repeat two more times": after the first.
  rule('g*(?<n>N)Mg*[ot]?|g*(?<n2>N)tM', ({ groups }) => [oneMore(groups.n ?? groups.n2)]),
  // "Round 1 - 20 seconds".
  rule('o(?<no>N)[:=-]?g*(?<d>L)(?![,/]?g*[wrb/])', ({ groups }) => [
    { kind: 'roundNo', value: groups.no?.low ?? 1 },
    length('work', groups.d),
  ]),
  rule('(?<n>N)og+(?<k>k)', ({ groups }) =>
    /tabata/i.test(groups.k?.text ?? '')
      ? [{ kind: 'burstCount', value: groups.n?.low ?? 1 }]
      : [rounds(groups.n, { role: 'o' } as Token)],
  ),
  rule('(?<n>N)og(?<d>L)(?!g*[rb])', ({ groups }) => [
    rounds(groups.n, { role: 'o' } as Token),
    length('work', groups.d),
  ]),
  rule('(?<n>N)i[g]*(?<d>L)', ({ groups }) => [rounds(groups.n, { role: 'i' } as Token), length('work', groups.d)]),
  rule('ig*(?<d>L)', ({ groups }) => [length('work', groups.d)]),
  rule('(?<n>N)mx?[g]*(?<d>L)(?!g*b)', ({ groups }) => [moveCount(groups.n), length('work', groups.d)]),
  rule('(?<n>N)m', ({ groups }) => [moveCount(groups.n)]),
  rule('(?<n>N)x?(?<u>[osti])(?:g*e(?!g*[osm]))', ({ groups }) => [rounds(groups.n, groups.u, true)]),
  rule('(?<n>N)sg*em', ({ groups }) => [rounds(groups.n, { role: 's' } as Token), { kind: 'stationByStation' }]),
  rule('s:(?<n>N)(?!g*[LW])', ({ groups }) => [rounds(groups.n, { role: 's' } as Token)]),
  rule('(?<n>N)x?(?<u>[osti])(?:g*eg*[km])?', ({ groups }) => [rounds(groups.n, groups.u)]),
  rule('(?<n>N)F', ({ groups }) => [{ kind: 'burstCount', value: groups.n?.low ?? 1 }]),
  rule('(?<n>N)x?k', ({ groups }) => [{ kind: 'burstCount', value: groups.n?.low ?? 1 }]),
  rule('(?<u>o)(?:[=-]?|:(?=N(?:$|[,.;|)_])))(?<n>N)(?!g*[wr/])', ({ groups }) =>
    /s$/i.test(groups.u?.text ?? '') ? [rounds(groups.n, groups.u)] : [{ kind: 'roundNo', value: groups.n?.low ?? 1 }],
  ),
  rule('1o', ({ tokens }) => [{ kind: 'roundNo', value: tokens[0]?.low ?? 1 }]),
  // Lengths with a word beside them.
  rule('(?<d>[LN])g?e(?:g*[mi]?(?=[,.)|]|$)|g*m|(?<=Lg?e)s)?', ({ groups }) => [length('work', groups.d)]),
  rule('(?<d>[LN])g*w(?![LN])', ({ groups }) => [length('work', groups.d)]),
  rule('wg*[:=]?g*(?<d>[LN])', ({ groups }) => [length('work', groups.d)]),
  rule('(?<d>[LN])g?r', ({ groups }) => [length('rest', groups.d)]),
  rule('rg*[:=.-]{0,3}g*(?<d>[LN])|r\\((?<d2>L)\\)', ({ groups }) => [length('rest', groups.d ?? groups.d2)]),
  rule('(?<n>N)p', ({ groups }) => [{ kind: 'reps', low: groups.n?.low ?? 1, high: groups.n?.high ?? 1 }]),
  rule('(?<=^|[(g/,|;-])(?<n>N)x(?=[),.:]|$)', ({ groups }) => [rounds(groups.n, undefined)]),
  rule('(?<n>N)x(?=[_(L])', ({ groups }) => [rounds(groups.n, undefined)]),
  rule('(?<=[Fk]g?)x(?<n>N)', ({ groups }) => [rounds(groups.n, undefined)]),
  rule('(?<=[-,(|:]g*)x(?<n>N)(?=$|[),.;|:-])', ({ groups }) => [rounds(groups.n, undefined)]),
  rule('(?<=_|^)[,|.:-]*x(?<n>N)(?![gW])', ({ groups }) => [rounds(groups.n, undefined)]),
  // "30 on 15 off x 4 burpees": lengths were said, so that the number is no reps.
  rule('(?<=_)x(?<n>N)(?=W)', ({ groups }) => [rounds(groups.n, undefined)]),
  rule('q', marker('same')),
]

/** From the least to the most of two numbers. */
const spanOf = (one: Token | undefined, other: Token | undefined): { low: number; high: number } => ({
  low: Math.min(one?.low ?? 1, other?.low ?? 1),
  high: Math.max(one?.high ?? 1, other?.high ?? 1),
})
const growth = (token: Token | undefined): FactBody =>
  token?.role === 'N' && token.low <= 5 ? reps('step', token) : length('step', token)
const start = (token: Token | undefined): FactBody =>
  token?.role === 'N' && token.low <= 5 ? reps('start', token) : length('start', token)
/** Small bare numbers that grow are reps, and stay numbers. */
const reps = (kind: 'step' | 'start', token: Token): FactBody => ({ kind, low: token.low, high: token.high })
const oneMore = (token: Token | undefined): FactBody => ({
  ...{ kind: 'rounds', unit: 'round', each: false },
  ...{ low: (token?.low ?? 1) + 1, high: (token?.high ?? 1) + 1 },
})
const moveCount = (token: Token | undefined): FactBody => ({ kind: 'moveCount', value: token?.low ?? 0 })

const NO_TOKENS: readonly Token[] = []

/** The tokens of two facts that one pattern found: the second begins with its number, or its word before it. */
function divided(own: readonly Token[], groups: Groups): readonly (readonly Token[])[] {
  const last = Object.values(groups).reduce((at, token) => Math.max(at, token ? own.indexOf(token) : 0), 0)
  let cut = last
  while (cut > 1 && /[rbg/,:|-]/.test(own[cut - 1]?.role ?? '')) cut--
  return last ? [own.slice(0, cut), own.slice(cut)] : [own]
}

/** @returns what was found, in the order of the line; its tokens play no other part any more. */
export function factsIn(tokens: readonly Token[]): Fact[] {
  let roles = tokens.map(({ role }) => role).join('')
  const facts: { at: number; fact: Fact }[] = []
  for (const { pattern, read } of RULES) {
    pattern.lastIndex = 0
    for (let found = pattern.exec(roles); found; found = pattern.exec(roles)) {
      if (!found[0]) {
        pattern.lastIndex++
        continue
      }
      const from = found.index,
        to = from + found[0].length
      const groups: Record<string, Token | undefined> = {}
      for (const [name, span] of Object.entries(found.indices?.groups ?? {}))
        if (span as [number, number] | undefined) groups[name] = tokens[span[0]]
      const own = tokens.slice(from, to)
      const bodies = read({ groups, tokens: own })
      const shares = bodies.length > 1 ? divided(own, groups) : [own]
      bodies.forEach((body, index) =>
        facts.push({ at: from + index / 10, fact: { ...body, tokens: shares[index] ?? NO_TOKENS } as Fact }),
      )
      roles = roles.slice(0, from) + '_'.repeat(to - from) + roles.slice(to)
    }
  }
  facts.sort((one, other) => one.at - other.at)
  return facts.map(({ fact }) => fact)
}
