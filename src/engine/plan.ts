// Reads a plan from a file: workout file, shorthand or interval table, told apart by the name's ending.
import { readFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { Problem } from '../core/problem'
import { readIntervalTable } from '../core/read/intervalTable'
import { readWorkoutFile } from '../core/read/workoutFile'
import type { Score } from '../core/score/score'
import { readShorthand } from '../core/shorthand/read'

const MOST_BYTES = 32 * 1024 * 1024

/** @throws Problem with the line or field as its place. */
export async function readPlanFile(path: string): Promise<Score> {
  const bytes = await readFile(path).catch((error: NodeJS.ErrnoException) => {
    throw new Problem(
      'not-found',
      error.code === 'ENOENT' ? 'There is no such file.' : `The file cannot be read (${error.code}).`,
    )
  })
  return readPlan(bytes, basename(path))
}

/** @param name decides the format and, for a table, the title. */
export function readPlan(bytes: Uint8Array, name: string): Score {
  if (bytes.length > MOST_BYTES) throw new Problem('too-large', 'The plan is larger than 32 MB.')
  const text = decodeUtf8(bytes)
  if (/\.csv$/i.test(name)) return readIntervalTable(text, name.replace(/\.csv$/i, ''))
  if (/\.json$/i.test(name)) return readWorkoutFile(text)
  if (/\.txt$/i.test(name)) return readShorthandFile(text, name)
  throw new Problem(
    'bad-name',
    'Found a name that ends in none of .jivet.json, .score.txt and .csv; a plan is one of the three.',
  )
}

/** A file must be understood whole: what an editor would mark, a command refuses, with its line. */
function readShorthandFile(text: string, name: string): Score {
  const { score, problems } = readShorthand(text.replace(/^\ufeff/, ''))
  const first = problems[0]
  if (first) throw new Problem('bad-document', first.message, `line ${text.slice(0, first.from).split('\n').length}`)
  if (!score.sections.length)
    throw new Problem(
      'empty-plan',
      'No section was found; a plan has at least one, such as "circuit Main: 3 rounds, 40 on, 20 off".',
      'line 1',
    )
  return score.title ? score : { ...score, title: name.replace(/(?:\.score)?\.txt$/i, '') }
}

function decodeUtf8(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    throw new Problem('bad-document', 'The text is not UTF-8. Save it as UTF-8 and try again.')
  }
}
