// Writes moves as JSON or CSV, the twin of `read/moveFile`.
import { stringify } from 'csv-stringify/sync'
import { LIST_MARK, MOVE_COLUMNS } from '../read/moveFile'
import type { Move } from '../score/move'
import { guarded } from './cell'

export const writeMovesJson = (moves: readonly Move[]): string =>
  `${JSON.stringify({ format: 'jivet-moves', version: 1, moves }, null, 2)}\n`

/** Cells that hold several parts are joined by `;`. */
export const writeMovesCsv = (moves: readonly Move[]): string =>
  stringify([
    [...MOVE_COLUMNS],
    ...moves.map((move) =>
      MOVE_COLUMNS.map((column) => {
        const value = move[column]
        return guarded(Array.isArray(value) ? value.join(`${LIST_MARK} `) : String(value))
      }),
    ),
  ])
