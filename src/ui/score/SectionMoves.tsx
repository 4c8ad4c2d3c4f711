// The moves of a section: one after another, in groups, or none of their own where it is a list of intervals.
'use client'
import type { ReactNode } from 'react'
import { formatOf, type Section } from '@/core/score/formats'
import { valueAt } from '@/core/score/formats/fields'
import type { Station } from '@/core/score/formats/station'
import type { Move } from '@/core/score/move'
import type { Ms } from '@/core/units'
import type { Segment } from '@/core/score/segment'
import { scoreTexts as words } from '@/core/words/en/score'
import { Button } from '../parts/Button'
import { stationToAdd } from './newPart'
import { Stations, type EditStations } from './Stations'

interface Props {
  section: Section
  edit: (recipe: (draft: Section) => void) => void
  selected: Segment | null
  library: readonly Move[]
}

/** A length of the section by the first of these fields that it has. */
const lengthIn = (section: Section, ...fields: string[]): Ms => {
  const found = fields.map((field) => valueAt(section, field)).find((value) => typeof value === 'number')
  return typeof found === 'number' ? found : 0
}

export function SectionMoves({ section, edit, selected, library }: Props): ReactNode {
  const { notation } = formatOf(section)
  const usual = { workMs: lengthIn(section, 'workMs', 'longMs'), restMs: lengthIn(section, 'restMs') }
  const path = selected?.origin?.station
  if ('rows' in section) return <p className="px-5 text-quiet">{words.tableNote}</p>
  const shared = { notation, usual, library }
  if ('stations' in section) {
    const editStations: EditStations = (recipe) =>
      edit((draft) => {
        if ('stations' in draft) recipe(draft.stations)
      })
    return (
      <Stations
        {...shared}
        stations={section.stations}
        edit={editStations}
        active={path?.[0] === 'stations' ? Number(path[1]) : -1}
        addLabel={words.addStation}
      />
    )
  }
  if (!('groups' in section)) return null
  return (
    <div className="flex flex-col gap-2">
      {section.groups.map((group, at) => (
        <div key={group[0]?.key ?? at} className="border-l-8 border-land">
          <p className="flex items-center gap-2 px-3 font-display text-lg">
            {words.group} {at + 1}
          </p>
          <Stations
            {...shared}
            stations={group}
            active={path?.[0] === 'groups' && path[1] === at ? Number(path[2]) : -1}
            addLabel={words.joinMove}
            edit={(recipe) => edit((draft) => editGroup(draft, at, recipe))}
          />
        </div>
      ))}
      <Button weight="bare" className="ml-3 self-start" onClick={() => edit(addGroup)}>
        {words.addGroup}
      </Button>
    </div>
  )
}

/** Remarks belong to the group, whichever move comes first after the change; a group without moves goes. */
function editGroup(draft: Section, at: number, recipe: (stations: Station[]) => void): void {
  const group = 'groups' in draft ? draft.groups[at] : undefined
  if (!group || !('groups' in draft)) return
  const remarks = group[0] ? { above: group[0].above, beside: group[0].beside } : null
  recipe(group)
  group.forEach((station, index) =>
    Object.assign(station, index === 0 && remarks ? remarks : { above: [], beside: '' }),
  )
  if (!group.length) draft.groups.splice(at, 1)
}

/** As many moves as a group of the format needs, with the reps that it starts with. */
function addGroup(draft: Section): void {
  if (!('groups' in draft)) return
  const { notation, usualReps } = formatOf(draft)
  const taken = draft.groups.flat()
  const group: Station[] = []
  for (let place = 0; place < Math.max(1, notation.groupSize?.[0] ?? 1); place++)
    group.push(stationToAdd([...taken, ...group], { reps: usualReps?.(place) ?? null }))
  draft.groups.push(group)
}
