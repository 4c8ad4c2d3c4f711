// A word in the title promises what the score is not: a format, in the reading that the creator chose, a part, or
// minutes.
import type { TitlePromise } from '../facts'
import { formatOf } from '../score/formats'
import type { Score } from '../score/score'
import { finding, type Check, type Finding } from './finding'
import { inMinutes, minutesIn, promiseSlackMs, withMinutes } from './promise'

/** What a title may say, and the id of its finding. */
const WORDS: readonly { word: TitlePromise; id: string; pattern: RegExp; disputed?: 'tabata' | 'emom' }[] = [
  { word: 'tabata', id: 'tabata', pattern: /\btabata\b/, disputed: 'tabata' },
  { word: 'emom', id: 'emom', pattern: /\bemom\b/, disputed: 'emom' },
  { word: 'ladder', id: 'ladder', pattern: /\bladders?\b/ },
  { word: 'pyramid', id: 'pyramid', pattern: /\bpyramids?\b/ },
  { word: 'finisher', id: 'finisher', pattern: /\bfinishers?\b/ },
  { word: 'warmUp', id: 'warm-up', pattern: /\bwith (?:a )?warm[\s-]?up\b/ },
  { word: 'coolDown', id: 'cool-down', pattern: /\bwith (?:a )?cool[\s-]?down\b/ },
]

export const checkTitleWord: Check = (review) => [...promisedWords(review.score), ...minutes(review)]

function promisedWords({ title, sections, readings }: Score): Finding[] {
  const said = title.toLowerCase()
  const kept = new Set(sections.flatMap((section) => formatOf(section).keeps?.(section, readings) ?? []))
  return WORDS.flatMap(({ word, id, pattern, disputed }) => {
    // A title alone, without any plan yet, promises nothing but a disputed format.
    if (!pattern.test(said) || kept.has(word) || (!disputed && !sections.length)) return []
    const fact = { code: 'title-word', word, reading: disputed ? readings[disputed] : null } as const
    return [finding('title', { id, severity: 'warning', fact })]
  })
}

/** What the minutes are said to be of: "20-minute video", "a workout of 20 minutes". */
const OF = [
  ['video', /\b(?:video|follow[\s-]along)\b/i],
  ['workout', /\bworkout\b/i],
] as const

/** "15-minute deck session": the number that viewers choose by. Left to the promise where that says the same. */
function minutes({ score, expansion }: Parameters<Check>[0]): Finding[] {
  const typed = minutesIn(score.title)
  const wantedMs = typed * 60_000,
    { estimated } = expansion
  const of = OF.find(([, pattern]) => pattern.test(score.title))?.[0] ?? null
  const sums = { video: expansion.totalMs, workout: expansion.workoutMs }
  // A title that does not say of what is kept by either.
  const held = of ? [sums[of]] : [sums.video, sums.workout]
  const isKept = held.some((ms) => Math.abs(ms - wantedMs) <= promiseSlackMs(wantedMs))
  if (!wantedMs || !sums.video || wantedMs === score.promiseMs || isKept) return []
  const totalMs = held[0] ?? 0
  const better = inMinutes(totalMs)
  return [
    finding('title', {
      id: 'minutes',
      severity: 'warning',
      fact: { code: 'title-minutes', minutes: typed, totalMs, estimated },
      mend: {
        fact: { code: 'title-minutes', minutes: better },
        apply: (draft) => {
          draft.title = withMinutes(draft.title, better)
        },
      },
    }),
  ]
}
