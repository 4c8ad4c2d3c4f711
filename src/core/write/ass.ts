// Captions as Advanced SubStation Alpha: placed at the foot, in the colours of the overlay.
import type { ShownSegment } from '../cut/cut'
import { FONTS, OVERLAY } from '../look/palette'
import type { Ms } from '../units'
import { captionsOf } from './captions'

/** @param lane in the published video's own time. */
export function writeAss(lane: readonly ShownSegment[], title: string): string {
  const events = captionsOf(lane).map(
    ({ fromMs, toMs, lines }) =>
      `Dialogue: 0,${clock(fromMs)},${clock(toMs)},Plate,,0,0,0,,${lines.map(escaped).join('\\N')}`,
  )
  return `${[
    '[Script Info]',
    `Title: ${title.replace(/\s+/g, ' ')}`,
    'ScriptType: v4.00+',
    'PlayResX: 1280',
    'PlayResY: 720',
    'WrapStyle: 0',
    '',
    '[V4+ Styles]',
    'Format: Name, Fontname, Fontsize, PrimaryColour, OutlineColour, BackColour, Bold, BorderStyle, Outline, Shadow, Alignment, MarginL, MarginR, MarginV',
    // A border of style 3 is a plate behind the words; alignment 1 is the foot, at the left.
    `Style: Plate,${FONTS.text},36,${colour(OVERLAY.pale)},${colour(OVERLAY.ink)},${colour(OVERLAY.ink)},-1,3,10,0,1,40,40,30`,
    '',
    '[Events]',
    'Format: Layer, Start, End, Style, Name, MarginL, MarginR, MarginV, Effect, Text',
    ...events,
  ].join('\n')}\n`
}

/** "0:01:05.25": hundredths are the finest that there are. */
function clock(ms: Ms): string {
  const all = Math.round(ms / 10)
  const two = (value: number): string => String(value).padStart(2, '0')
  return `${Math.floor(all / 360_000)}:${two(Math.floor(all / 6000) % 60)}:${two(Math.floor(all / 100) % 60)}.${two(all % 100)}`
}

/** "&H00BBGGRR". */
const colour = (hex: string): string => `&H00${hex.slice(5, 7)}${hex.slice(3, 5)}${hex.slice(1, 3)}`.toUpperCase()

/** A backslash and braces begin what is not text. */
const escaped = (text: string): string => text.replace(/\\/g, '/').replace(/\{/g, '(').replace(/\}/g, ')')
