// Small scores for tests, so that each test shows only what it is about.
import type { Circuit, Station } from './score/formats/circuit'
import type { Section } from './score/formats'
import type { Score } from './score/score'

export const station = (label: string, change: Partial<Station> = {}): Station =>
  ({ key: label.toLowerCase().replace(/\W+/g, '-'), label, sideRule: 'none', posture: 'standing', effort: 3, workMs: null, restMs: null, ...change })

export const circuit = (change: Partial<Circuit> = {}): Circuit => ({
  format: 'circuit', key: 'main', name: 'Main', leadInMs: 0, rounds: 1, workMs: 20_000, restMs: 10_000, roundBreakMs: 0, lastRest: 'kept',
  stations: [station('Jug lift')], ...change,
})

export const talk = (key: string, guessMs: number | null): Section => ({ format: 'talk', key, name: key, guessMs })

export const score = (...sections: Section[]): Score => ({ version: 1, title: 'Deck Hours', promiseMs: null, sections })
