// All that listens to a recording, piece by piece: each piece is heard by itself, with some seconds to either side, so
// that a hearing that was ended in the middle goes on with the piece that it was in.
import { byTime, ofKind, type Evidence } from '../evidence'
import { SECOND, type Ms, type Samples } from '../units'
import { CallListener, type CallModel } from './calls'
import { ChirpListener } from './chirps'
import { SOUNDING, type Sounding, type SoundingSpan } from './sounding'
import { HEARING_RATE, ToneListener } from './tones'

/** Fed block by block with mono samples, -1..1, at `HEARING_RATE`. */
interface Listener {
  push(samples: Float32Array): void
  finish(): Evidence[]
}

/** Whole steps of every listener, so that it does not matter to them where a piece begins. */
export const PIECE_MS: Ms = 300 * SECOND
const MARGIN_MS: Ms = 16 * SECOND
const samplesIn = (ms: Ms): Samples => (ms / SECOND) * HEARING_RATE

export interface HearingOptions {
  /** Without it tones and chirps alone are heard. */
  model: CallModel | null
  /** What was heard before, by piece: these are not heard again. */
  known?: ReadonlyMap<number, readonly Evidence[]>
  /** Called with each piece that was heard, in order. */
  onPiece?: (piece: number, evidence: readonly Evidence[]) => void
}

interface OpenPiece {
  piece: number
  from: Samples
  to: Samples
  listeners: readonly Listener[]
}

export class Hearing {
  private heard: Samples = 0
  private open: OpenPiece[] = []
  /** The next piece to begin. */
  private next = 0
  private readonly pieces = new Map<number, readonly Evidence[]>()

  constructor(private readonly options: HearingOptions) {}

  push(samples: Float32Array): void {
    const { heard } = this
    const until = heard + samples.length
    while (this.beginOf(this.next) < until) this.begin(this.next++)
    for (const { from, to, listeners } of this.open) {
      const part = samples.subarray(Math.max(0, from - heard), Math.max(0, to - heard))
      if (part.length) for (const listener of listeners) listener.push(part)
    }
    this.heard = until
    this.open = this.open.filter((one) => one.to > until || this.close(one))
  }

  /** Ends the recording. @returns all that was heard, in order of time. */
  finish(): Evidence[] {
    for (const one of this.open) this.close(one)
    this.open = []
    const all = [...this.pieces.values()].flat()
    const spans = SOUNDING.flatMap((kind) => joinedSpans(ofKind(all, kind)))
    const instants = all.filter(({ kind }) => !isSounding(kind))
    return [...instants, ...spans].sort(byTime)
  }

  private beginOf(piece: number): Samples {
    return Math.max(0, samplesIn(piece * PIECE_MS - MARGIN_MS))
  }

  private begin(piece: number): void {
    const known = this.options.known?.get(piece)
    if (known) return void this.pieces.set(piece, known)
    const { model } = this.options
    const listeners = [new ToneListener(), new ChirpListener(), ...(model ? [new CallListener(model)] : [])]
    this.open.push({ piece, from: this.beginOf(piece), to: samplesIn((piece + 1) * PIECE_MS + MARGIN_MS), listeners })
  }

  /** @returns false: it is not open any more. */
  private close({ piece, from, listeners }: OpenPiece): false {
    const fromMs = (from / HEARING_RATE) * SECOND
    const evidence = listeners
      .flatMap((listener) => listener.finish())
      .flatMap((one) => within({ ...one, atMs: one.atMs + fromMs }, piece * PIECE_MS, (piece + 1) * PIECE_MS))
    this.pieces.set(piece, evidence)
    this.options.onPiece?.(piece, evidence)
    return false
  }
}

const isSounding = (kind: Evidence['kind']): kind is Sounding => SOUNDING.some((one) => one === kind)

/** What lasts is cut at the edges of its piece. */
function within(one: Evidence, fromMs: Ms, toMs: Ms): Evidence[] {
  if (!('durationMs' in one) || one.kind === 'beep') return one.atMs >= fromMs && one.atMs < toMs ? [one] : []
  const atMs = Math.max(fromMs, one.atMs)
  const durationMs = Math.min(toMs, one.atMs + one.durationMs) - atMs
  return durationMs > 0 ? [{ ...one, atMs, durationMs }] : []
}

/** What was cut at an edge is one again. @param spans of one kind, in order of time. */
function joinedSpans(spans: readonly SoundingSpan[]): SoundingSpan[] {
  const whole: SoundingSpan[] = []
  for (const span of spans) {
    const last = whole.at(-1)
    if (last && span.atMs % PIECE_MS === 0 && last.atMs + last.durationMs >= span.atMs)
      whole[whole.length - 1] = { ...last, durationMs: span.atMs + span.durationMs - last.atMs }
    else whole.push(span)
  }
  return whole
}
