// What a move may carry in brackets beyond lengths and choices: what is otherwise in a later pass, and what is lifted;
// and the single gaps of a section that last otherwise.
// Read and written here, so that one is the twin of the other.
import { newSwap, parseWeight, weightText, type Station, type Swap } from '../score/formats/station'
import { SIDE_RULES, type SideRule } from '../score/postures'
import { clipped } from '../text'
import type { Section } from '../score/formats'
import { parseLength } from '../time/clock'
import { quote, spaced, unquote, writeLength } from './settings'

const MOST_NAME = 300,
  MOST_SWAPS = 50

/** `from 3 6 reps`, `from 2 sides none`, `from 2 Skater`; more than one may say what begins with the same pass. */
type Change = { from: number } & ({ reps: number } | { sideRule: SideRule } | { label: string })

function readChange(text: string): Change | null {
  const [, pass, said = ''] = /^from (\d{1,3}) (.+)$/is.exec(text) ?? []
  const from = Number(pass)
  if (!pass || from < 2 || from > 500) return null
  const reps = Number(/^(\d{1,5}) reps?$/i.exec(said)?.[1] ?? 0)
  if (reps >= 1 && reps <= 10_000) return { from, reps }
  const rule = /^sides (.+)$/i.exec(said)?.[1]?.toLowerCase()
  const sideRule = SIDE_RULES.find((one) => spaced(one) === rule)
  if (sideRule) return { from, sideRule }
  const label = unquote(said)
  return label === null ? null : { from, label: clipped(label, MOST_NAME) }
}

/** @returns whether the text is such a setting, and has its place. */
export function takesSwap({ swaps }: Station, text: string): boolean {
  const change = readChange(text)
  if (!change) return false
  const last = swaps.at(-1)
  const open = last?.from === change.from && !('label' in change) ? last : undefined
  if (!open && swaps.length >= MOST_SWAPS) return false
  if (open) Object.assign(open, change)
  else swaps.push(newSwap(change.from, '', change))
  return true
}

export function writeSwap({ from, label, reps, sideRule }: Swap, writeName: (name: string) => string): string[] {
  const said = [
    ...(reps === null ? [] : [`${reps} ${reps === 1 ? 'rep' : 'reps'}`]),
    ...(sideRule === null ? [] : [`sides ${spaced(sideRule)}`]),
  ]
  const name = readsOtherwise(label) ? quote(label) : writeName(label)
  return [...(label || !said.length ? [name] : []), ...said].map((one) => `from ${from} ${one}`)
}

const readsOtherwise = (label: string): boolean => /^sides |\breps?$/i.test(label)

/** `weight 12 kg`, `weight 2 x 8 kg`. @returns whether the text is one. */
export function takesWeight(station: Station, text: string): boolean {
  const weight = text.startsWith('weight ') ? parseWeight(text.slice(7)) : null
  if (weight) station.weight = weight
  return weight !== null
}

export const writeWeight = ({ weight }: Station): string[] => (weight ? [`weight ${weightText(weight)}`] : [])

const GAP = /^gap ([a-z0-9][a-z0-9/-]{0,160}) (\S+)$/

/** `gap r2/s3/rest 40`: one gap, by where it stands. @returns whether the text is one. */
export function takesGap({ gaps }: Pick<Section, 'gaps'>, text: string): boolean {
  const [, place, length = ''] = GAP.exec(text) ?? []
  const ms = parseLength(length)
  if (!place || ms === null) return false
  gaps[place] = ms
  return true
}

export const writeGaps = ({ gaps }: Pick<Section, 'gaps'>): string[] =>
  Object.entries(gaps).map(([place, ms]) => `gap ${place} ${writeLength(ms)}`)
