// Reads moves from JSON or CSV. Every complaint names its line or field; good moves are taken though others are wrong.
import { parse } from 'csv-parse/sync'
import { z } from 'zod'
import { Problem } from '../problem'
import { moveSchema, type Move } from '../score/move'

export const MOVE_COLUMNS = [
  'name',
  'short',
  'cue',
  'posture',
  'muscles',
  'impact',
  'effort',
  'sideRule',
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

export interface MovesRead {
  moves: Move[]
  problems: string[]
}

const MOST_MOVES = 10_000

/** @param name tells JSON (`.json`) from CSV. @throws Problem where the file as a whole cannot be read. */
export function readMoves(text: string, name: string): MovesRead {
  return /\.json$/i.test(name) ? readJson(text) : readCsv(text)
}

function readJson(text: string): MovesRead {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch (error) {
    throw new Problem('bad-json', `This is not JSON: ${(error as Error).message}.`)
  }
  const file = z
    .object({ format: z.literal('jivet-moves'), version: z.literal(1), moves: z.array(z.unknown()).max(MOST_MOVES) })
    .safeParse(data)
  if (!file.success)
    throw new Problem(
      'bad-document',
      'This is no file of moves: it needs "format": "jivet-moves", "version": 1 and "moves".',
    )
  return collect(file.data.moves.map((move, index) => [`move ${index + 1}`, move]))
}

function readCsv(text: string): MovesRead {
  let records: string[][]
  try {
    records = parse(text, { bom: true, relax_column_count: true, skip_empty_lines: true, trim: true })
  } catch {
    throw new Problem('bad-cell', 'The quoting is broken: a quote is opened and not closed.')
  }
  const [header = [], ...rows] = records
  const columns = header.map((cell) => MOVE_COLUMNS.find((one) => one.toLowerCase() === cell.toLowerCase()))
  if (!columns.includes('name'))
    throw new Problem(
      'bad-header',
      `Found the header "${header.join(',').slice(0, 120)}"; "name" is needed, and known are ${MOVE_COLUMNS.join(', ')}.`,
      'line 1',
    )
  if (rows.length > MOST_MOVES)
    throw new Problem('too-many', `The file has ${rows.length} rows; ${MOST_MOVES} is the most.`)
  return collect(
    rows.map((row, index) => [
      `line ${index + 2}`,
      Object.fromEntries(
        columns.flatMap((column, at) => {
          const cell = row[at] ?? ''
          if (!column || (!cell && column !== 'name')) return []
          return [
            [
              column,
              LISTS.has(column)
                ? cell
                    .split(LIST_MARK)
                    .map((one) => one.trim())
                    .filter(Boolean)
                : NUMBERS.has(column)
                  ? Number(cell)
                  : cell,
            ],
          ]
        }),
      ),
    ]),
  )
}

function collect(raw: (readonly [place: string, move: unknown])[]): MovesRead {
  const moves = new Map<string, Move>()
  const problems: string[] = []
  for (const [place, one] of raw) {
    const read = moveSchema.safeParse(one)
    if (!read.success)
      problems.push(
        `${place}: ${read.error.issues[0]?.path.join('.') || 'the whole'}: ${read.error.issues[0]?.message ?? 'is not right'}.`,
      )
    else if (moves.has(read.data.name.toLowerCase()))
      problems.push(`${place}: "${read.data.name}" stands twice; the first was taken.`)
    else
      moves.set(read.data.name.toLowerCase(), { ...read.data, short: read.data.short || read.data.name.slice(0, 60) })
  }
  return { moves: [...moves.values()], problems }
}
