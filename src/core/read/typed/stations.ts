// The moves of a typed plan as stations of a score.
import { newStation, newSwap, type Station } from '../../score/formats/station'
import type { SideRule } from '../../score/postures'
import { clipped } from '../../text'
import { mark, type Item } from './block'

const SIDE_FACTS: Readonly<Record<string, SideRule>> = {
  eachSide: 'each',
  halves: 'halves',
  byRound: 'alternate',
  byRep: 'byRep',
  left: 'left',
  right: 'right',
}

interface Options {
  /** Lengths that the section says already. */
  workMs?: number | null
  restMs?: number | null
  /** The parts of one row are stations of their own; else they are one name. */
  apart?: boolean
  /** What all stations do with their sides. */
  sideRule?: SideRule | null
  reps?: number | null
}

/** One row of a plan as one station, or as several that belong together. */
export function stationsOf(
  item: Item,
  { workMs, restMs, apart = false, sideRule = null, reps = null }: Options = {},
): Station[] {
  const own = {
    ...sidesOf(item, sideRule),
    workMs: unlike(item.workMs, workMs),
    restMs: unlike(item.restMs, restMs),
    weight: item.weight,
    ranges: { ...item.ranges },
  }
  if (item.restMs !== null) mark(item.restTokens, 'used', 'rest')
  const swap = /^round (\d+)\s*:?\s*(.+)$/i.exec(item.note)
  const swaps = swap && Number(swap[1]) >= 2 ? [newSwap(Number(swap[1]), capital(swap[2] ?? ''))] : []
  const beside = item.note && !swap ? `# ${clipped(item.note, 1900)}` : ''
  if (!apart) return [newStation(labelOf(item), { ...own, swaps, beside, reps: item.parts[0]?.reps ?? reps })]
  return item.parts.map((part, at) =>
    newStation(clipped(part.label, 300), { ...own, reps: part.reps, swaps: at ? [] : swaps, beside: at ? '' : beside }),
  )
}

/** A length of its own; null where it is what the section says. */
const unlike = (own: number | null, section: number | null | undefined): number | null => (own === section ? null : own)

function sidesOf(item: Item, sideRule: SideRule | null): Pick<Station, 'sideRule' | 'firstSide'> {
  let rule = sideRule
  for (const fact of item.facts) {
    mark(fact.tokens, 'used', fact.kind)
    rule = SIDE_FACTS[fact.kind] ?? rule
  }
  return { sideRule: rule, firstSide: item.facts.some(({ kind }) => kind === 'rightFirst') ? 'right' : 'left' }
}

/** The whole row as one name. */
export function labelOf({ parts, joiner }: Item): string {
  const [first, ...others] = parts
  const rest = others.map(({ label, reps }) => `${reps === null ? '' : `${reps} `}${small(label)}`)
  const said = joiner === '&' ? ' and ' : joiner === '/' ? ' / ' : ' + '
  return clipped([first?.label ?? '', ...rest].join(said), 300)
}

const small = (label: string): string =>
  /^\p{Lu}[\p{Ll} -]*$/u.test(label) ? label.charAt(0).toLowerCase() + label.slice(1) : label
const capital = (label: string): string => label.charAt(0).toUpperCase() + label.slice(1)
