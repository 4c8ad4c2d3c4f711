// What was heard in a footage, one row a kind below its sound: where a mark stands, what it may mark, how strong it is.
import { ofKind, type Evidence, type EvidenceKind } from '../evidence'
import { SOUNDING } from '../hear/sounding'
import { timerBeeps } from '../hear/timerBeeps'
import type { Ms, Share } from '../units'
import { EVIDENCE_NAMES } from '../words/en/hearing'
import { FONTS, type Palette } from './palette'
import type { Surface } from './surface'

/** Evidence that says where changes lie: it may be kept out of the matching. */
const MARKING: readonly EvidenceKind[] = ['beep', 'chirp', 'word', 'sample', 'caption', 'motion']
export const marksChanges = ({ kind }: HeardRow): boolean => MARKING.includes(kind)

/** A tone or a chirp; what begins work, or rest, or neither; or something that lasts. */
export interface HeardMark {
  atMs: Ms
  /** Of what lasts. */
  untilMs?: Ms
  strength: Share
  shape: 'tick' | 'work' | 'rest' | 'dot' | 'span'
}
export interface HeardRow {
  kind: EvidenceKind
  name: string
  marks: readonly HeardMark[]
}

export const ROW_PX = 15
/** How plain a row is that is hushed. */
const HUSHED: Share = 0.35
const NAME_PX = 58

/** Kinds of which nothing was heard have no row; tones of a pitch that never returns are nobody's timer. */
export function heardRows(evidence: readonly Evidence[]): HeardRow[] {
  const beeps = timerBeeps(ofKind(evidence, 'beep')).map(({ atMs, boundaryLikelihood }): HeardMark => ({
    atMs,
    strength: boundaryLikelihood,
    shape: 'tick',
  }))
  const calls = (['word', 'sample', 'caption'] as const).map((kind) =>
    rowOf(
      kind,
      likeliest(ofKind(evidence, kind)).map(({ atMs, strength, word }) => ({
        ...{ atMs, strength },
        shape: word === 'work' || word === 'rest' ? word : 'dot',
      })),
    ),
  )
  const motion = ofKind(evidence, 'motion').map(({ atMs, strength, begins }): HeardMark => ({
    ...{ atMs, strength },
    shape: begins ? 'work' : 'rest',
  }))
  const chirps = ofKind(evidence, 'chirp').map(({ atMs, strength }): HeardMark => ({ atMs, strength, shape: 'tick' }))
  const spans = SOUNDING.map((kind) =>
    rowOf(
      kind,
      ofKind(evidence, kind).map(({ atMs, durationMs, strength }) => ({
        ...{ atMs, untilMs: atMs + durationMs, strength },
        shape: 'span',
      })),
    ),
  )
  const rows = [rowOf('beep', beeps), rowOf('chirp', chirps), ...calls, rowOf('motion', motion), ...spans]
  return rows.filter(({ marks }) => marks.length > 0)
}

const rowOf = (kind: EvidenceKind, marks: HeardMark[]): HeardRow => ({ kind, name: EVIDENCE_NAMES[kind], marks })

/** What may have been one call or another at one instant is drawn as the likelier. */
const ONE_CALL_MS: Ms = 200
const likeliest = <Call extends { atMs: Ms; strength: Share }>(calls: readonly Call[]): Call[] =>
  calls.filter(({ atMs, strength }, at) => {
    const beats = (other: Call | undefined): boolean =>
      other !== undefined && Math.abs(other.atMs - atMs) < ONE_CALL_MS && other.strength > strength
    return !beats(calls[at - 1]) && !beats(calls[at + 1])
  })

interface RowsView {
  width: number
  /** Of the first row. */
  top: number
  palette: Palette
  /** Kinds that are kept out of the matching. */
  hushed: ReadonlySet<EvidenceKind>
  placeOf: (ms: Ms) => number
}

export function drawHeardRows(
  surface: Surface,
  rows: readonly HeardRow[],
  { width, top, palette, hushed, placeOf }: RowsView,
): void {
  rows.forEach(({ kind, name, marks }, index) => {
    const loudness = hushed.has(kind) ? HUSHED : 1
    const head = top + index * ROW_PX
    surface.fillStyle = palette.paper
    surface.fillRect(0, head, width, ROW_PX - 1)
    for (const mark of marks) {
      const x = placeOf(mark.atMs),
        until = placeOf(mark.untilMs ?? mark.atMs)
      if (until > NAME_PX - 6 && x < width + 6)
        drawMark(
          surface,
          { ...mark, strength: mark.strength * loudness },
          { x, until, top: head + 2, foot: head + ROW_PX - 3, palette },
        )
    }
    surface.globalAlpha = loudness
    surface.fillStyle = palette.ink
    surface.font = `700 12px "${FONTS.text}"`
    surface.textAlign = 'left'
    surface.textBaseline = 'alphabetic'
    surface.fillText(name, 6, head + ROW_PX - 4)
    surface.globalAlpha = 1
  })
}

interface MarkPlace {
  x: number
  until: number
  top: number
  foot: number
  palette: Palette
}

/** Work rises from the line, rest hangs from it: told apart without colour. */
function drawMark(surface: Surface, { shape, strength }: HeardMark, { x, until, top, foot, palette }: MarkPlace): void {
  surface.globalAlpha = 0.25 + 0.75 * strength
  surface.fillStyle = palette.ink
  if (shape === 'tick') return surface.fillRect(x - 1, top, 2, foot - top)
  if (shape === 'span') {
    const from = Math.max(x, NAME_PX)
    return surface.fillRect(from, (top + foot) / 2 - 2, Math.max(1, until - from), 4)
  }
  if (shape === 'dot') return surface.fillRect(x - 1, (top + foot) / 2 - 1, 2, 2)
  const [wide, narrow] = shape === 'work' ? [foot, top] : [top, foot]
  surface.beginPath()
  surface.moveTo(x - 4, wide)
  surface.lineTo(x + 4, wide)
  surface.lineTo(x, narrow)
  surface.closePath()
  surface.fill()
}
