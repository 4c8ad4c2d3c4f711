import { describe, expect, it } from 'vitest'
import type { Evidence } from '../evidence'
import { chirpSound } from '../sound/chirp'
import { Hearing, PIECE_MS, type HearingOptions } from './hearing'
import { HEARING_RATE } from './tones'

/** Eleven minutes: three pieces, with tones and chirps near their edges. */
const LENGTH_S = 660
const TONES_S = [3, 299.6, 299.98, 300.4, 450, 599.2, 600.9, 640]
const CHIRPS_S = [100, 301, 597.9]
const sound = new Float32Array(LENGTH_S * HEARING_RATE)
for (const at of TONES_S)
  for (let index = 0; index < 0.25 * HEARING_RATE; index++)
    sound[Math.round(at * HEARING_RATE) + index] = 0.2 * Math.sin((2 * Math.PI * 2000 * index) / HEARING_RATE)
CHIRPS_S.forEach((at, code) => sound.set(chirpSound(code + 1, 'plain', HEARING_RATE), at * HEARING_RATE))

function hear(options: Partial<HearingOptions> = {}, until = sound.length): Evidence[] {
  const hearing = new Hearing({ model: null, ...options })
  for (let at = 0; at < until; at += 100_003) hearing.push(sound.subarray(at, Math.min(until, at + 100_003)))
  return hearing.finish()
}
const timesOf = (evidence: readonly Evidence[], kind: Evidence['kind']): number[] =>
  evidence.filter((one) => one.kind === kind).map(({ atMs }) => Math.round(atMs / 10) / 100)

describe('hearing in pieces', () => {
  const heard = new Map<number, readonly Evidence[]>()
  const whole = hear({ onPiece: (piece, evidence) => heard.set(piece, evidence) })

  it('hears everything once, also at the edges', () => {
    expect(timesOf(whole, 'beep')).toEqual(TONES_S)
    expect(timesOf(whole, 'chirp')).toEqual(CHIRPS_S)
    expect([...heard.keys()]).toEqual([0, 1, 2])
    for (const [piece, evidence] of heard)
      for (const { atMs } of evidence) expect(Math.floor(atMs / PIECE_MS)).toBe(piece)
  })

  it('goes on where it was ended, and comes to the same', () => {
    const first = heard.get(0) ?? [],
      second = heard.get(1) ?? []
    const again: number[] = []
    const known = new Map([
      [0, first],
      [1, second],
    ])
    expect(hear({ known, onPiece: (piece) => again.push(piece) })).toEqual(whole)
    expect(again).toEqual([2])
  })

  it('has as many pieces as there is sound', () => {
    const pieces: number[] = []
    hear({ onPiece: (piece) => pieces.push(piece) }, 20 * HEARING_RATE)
    expect(pieces).toEqual([0])
    expect(hear({}, 0)).toEqual([])
  })
})
