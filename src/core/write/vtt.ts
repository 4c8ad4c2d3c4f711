// Captions as WebVTT.
import type { ShownSegment } from '../cut/cut'
import { captionsOf, stamp } from './captions'

/** @param lane in the published video's own time. */
export function writeVtt(lane: readonly ShownSegment[]): string {
  const blocks = captionsOf(lane).map(
    ({ row, fromMs, toMs, lines }) =>
      `${row}\n${stamp(fromMs, '.')} --> ${stamp(toMs, '.')}\n${lines.map(escapeText).join('\n')}`,
  )
  return ['WEBVTT', ...blocks].join('\n\n') + '\n'
}

/** The three characters that WebVTT cue text reserves. */
const escapeText = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
