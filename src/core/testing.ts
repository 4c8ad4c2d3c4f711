// Small scores for tests, so that each test shows only what it is about.
import { castOf } from './score/cast'
import type { Circuit } from './score/formats/circuit'
import { newSection, type Section } from './score/formats'
import type { Around } from './score/formats/format'
import { withKeys } from './score/formats/keys'
import { newStation } from './score/formats/station'
import { emptyScore, type Score } from './score/score'
import { PLAIN_WORDS } from './score/vocabulary'

export const station = newStation

export const circuit = (change: Partial<Circuit> = {}): Circuit =>
  withKeys({
    ...newSection('circuit', 'main', 'Main'),
    leadInMs: 0,
    rounds: 1,
    workMs: 20_000,
    restMs: 10_000,
    roundBreakMs: 0,
    lastRest: 'kept',
    stations: [station('Jug lift', { sideRule: 'none' })],
    ...change,
  })

export const talk = (key: string, guessMs: number | null): Section => ({ ...newSection('talk', key, key), guessMs })

export const score = (...sections: Section[]): Score => ({ ...emptyScore('Deck Hours'), sections })

export const around = (change: Partial<Around> = {}): Around => ({
  follows: 'section',
  cast: castOf([]),
  words: PLAIN_WORDS,
  ...change,
})
