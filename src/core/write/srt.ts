// Captions as SubRip: numbered, with a comma before the milliseconds.
import type { ShownSegment } from '../cut/cut'
import { captionsOf, stamp } from './captions'

/** @param lane in the published video's own time. */
export const writeSrt = (lane: readonly ShownSegment[]): string =>
  captionsOf(lane)
    .map(
      ({ fromMs, toMs, lines }, at) =>
        `${at + 1}\n${stamp(fromMs, ',')} --> ${stamp(toMs, ',')}\n${lines.map(plain).join('\n')}\n`,
    )
    .join('\n')

/** Players take angle brackets and braces for tags, and know no way to write them. */
const plain = (text: string): string =>
  text.replace(/[<>{}]/g, (mark) => ({ '<': '‹', '>': '›', '{': '(', '}': ')' })[mark] ?? mark)
