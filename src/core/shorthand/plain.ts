// The lines that set something for the whole workout: score, words, needs, move, dismissed. Read here, written in
// print.ts.
import { moveSchema, type Move } from '../score/move'
import { MUSCLES } from '../score/postures'
import { needsSchema, USUAL_NEEDS, type Needs } from '../score/needs'
import type { Score } from '../score/score'
import { COUNTED, type Counted } from '../score/vocabulary'
import type { Piece } from './line'
import { quotedIn, readSetting, spaced } from './settings'
import { MOVE_FIELDS, SCORE_FIELDS, type PlainHead } from './terms'
import { clipped } from '../text'

/** @returns the settings that were not understood. */
export function applyPlain(score: Score, head: PlainHead, name: string, settings: readonly Piece[]): Piece[] {
  switch (head) {
    case 'score':
      return settings.filter((setting) => !applyScore(score, setting.text))
    case 'words':
      return settings.filter((setting) => !applyWords(score, setting.text))
    case 'needs':
      return settings.filter((setting) => !applyNeeds(score, setting.text))
    case 'move':
      return applyMove(score, name, settings)
    case 'dismissed':
      return settings.filter((setting) => {
        const [reason = ''] = quotedIn(setting.text)
        if (!setting.text.startsWith('reason ') || score.dismissed.length >= 2000) return true
        score.dismissed.push({ finding: name, reason: clipped(reason, 1000) })
        return false
      })
  }
}

function applyScore(score: Score, text: string): boolean {
  const read = readSetting(SCORE_FIELDS, text)
  if (!read || read.range) return false
  switch (read.field) {
    case 'demos':
      Object.assign(score.demos, { place: read.value })
      return true
    case 'eachMs':
      Object.assign(score.demos, { eachMs: read.value })
      return true
    case 'series':
      Object.assign(score.series, { name: read.value })
      return true
    case 'next':
      Object.assign(score.series, { next: read.value })
      return true
    case 'tabata':
    case 'emom':
    case 'round':
      Object.assign(score.readings, { [read.field]: read.value })
      return true
    default:
      Object.assign(score, { [read.field]: read.value })
      return true
  }
}

/** `round "lap" "laps"` */
function applyWords(score: Score, text: string): boolean {
  const counted = COUNTED.find((one) => text.startsWith(`${one} `))
  const [one, many] = quotedIn(text)
  if (!counted || !one || !many || one.length > 40 || many.length > 40) return false
  score.vocabulary[counted satisfies Counted] = { one, many }
  return true
}

const NEEDS = Object.keys(USUAL_NEEDS) as (keyof Needs)[]

/** `stand to floor 3` */
function applyNeeds(score: Score, text: string): boolean {
  const need = NEEDS.find((one) => text.toLowerCase().startsWith(`${spaced(one)} `))
  const read = need && needsSchema.safeParse({ [need]: Number(text.slice(spaced(need).length)) })
  if (!need || !read || !read.success) return false
  Object.assign(score.needs, read.data)
  return true
}

function applyMove(score: Score, name: string, settings: readonly Piece[]): Piece[] {
  const typed: Record<string, unknown> = { name }
  const unread = settings.filter((setting) => {
    const read = readSetting(MOVE_FIELDS, setting.text)
    if (read) typed[read.field] = read.value
    return !read && !applyMoveExtra(typed, setting.text)
  })
  const move = moveSchema.safeParse(typed)
  if (!move.success || score.moves.length >= 2000) return [...settings]
  score.moves.push(move.data)
  return unread
}

function applyMoveExtra(typed: Record<string, unknown>, text: string): boolean {
  const seconds = /^(\d+(?:\.\d+)?) seconds per rep$/i.exec(text)
  if (seconds) {
    typed.secondsPerRep = Number(seconds[1])
    return true
  }
  const [word, ...rest] = text.split(/\s+/)
  if (word === 'muscles' && rest.length && rest.every((one) => (MUSCLES as readonly string[]).includes(one)))
    typed.muscles = rest
  else if ((word === 'gear' || word === 'tags') && quotedIn(text).length) typed[word] = quotedIn(text)
  else return false
  return moveSchema.partial().safeParse(typed).success
}

/** The settings of a move as typed; everything that a new move would not have. */
export function moveSettings(move: Move): string[] {
  const bare = moveSchema.parse({ name: 'x' })
  const list = (word: string, values: readonly string[]): string[] =>
    values.length ? [`${word} ${values.map((value) => JSON.stringify(value)).join(' ')}`] : []
  return [
    ...(move.muscles.length ? [`muscles ${move.muscles.join(' ')}`] : []),
    ...list('gear', move.gear),
    ...list('tags', move.tags),
    ...(move.secondsPerRep === bare.secondsPerRep ? [] : [`${move.secondsPerRep} seconds per rep`]),
  ]
}
