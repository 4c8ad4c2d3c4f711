// Names of moves in the form in which they are compared: whatever their case, plural, hyphens, spelling, order and
// abbreviations.

/** Words that stand for others. A value of nothing drops the word. */
const SAME: Readonly<Record<string, string>> = {
  db: 'dumbbell',
  dbs: 'dumbbell',
  dumbell: 'dumbbell',
  kb: 'kettlebell',
  kbs: 'kettlebell',
  bw: 'bodyweight',
  alt: 'alternating',
  alternate: 'alternating',
  alternated: 'alternating',
  sl: 'oneleg',
  sa: 'onearm',
  bicep: 'biceps',
  tricep: 'triceps',
  ab: 'abs',
  abdominal: 'abs',
  pushup: 'pressup',
  curtsey: 'curtsy',
  situp: 'situp',
  stepup: 'stepup',
  pullup: 'pullup',
  mtn: 'mountain',
  mt: 'mountain',
  jumping: 'jump',
  jumped: 'jump',
  pulsing: 'pulse',
  holding: 'hold',
  isometric: 'hold',
  iso: 'hold',
  static: 'hold',
  twisting: 'twist',
  walkout: 'walkout',
  the: '',
  a: '',
  an: '',
  your: '',
  of: '',
  on: '',
  in: '',
  with: '',
  and: '',
  to: '',
  into: '',
}

/** Two words that are one, however they are written. */
const PAIRS: readonly (readonly [RegExp, string])[] = [
  [/\bpush[\s-]*ups?\b/g, 'pressup'],
  [/\bpress[\s-]*ups?\b/g, 'pressup'],
  [/\bsit[\s-]*ups?\b/g, 'situp'],
  [/\bstep[\s-]*ups?\b/g, 'stepup'],
  [/\bpull[\s-]*ups?\b/g, 'pullup'],
  [/\bwalk[\s-]*outs?\b/g, 'walkout'],
  [/\bget[\s-]*ups?\b/g, 'getup'],
  [/\b(?:single|one|1)[\s-]*leg(?:ged)?\b/g, 'oneleg'],
  [/\b(?:single|one|1)[\s-]*arm(?:ed)?\b/g, 'onearm'],
  [/\bbody[\s-]*weight\b/g, 'bodyweight'],
  [/\bon the spot\b/g, ''],
  [/\bin place\b/g, ''],
]

/** Words that end in s and are no plurals. */
const SINGULAR = new Set(['abs', 'biceps', 'triceps', 'press', 'cross', 'glutes', 'quads', 'circles', 'knees', 'kicks'])

const singular = (word: string): string => {
  if (SINGULAR.has(word)) return word
  if (/(?:ch|sh|ss|x)es$/.test(word)) return word.slice(0, -2)
  if (/[^aeiou]ies$/.test(word)) return `${word.slice(0, -3)}y`
  return /[^s]s$/.test(word) && word.length > 3 ? word.slice(0, -1) : word
}

/** The words of a name as they are compared, in the order in which they stand. */
export function nameWords(name: string): string[] {
  let text = name
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[’']/g, '')
  for (const [pattern, one] of PAIRS) text = text.replace(pattern, ` ${one} `)
  return text
    .split(/[^\p{L}\p{N}]+/u)
    .map((word) => SAME[word] ?? SAME[singular(word)] ?? singular(word))
    .filter(Boolean)
}

/** One key for all ways to write the same name; words may stand in any order. */
export const nameKey = (name: string): string => nameWords(name).sort().join(' ')
