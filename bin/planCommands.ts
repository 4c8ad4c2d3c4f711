// Commands that need no footage.
import { createHash } from 'node:crypto'
import { writeFile } from 'node:fs/promises'
import { extname } from 'node:path'
import { sessionOf } from '../src/companion/session'
import { judge } from '../src/core/check/check'
import { cuesFor } from '../src/core/cue/cues'
import { USUAL_CUES } from '../src/core/cue/wishes'
import { asPlanned } from '../src/core/cut/cut'
import { expand } from '../src/core/expand/expand'
import { readTypedPlan } from '../src/core/read/typedPlan'
import { weightText } from '../src/core/score/formats/station'
import type { Score } from '../src/core/score/score'
import type { Segment } from '../src/core/score/segment'
import { printShorthand } from '../src/core/shorthand/print'
import { tonesAlone } from '../src/core/sound/tonesAlone'
import { MIX_RATE } from '../src/core/sound/mix'
import { formatInstant, formatLength } from '../src/core/time/clock'
import type { Ms } from '../src/core/units'
import { findingSentence, mendLabel } from '../src/core/words/en/findings'
import { countersOf, nameOf, repsOf } from '../src/core/words/en/names'
import { choiceLabel, planTexts, questionAbout } from '../src/core/words/en/plans'
import { EXPORTS, type ExportName } from '../src/core/write/exports'
import { calendarSchema, writeCalendar, type CalendarSession } from '../src/core/write/calendar'
import { writeWorkoutFile } from '../src/core/write/workoutFile'
import { writeIntervalTable } from '../src/core/write/intervalTable'
import { tellOverlay } from '../src/core/write/overlay'
import { writeWav } from '../src/core/write/wav'
import { companionPage } from '../src/engine/companionPage'
import { encodeSound } from '../src/engine/encodeSound'
import { readPlanFile, readTextFile } from '../src/engine/plan'
import {
  UsageError,
  expandFile,
  intoPlace,
  laneOf,
  naming,
  oneOf,
  only,
  print,
  printJson,
  rateFrom,
  required,
  scoreIn,
  writable,
  type Command,
} from './call'

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
  const cues = cuesFor(asPlanned(segments)).map(({ id, rule, segmentId, atMs, sound, line }) => ({
    ...{ id, rule, segmentId, atMs, voice: sound, line },
  }))
  if (options.json) return printJson({ cues })
  for (const { atMs, voice, line, segmentId } of cues)
    print(`${formatInstant(atMs)}  ${(voice ?? 'said').padEnd(7)}  ${line ?? segmentId}`)
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

const trackCommand: Command = async (files, options) => {
  const { segments, totalMs } = await expandFile(only(files, 1)[0])
  const out = await writable(required(options.out, '--out OUT.wav'), '.wav', '.flac', '.mp3')
  await intoPlace(out, async (temporary) =>
    encodeSound(writeWav(tonesAlone(asPlanned(segments), totalMs + TAIL_MS), MIX_RATE), temporary),
  )
}

const companionCommand: Command = async (files, options) => {
  const { score, segments } = await scoreIn(only(files, 1)[0] ?? '')
  const out = await writable(required(options.out, '--out OUT.html'), '.html')
  const page = await companionPage(sessionOf(score, segments, USUAL_CUES))
  await intoPlace(out, (temporary) => writeFile(temporary, page))
}

/** The last sound is heard to its end. */
const TAIL_MS = 1000

const exportCommand: Command = async (files, options) => {
  const [plan = ''] = only(files, 1)
  const { score, segments } = await scoreIn(plan)
  const names = Object.keys(EXPORTS) as ExportName[]
  const name = oneOf('--as', required(options.as, `--as ${names.join('|')}`), names)
  const lane = await laneOf(segments, options)
  print(EXPORTS[name]({ lane, score, title: score.title, rate: rateFrom(options.rate) }))
}

const calendarCommand: Command = async (files, options) => {
  if (!files.length) throw new UsageError('expected a plan, or several')
  const wish = calendarSchema.safeParse({
    from: required(options.from, '--from 2026-12-01T07:00'),
    every: options.every,
  })
  if (!wish.success)
    throw new UsageError(
      `--${wish.error.issues[0]?.path.join('') ?? 'from'} is wrong: e.g. --from 2026-12-01T07:00 --every 2`,
    )
  const plans = await Promise.all(files.map(scoreIn))
  const sessions = plans.map(({ score: { title }, totalMs }): CalendarSession => {
    const id = createHash('sha1').update(title).digest('hex')
    return { id, title, lengthMs: totalMs }
  })
  const [first] = plans
  const name = (plans.length > 1 ? first?.score.series.name : first?.score.title) ?? ''
  print(writeCalendar(sessions, wish.data, { name, writtenMs: Date.now() }))
}

const PLAN_FORMATS: readonly [ending: string, write: (score: Score) => string][] = [
  ['.jivet.json', writeWorkoutFile],
  ['.score.txt', printShorthand],
  ['.csv', (score) => writeIntervalTable(expand(score).segments)],
]

const convertCommand: Command = async (files) => {
  const [plan = '', to = ''] = only(files, 2)
  const format = PLAN_FORMATS.find(([ending]) => to.toLowerCase().endsWith(ending))
  if (!format) throw new UsageError(`a plan is written to ${PLAN_FORMATS.map(([ending]) => ending).join(', ')}`)
  const { score } = await scoreIn(plan)
  const out = await writable(to, extname(to).toLowerCase())
  await intoPlace(out, (temporary) => writeFile(temporary, format[1](score)))
}

export const PLAN_COMMANDS = {
  convert: convertCommand,
  expand: expandCommand,
  check: checkCommand,
  read: readCommand,
  cues: cuesCommand,
  overlay: overlayCommand,
  track: trackCommand,
  companion: companionCommand,
  calendar: calendarCommand,
  export: exportCommand,
}
