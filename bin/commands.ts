// The headless commands: each reads its files, calls the core or the engine, and writes data to standard output.
import { readFile, rename, writeFile } from 'node:fs/promises'
import { extname } from 'node:path'
import { z } from 'zod'
import { boundariesOf, type StitchPoint } from '../src/core/align/boundaries'
import { syncByBeeps } from '../src/core/align/sync'
import { judge } from '../src/core/check/check'
import { cuesFor } from '../src/core/cue/cues'
import { lay, layAsPlanned, type LaidSegment } from '../src/core/cut/lane'
import { expand } from '../src/core/expand/expand'
import { timerBeeps } from '../src/core/hear/timerBeeps'
import { Problem } from '../src/core/problem'
import type { Expansion } from '../src/core/score/segment'
import { cueTrack } from '../src/core/sound/track'
import { formatInstant, formatLength } from '../src/core/time/clock'
import { writeChapters } from '../src/core/write/chapters'
import { writeIntervalTable } from '../src/core/write/intervalTable'
import { writeVtt } from '../src/core/write/vtt'
import { writeWav } from '../src/core/write/wav'
import { nameOf } from '../src/core/write/wording'
import { listenTo } from '../src/engine/listen'
import { readPlanFile } from '../src/engine/plan'
import { probeFootage } from '../src/engine/probe'
import { renderVideo } from '../src/engine/render'

export class UsageError extends Error {}

interface Options {
  json?: boolean
  csv?: boolean
  out?: string
  sync?: string
  as?: string
  fit?: string
}
type Command = (files: string[], options: Options) => Promise<void>

const print = (text: string): void => void process.stdout.write(text.endsWith('\n') ? text : `${text}\n`)
const printJson = (data: unknown): void => print(JSON.stringify(data, null, 2))

const expandCommand: Command = async (files, options) => {
  const { segments, totalMs, workMs, restMs, estimated } = await expandFile(only(files, 1)[0])
  if (options.csv) return print(writeIntervalTable(segments))
  // What decides a length, and what counters are called, is for editors.
  if (options.json)
    return printJson({
      totalMs,
      workMs,
      restMs,
      estimated,
      segments: segments.map(({ origin: _origin, words: _words, ...segment }) => segment),
    })
  for (const segment of segments)
    print(
      `${formatLength(segment.startMs).padStart(9)}  ${((segment.estimated ? '~' : '') + formatLength(segment.durationMs)).padStart(8)}  ${segment.kind.padEnd(5)}  ${nameOf(segment)}`,
    )
  print(
    `total ${estimated ? 'about ' : ''}${formatLength(totalMs)}, work ${formatLength(workMs)}, rest ${formatLength(restMs)}`,
  )
}

const checkCommand: Command = async (files, options) => {
  const [plan = ''] = only(files, 1)
  const score = await naming(plan, readPlanFile(plan))
  const { findings, dismissed } = judge(score)
  if (options.json) {
    printJson({
      findings: findings.map(({ mend, ...finding }) => ({ ...finding, mend: mend?.label ?? null })),
      dismissed: dismissed.map(({ finding, reason }) => ({ id: finding.id, reason })),
    })
  } else {
    for (const { severity, segmentId, sectionKey, what, why, mend } of findings)
      print(
        `${severity.padEnd(7)}  ${segmentId ?? sectionKey ?? 'whole'}\n         ${what}\n         ${why}${mend ? ` Mend: ${mend.label}.` : ''}`,
      )
    print(findings.length ? `${findings.length} finding${findings.length === 1 ? '' : 's'}` : 'nothing found')
  }
  if (findings.some((finding) => finding.severity === 'error')) process.exitCode = 1
}

const cuesCommand: Command = async (files, options) => {
  const { segments } = await expandFile(only(files, 1)[0])
  const cues = cuesFor(layAsPlanned(segments))
  if (options.json) return printJson({ cues })
  for (const cue of cues) print(`${formatInstant(cue.atMs)}  ${cue.voice.padEnd(6)}  ${cue.segmentId}`)
}

const hearCommand: Command = async (files, options) => {
  const [footage = ''] = only(files, 1)
  const heard = await hearFile(footage)
  const timers = timerBeeps(heard.beeps)
  const evidence = timers.map(({ atMs, durationMs, hz, strength, boundaryLikelihood }) => ({
    kind: 'beep',
    atMs: Math.round(atMs),
    durationMs: Math.round(durationMs),
    hz: Math.round(hz),
    strength: round2(strength),
    boundaryLikelihood: round2(boundaryLikelihood),
  }))
  if (options.json) return printJson({ footageMs: heard.footageMs, evidence })
  for (const beep of evidence)
    print(
      `${formatInstant(beep.atMs)}  beep  ${beep.hz} Hz  ${beep.durationMs} ms  ${beep.boundaryLikelihood >= 0.5 ? 'change' : 'count'}`,
    )
}

const syncCommand: Command = async (files, options) => {
  const [plan, footage = ''] = only(files, 2)
  const { segments } = await expandFile(plan)
  const heard = await hearFile(footage)
  const result = syncByBeeps(segments, heard.beeps, heard.footageMs)
  if (options.json) return printJson(result)
  for (const stitch of result.stitches)
    print(
      `${formatInstant(stitch.footageMs)}  ${stitch.confidence.toFixed(2)}  ${stitch.errorMs >= 0 ? '+' : ''}${stitch.errorMs} ms  ${stitch.segmentId} ${stitch.edge}`,
    )
  for (const id of result.missing) print(`missing                ${id}`)
}

const renderCommand: Command = async (files, options) => {
  const [plan, footage = ''] = only(files, 2)
  const out = required(options.out, '--out OUT.mp4')
  if (options.fit && options.fit !== 'follow')
    throw new UsageError(`--fit ${options.fit} is not known here; "follow" keeps the footage as filmed`)
  const score = await naming(plan ?? '', readPlanFile(plan ?? ''))
  const { segments } = await naming(plan ?? '', Promise.resolve(score).then(expand))
  const facts = await probed(footage)
  const stitches = options.sync
    ? await stitchesFrom(options.sync)
    : syncByBeeps(segments, facts.audioCodec ? (await listenTo(footage, facts.durationMs)).beeps : [], facts.durationMs)
        .stitches
  if (!stitches.length)
    throw new Problem('not-stitched', `${footage}: no interval was found in the sound. Give --sync FILE.json.`)
  await intoPlace(out, (temporary) =>
    renderVideo({
      footage,
      facts,
      lane: lay(segments, boundariesOf(segments), stitches, facts.durationMs),
      count: score.count,
      out: temporary,
      onProgress: progressOnTerminal('render'),
    }),
  )
}

const trackCommand: Command = async (files, options) => {
  const { segments, totalMs } = await expandFile(only(files, 1)[0])
  const out = required(options.out, '--out OUT.wav')
  const rate = 48_000
  await intoPlace(out, async (temporary) =>
    writeFile(temporary, writeWav(cueTrack(cuesFor(layAsPlanned(segments)), totalMs + 1000, rate), rate)),
  )
}

const exportCommand: Command = async (files, options) => {
  const { segments } = await expandFile(only(files, 1)[0])
  const format = required(options.as, '--as vtt|chapters|csv')
  const lane = options.sync ? await laneFrom(segments, options.sync) : layAsPlanned(segments)
  switch (format) {
    case 'vtt':
      return print(writeVtt(lane))
    case 'chapters':
      return print(writeChapters(lane))
    case 'csv':
      return print(writeIntervalTable(segments))
    default:
      throw new UsageError(`--as ${format} is not known; known are vtt, chapters, csv`)
  }
}

export const COMMANDS = {
  expand: expandCommand,
  check: checkCommand,
  cues: cuesCommand,
  hear: hearCommand,
  sync: syncCommand,
  render: renderCommand,
  track: trackCommand,
  export: exportCommand,
}

function only(files: string[], count: number): string[] {
  if (files.length !== count)
    throw new UsageError(`expected ${count} file${count === 1 ? '' : 's'}, found ${files.length}`)
  return files
}

function required(value: string | undefined, what: string): string {
  if (!value) throw new UsageError(`${what} is needed`)
  return value
}

const round2 = (value: number): number => Math.round(value * 100) / 100

/** Puts the file's name in front of what is wrong with it. */
async function naming<T>(file: string, work: Promise<T>): Promise<T> {
  return work.catch((error: unknown) => {
    if (!(error instanceof Problem)) throw error
    const place = error.code !== 'tool-failed' && error.place ? `: ${error.place}` : ''
    throw new Problem(error.code, `${file}${place}: ${error.message}`)
  })
}

const expandFile = (file = ''): Promise<Expansion> => naming(file, readPlanFile(file).then(expand))

const probed = (footage: string): ReturnType<typeof probeFootage> =>
  naming(
    footage,
    probeFootage(footage).catch((error: NodeJS.ErrnoException) => {
      throw error.code === 'ENOENT' ? new Problem('not-found', 'There is no such file.') : error
    }),
  )

async function hearFile(footage: string): Promise<Awaited<ReturnType<typeof listenTo>> & { footageMs: number }> {
  const facts = await probed(footage)
  if (facts.audioCodec === null)
    throw new Problem('no-sound', `${footage}: this file has no sound, so there is nothing to hear.`)
  return {
    ...(await naming(footage, listenTo(footage, facts.durationMs, { onProgress: progressOnTerminal('hear') }))),
    footageMs: facts.durationMs,
  }
}

const syncFileSchema = z.object({
  stitches: z.array(z.object({ segmentId: z.string(), edge: z.enum(['start', 'end']), footageMs: z.number().min(0) })),
  summary: z.object({ footageMs: z.number().min(0) }),
})

async function readSync(file: string): Promise<z.infer<typeof syncFileSchema>> {
  const text = await readFile(file, 'utf8').catch(() => {
    throw new Problem('not-found', `${file}: there is no such file.`)
  })
  try {
    return syncFileSchema.parse(JSON.parse(text))
  } catch (error) {
    const why =
      error instanceof z.ZodError
        ? `${error.issues[0]?.path.join('.')}: ${error.issues[0]?.message}`
        : (error as Error).message
    throw new Problem('bad-document', `${file}: not the output of "sync --json" (${why}).`)
  }
}

const stitchesFrom = async (file: string): Promise<StitchPoint[]> => (await readSync(file)).stitches

async function laneFrom(segments: Expansion['segments'], file: string): Promise<LaidSegment[]> {
  const { stitches, summary } = await readSync(file)
  return lay(segments, boundariesOf(segments), stitches, summary.footageMs)
}

/** Writes beside the wanted file and renames, so that a half-written file never bears the name. */
async function intoPlace(out: string, write: (temporary: string) => Promise<void>): Promise<void> {
  const temporary = `${out}.part${extname(out)}`
  await write(temporary)
  await rename(temporary, out)
}

function progressOnTerminal(what: string): ((share: number) => void) | undefined {
  if (!process.stderr.isTTY) return undefined
  return (share) => void process.stderr.write(`\r${what} ${Math.round(share * 100)} %${share >= 1 ? '\n' : ''}`)
}
