// Commands that hear, tie, cut and render footage.
import { existsSync } from 'node:fs'
import { mkdtemp, rename, rm } from 'node:fs/promises'
import { basename, extname, join } from 'node:path'
import { matchReelLogged, refuseOtherPlan } from '../src/core/align/logged'
import { joinedReel, type ReelFile } from '../src/core/align/reel'
import { describeSync, LEAST_LIKENESS, matchEvidence } from '../src/core/align/sync'
import { companionOf } from '../src/core/cut/companion'
import { inReel, placedEdits, type Edit } from '../src/core/cut/edited'
import { filmedFrom, FITS, fitted, type Fit, type Fitted } from '../src/core/cut/fit'
import { readEditList } from '../src/core/read/editList'
import { inFiles } from '../src/core/cut/spans'
import { byTime, ofKind, type Evidence } from '../src/core/evidence'
import { performanceOf, readFloorLog, type Performance } from '../src/core/floor/log'
import { readCaptions } from '../src/core/hear/captions'
import { timerBeeps } from '../src/core/hear/timerBeeps'
import { Problem } from '../src/core/problem'
import type { Segment } from '../src/core/score/segment'
import { shownOf } from '../src/core/render/made'
import { PURPOSES, USUAL_PURPOSE } from '../src/core/render/purpose'
import type { Share } from '../src/core/units'
import { formatInstant, formatLength } from '../src/core/time/clock'
import { floorTexts } from '../src/core/words/en/floor'
import { whyShown } from '../src/core/words/en/cuts'
import { whyTied } from '../src/core/words/en/hearing'
import { WARNINGS } from '../src/core/words/en/problems'
import { texts } from '../src/core/words/en/screens'
import { evidenceText, round2, roundedEvidence } from './told'
import { SHAPE_NAMES } from '../src/core/cut/framing'
import { overlayChanges } from '../src/core/look/overlay'
import { USUAL_MIX } from '../src/core/sound/mix'
import { faultText, verifiedText } from '../src/core/words/en/verify'
import { soundPlan } from '../src/engine/renderSound'
import { verifyVideo } from '../src/engine/verify'
import { LOOK_NAMES, USUAL_LOOK, type LookWish } from '../src/core/look/looks/family'
import { cacheFolder } from '../src/engine/cache'
import { ChunkStore } from '../src/engine/chunkStore'
import { contentHash } from '../src/engine/contentHash'
import type { Gathered } from '../src/engine/gather'
import { gatherOnce } from '../src/engine/gatherOnce'
import { encoderFor } from '../src/engine/hardware'
import { readTextFile } from '../src/engine/plan'
import { readMadeBox } from '../src/engine/madeBox'
import { probeFootage, type FootageFacts } from '../src/engine/probe'
import { renderVideo } from '../src/engine/render'
import { DRAWN, type PictureJob, type RecordedFile } from '../src/engine/renderJob'
import { OVERLAY_ENDINGS, writeOverlay, writeOverlayPictures } from '../src/engine/overlayAlone'
import {
  UsageError,
  complain,
  expandFile,
  followedFrom,
  intoPlace,
  naming,
  oneOf,
  only,
  print,
  printJson,
  progressOnTerminal,
  rateFrom,
  required,
  scoreIn,
  tiesFrom,
  writable,
  type Command,
  type Options,
} from './call'

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
  const framing = { shape: oneOf('--shape', options.shape ?? 'filmed', SHAPE_NAMES), aims: [] }
  const purpose = oneOf('--for', options.for ?? USUAL_PURPOSE, PURPOSES)
  if (options.only !== undefined && options.only !== 'overlay')
    throw new UsageError(`--only ${options.only} is not known; known is overlay`)
  const out = await (options.only ? overlayOut(options.out) : writable(required(options.out, '--out OUT.mp4'), '.mp4'))
  const { score, segments } = await scoreIn(plan)
  const { reel, cut, shown } = footage.length
    ? await cutOf(segments, footage, options)
    : { ...companionOf(segments), reel: [] }
  const viewing = { ...score, namesTalk: !reel.length }
  const job = { reel, cut, shown, look, viewing, framing, purpose, encoder: await encoderFor(purpose) }
  const { signal } = options
  const onProgress = progressOnTerminal('render')
  if (options.only) return renderOverlay(job, out, { signal, ...(onProgress ? { onProgress } : {}) })
  const store = new ChunkStore(cacheFolder('chunks'), KEPT_BYTES)
  await intoPlace(out, async (temporary) => {
    await renderVideo({ ...job, out: temporary, signal, onProgress }, { store })
  })
  await store.sweep()
}

/** A video's name, or that of a folder that is not there yet. */
async function overlayOut(wanted: string | undefined): Promise<string> {
  const out = required(wanted, '--out OUT.mov, OUT.webm or FOLDER')
  if (extname(out)) return writable(out, ...OVERLAY_ENDINGS.map((ending) => `.${ending}`))
  if (existsSync(out)) throw new Problem({ code: 'there-already' }, out)
  return out
}

async function renderOverlay(
  job: PictureJob,
  out: string,
  about: { signal: AbortSignal; onProgress?: (share: Share) => void },
): Promise<void> {
  // Beside what is written, so that its pictures need not be copied.
  const folder = await mkdtemp(`${out}.part-`)
  try {
    const begun = join(folder, basename(out))
    const ending = OVERLAY_ENDINGS.find((one) => extname(out).toLowerCase() === `.${one}`)
    if (ending) await writeOverlay(job, ending, { out: begun, ...about })
    else await writeOverlayPictures(job, { out: begun, folder, ...about })
    await rename(begun, out)
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** Of what was rendered, for the next render of nearly the same. */
const KEPT_BYTES = 2e9

const verifyCommand: Command = async (files, options) => {
  const [video = '', plan = ''] = only(files, 2)
  const { score, segments } = await scoreIn(plan)
  const { durationMs } = await probed(video, options.signal)
  const { cut, shown, look, mix, namesTalk, cueAsk } = await naming(video, madeWith(video, segments, options))
  const viewing = { ...score, namesTalk }
  const job = { reel: [], cut, shown, viewing, look, mix: { ...mix, music: USUAL_MIX.music }, out: '' }
  const { cues, heard } = await soundPlan({ ...job, cueAsk: { ...cueAsk, moves: score.moves } }, options.signal)
  const expected = { cut, changes: overlayChanges(shown, viewing), look, cues, heard, mix }
  const told = await naming(video, verifyVideo(video, expected, options.signal))
  if (!told.ok) process.exitCode = 1
  if (options.json)
    return printJson({
      ...told,
      videoMs: durationMs,
      faults: told.faults.map((one) => ({ ...one, text: faultText(one) })),
    })
  print(verifiedText(told))
  for (const fault of told.faults) print(faultText(fault))
}

/** What a video was made with: as it says itself, or, where that is lost or overruled, as the options say. */
async function madeWith(video: string, segments: Segment[], options: Options) {
  const { sync, look } = options
  const made = sync === undefined && look === undefined ? await readMadeBox(video) : null
  if (made) {
    const cueAsk = { coach: made.coach, timer: made.timer, ...(made.cues ? { wishes: made.cues } : {}) }
    // Without footage the plan alone says how long all is.
    const isDrawn = made.cut.spans.every(({ why }) => why === 'card')
    return { ...made, ...(isDrawn ? companionOf(segments) : { shown: shownOf(made, segments) }), cueAsk }
  }
  const { cut, shown } = sync ? await followedFrom(segments, sync) : companionOf(segments)
  return { cut, shown, look: lookNamed(look), mix: USUAL_MIX, namesTalk: !sync, cueAsk: {} }
}

function lookNamed(name: string = USUAL_LOOK.look): LookWish {
  return { ...USUAL_LOOK, look: oneOf('--look', name, LOOK_NAMES) }
}

function planAndFootage([plan = '', ...footage]: string[]): { plan: string; footage: string[] } {
  if (!plan || !footage.length) throw new UsageError('expected 2 files or more')
  return { plan, footage }
}

/** What an edit list makes of the reel, in its own time. */
async function editsIn(
  file: string,
  { footage, reel, options }: { footage: readonly string[]; reel: readonly RecordedFile[]; options: Options },
): Promise<Edit[]> {
  const rate = options.rate ? rateFrom(options.rate) : (reel[0]?.facts.rate ?? DRAWN.rate)
  const names = footage.map((path) => basename(path))
  const fileMs = reel.map(({ facts }) => facts.durationMs)
  const read = async (): Promise<Edit[]> =>
    inReel(placedEdits(readEditList(await readTextFile(file), file, rate), { names, fileMs }), fileMs)
  return naming(file, read())
}

/** Fits that need no edit list. */
const OWN_FITS = FITS.filter((fit) => fit !== 'edited')

const fitFrom = ({ fit = 'follow', edits }: Options): Fit => (edits ? 'edited' : oneOf('--fit', fit, OWN_FITS))

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
  const fit = fitFrom(options)
  const reel = await probedReel(footage, options.signal)
  const fileMs = reel.map(({ facts }) => facts.durationMs)
  const silent = reel.some(({ facts }) => facts.audioCodec === null)
  const listens = !silent && (!options.sync || fit !== 'follow')
  const joined = joinedReel(
    listens ? await heardReel(reel, options) : fileMs.map((ms) => ({ evidence: [], footageMs: ms })),
  )
  const ties = options.sync ? await tiesFrom(options.sync, segments, fileMs) : matchEvidence(segments, joined).found
  if (!ties.length)
    throw options.sync
      ? new Problem({ code: 'no-ties-in-file' }, options.sync)
      : new Problem({ code: 'nothing-heard' }, footage.join(', '))
  const edits = options.edits ? await editsIn(options.edits, { footage, reel, options }) : []
  const made = fitted(filmedFrom(segments, ties, { ...joined, heard: joined.evidence, edits }), { fit })
  return { ...made, cut: inFiles(made.cut, fileMs), reel }
}

export const FOOTAGE_COMMANDS = {
  hear: hearCommand,
  sync: syncCommand,
  cut: cutCommand,
  render: renderCommand,
  verify: verifyCommand,
}
