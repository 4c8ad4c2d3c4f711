// Stretches that nobody wants to see whole, such as talk, a demonstration, a microphone that slipped: shortened, cut
// out, or covered by a card. Made of a cut that is there, span by span.
import { z } from 'zod'
import type { Ms } from '../units'
import type { Cut, Span } from './cut'

export const TREATMENTS = ['shortened', 'cut', 'covered'] as const
export const treatmentSchema = z.enum(TREATMENTS)
export type Treatment = z.infer<typeof treatmentSchema>

/** `[fromMs, toMs)` of the reel. */
export interface TreatedStretch {
  fromMs: Ms
  toMs: Ms
  as: Treatment
}

/** What is left of a shortened stretch at either end. */
const KEPT_MS: Ms = 1500

export function treated(cut: Cut, stretches: readonly TreatedStretch[]): Cut {
  if (!stretches.length) return cut
  const spans: Span[] = []
  let outMs: Ms = 0
  for (const span of cut.spans)
    for (const piece of piecesOf(span, stretches)) {
      spans.push({ ...piece, outMs })
      outMs += piece.lengthMs
    }
  return { outMs, spans }
}

function piecesOf(span: Span, stretches: readonly TreatedStretch[]): Span[] {
  // What is drawn or held shows none of the footage that was marked.
  if (typeof span.source === 'string') return [span]
  const edges = stretches.flatMap(({ fromMs, toMs, as }) =>
    as === 'shortened' ? [fromMs, fromMs + KEPT_MS, toMs - KEPT_MS, toMs] : [fromMs, toMs],
  )
  const cuts = [span.fromMs, ...edges.filter((ms) => ms > span.fromMs && ms < span.toMs), span.toMs].sort(
    (one, other) => one - other,
  )
  return cuts.slice(1).flatMap((toMs, at) => {
    const fromMs = cuts[at] ?? toMs
    if (toMs <= fromMs) return []
    const piece = { ...span, fromMs, toMs, lengthMs: (toMs - fromMs) / span.rate }
    const stretch = stretches.findLast((one) => one.fromMs <= fromMs && toMs <= one.toMs)
    return stretch ? shownAs(piece, stretch) : [piece]
  })
}

function shownAs(piece: Span, { fromMs, toMs, as }: TreatedStretch): Span[] {
  if (as === 'cut') return []
  if (as === 'covered')
    return [{ ...piece, source: 'card', fromMs: 0, toMs: piece.lengthMs, rate: 1, mirrored: false, why: 'card' }]
  const isMiddle = piece.fromMs >= fromMs + KEPT_MS && piece.toMs <= toMs - KEPT_MS
  return isMiddle ? [] : [{ ...piece, why: piece.why === 'filmed' ? 'shortened' : piece.why }]
}
