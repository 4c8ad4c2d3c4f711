// A word in the title promises what the score is not: a format, in the reading that the creator chose, a part, or minutes.
import type { Section } from '../score/formats'
import { SCHOOLS } from '../score/schools'
import type { Score } from '../score/score'
import { formatLength } from '../time/clock'
import { finding, type Check, type Finding } from './finding'
import { inMinutes, promiseSlackMs } from './promise'

const bursts = (score: Score): Extract<Section, { format: 'burst' }>[] =>
  score.sections.flatMap((section) => (section.format === 'burst' ? [section] : []))

function isTabata(score: Score): boolean {
  switch (score.readings.tabata) {
    case 'strict':
      return bursts(score).some((one) => one.workMs === 20_000 && one.restMs === 10_000 && one.intervals === 8)
    case 'double':
      return score.sections.some(
        (one) => 'workMs' in one && 'restMs' in one && one.restMs > 0 && one.workMs === 2 * one.restMs,
      )
    case 'burst':
      return (
        bursts(score).length > 0 ||
        score.sections.some((one) => 'workMs' in one && 'restMs' in one && one.workMs <= 30_000 && one.restMs > 0)
      )
  }
}

const isEmom = (score: Score): boolean =>
  score.sections.some((one) => one.format === (score.readings.emom === 'reps' ? 'minuteReps' : 'minuteTime'))

/** Words that everybody reads alike, and the sections that keep what they promise. */
const PLAIN: readonly { word: string; pattern: RegExp; kept: (section: Section) => boolean; meaning: string }[] = [
  {
    word: 'ladder',
    pattern: /\bladders?\b/,
    kept: (one) => one.format === 'ladder' || one.format === 'slot' || one.format === 'table',
    meaning: 'work that changes by a step from round to round',
  },
  {
    word: 'pyramid',
    pattern: /\bpyramids?\b/,
    kept: (one) => one.format === 'pyramid' || (one.format === 'slot' && one.shape === 'upAndDown'),
    meaning: 'a climb with its descent',
  },
  { word: 'finisher', pattern: /\bfinishers?\b/, kept: (one) => one.format === 'finisher', meaning: 'a finisher' },
  {
    word: 'warm-up',
    pattern: /\bwith (?:a )?warm[\s-]?up\b/,
    kept: (one) => one.format === 'warmUp' && one.where === 'here',
    meaning: 'a warm-up in this video',
  },
  {
    word: 'cool-down',
    pattern: /\bwith (?:a )?cool[\s-]?down\b/,
    kept: (one) => one.format === 'coolDown' && one.where === 'here',
    meaning: 'a cool-down in this video',
  },
]

export const checkTitleWord: Check = (review) => [
  ...disputedWords(review.score),
  ...plainWords(review.score),
  ...minutes(review),
]

function plainWords({ title, sections }: Score): Finding[] {
  if (!sections.length) return []
  return PLAIN.flatMap(({ word, pattern, kept, meaning }) =>
    !pattern.test(title.toLowerCase()) || sections.some(kept)
      ? []
      : [
          finding('title', {
            id: word,
            severity: 'warning',
            what: `The title says "${word}", and nothing here is ${meaning}.`,
            why: 'People choose a video by its title. Change the title or the plan.',
          }),
        ],
  )
}

const MINUTES = /\b(\d{1,3})[\s-]*min(?:ute)?s?\b/i

/** "15-minute deck session": the number that viewers choose by. Left to the promise where that says the same. */
function minutes({ score, expansion }: Parameters<Check>[0]): Finding[] {
  const typed = Number(MINUTES.exec(score.title)?.[1])
  const wantedMs = typed * 60_000,
    { totalMs, estimated } = expansion
  if (!wantedMs || !totalMs || wantedMs === score.promiseMs || Math.abs(totalMs - wantedMs) <= promiseSlackMs(wantedMs))
    return []
  return [
    finding('title', {
      id: 'minutes',
      severity: 'warning',
      what: `The title says ${typed} minutes, the sum is ${estimated ? 'about ' : ''}${formatLength(totalMs)}.`,
      why: 'People choose a video by the time they have. More than a minute, or 5 %, is noticed.',
      mend: {
        label: `Say ${inMinutes(totalMs)} in the title`,
        apply: (draft) => {
          draft.title = draft.title.replace(MINUTES, (said, number: string) =>
            said.replace(number, String(inMinutes(totalMs))),
          )
        },
      },
    }),
  ]
}

function disputedWords(score: Score): Finding[] {
  const found: Finding[] = []
  const title = score.title.toLowerCase()
  for (const [word, holds] of [
    ['tabata', isTabata],
    ['emom', isEmom],
  ] as const) {
    if (!new RegExp(`\\b${word}\\b`).test(title) || holds(score)) continue
    const school = SCHOOLS[word]
    const meaning = school.readings.find((one) => one.reading === score.readings[word])?.meaning ?? ''
    found.push(
      finding('title', {
        id: word,
        severity: 'warning',
        what: `The title says "${school.word}", and nothing here is ${meaning}.`,
        why: `That is what the word is set to mean in this workout (${school.why}). Change the title, the plan, or the reading under Words.`,
      }),
    )
  }
  return found
}
