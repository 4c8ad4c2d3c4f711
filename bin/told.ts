// Evidence as the command tells it.
import type { Evidence } from '../src/core/evidence'
import type { TimerBeep } from '../src/core/hear/timerBeeps'
import { formatInstant } from '../src/core/time/clock'

export const round2 = (value: number): number => Math.round(value * 100) / 100

type Told = Evidence | TimerBeep

/** Whole milliseconds and hertz, two digits of what is a share. */
export function roundedEvidence(one: Told): Told {
  const told = { ...one, atMs: Math.round(one.atMs), strength: round2(one.strength) }
  if ('durationMs' in told) told.durationMs = Math.round(told.durationMs)
  if ('hz' in told) told.hz = Math.round(told.hz)
  if ('boundaryLikelihood' in told) told.boundaryLikelihood = round2(told.boundaryLikelihood)
  return told
}

export function evidenceText(one: Told): string {
  if ('boundaryLikelihood' in one)
    return `${one.hz} Hz  ${one.durationMs} ms  ${one.boundaryLikelihood >= 0.5 ? 'change' : 'count'}`
  if (one.kind === 'word') return `${one.word}  ${one.strength.toFixed(2)}`
  if (one.kind === 'chirp') return `change ${one.code}`
  if (one.kind === 'motion') return `${one.begins ? 'begins' : 'ends'}  ${one.strength.toFixed(2)}`
  return 'durationMs' in one ? `until ${formatInstant(one.atMs + one.durationMs)}` : ''
}
