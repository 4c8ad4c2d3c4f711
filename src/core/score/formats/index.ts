// Every format Jivet knows. A new one is a file beside these, a name in names.ts, and a line in each of the two lists
// here.
import { z } from 'zod'
import type { Segment } from '../segment'
import { again, againSchema } from './again'
import { buyIn, buyInSchema } from './buyIn'
import { burst, burstSchema } from './burst'
import { byStation, byStationSchema } from './byStation'
import { circuit, circuitSchema } from './circuit'
import { compound, compoundSchema } from './compound'
import { coolDown, coolDownSchema } from './coolDown'
import { couplet, coupletSchema } from './couplet'
import { finisher, finisherSchema } from './finisher'
import type { Around, Format, Knobs, Notation, Part } from './format'
import { hasKeys, withKeys } from './keys'
import { growingBreak, growingBreakSchema } from './growingBreak'
import { ladder, ladderSchema } from './ladder'
import { list, listSchema, type FreeList } from './list'
import { minuteReps, minuteRepsSchema } from './minuteReps'
import { minuteTime, minuteTimeSchema } from './minuteTime'
import { FORMAT_NAMES, type FormatName } from './names'
import { pairs, pairsSchema } from './pairs'
import { pause, pauseSchema } from './pause'
import { pyramid, pyramidSchema } from './pyramid'
import { sets, setsSchema } from './sets'
import { slot, slotSchema } from './slot'
import type { ListRow } from './row'
import { newStation, type Station } from './station'
import { straight, straightSchema } from './straight'
import { table, tableSchema } from './table'
import { talk, talkSchema } from './talk'
import { uneven, unevenSchema } from './uneven'
import { warmUp, warmUpSchema } from './warmUp'

export { FORMAT_NAMES, type FormatName }

export const sectionSchema = z.discriminatedUnion('format', [
  circuitSchema,
  byStationSchema,
  pairsSchema,
  burstSchema,
  straightSchema,
  ladderSchema,
  slotSchema,
  tableSchema,
  growingBreakSchema,
  compoundSchema,
  unevenSchema,
  buyInSchema,
  coupletSchema,
  minuteRepsSchema,
  minuteTimeSchema,
  pyramidSchema,
  setsSchema,
  finisherSchema,
  warmUpSchema,
  coolDownSchema,
  listSchema,
  talkSchema,
  pauseSchema,
  againSchema,
])
export type Section = z.infer<typeof sectionSchema>
export type SectionOf<N extends FormatName> = Extract<Section, { format: N }>

const FORMATS: { [N in FormatName]: Format<SectionOf<N>> } = {
  circuit,
  byStation,
  pairs,
  burst,
  straight,
  ladder,
  slot,
  table,
  growingBreak,
  compound,
  uneven,
  buyIn,
  couplet,
  minuteReps,
  minuteTime,
  pyramid,
  sets,
  finisher,
  warmUp,
  coolDown,
  list,
  talk,
  break: pause,
  again,
}

/** The format by its name, for sections of whichever format. */
// A format takes its own sections only; the name in each section says which, and the compiler cannot know that.
export const formatNamed = (name: FormatName): Format<Section> => FORMATS[name] as unknown as Format<Section>

export const formatOf = (section: Section): Format<Section> => formatNamed(section.format)

/** The segments of one section, unplaced. */
export const expandSection = (section: Section, around: Around): Segment[] =>
  formatOf(section).expand(hasKeys(section) ? section : withKeys(section), around)

/** The stations of a section as they stand, those of its groups one group after another; none where it has none. */
export const stationsOf = (section: Section): Station[] =>
  'stations' in section ? section.stations : 'groups' in section ? section.groups.flat() : []

/** Everything of a section that has a label of its own: stations, or rows. */
export const labelledIn = (section: Section): (Station | ListRow)[] =>
  'rows' in section ? section.rows : stationsOf(section)

/** The section in words. */
export const describeSection = (section: Section, around: Around): string => formatOf(section).describe(section, around)

export const notationOf = (name: FormatName): Notation => formatNamed(name).notation

/** The part that a section plays in a session. */
export const partOf = (section: Section | undefined): Part | null => (section ? formatOf(section).part : null)

/** A new section of a format, with numbers to start from. */
export const newSection = <N extends FormatName>(name: N, key: string, label: string): SectionOf<N> =>
  FORMATS[name].defaults(key, label) as SectionOf<N>

/** A section with only what is said: lengths of nothing, one round, no break. */
export const bareSection = <N extends FormatName>(format: N, key: string, label: string): SectionOf<N> =>
  Object.assign(
    newSection(format, key, label),
    Object.fromEntries(notationOf(format).fields.map((field) => [field.field, structuredClone(field.bare)])),
  )

/** A section of intervals one by one. */
export const newList = (key: string, label: string, rows: ListRow[] = []): FreeList => ({
  ...list.defaults(key, label),
  rows,
})

/** A new warm-up or cool-down with these moves. */
export const newPart = (part: 'warmUp' | 'coolDown', key: string, label: string, moves: readonly string[]): Section =>
  withKeys({ ...newSection(part, key, label), stations: moves.map((move) => newStation(move)) })

/** Formats that a promise can be solved for, with the numbers that are sought. */
export const SOLVABLE: ReadonlyMap<FormatName, Knobs> = new Map(
  FORMAT_NAMES.flatMap((name) => {
    const { solve } = formatNamed(name)
    return solve ? [[name, solve] as const] : []
  }),
)
