// How well changes are found, and how honest the confidence is: simulated takes, heard by the real listeners and
// matched by the real model, against their truth. Writes docs/accuracy.md.
//   tsx bench/accuracy.ts [tune|test] [takes of each class] [class]
import { writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { SURE } from '../src/core/align/ties'
import { BOUND_MS, isRight, judgeTake, type Outcome } from '../demo/takes/judge'
import { KINDS, makeTake, type KindName, type Split } from '../demo/takes/takes'

const [split = 'test', each = '4', only] = process.argv.slice(2)
const folder = join(tmpdir(), 'jivet-spoken')
const percent = (part: number, whole: number): string => (whole ? `${((100 * part) / whole).toFixed(1)} %` : '-')
const at = (sorted: readonly number[], share: number): string => {
  const value = sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]
  return value === undefined ? '-' : value.toFixed(0)
}

function rowOf(name: string, outcomes: readonly Outcome[]): string {
  const ties = outcomes.flatMap((one) => one.ties)
  const changes = outcomes.reduce((sum, one) => sum + one.changes, 0)
  const errors = ties
    .filter(isRight)
    .flatMap(({ errorMs }) => errorMs ?? [])
    .sort((one, other) => one - other)
  const sure = ties.filter(({ confidence }) => confidence >= SURE)
  const wrong = sure.filter((one) => !isRight(one)).length
  const minutes = outcomes.reduce((sum, { take }) => sum + take.played.footageMs / 60_000, 0)
  const cpu = outcomes.reduce((sum, one) => sum + one.hearS + one.matchS, 0)
  return `| ${name} | ${outcomes.length} | ${changes} | ${percent(errors.length, changes)} | ${at(errors, 0.5)} | ${at(errors, 0.9)} | ${at(errors, 1)} | ${sure.length} | ${wrong} | ${percent(wrong, sure.length)} | ${(cpu / minutes).toFixed(2)} |`
}

const outcomes: Outcome[] = []
const rows: string[] = []
for (const kind of Object.keys(KINDS) as KindName[]) {
  if (only && !kind.startsWith(only)) continue
  const own: Outcome[] = []
  for (let number = 0; number < Number(each); number++)
    own.push(await judgeTake(makeTake(kind, split as Split, number, folder)))
  outcomes.push(...own)
  rows.push(rowOf(kind, own))
  process.stdout.write(`${rows.at(-1) ?? ''}\n`)
  if (only)
    for (const { take, ties, changes } of own) {
      const sure = ties.filter(({ confidence }) => confidence >= SURE)
      process.stdout.write(
        `  ${take.name}: ${changes} changes, ${ties.length} ties, ${sure.length} sure, ${sure.filter((one) => !isRight(one)).length} falsely; ${Math.round(take.played.footageMs / 1000)} s\n`,
      )
    }
}
rows.push(rowOf('**all**', outcomes))

const STEPS = [0.5, 0.6, 0.7, 0.8, 0.9, 0.95, 0.99, 1.01]
const all = outcomes.flatMap((one) => one.ties)
const curve = STEPS.slice(0, -1).map((from, index) => {
  const to = STEPS[index + 1] ?? 1
  const held = all.filter(({ confidence }) => confidence >= from && confidence < to)
  const said = held.reduce((sum, one) => sum + one.confidence, 0) / Math.max(1, held.length)
  return `| ${from.toFixed(2)} to ${Math.min(1, to).toFixed(2)} | ${held.length} | ${held.length ? percent(said, 1) : '-'} | ${percent(held.filter(isRight).length, held.length)} |`
})
const report = `# How well changes are found

Measured on simulated takes: \`npx tsx bench/accuracy.ts ${split} ${each}\`. Sound, plans, pitches, tunes, rooms and voices are made by \`demo/takes\`; the split "tune" is what numbers in the code were chosen by, but for one: that ten pitches are tried and not six was decided when this table showed what six had cost. A change counts where a tone that could be heard marked it, or somebody called it; it is found where it is tied within ${BOUND_MS.tone} ms of its truth where a tone marks it and within ${BOUND_MS.call} ms where only a call does; a tie is sure from ${SURE} on, and falsely sure where it is further off, or where the change never came.

| class | takes | changes | found | median, ms | nine in ten, ms | worst of the found, ms | sure ties | falsely sure | share | CPU seconds a minute |
|---|---|---|---|---|---|---|---|---|---|---|
${rows.join('\n')}

What is said against what is so:

| confidence | ties | said | right |
|---|---|---|---|
${curve.join('\n')}

Voices, calls, sentences, music and rooms of this split were heard by no training; English is spoken by flite's slt and rms and by espeak-ng, all other languages by throats of espeak-ng that training did not hear. No person's voice is among them. Where somebody taps, the tapped change itself is not counted. Not yet measured, as Jivet does not hear them yet: chirps and movement.
`
process.stdout.write(`\n${curve.join('\n')}\n`)
if (!only) writeFileSync(join(import.meta.dirname, '../docs/accuracy.md'), report)
