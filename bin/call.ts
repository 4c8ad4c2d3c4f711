// What all commands share: their options, how they speak, and how they read a plan and ties and write a file.
import { readFile, rename, rm, stat } from 'node:fs/promises'
import { extname } from 'node:path'
import { z } from 'zod'
import type { Score } from '../src/core/score/score'
import { filesInRow } from '../src/core/filesInRow'
import { tieProblem, type Tie } from '../src/core/align/ties'
import { asPlanned, type ShownSegment } from '../src/core/cut/cut'
import { followed } from '../src/core/cut/follow'
import { expand } from '../src/core/expand/expand'
import { Problem } from '../src/core/problem'
import type { Expansion, Segment } from '../src/core/score/segment'
import { sum } from '../src/core/sum'
import type { Ms, Rate } from '../src/core/units'
import { readPlanFile } from '../src/engine/plan'

export class UsageError extends Error {}

export interface Options {
  /** Ends the command before its time: nothing of it stays. */
  signal: AbortSignal
  json?: boolean
  csv?: boolean
  out?: string
  sync?: string
  captions?: string
  log?: string
  as?: string
  fit?: string
  look?: string
  shape?: string
  for?: string
  only?: string
  edits?: string
  from?: string
  every?: string
  /** Frames a second. */
  rate?: string
}
export type Command = (files: string[], options: Options) => Promise<void>

export const print = (text: string): void => void process.stdout.write(text.endsWith('\n') ? text : `${text}\n`)
export const complain = (text: string): void => void process.stderr.write(`${text}\n`)
export const printJson = (data: unknown): void => print(JSON.stringify(data, null, 2))

export function only(files: string[], count: number): string[] {
  if (files.length !== count)
    throw new UsageError(`expected ${count} file${count === 1 ? '' : 's'}, found ${files.length}`)
  return files
}

/** @param option as it is typed. */
export function oneOf<Name extends string>(option: string, given: string, known: readonly Name[]): Name {
  const name = known.find((one) => one === given)
  if (!name) throw new UsageError(`${option} ${given} is not known; known are ${known.join(', ')}`)
  return name
}

export function required(value: string | undefined, what: string): string {
  if (!value) throw new UsageError(`${what} is needed`)
  return value
}

/** Puts the file's name in front of the place of what is wrong with it. */
export async function naming<T>(file: string, work: Promise<T>): Promise<T> {
  return work.catch((error: unknown) => {
    if (!(error instanceof Problem)) throw error
    throw new Problem(error.fact, error.code !== 'tool-failed' && error.place ? `${file}: ${error.place}` : file)
  })
}

export const expandFile = (file = ''): Promise<Expansion> => naming(file, readPlanFile(file).then(expand))

/** A plan as it is written, and unfolded. */
export async function scoreIn(plan: string): Promise<Expansion & { score: Score }> {
  const score = await naming(plan, readPlanFile(plan))
  return { score, ...(await naming(plan, Promise.resolve(score).then(expand))) }
}

/** The segments where a sync file has them, else as planned. */
export const laneOf = async (segments: Segment[], { sync }: Options): Promise<ShownSegment[]> =>
  sync ? (await followedFrom(segments, sync)).shown : asPlanned(segments)

const syncFileSchema = z.object({
  stitches: z.array(
    z.object({
      segmentId: z.string(),
      edge: z.enum(['start', 'end']),
      /** Index of the file. */
      footage: z.number().int().min(0).default(0),
      footageMs: z.number().min(0),
    }),
  ),
  summary: z.object({ footageMs: z.number().min(0) }),
})

export async function readSync(file: string): Promise<z.infer<typeof syncFileSchema>> {
  const text = await readFile(file, 'utf8').catch(() => {
    throw new Problem({ code: 'no-file' }, file)
  })
  try {
    return syncFileSchema.parse(JSON.parse(text))
  } catch (error) {
    const issue = error instanceof z.ZodError ? error.issues[0] : null
    const reason = issue ? `${issue.path.join('.')}: ${issue.message}` : (error as Error).message
    throw new Problem({ code: 'not-sync-file', reason }, file)
  }
}

/**
 * Ties in the time of the whole reel. Ties of another plan or of a file that is not there, and ties that cannot hold
 * together, are refused.
 */
export async function tiesFrom(file: string, segments: readonly Segment[], fileMs: readonly Ms[]): Promise<Tie[]> {
  const { stitches } = await readSync(file)
  const known = new Set(segments.map(({ id }) => id))
  const foreign = stitches.find(({ segmentId }) => !known.has(segmentId))
  if (foreign) throw new Problem({ code: 'sync-of-other-plan', segmentId: foreign.segmentId }, file)
  const beyond = stitches.find(({ footage }) => footage >= fileMs.length)
  if (beyond) throw new Problem({ code: 'sync-of-other-reel', number: beyond.footage + 1, files: fileMs.length }, file)
  const { beginMs } = filesInRow(fileMs)
  const ties = stitches.map(({ footage, ...tie }) => ({ ...tie, footageMs: tie.footageMs + (beginMs[footage] ?? 0) }))
  const wrong = tieProblem(segments, ties, sum(fileMs))
  if (wrong) throw new Problem(wrong, file)
  return ties
}

/** One footage as it was filmed, by the ties of a sync file. */
export async function followedFrom(
  segments: Expansion['segments'],
  file: string,
): Promise<ReturnType<typeof followed>> {
  const { footageMs } = (await readSync(file)).summary
  return followed(segments, await tiesFrom(file, segments, [footageMs]), footageMs)
}

/**
 * @throws UsageError for a name whose ending is not the format's, Problem `not-a-file` where something stands that is
 * no regular file.
 */
export async function writable(out: string, ...endings: string[]): Promise<string> {
  if (!endings.includes(extname(out).toLowerCase()))
    throw new UsageError(`--out ${out} has to end in ${endings.join(' or ')}`)
  const there = await stat(out).catch(() => null)
  if (there && !there.isFile()) throw new Problem({ code: 'not-a-file' }, out)
  return out
}

/** Writes beside the wanted file and renames, so that a half-written file never bears the name, nor stays. */
export async function intoPlace(out: string, write: (temporary: string) => Promise<void>): Promise<void> {
  const temporary = `${out}.part${extname(out)}`
  try {
    await write(temporary)
    await rename(temporary, out)
  } catch (error) {
    await rm(temporary, { force: true })
    throw error
  }
}

export function progressOnTerminal(what: string): ((share: number) => void) | undefined {
  if (!process.stderr.isTTY) return undefined
  return (share) => void process.stderr.write(`\r${what} ${Math.round(share * 100)} %${share >= 1 ? '\n' : ''}`)
}

/** "25" or "30000/1001". */
export function rateFrom(text = '30'): Rate {
  const [, num = 0, den = 1] = /^(\d{1,6})(?:\/(\d{1,5}))?$/.exec(text)?.map(Number) ?? []
  const rate = { num, den: Number.isNaN(den) ? 1 : den }
  const perSecond = rate.num / rate.den
  if (!(perSecond >= 1 && perSecond <= 240))
    throw new UsageError(`--rate ${text} is no frame rate; e.g. 25 or 30000/1001`)
  return rate
}
