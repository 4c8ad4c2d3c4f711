// Every format Jivet knows. A new one is a file beside these, a name in names.ts, and a line in each of the two lists here.
import { z } from 'zod'
import type { Segment } from '../segment'
import { buyIn, buyInSchema } from './buyIn'
import { burst, burstSchema } from './burst'
import { byStation, byStationSchema } from './byStation'
import { circuit, circuitSchema } from './circuit'
import { compound, compoundSchema } from './compound'
import { coolDown, coolDownSchema } from './coolDown'
import { couplet, coupletSchema } from './couplet'
import { finisher, finisherSchema } from './finisher'
import type { Around, Format, Notation } from './format'
import { growingBreak, growingBreakSchema } from './growingBreak'
import { ladder, ladderSchema } from './ladder'
import { list, listSchema } from './list'
import { minuteReps, minuteRepsSchema } from './minuteReps'
import { minuteTime, minuteTimeSchema } from './minuteTime'
import { FORMAT_NAMES, type FormatName } from './names'
import { pairs, pairsSchema } from './pairs'
import { pause, pauseSchema } from './pause'
import { pyramid, pyramidSchema } from './pyramid'
import { sets, setsSchema } from './sets'
import { slot, slotSchema } from './slot'
import type { Station } from './station'
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
}

/** The format by its name, for sections of whichever format. */
export const formatNamed = (name: FormatName): Format<Section> => FORMATS[name] as unknown as Format<Section>

/** The segments of one section, unplaced. */
export const expandSection = (section: Section, around: Around): Segment[] =>
  formatNamed(section.format).expand(section, around)

/** The stations of a section as they stand, those of its groups one group after another; none where it has none. */
export const stationsOf = (section: Section): Station[] =>
  'stations' in section ? section.stations : 'groups' in section ? section.groups.flat() : []

/** The section in words. */
export const describeSection = (section: Section, around: Around): string =>
  formatNamed(section.format).describe(section, around)

export const notationOf = (name: FormatName): Notation => formatNamed(name).notation

/** A new section of a format, with numbers to start from. */
export const newSection = <N extends FormatName>(name: N, key: string, label: string): SectionOf<N> =>
  FORMATS[name].defaults(key, label) as SectionOf<N>
