// Captions that came with a footage (WebVTT or SRT): what was said, when, and which of it calls a change. Their times
// are as good as whoever made them: weak evidence.
import { parseTextStream } from 'media-captions'
import { byTime, CALLS, type EvidenceOf } from '../evidence'
import { Problem } from '../problem'
import type { Ms, Share } from '../units'
import { CALL_WORDS } from './callWords'
import { numbersIn } from './saidNumbers'

export const MOST_CAPTIONS = 50_000
export type CaptionEvidence = EvidenceOf<'caption' | 'said'>
/** What is kept of one line. */
const MOST_LETTERS = 300

interface Word {
  text: string
  /** It ends a sentence or a part of one. */
  ends: boolean
  atMs: Ms
  spreadMs: Ms
}

/** Of a word that has a time of its own, and at least of one that has not. */
const WORD_SPREAD_MS: Ms = 120
const LINE_SPREAD_MS: Ms = 300
/** A silence this long ends a sentence, where nobody set a stop. */
const SILENCE_MS: Ms = 700
/** How likely a change is called by: a count and a call, a call that stands alone, one among few words, among many. */
const COUNTED: Share = 0.95
const ALONE: Share = 0.8
const AMONG_FEW: Share = 0.4
const AMONG_MANY: Share = 0.05
const FEW = 4

/**
 * @param text of a file; words may have times of their own.
 * @returns calls and numbers found in it, in order of time.
 * @throws Problem `captions-unreadable` where no line has a time, `too-many` for more than any session has.
 */
export async function readCaptions(text: string): Promise<CaptionEvidence[]> {
  const type = /^\uFEFF?\s*WEBVTT/.test(text) ? 'vtt' : 'srt'
  const { cues } = await parseTextStream(linesIn(text.replace(/^\uFEFF/, '')), { type })
  if (!cues.length) throw new Problem({ code: 'captions-unreadable' })
  if (cues.length > MOST_CAPTIONS)
    throw new Problem({ code: 'too-many', what: 'captions', found: cues.length, most: MOST_CAPTIONS })
  const words = cues.flatMap((cue) => wordsOf(cue.text, cue.startTime * 1000, cue.endTime * 1000)).sort(byTime)
  return clausesOf(words)
    .flatMap((clause): CaptionEvidence[] => {
      const text = clause
        .map((word) => word.text)
        .join(' ')
        .slice(0, MOST_LETTERS)
      return [...callIn(clause, text), ...numbersIn(clause, text)]
    })
    .sort(byTime)
}

/** A line at a time: a stream that holds all of them takes longer for each the more there are. */
function linesIn(text: string): ReadableStream<string> {
  const lines = text.split(/\r\n|\r|\n/).values()
  return new ReadableStream({
    pull(controller) {
      const { value, done } = lines.next()
      if (done) controller.close()
      else controller.enqueue(value)
    },
  })
}

const STAMP = /<((?:\d+:)?\d\d?:\d\d[.,]\d{3})>/

/** Words with the times that stand between them; without any, shared out over the line by their letters. */
function wordsOf(line: string, fromMs: Ms, toMs: Ms): Word[] {
  const parts = line.split(STAMP)
  const timed = parts.length > 1
  const words: Word[] = []
  let atMs = fromMs
  parts.forEach((part, index) => {
    if (index % 2) {
      atMs = stampMs(part)
      return
    }
    const said = part
      .replace(/<[^>]*>/g, '')
      .split(/\s+/)
      .filter((one) => /[\p{L}\p{N}]/u.test(one))
    const letters = said.reduce((sum, one) => sum + one.length + 1, 0)
    const lengthMs = timed ? 250 * said.length : Math.max(0, toMs - fromMs)
    let before = 0
    for (const one of said) {
      const spreadMs = timed ? WORD_SPREAD_MS : Math.max(LINE_SPREAD_MS, lengthMs / 8)
      words.push({
        text: plain(one),
        ends: /[.!?,;:…]["')]*$/.test(one),
        atMs: atMs + (lengthMs * before) / letters,
        spreadMs,
      })
      before += one.length + 1
    }
  })
  return words
}

const stampMs = (stamp: string): Ms =>
  stamp
    .replace(',', '.')
    .split(':')
    .reduce((sum, part) => sum * 60 + Number(part), 0) * 1000

const plain = (word: string): string =>
  word
    .toLowerCase()
    .replaceAll('’', "'")
    .replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '')

/** Words that belong together: up to a stop or a silence. Counts, and what means nothing, stay with what follows. */
function clausesOf(words: readonly Word[]): Word[][] {
  const clauses: Word[][] = []
  let open: Word[] = []
  words.forEach((word, index) => {
    open.push(word)
    const next = words[index + 1]
    const silent = next !== undefined && next.atMs - word.atMs > SILENCE_MS + 60 * word.text.length
    const begun = !word.ends || open.every(({ text }) => isCount(text) || isFiller(text))
    if (next && (isCount(word.text) ? next.atMs - word.atMs < 3 * SILENCE_MS : begun && !silent)) return
    clauses.push(open)
    open = []
  })
  return clauses
}

const LANGUAGES = Object.values(CALL_WORDS)
const isCount = (text: string): boolean => /^[1-5]$/.test(text) || LANGUAGES.some(({ counts }) => counts.includes(text))
const isFiller = (text: string): boolean => LANGUAGES.some(({ fillers }) => fillers.includes(text))

/** The likeliest call in what was said, in whatever language; none where no word of one stands. */
function callIn(clause: Word[], text: string): EvidenceOf<'caption'>[] {
  const said = clause.map((word) => word.text)
  const found = LANGUAGES.flatMap(({ calls, fillers }) =>
    CALLS.flatMap((word) =>
      calls[word].flatMap((phrase): EvidenceOf<'caption'>[] => {
        const parts = phrase.split(' ')
        const at = placeOf(said, parts)
        // "And rest" begins with its "and".
        let from = at
        while (from > 0 && fillers.includes(said[from - 1] ?? '')) from--
        const first = clause[from]
        if (at < 0 || !first) return []
        const others = said.filter((one, index) => (index < at || index >= at + parts.length) && !fillers.includes(one))
        const strength = isCount(said[from - 1] ?? '') ? COUNTED : likelihoodAmong(others.length)
        return [{ kind: 'caption', atMs: first.atMs, spreadMs: first.spreadMs, strength, word, text }]
      }),
    ),
  )
  return found.sort((one, other) => other.strength - one.strength).slice(0, 1)
}

function likelihoodAmong(others: number): Share {
  if (others === 0) return ALONE
  return others < FEW ? AMONG_FEW : AMONG_MANY
}

/** Where a phrase stands last in what was said, or -1. */
function placeOf(said: readonly string[], phrase: readonly string[]): number {
  for (let at = said.length - phrase.length; at >= 0; at--)
    if (phrase.every((one, index) => said[at + index] === one)) return at
  return -1
}
