// Which picture of which file is seen at an instant of the output.
import { toSource, type Cut } from '@/core/cut/cut'
import { filesInRow } from '@/core/filesInRow'
import type { Ms } from '@/core/units'
import type { FilmFile } from '../parts/ReelVideo'

export interface Place {
  /** Id of the file. */
  footage: string
  ms: Ms
}

/** Null where a card is seen. */
export function placeAt(cut: Cut, outMs: Ms, files: readonly FilmFile[]): Place | null {
  const seen = toSource(cut, outMs)
  if (!seen || seen.source === 'card') return null
  const { footage, footageMs } = filesInRow(files.map(({ durationMs }) => durationMs)).placeOf(seen.ms)
  const file = files[footage]
  return file ? { footage: file.id, ms: Math.round(footageMs) } : null
}
