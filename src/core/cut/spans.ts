// Lays spans end to end in output time: makers say what is shown and for how long, never where.
import type { Ms } from '../units'
import { filesInRow } from '../filesInRow'
import { outMsIn, type Cut, type Span, type Why } from './cut'

/** A range of the reel as it was filmed. */
export interface Shown {
  fromMs: Ms
  toMs: Ms
  segmentId: string | null
  why: Why
  mirrored?: boolean
  /** In output time, where it is shown slower or faster than it was filmed. */
  lengthMs?: Ms
}

export class SpanList {
  private readonly spans: Span[] = []
  outMs: Ms = 0

  /** What lasts nothing is left out. */
  show({ fromMs, toMs, segmentId, why, mirrored = false, lengthMs = toMs - fromMs }: Shown): void {
    const rate = (toMs - fromMs) / lengthMs
    this.add({ source: 0, fromMs, toMs, lengthMs, rate, mirrored, segmentId, why, stillOf: null })
  }

  /** The last picture before an instant of the reel, silent. */
  hold(beforeMs: Ms, lengthMs: Ms, { segmentId, mirrored = false }: Pick<Shown, 'segmentId' | 'mirrored'>): void {
    const atMs = Math.max(0, beforeMs - 1)
    const still = { source: 'still', fromMs: atMs, toMs: atMs, rate: 0, mirrored, stillOf: 0 } as const
    this.add({ ...still, lengthMs, segmentId, why: 'held' })
  }

  /** A drawn card, silent but for cues. */
  card(lengthMs: Ms, segmentId: string | null): void {
    const card = { source: 'card', fromMs: 0, toMs: lengthMs, rate: 1, mirrored: false, stillOf: null } as const
    this.add({ ...card, lengthMs, segmentId, why: 'card' })
  }

  private add(span: Omit<Span, 'outMs'>): void {
    if (span.lengthMs <= 0) return
    this.spans.push({ ...span, outMs: this.outMs })
    this.outMs += span.lengthMs
  }

  get cut(): Cut {
    return { outMs: this.outMs, spans: this.spans }
  }
}

/**
 * A cut of a reel as a cut of its files: spans that run over the border of two files become two.
 * @param fileMs lengths of the files, in order.
 */
export function inFiles(cut: Cut, fileMs: readonly Ms[]): Cut {
  const { beginMs, placeOf } = filesInRow(fileMs)
  const spans = cut.spans.flatMap((span): Span[] => {
    if (span.source === 'card') return [span]
    if (span.source === 'still') {
      const { footage, footageMs } = placeOf(span.fromMs)
      return [{ ...span, fromMs: footageMs, toMs: footageMs, stillOf: footage }]
    }
    const out: Span[] = []
    for (let fromMs = span.fromMs; fromMs < span.toMs;) {
      const { footage, footageMs } = placeOf(fromMs)
      const toMs = Math.min(span.toMs, beginMs[footage + 1] ?? Infinity)
      const there = { source: footage, fromMs: footageMs, toMs: footageMs + toMs - fromMs }
      out.push({ ...span, ...there, outMs: outMsIn(span, fromMs), lengthMs: (toMs - fromMs) / span.rate })
      fromMs = toMs
    }
    return out
  })
  return { outMs: cut.outMs, spans }
}
