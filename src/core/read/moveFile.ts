// Reads moves from JSON or CSV. Every complaint names its line or field; good moves are taken though others are wrong.
import { parse } from 'csv-parse/sync'
import { z } from 'zod'
import type { MoveFact } from '../facts'
import { Problem } from '../problem'
import { parsedJson } from './json'
import { moveSchema, type Move } from '../score/move'
import { clipped } from '../text'
import { delimiterOf } from './delimiter'
import { unguarded } from '../write/cell'

export const MOVE_COLUMNS = [
  'name',
  'short',
  'cue',
  'posture',
  'muscles',
  'impact',
  'effort',
  'sideRule',
  'standingLeg',
  'gear',
  'easier',
  'harder',
  'caution',
  'secondsPerRep',
  'tags',
] as const
const LISTS = new Set<string>(['muscles', 'gear', 'tags'])
const NUMBERS = new Set<string>(['effort', 'secondsPerRep'])
/** Between the parts of a cell that holds several. */
export const LIST_MARK = ';'

export interface MoveProblem {
  /** The line, or the number of the move. */
  place: string
  fact: MoveFact
}

export interface MovesRead {
  moves: Move[]
  problems: MoveProblem[]
}

const MOST_MOVES = 10_000

/** @param name tells JSON (`.json`) from CSV. @throws Problem where the file as a whole cannot be read. */
export function readMoves(text: string, name: string): MovesRead {
  return /\.json$/i.test(name) ? readJson(text) : readCsv(text)
}

function readJson(text: string): MovesRead {
  const file = z
    .object({ format: z.literal('jivet-moves'), version: z.literal(1), moves: z.array(z.unknown()).max(MOST_MOVES) })
    .safeParse(parsedJson(text))
  if (!file.success) throw new Problem({ code: 'not-moves-file' })
  return collect(file.data.moves.map((move, index) => [`move ${index + 1}`, move]))
}

function readCsv(text: string): MovesRead {
  let records: string[][]
  try {
    records = parse(text, {
      bom: true,
      delimiter: delimiterOf(text),
      relax_column_count: true,
      skip_empty_lines: true,
      trim: true,
    })
  } catch {
    throw new Problem({ code: 'broken-quote' })
  }
  const [header = [], ...rows] = records
  const columns = header.map((cell) => MOVE_COLUMNS.find((one) => one.toLowerCase() === cell.toLowerCase()))
  if (!columns.includes('name'))
    throw new Problem(
      { code: 'name-column-missing', found: clipped(header.join(','), 120), known: MOVE_COLUMNS.join(', ') },
      'line 1',
    )
  if (rows.length > MOST_MOVES)
    throw new Problem({ code: 'too-many', what: 'rows', most: MOST_MOVES, found: rows.length })
  return collect(
    rows.map((row, index) => {
      const cells = columns.flatMap((column, at) => {
        const cell = unguarded(row[at] ?? '')
        return column && (cell || column === 'name') ? [[column, readCell(column, cell)]] : []
      })
      return [`line ${index + 2}`, Object.fromEntries(cells)]
    }),
  )
}

function readCell(column: string, cell: string): unknown {
  if (NUMBERS.has(column)) return Number(cell)
  if (!LISTS.has(column)) return cell
  return cell
    .split(LIST_MARK)
    .map((one) => one.trim())
    .filter(Boolean)
}

function collect(raw: (readonly [place: string, move: unknown])[]): MovesRead {
  const moves = new Map<string, Move>()
  const problems: MoveProblem[] = []
  for (const [place, one] of raw) {
    const read = moveSchema.safeParse(one)
    if (!read.success) {
      const issue = read.error.issues[0]
      const field = issue?.path.join('.') || 'the whole'
      problems.push({ place, fact: { code: 'bad-field', field, reason: issue?.message ?? 'is not right' } })
      continue
    }
    const { name, short } = read.data
    const key = name.toLowerCase()
    if (moves.has(key)) problems.push({ place, fact: { code: 'stands-twice', name } })
    else moves.set(key, { ...read.data, short: short || clipped(name, 60) })
  }
  return { moves: [...moves.values()], problems }
}
