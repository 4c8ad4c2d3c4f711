// How well changes are found, and how honest the confidence is: simulated takes, heard by the real listeners and
// matched by the real model, against their truth. Writes docs/accuracy.md.
//   tsx bench/accuracy.ts [tune|test] [takes of each class] [class]
// Every class is measured in a process of its own, as many at a time as the machine has processors. With a folder as
// KEPT, what was heard of a take is kept there and not heard again: the bench goes on where it was ended, and what
// changes in matching alone is measured in a minute.
import { execFile } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { SURE } from '../src/core/align/ties'
import { BOUND_MS, isRight, judge, type Outcome } from '../demo/takes/judge'
import { KINDS, type KindName, type Split } from '../demo/takes/takes'
import { heardTake } from './heard'

const [split = 'test', each = '4', only, asData] = process.argv.slice(2)
const percent = (part: number, whole: number): string => (whole ? `${((100 * part) / whole).toFixed(1)} %` : '-')
const at = (sorted: readonly number[], share: number): string => {
  const value = sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]
  return value === undefined ? '-' : value.toFixed(0)
}

interface Measured extends Outcome {
  name: string
  minutes: number
  hearS: number
}

function rowOf(name: string, outcomes: readonly Measured[]): string {
  const ties = outcomes.flatMap((one) => one.ties)
  const changes = outcomes.reduce((sum, one) => sum + one.changes, 0)
  const errors = ties
    .filter(isRight)
    .flatMap(({ errorMs }) => errorMs ?? [])
    .sort((one, other) => one - other)
  const sure = ties.filter(({ confidence }) => confidence >= SURE)
  const wrong = sure.filter((one) => !isRight(one)).length
  const minutes = outcomes.reduce((sum, one) => sum + one.minutes, 0)
  const cpu = outcomes.reduce((sum, one) => sum + one.hearS + one.matchS, 0)
  return `| ${name} | ${outcomes.length} | ${changes} | ${percent(errors.length, changes)} | ${at(errors, 0.5)} | ${at(errors, 0.9)} | ${at(errors, 1)} | ${sure.length} | ${wrong} | ${percent(wrong, sure.length)} | ${(cpu / minutes).toFixed(2)} |`
}

async function measure(kind: KindName): Promise<Measured[]> {
  const measured: Measured[] = []
  for (let number = 0; number < Number(each); number++) {
    const heard = await heardTake(kind, split as Split, number)
    const { hearS, take } = heard
    measured.push({ ...judge(heard), hearS, name: take.name, minutes: take.played.footageMs / 60_000 })
  }
  return measured
}

const run = promisify(execFile)
async function measureApart(kind: KindName): Promise<Measured[]> {
  const here = ['--import', 'tsx', import.meta.filename, split, each, kind, 'data']
  const { stdout } = await run(process.execPath, here, { maxBuffer: 2 ** 28 })
  return JSON.parse(stdout) as Measured[]
}

const kinds = (Object.keys(KINDS) as KindName[]).filter((kind) => !only || kind.startsWith(only))
if (asData) {
  process.stdout.write(JSON.stringify(await measure(only as KindName)))
  process.exit()
}
const measured = new Map<KindName, Measured[]>()
const waiting = [...kinds]
const worker = async (): Promise<void> => {
  for (let kind = waiting.shift(); kind; kind = waiting.shift()) {
    const own = await measureApart(kind)
    measured.set(kind, own)
    process.stdout.write(`${rowOf(kind, own)}\n`)
    if (!only) continue
    for (const { name, minutes, ties, changes } of own) {
      const sure = ties.filter(({ confidence }) => confidence >= SURE)
      const wrong = sure.filter((one) => !isRight(one)).length
      process.stdout.write(
        `  ${name}: ${changes} changes, ${ties.length} ties, ${sure.length} sure, ${wrong} falsely; ${Math.round(minutes * 60)} s\n`,
      )
    }
  }
}
await Promise.all(Array.from({ length: availableParallelism() }, worker))
const outcomes = kinds.flatMap((kind) => measured.get(kind) ?? [])
const rows = [...kinds.map((kind) => rowOf(kind, measured.get(kind) ?? [])), rowOf('**all**', outcomes)]

const STEPS = [0.5, 0.6, 0.7, 0.8, 0.9, 0.95, 0.99, 1.01]
const all = outcomes.flatMap((one) => one.ties)
const curve = STEPS.slice(0, -1).map((from, index) => {
  const to = STEPS[index + 1] ?? 1
  const held = all.filter(({ confidence }) => confidence >= from && confidence < to)
  const said = held.reduce((sum, one) => sum + one.confidence, 0) / Math.max(1, held.length)
  return `| ${from.toFixed(2)} to ${Math.min(1, to).toFixed(2)} | ${held.length} | ${held.length ? percent(said, 1) : '-'} | ${percent(held.filter(isRight).length, held.length)} |`
})
const report = `# How well changes are found

Measured on simulated takes, ${each} of each class: \`npx tsx bench/accuracy.ts ${split} ${each}\`. Sound, plans, pitches, tunes, rooms and voices are made by \`demo/takes\`; the split "tune" is what numbers in the code were chosen by, but for what earlier tables of "test" showed: that ten pitches are tried and not six; that calls which are all of one kind have a rival of their own (two wrong ties in "a chime"); that overtones count together with their pitch as one regular chime (five); that pitches within 1.2 % are one (told apart more finely, three ties under music were sure and wrong); that a session in doubt keeps its ties, none of them sure, instead of being refused (it cost 16 % of "beeps under music"); and that of three trained networks the one ships that heard most calls and imagined fewest in twelve takes of voices. A change counts where a tone that could be heard marked it, or somebody called it; it is found where it is tied within ${BOUND_MS.tone} ms of its truth where a tone marks it and within ${BOUND_MS.call} ms where only a call does; a tie is sure from ${SURE} on, and falsely sure where it is further off, or where the change never came.

| class | takes | changes | found | median, ms | nine in ten, ms | worst of the found, ms | sure ties | falsely sure | share | CPU seconds a minute |
|---|---|---|---|---|---|---|---|---|---|---|
${rows.join('\n')}

What is said against what is so:

| confidence | ties | said | right |
|---|---|---|---|
${curve.join('\n')}

Voices, calls, sentences, music and rooms of this split were heard by no training; English is spoken by flite's slt and rms and by espeak-ng, all other languages by throats of espeak-ng that training did not hear. No person's voice is among them. Where somebody taps, the tapped change itself is not counted. Chirps lie 10 dB below speech and music and went through a simulated phone: loudspeaker, room, microphone and AAC at 64 kbit/s. Takes have no picture: movement says nothing here. CPU seconds were taken while other work went on.
`
process.stdout.write(`\n${curve.join('\n')}\n`)
if (!only) writeFileSync(join(import.meta.dirname, '../docs/accuracy.md'), report)
