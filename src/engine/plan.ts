// Reads a plan from a file: workout file, shorthand, interval table, or a plan as it is typed, told apart by the name's
// ending.
import { readFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { Problem } from '../core/problem'
import { readIntervalTable } from '../core/read/intervalTable'
import { readTypedPlan } from '../core/read/typedPlan'
import { readWorkoutFile } from '../core/read/workoutFile'
import type { Score } from '../core/score/score'
import { readShorthand } from '../core/shorthand/read'
import { shorthandSentence } from '../core/words/en/shorthand'

const MOST_BYTES = 32 * 1024 * 1024

/** @throws Problem with the line or field as its place. */
export async function readPlanFile(path: string): Promise<Score> {
  return readPlan(await bytesOf(path), basename(path))
}

const bytesOf = (path: string): Promise<Uint8Array> =>
  readFile(path).catch((error: NodeJS.ErrnoException) => {
    throw new Problem(
      error.code === 'ENOENT' ? { code: 'no-file' } : { code: 'unreadable-file', reason: String(error.code) },
    )
  })

/** @param name decides the format and, for a table, the title. */
export function readPlan(bytes: Uint8Array, name: string): Score {
  if (bytes.length > MOST_BYTES) throw new Problem({ code: 'too-large', megabytes: 32 })
  const text = decodeUtf8(bytes)
  if (/\.csv$/i.test(name)) return readIntervalTable(text, name.replace(/\.csv$/i, ''))
  if (/\.json$/i.test(name)) return readWorkoutFile(text)
  if (/\.score\.txt$/i.test(name)) return readShorthandFile(text, name)
  if (/\.txt$/i.test(name)) return readTypedFile(text, name)
  throw new Problem({ code: 'bad-name' })
}

/** A file must be understood whole: what an editor would mark, a command refuses, with its line. */
function readShorthandFile(text: string, name: string): Score {
  const { score, problems } = readShorthand(text.replace(/^\ufeff/, ''))
  const first = problems[0]
  if (first)
    throw new Problem(
      { code: 'not-understood', problem: shorthandSentence(first) },
      `line ${text.slice(0, first.from).split('\n').length}`,
    )
  if (!score.sections.length) throw new Problem({ code: 'empty-plan', why: 'no-section' }, 'line 1')
  return score.title ? score : { ...score, title: name.replace(/(?:\.score)?\.txt$/i, '') }
}

/** A plan typed as in a description; where `read` would ask, the likelier choice is taken. */
function readTypedFile(text: string, name: string): Score {
  const { score } = readTypedPlan(text.replace(/^\ufeff/, ''))
  if (!score.sections.length) throw new Problem({ code: 'empty-plan', why: 'no-section' }, 'line 1')
  return score.title ? score : { ...score, title: name.replace(/\.txt$/i, '') }
}

/** The text of a file that holds a typed plan. */
export async function readTextFile(path: string): Promise<string> {
  return decodeUtf8(await bytesOf(path)).replace(/^\ufeff/, '')
}

function decodeUtf8(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    throw new Problem({ code: 'not-utf8' })
  }
}
