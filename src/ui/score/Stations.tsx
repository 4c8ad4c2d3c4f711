// The moves of a section: one after another, or in groups that belong together.
'use client'
import { Plus, Shuffle, SlidersHorizontal, X } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { castOf, type Cast } from '@/core/score/cast'
import type { Notation } from '@/core/score/formats/format'
import { newStation, newSwap, type Station } from '@/core/score/formats/station'
import type { Move } from '@/core/score/moves'
import { POSTURES, SIDE_RULES } from '@/core/score/postures'
import type { Range } from '@/core/score/primitives'
import { readSetting } from '@/core/shorthand/settings'
import { STATION_FIELDS } from '@/core/shorthand/terms'
import { formatLength } from '@/core/time/clock'
import { Button, IconButton } from '../parts/Button'
import { ChoiceField, NameField, OptionalCountField, TypedField } from '../parts/fields'
import { InSight } from '../parts/InSight'
import { moveWithin, SortableList, useGrip } from '../parts/sortable'
import { Effort } from './Effort'
import { Details, Swaps } from './StationDetails'
import { scoreTexts as words } from '@/core/words/en/score'

/** A list of thousands is drawn in stretches of so many rows, those near the window only. */
const STRETCH = 24
/** The height of a row as it is drawn on a wide window. */
export const ROW_PX = 39

export type EditStations = (recipe: (stations: Station[]) => void) => void

interface ListProps {
  stations: Station[]
  edit: EditStations
  notation: Notation
  /** What a station without a length of its own takes. */
  usual: { workMs?: number; restMs?: number }
  library: readonly Move[]
  /** Index of the station that is selected elsewhere, or -1. */
  active: number
  addLabel: string
}

export function Stations({ stations, edit, notation, usual, library, active, addLabel }: ListProps): ReactNode {
  const keys = stations.map((_, index) => String(index))
  const [fresh, setFresh] = useState(-1)
  /** An empty row at the end, ready to be typed into. */
  const add = (): void => {
    setFresh(stations.length)
    edit((list) => {
      list.push(newStation('', notation.perMove?.includes('reps') ? { reps: 10 } : {}))
    })
  }
  const stretches = Array.from({ length: Math.ceil(stations.length / STRETCH) }, (_, index) => index * STRETCH)
  return (
    <>
      <SortableList keys={keys} onMove={(from, to) => edit((list) => moveWithin(list, from, to))}>
        {stretches.map((from) => (
          <InSight key={from} heightPx={ROW_PX * Math.min(STRETCH, stations.length - from)} first={from === 0}>
            <ol aria-label={words.station} start={from + 1}>
              {stations.slice(from, from + STRETCH).map((station, at) => {
                const index = from + at
                return (
                  <StationRow
                    key={index}
                    station={station}
                    index={index}
                    digits={Math.max(2, String(stations.length).length)}
                    notation={notation}
                    usual={usual}
                    library={library}
                    active={index === active}
                    fresh={index === fresh}
                    onNext={index === fresh && index === stations.length - 1 ? add : undefined}
                    edit={(recipe) =>
                      edit((list) => {
                        const one = list[index]
                        if (one) recipe(one)
                      })
                    }
                    onRemove={() =>
                      edit((list) => {
                        list.splice(index, 1)
                      })
                    }
                  />
                )
              })}
            </ol>
          </InSight>
        ))}
      </SortableList>
      <Button weight="bare" icon={<Plus size={18} />} className="mt-1 ml-3" onClick={add}>
        {addLabel}
      </Button>
    </>
  )
}

interface RowProps extends Omit<ListProps, 'stations' | 'edit' | 'active' | 'addLabel'> {
  station: Station
  index: number
  digits: number
  active: boolean
  /** Added just now: its name is typed next. */
  fresh: boolean
  /** Begins the row after the last one. */
  onNext: (() => void) | undefined
  edit: (recipe: (draft: Station) => void) => void
  onRemove: () => void
}

const orOwn = <T extends string>(names: readonly T[], shown: Record<T, string>, own: string): Record<T | '', string> =>
  ({ '': own, ...Object.fromEntries(names.map((name) => [name, shown[name]])) }) as Record<T | '', string>

function StationRow({ station, index, active, fresh, onNext, edit, onRemove, ...rest }: RowProps): ReactNode {
  const { digits, notation, usual, library } = rest
  const { setNodeRef, style, grip } = useGrip(String(index))
  const [swapping, setSwapping] = useState(false)
  const [detailed, setDetailed] = useState(false)
  const row = station.label || words.rowNumber(index + 1)
  const has = (part: 'workMs' | 'restMs' | 'reps' | 'swaps'): boolean => notation.perMove?.includes(part) ?? false
  const showSwaps = swapping || station.swaps.length > 0
  const showDetails = detailed || hasDetails(station)
  const startSwap = (): void => {
    setSwapping(true)
    if (!station.swaps.length)
      edit((draft) => {
        draft.swaps.push(newSwap(2))
      })
  }
  return (
    <li ref={setNodeRef} style={style} className={`border-t border-rule ${active ? 'bg-chosen' : 'bg-pale'}`}>
      <div className="flex flex-wrap items-center gap-x-1.5 gap-y-0 px-2 py-0.5">
        {grip}
        <span className="shrink-0 text-right font-display text-xl tabular-nums" style={{ minWidth: `${digits}ch` }}>
          {index + 1}
        </span>
        {has('reps') && (
          <OptionalCountField
            label={`${words.reps}, ${row}`}
            value={station.reps}
            low={1}
            high={10_000}
            placeholder="reps"
            onChange={(reps) =>
              edit((draft) => {
                draft.reps = reps
              })
            }
          />
        )}
        <span className="min-w-28 flex-1">
          <NameField
            label={`${words.station} ${index + 1}`}
            value={station.label}
            onChange={(label) =>
              edit((draft) => {
                draft.label = label
              })
            }
            offersMoves
            autoFocus={fresh}
            onEnter={(text) => {
              if (text.trim()) onNext?.()
            }}
            wide
            className="w-full font-bold"
            placeholder={words.newStation}
          />
        </span>
        {has('workMs') && <OwnLength part="workMs" {...{ station, row, usual, edit }} />}
        {has('restMs') && <OwnLength part="restMs" {...{ station, row, usual, edit }} />}
        <Traits station={station} row={row} library={library} edit={edit} />
        <RowButtons
          row={row}
          swaps={has('swaps') ? { shown: showSwaps, onShow: startSwap } : null}
          details={{ shown: showDetails, onShow: () => setDetailed(!detailed) }}
          onRemove={onRemove}
        />
      </div>
      {showDetails && <Details station={station} row={row} edit={edit} />}
      {showSwaps && <Swaps station={station} row={row} edit={edit} />}
    </li>
  )
}

interface Fold {
  shown: boolean
  onShow: () => void
}

/** What a row unfolds, and its end. `swaps` is null where the format has none. */
function RowButtons({
  row,
  swaps,
  details,
  onRemove,
}: {
  row: string
  swaps: Fold | null
  details: Fold
  onRemove: () => void
}): ReactNode {
  return (
    <span className="flex">
      {swaps && (
        <IconButton label={`${words.swap}, ${row}`} aria-pressed={swaps.shown} onClick={swaps.onShow}>
          <Shuffle size={16} />
        </IconButton>
      )}
      <IconButton label={`${words.details}, ${row}`} aria-pressed={details.shown} onClick={details.onShow}>
        <SlidersHorizontal size={16} />
      </IconButton>
      <IconButton label={`${words.remove}: ${row}`} onClick={onRemove}>
        <X size={17} />
      </IconButton>
    </span>
  )
}

const hasDetails = ({ weight, repIs, firstSide }: Station): boolean =>
  weight !== null || repIs !== '' || firstSide === 'right'

type PartProps = Pick<RowProps, 'station' | 'edit'> & { row: string }

const OWN_FIELDS = { workMs: STATION_FIELDS[0], restMs: STATION_FIELDS[1] } as const
interface OwnLengthValue {
  ms: number | null
  range: Range | undefined
}

/** A length that this station has for itself, or its bounds: "10-20". Without one, the usual is shown. */
function OwnLength({
  part,
  station,
  row,
  usual,
  edit,
}: PartProps & Pick<RowProps, 'usual'> & { part: 'workMs' | 'restMs' }): ReactNode {
  const field = OWN_FIELDS[part]
  const read = (text: string): OwnLengthValue | null => {
    if (!text.trim()) return { ms: null, range: undefined }
    const found = field && readSetting([field], `${text.trim()} ${field.word}`)
    return found && typeof found.value === 'number' ? { ms: found.value, range: found.range } : null
  }
  return (
    <TypedField<OwnLengthValue>
      label={`${part === 'workMs' ? words.workFor : words.restFor}, ${row}`}
      value={{ ms: station[part], range: station.ranges[part] }}
      write={({ ms, range }) => (ms === null ? '' : (range ?? [ms]).map(formatLength).join('-'))}
      read={read}
      complaint={words.badLength}
      placeholder={formatLength(usual[part] ?? 0)}
      className={`text-right font-display text-xl ${station.ranges[part] ? 'w-28' : 'w-18'}`}
      onChange={({ ms, range }) =>
        edit((draft) => {
          draft[part] = ms
          if (range) draft.ranges[part] = range
          else Reflect.deleteProperty(draft.ranges, part)
        })
      }
    />
  )
}

const casts = new WeakMap<readonly Move[], Cast>()
/** The facts of names by a library, made once for all rows. */
function castIn(library: readonly Move[]): Cast {
  const cast = casts.get(library) ?? castOf(library)
  casts.set(library, cast)
  return cast
}

/** What a station may say otherwise than its move: side, posture, effort. */
function Traits({ station, row, library, edit }: PartProps & Pick<RowProps, 'library'>): ReactNode {
  const move = castIn(library)(station.label)
  // What nobody knows is said to be unknown, and a guess looks like one.
  const told = (trait: string | null): string => {
    if (!station.label) return ''
    if (trait === null || move.sure === 'unknown') return words.notKnown
    return move.sure === 'guessed' ? words.perhaps(trait) : trait
  }
  return (
    <>
      <ChoiceField
        label={`${words.side}, ${row}`}
        value={station.sideRule ?? ''}
        options={orOwn(SIDE_RULES, words.sides, told(words.sides[move.sideRule]))}
        onChange={(rule) =>
          edit((draft) => {
            draft.sideRule = rule || null
          })
        }
        className={`w-28 xl:w-32 ${station.sideRule ? '' : 'text-quiet'}`}
      />
      <ChoiceField
        label={`${words.posture}, ${row}`}
        value={station.posture ?? ''}
        options={orOwn(POSTURES, words.postures, told(move.posture && words.postures[move.posture]))}
        onChange={(posture) =>
          edit((draft) => {
            draft.posture = posture || null
          })
        }
        className={`w-28 xl:w-36 ${station.posture ? '' : 'text-quiet'}`}
      />
      <Effort
        value={station.effort ?? move.effort ?? 0}
        own={station.effort !== null}
        guessed={station.effort === null && move.sure === 'guessed'}
        onChange={(effort) =>
          edit((draft) => {
            draft.effort = effort
          })
        }
      />
    </>
  )
}
