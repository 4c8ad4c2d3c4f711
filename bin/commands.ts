// The headless commands: each reads its files, calls the core or the engine, and writes data to standard output.
import { readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import { extname } from 'node:path'
import { z } from 'zod'
import type { Score } from '../src/core/score/score'
import { matchReelLogged, refuseOtherPlan } from '../src/core/align/logged'
import { filesInRow } from '../src/core/filesInRow'
import { joinedReel, type ReelFile } from '../src/core/align/reel'
import { describeSync, LEAST_LIKENESS, matchEvidence } from '../src/core/align/sync'
import { tieProblem, type Tie } from '../src/core/align/ties'
import { judge } from '../src/core/check/check'
import { cuesFor } from '../src/core/cue/cues'
import { companionOf } from '../src/core/cut/companion'
import { asPlanned, type ShownSegment } from '../src/core/cut/cut'
import { filmedFrom, FITS, fitted, type Fit, type Fitted } from '../src/core/cut/fit'
import { followed } from '../src/core/cut/follow'
import { inFiles } from '../src/core/cut/spans'
import { byTime, ofKind, type Evidence } from '../src/core/evidence'
import { expand } from '../src/core/expand/expand'
import { performanceOf, readFloorLog, type Performance } from '../src/core/floor/log'
import { readCaptions } from '../src/core/hear/captions'
import { timerBeeps } from '../src/core/hear/timerBeeps'
import { Problem } from '../src/core/problem'
import { readTypedPlan } from '../src/core/read/typedPlan'
import { weightText } from '../src/core/score/formats/station'
import type { Expansion, Segment } from '../src/core/score/segment'
import { printShorthand } from '../src/core/shorthand/print'
import { cueTrack } from '../src/core/sound/track'
import { sum } from '../src/core/sum'
import { formatInstant, formatLength } from '../src/core/time/clock'
import type { Ms } from '../src/core/units'
import { floorTexts } from '../src/core/words/en/floor'
import { whyShown } from '../src/core/words/en/cuts'
import { findingSentence, mendLabel } from '../src/core/words/en/findings'
import { countersOf, nameOf, repsOf } from '../src/core/words/en/names'
import { choiceLabel, planTexts, questionAbout } from '../src/core/words/en/plans'
import { whyTied } from '../src/core/words/en/hearing'
import { WARNINGS } from '../src/core/words/en/problems'
import { texts } from '../src/core/words/en/screens'
import { evidenceText, round2, roundedEvidence } from './told'
import { EXPORTS, type ExportName } from '../src/core/write/exports'
import { writeIntervalTable } from '../src/core/write/intervalTable'
import { LOOK_NAMES, USUAL_LOOK, type LookWish } from '../src/core/look/looks/family'
import { tellOverlay } from '../src/core/write/overlay'
import { writeWav } from '../src/core/write/wav'
import { contentHash } from '../src/engine/contentHash'
import type { Gathered } from '../src/engine/gather'
import { gatherOnce } from '../src/engine/gatherOnce'
import { readPlanFile, readTextFile } from '../src/engine/plan'
import { probeFootage, type FootageFacts } from '../src/engine/probe'
import { renderVideo } from '../src/engine/render'
import type { RecordedFile } from '../src/engine/renderJob'

export class UsageError extends Error {}

interface Options {
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
}
type Command = (files: string[], options: Options) => Promise<void>

const print = (text: string): void => void process.stdout.write(text.endsWith('\n') ? text : `${text}\n`)
const complain = (text: string): void => void process.stderr.write(`${text}\n`)
const printJson = (data: unknown): void => print(JSON.stringify(data, null, 2))

const expandCommand: Command = async (files, options) => {
  const { segments, totalMs, minMs, maxMs, workMs, restMs, estimated, workoutMs } = await expandFile(only(files, 1)[0])
  if (options.csv) return print(writeIntervalTable(segments))
  // What decides a length, and what counters are called, is for editors.
  if (options.json)
    return printJson({
      totalMs,
      minMs,
      maxMs,
      workMs,
      restMs,
      workoutMs,
      estimated,
      segments: segments.map(({ origin: _origin, words: _words, ...segment }) => segment),
    })
  for (const segment of segments)
    print(
      `${formatLength(segment.startMs).padStart(9)}  ${((segment.estimated ? '~' : '') + formatLength(segment.durationMs)).padStart(8)}  ${segment.kind.padEnd(5)}  ${toldOf(segment)}`,
    )
  print(
    `total ${estimated ? 'about ' : ''}${formatLength(totalMs)}${rangeNote(minMs, maxMs)}, work ${formatLength(workMs)}, rest ${formatLength(restMs)}`,
  )
}

/** Name, reps and what is lifted; then where it stands among rounds and stations. */
function toldOf(segment: Segment): string {
  const { weight } = segment
  const where = countersOf(segment).join(', ')
  return `${nameOf(segment)}${repsOf(segment)}${weight ? `, ${weightText(weight)}` : ''}${where ? `  [${where}]` : ''}`
}

/** How far a total may be off, where it holds guesses. */
const rangeNote = (minMs: Ms, maxMs: Ms | null): string =>
  maxMs === null
    ? ` (${formatLength(minMs)} or more)`
    : minMs === maxMs
      ? ''
      : ` (${formatLength(minMs)} to ${formatLength(maxMs)})`

const checkCommand: Command = async (files, options) => {
  const [plan = ''] = only(files, 1)
  const { findings, dismissed } = judge(await naming(plan, readPlanFile(plan)))
  const said = findings.map(({ mend, ...finding }) => ({
    ...finding,
    ...findingSentence(finding.fact),
    mend: mend && mendLabel(mend.fact),
  }))
  if (options.json) {
    printJson({ findings: said, dismissed: dismissed.map(({ finding, reason }) => ({ id: finding.id, reason })) })
  } else {
    for (const { severity, segmentId, sectionKey, what, why, mend } of said) {
      print(`${severity.padEnd(7)}  ${segmentId ?? sectionKey ?? 'whole'}`)
      print(`         ${what}\n         ${why}${mend ? ` Mend: ${mend}.` : ''}`)
    }
    print(said.length ? `${said.length} finding${said.length === 1 ? '' : 's'}` : 'nothing found')
  }
  if (findings.some((finding) => finding.severity === 'error')) process.exitCode = 1
}

const readCommand: Command = async (files, options) => {
  const [file = ''] = only(files, 1)
  const { score, tokens, questions, unmet } = await naming(
    file,
    readTextFile(file).then((text) => readTypedPlan(text)),
  )
  const { totalMs } = expand(score)
  const shorthand = printShorthand(score)
  const asked = questions.map((question) => ({
    about: questionAbout(question),
    choices: question.choices.map(({ label, totalMs: sum, chosen }) => ({
      label: choiceLabel(label),
      totalMs: sum,
      chosen,
    })),
  }))
  if (options.json) {
    const told = tokens.map(({ line, from, to, text, fate, as }) => ({ line: line + 1, from, to, text, fate, as }))
    return printJson({ shorthand, totalMs, tokens: told, questions: asked })
  }
  print(shorthand)
  print(`total ${formatLength(totalMs)}`)
  for (const { about, choices } of asked)
    print(
      `? ${about}: ${choices.map(({ label, totalMs: sum, chosen }) => `${label} ${formatLength(sum)}${chosen ? ' (taken)' : ''}`).join(', or ')}`,
    )
  if (unmet) print(planTexts.unmet(formatLength(unmet.statedMs), formatLength(unmet.totalMs)))
  const unread = tokens.filter(({ fate }) => fate === 'unread')
  if (unread.length)
    print(`not understood: ${unread.map(({ text, line }) => `"${text}" in line ${line + 1}`).join(', ')}`)
}

const cuesCommand: Command = async (files, options) => {
  const { segments } = await expandFile(only(files, 1)[0])
  const cues = cuesFor(asPlanned(segments))
  if (options.json) return printJson({ cues })
  for (const cue of cues) print(`${formatInstant(cue.atMs)}  ${cue.voice.padEnd(6)}  ${cue.segmentId}`)
}

const overlayCommand: Command = async (files, options) => {
  const [plan = ''] = only(files, 1)
  const { score, segments } = await scoreIn(plan)
  const shown = await laneOf(segments, options)
  const states = tellOverlay(shown, score)
  if (options.json) return printJson({ states })
  for (const { fromMs, count, label, side, counters, next, lines } of states)
    print(
      [formatInstant(fromMs), String(count?.value ?? '').padStart(4), label, side ?? '', counters, next, ...lines]
        .filter(Boolean)
        .join('  '),
    )
}

const hearCommand: Command = async (files, options) => {
  const [footage = ''] = only(files, 1)
  const facts = await probed(footage, options.signal)
  const { evidence } = await hearFile({ path: footage, facts }, options.signal)
  const all = [...timerBeeps(ofKind(evidence, 'beep')), ...evidence.filter(({ kind }) => kind !== 'beep')]
    .map(roundedEvidence)
    .sort(byTime)
  if (options.json) return printJson({ footageMs: facts.durationMs, evidence: all })
  for (const one of all) print(`${formatInstant(one.atMs)}  ${one.kind.padEnd(6)}  ${evidenceText(one)}`)
}

const syncCommand: Command = async (files, options) => {
  const { plan, footage } = planAndFootage(files)
  const { segments } = await expandFile(plan)
  const performance = options.log ? await performanceIn(options.log, segments) : null
  const heard = await heardReel(await probedReel(footage, options.signal), options)
  const reel = joinedReel(heard)
  const { footageMs, placeOf } = reel
  const logged = performance && matchReelLogged(segments, performance, heard)
  const { found, likeness, doubtful } = logged ?? matchEvidence(segments, reel)
  const { summary, ...report } = describeSync(segments, found, footageMs)
  const stitches = report.stitches.map(({ alternatives = [], ...one }) => ({
    ...{ ...one, ...placeOf(one.footageMs) },
    alternatives: alternatives.map((rival) => ({ ...rival, ...placeOf(rival.footageMs) })),
    why: whyTied({ ...one, alternatives }),
  }))
  const result = {
    ...{ ...report, stitches, summary: { ...summary, likeness: round2(likeness), doubtful } },
    ...(logged ? { log: { fit: logged.log, gone: logged.gone } } : {}),
  }
  if (options.json) return printJson(result)
  if (likeness < LEAST_LIKENESS) print(texts.sync.unlike)
  else if (doubtful) print(texts.sync.doubtful)
  if (logged) print(floorTexts.logged[logged.log])
  if (logged?.gone.length) print(floorTexts.gone(logged.gone.length))
  for (const stitch of stitches)
    print(
      `${footage.length > 1 ? `${stitch.footage + 1}  ` : ''}${formatInstant(stitch.footageMs)}  ${stitch.confidence.toFixed(2)}  ${stitch.errorMs >= 0 ? '+' : ''}${stitch.errorMs} ms  ${stitch.segmentId} ${stitch.edge}`,
    )
  for (const id of result.missing) print(`missing                ${id}`)
}

const cutCommand: Command = async (files, options) => {
  const { plan, footage } = planAndFootage(files)
  const { segments } = await expandFile(plan)
  const { cut, changes, reused } = await cutOf(segments, footage, options)
  const spans = cut.spans.map((span) => ({ ...span, why: whyShown(span) }))
  if (options.json) return printJson({ outMs: cut.outMs, spans, changes, reused: round2(reused) })
  for (const { source, outMs, fromMs, toMs, segmentId, why } of spans)
    print(
      `${formatInstant(outMs)}  ${typeof source === 'number' && footage.length > 1 ? `${source + 1}  ` : ''}${formatInstant(fromMs)} - ${formatInstant(toMs)}  ${why}  ${segmentId ?? ''}`,
    )
  print(`total ${formatLength(cut.outMs)}`)
}

const renderCommand: Command = async (files, options) => {
  const [plan = '', ...footage] = files
  if (!plan) throw new UsageError('expected a plan')
  const look = lookNamed(options.look)
  const out = await writable(required(options.out, '--out OUT.mp4'), '.mp4')
  const { score, segments } = await scoreIn(plan)
  const { reel, cut, shown } = footage.length
    ? await cutOf(segments, footage, options)
    : { ...companionOf(segments), reel: [] }
  await intoPlace(out, (temporary) =>
    renderVideo({
      ...{
        reel,
        cut,
        shown,
        viewing: { ...score, namesTalk: !reel.length },
        look,
        out: temporary,
        signal: options.signal,
      },
      onProgress: progressOnTerminal('render'),
    }),
  )
}

function lookNamed(name: string = USUAL_LOOK.look): LookWish {
  const look = LOOK_NAMES.find((one) => one === name)
  if (!look) throw new UsageError(`--look ${name} is not known; known are ${LOOK_NAMES.join(', ')}`)
  return { ...USUAL_LOOK, look }
}

const trackCommand: Command = async (files, options) => {
  const { segments, totalMs } = await expandFile(only(files, 1)[0])
  const out = await writable(required(options.out, '--out OUT.wav'), '.wav')
  const rate = 48_000
  await intoPlace(out, async (temporary) =>
    writeFile(temporary, writeWav(cueTrack(cuesFor(asPlanned(segments)), totalMs + 1000, rate), rate)),
  )
}

/** A plan as it is written, and unfolded. */
async function scoreIn(plan: string): Promise<{ score: Score; segments: Segment[] }> {
  const score = await naming(plan, readPlanFile(plan))
  const { segments } = await naming(plan, Promise.resolve(score).then(expand))
  return { score, segments }
}

/** The segments where a sync file has them, else as planned. */
const laneOf = async (segments: Segment[], { sync }: Options): Promise<ShownSegment[]> =>
  sync ? shownFrom(segments, sync) : asPlanned(segments)

const exportCommand: Command = async (files, options) => {
  const [plan = ''] = only(files, 1)
  const { score, segments } = await scoreIn(plan)
  const names = Object.keys(EXPORTS) as ExportName[]
  const format = required(options.as, `--as ${names.join('|')}`)
  const name = names.find((one) => one === format)
  if (!name) throw new UsageError(`--as ${format} is not known; known are ${names.join(', ')}`)
  const lane = await laneOf(segments, options)
  print(EXPORTS[name]({ lane, title: score.title }))
}

export const COMMANDS = {
  expand: expandCommand,
  check: checkCommand,
  read: readCommand,
  cues: cuesCommand,
  overlay: overlayCommand,
  hear: hearCommand,
  sync: syncCommand,
  cut: cutCommand,
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

function planAndFootage([plan = '', ...footage]: string[]): { plan: string; footage: string[] } {
  if (!plan || !footage.length) throw new UsageError('expected 2 files or more')
  return { plan, footage }
}

function fitFrom(fit = 'follow'): Fit {
  const known = FITS.find((one) => one === fit)
  if (!known) throw new UsageError(`--fit ${fit} is not known; known are ${FITS.join(', ')}`)
  return known
}

/** Puts the file's name in front of the place of what is wrong with it. */
async function naming<T>(file: string, work: Promise<T>): Promise<T> {
  return work.catch((error: unknown) => {
    if (!(error instanceof Problem)) throw error
    throw new Problem(error.fact, error.code !== 'tool-failed' && error.place ? `${file}: ${error.place}` : file)
  })
}

const expandFile = (file = ''): Promise<Expansion> => naming(file, readPlanFile(file).then(expand))

const probed = (footage: string, signal: AbortSignal): Promise<FootageFacts> =>
  naming(
    footage,
    probeFootage(footage, signal).catch((error: NodeJS.ErrnoException) => {
      throw error.code === 'ENOENT' ? new Problem({ code: 'no-file' }) : error
    }),
  )

async function probedReel(footage: readonly string[], signal: AbortSignal): Promise<RecordedFile[]> {
  const reel: RecordedFile[] = []
  for (const path of footage) reel.push({ path, facts: await probed(path, signal) })
  return reel
}

async function hearFile({ path, facts }: RecordedFile, signal: AbortSignal): Promise<Gathered> {
  if (facts.audioCodec === null) throw new Problem({ code: 'no-sound' }, path)
  const onProgress = progressOnTerminal('hear')
  const heard = await naming(path, gatherOnce({ path, hash: await contentHash(path) }, facts, { onProgress, signal }))
  if (heard.deaf) complain(heard.deaf.message)
  if (heard.blind) complain(WARNINGS.notWatched)
  return heard
}

/** Before anything is listened to: a record of another plan is of no use. */
const performanceIn = (file: string, segments: readonly Segment[]): Promise<Performance> =>
  naming(
    file,
    readTextFile(file).then((text) => {
      const performance = performanceOf(readFloorLog(text))
      refuseOtherPlan(segments, performance)
      return performance
    }),
  )

const captionsFrom = (file: string): Promise<Evidence[]> => naming(file, readTextFile(file).then(readCaptions))

/** What is heard in each file, in order. */
async function heardReel(reel: readonly RecordedFile[], options: Options): Promise<ReelFile[]> {
  if (options.captions && reel.length > 1) throw new UsageError('captions go with one footage')
  const captions = options.captions ? await captionsFrom(options.captions) : []
  const heard: ReelFile[] = []
  for (const file of reel) {
    const { evidence } = await hearFile(file, options.signal)
    heard.push({ evidence: [...evidence, ...captions].sort(byTime), footageMs: file.facts.durationMs })
  }
  return heard
}

/**
 * The cut of footage, with ties from a file or, without one, from what is heard in it. Where ties come from a file the
 * footage is heard only where a cut wants to know what it may cut through.
 */
async function cutOf(
  segments: readonly Segment[],
  footage: readonly string[],
  options: Options,
): Promise<Fitted & { reel: RecordedFile[] }> {
  const fit = fitFrom(options.fit)
  const reel = await probedReel(footage, options.signal)
  const fileMs = reel.map(({ facts }) => facts.durationMs)
  const silent = reel.some(({ facts }) => facts.audioCodec === null)
  const listens = !silent && (!options.sync || fit !== 'follow')
  const joined = joinedReel(
    listens ? await heardReel(reel, options) : fileMs.map((ms) => ({ evidence: [], footageMs: ms })),
  )
  const ties = options.sync ? await tiesFrom(options.sync, segments, fileMs) : matchEvidence(segments, joined).found
  if (!ties.length) throw new Problem({ code: 'nothing-heard' }, footage.join(', '))
  const made = fitted(filmedFrom(segments, ties, { ...joined, heard: joined.evidence }), { fit })
  return { ...made, cut: inFiles(made.cut, fileMs), reel }
}

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

async function readSync(file: string): Promise<z.infer<typeof syncFileSchema>> {
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
async function tiesFrom(file: string, segments: readonly Segment[], fileMs: readonly Ms[]): Promise<Tie[]> {
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

async function shownFrom(segments: Expansion['segments'], file: string): Promise<ShownSegment[]> {
  const { footageMs } = (await readSync(file)).summary
  return followed(segments, await tiesFrom(file, segments, [footageMs]), footageMs).shown
}

/**
 * @throws UsageError for a name whose ending is not the format's, Problem `not-a-file` where something stands that is
 * no regular file.
 */
async function writable(out: string, ending: string): Promise<string> {
  if (extname(out).toLowerCase() !== ending) throw new UsageError(`--out ${out} has to end in ${ending}`)
  const there = await stat(out).catch(() => null)
  if (there && !there.isFile()) throw new Problem({ code: 'not-a-file' }, out)
  return out
}

/** Writes beside the wanted file and renames, so that a half-written file never bears the name, nor stays. */
async function intoPlace(out: string, write: (temporary: string) => Promise<void>): Promise<void> {
  const temporary = `${out}.part${extname(out)}`
  try {
    await write(temporary)
    await rename(temporary, out)
  } catch (error) {
    await rm(temporary, { force: true })
    throw error
  }
}

function progressOnTerminal(what: string): ((share: number) => void) | undefined {
  if (!process.stderr.isTTY) return undefined
  return (share) => void process.stderr.write(`\r${what} ${Math.round(share * 100)} %${share >= 1 ? '\n' : ''}`)
}
