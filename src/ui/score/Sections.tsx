// The sections of a score in order: each with its numbers in a row and its moves below, whatever its format.
'use client'
import { ChevronDown, ChevronRight, Copy, Ellipsis, List, ScanSearch, X } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { current, original } from 'immer'
import { memo, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { tryExpand } from '@/core/expand/expand'
import { describeSection, notationOf, stationsOf, type Section } from '@/core/score/formats'
import type { Move } from '@/core/score/moves'
import type { Station } from '@/core/score/formats/station'
import { recognise, toList } from '@/core/score/listing'
import { aroundFormat, freshKey, type Score } from '@/core/score/score'
import type { Expansion, Segment } from '@/core/score/segment'
import { keepTotal } from '@/core/score/solve'
import { formatClock } from '@/core/time/clock'
import { Button, IconButton } from '../parts/Button'
import { ChoiceField, NameField } from '../parts/fields'
import { InSight } from '../parts/InSight'
import { moveWithin, SortableList, useGrip } from '../parts/sortable'
import { FieldOf } from './FieldOf'
import { stationToAdd } from './newPart'
import { ROW_PX, Stations, type EditStations } from './Stations'
import { scoreTexts as words } from './texts'

/** So many sections are drawn with the page; the rest when they come near the window. */
const FIRST_DRAWN = 6
/** About the height of a section without its moves, before it was drawn. */
const HEAD_PX = 235

export type Edit = (recipe: (draft: Score) => void) => void

interface ListProps {
  score: Score
  edit: Edit
  expansion: Expansion
  selected: Segment | null
  library: readonly Move[]
}

export function Sections({ score, edit, expansion, selected, library }: ListProps): ReactNode {
  const lengths = new Map<string, { ms: number; estimated: boolean }>()
  for (const { sectionKey, durationMs, estimated } of expansion.segments) {
    const sum = lengths.get(sectionKey) ?? { ms: 0, estimated: false }
    lengths.set(sectionKey, { ms: sum.ms + durationMs, estimated: sum.estimated || estimated })
  }
  return (
    <>
      <SortableList
        keys={score.sections.map((section) => section.key)}
        onMove={(from, to) => edit((draft) => moveWithin(draft.sections, from, to))}
      >
        <ol className="flex flex-col gap-5">
          {score.sections.map((section, index) => (
            <SectionCard
              key={section.key}
              section={section}
              index={index}
              edit={edit}
              ms={lengths.get(section.key)?.ms ?? 0}
              estimated={lengths.get(section.key)?.estimated ?? false}
              moves={score.moves}
              vocabulary={score.vocabulary}
              breakFollows={score.sections[index + 1]?.format === 'break'}
              selected={selected?.sectionKey === section.key ? selected : null}
              library={library}
            />
          ))}
        </ol>
      </SortableList>
      <datalist id="moves">
        {library.map((move) => (
          <option key={move.name} value={move.name} />
        ))}
      </datalist>
    </>
  )
}

interface CardProps extends Pick<Score, 'moves' | 'vocabulary'> {
  section: Section
  index: number
  edit: Edit
  ms: number
  estimated: boolean
  breakFollows: boolean
  selected: Segment | null
  library: readonly Move[]
}

/** Drawn anew only when its own section changes: a score may have hundreds. */
const SectionCard = memo(function SectionCard(card: CardProps): ReactNode {
  const { section, index } = card
  const { setNodeRef, style, grip } = useGrip(section.key)
  const [folded, setFolded] = useState(false)
  return (
    <li
      ref={setNodeRef}
      style={style}
      className="scroll-my-24 border-t-4 border-ink bg-pale"
      data-section={section.key}
    >
      <InSight
        heightPx={folded ? HEAD_PX / 4 : HEAD_PX + ROW_PX * stationsOf(section).length}
        first={index < FIRST_DRAWN}
      >
        <SectionBody {...card} grip={grip} folded={folded} setFolded={setFolded} />
      </InSight>
    </li>
  )
})

interface BodyProps extends CardProps {
  grip: ReactNode
  folded: boolean
  setFolded: (folded: boolean) => void
}

function SectionBody({
  section,
  index,
  edit,
  ms,
  estimated,
  moves,
  vocabulary,
  breakFollows,
  selected,
  library,
  grip,
  folded,
  setFolded,
}: BodyProps): ReactNode {
  const [keep, setKeep] = useState('')
  const around = aroundFormat({ moves, vocabulary }, section.format, breakFollows)
  const notation = notationOf(section.format)
  const values = section as unknown as Record<string, unknown>
  const editSection = (recipe: (draft: Section) => void): void =>
    edit((draft) => {
      const one = draft.sections[index]
      if (one?.key === section.key) recipe(one)
    })
  const numbers = notation.fields.filter(
    (field) => (field.kind === 'count' || field.kind === 'length') && field.field !== 'leadInMs',
  )

  /** Sets a number; with another one chosen to make up for it, that one moves so that the total stays. */
  const setField = (field: string, value: unknown): void =>
    edit((draft) => {
      const one = draft.sections[index] as unknown as Record<string, unknown> | undefined
      if (!one) return
      const before = original(draft)
      one[field] = value
      if (!keep || keep === field || !before) return
      const kept = keepTotal(current(draft), section.key, keep, tryExpand(before).expansion?.totalMs ?? 0)
      if (kept) one[keep] = kept.value
      else toast(words.cannotKeep)
    })

  const menu = [
    {
      label: words.duplicate,
      icon: <Copy size={16} />,
      run: () =>
        edit((draft) => {
          draft.sections.splice(index + 1, 0, {
            ...structuredClone(section),
            key: freshKey(
              section.name,
              draft.sections.map((one) => one.key),
            ),
          })
        }),
    },
    ...(section.format === 'list'
      ? [
          {
            label: words.recognise,
            icon: <ScanSearch size={16} />,
            run: () => {
              const found = recognise(section, around)
              if (!found) return void toast(words.notRecognised)
              edit((draft) => {
                draft.sections[index] = found
              })
              toast(words.recognised(words.formats[found.format][0]))
            },
          },
        ]
      : notation.moves === 'none'
        ? []
        : [
            {
              label: words.toList,
              icon: <List size={16} />,
              run: () =>
                edit((draft) => {
                  draft.sections[index] = toList(section, around)
                }),
            },
          ]),
    {
      label: words.removeSection,
      icon: <X size={16} />,
      run: () =>
        edit((draft) => {
          draft.sections.splice(index, 1)
        }),
    },
  ]
  return (
    <>
      <div className="flex items-center gap-1.5 px-2 pt-2 pb-1.5">
        {grip}
        {notation.moves === 'none' ? (
          <span className="w-9" />
        ) : (
          <IconButton
            label={folded ? words.unfold : words.fold}
            aria-expanded={!folded}
            onClick={() => setFolded(!folded)}
          >
            {folded ? <ChevronRight size={18} /> : <ChevronDown size={18} />}
          </IconButton>
        )}
        <NameField
          label={words.sectionName}
          value={section.name}
          onChange={(name) =>
            editSection((draft) => {
              draft.name = name
            })
          }
          className="w-44 !border-transparent font-display text-2xl hover:!border-rule"
          placeholder={words.untitled}
        />
        <p className="min-w-0 flex-1 truncate text-quiet" title={describeSection(section, around)}>
          <b className="text-ink">{words.formats[section.format][0]}.</b> {describeSection(section, around)}
        </p>
        {notation.moves === 'none' &&
          notation.fields.map((field) => (
            <FieldOf
              key={field.field}
              field={field}
              value={values[field.field]}
              onChange={(value) => setField(field.field, value)}
              inline
            />
          ))}
        <span className="w-24 shrink-0 text-right font-display text-2xl tabular-nums">
          {estimated && <span className="pr-1 font-text text-[13px] text-quiet">{words.about}</span>}
          {formatClock(ms)}
        </span>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger asChild>
            <button
              type="button"
              aria-label={`${words.sectionMenu}: ${section.name}`}
              className="inline-grid size-9 place-items-center hover:bg-ink hover:text-paper"
            >
              <Ellipsis size={19} />
            </button>
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="end"
              sideOffset={4}
              className="z-40 border-t-8 border-land bg-paper p-2 shadow-2xl"
            >
              {menu.map(({ label, icon, run }) => (
                <DropdownMenu.Item
                  key={label}
                  onSelect={run}
                  className="flex min-h-9 cursor-pointer items-center gap-3 px-3 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-paper"
                >
                  {icon}
                  {label}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      {!folded && (notation.moves !== 'none' || section.format === 'list') && (
        <div className="pb-3">
          <div className="flex flex-wrap items-end gap-x-4 gap-y-2 px-5 pb-3">
            {notation.fields
              .filter(
                (field) =>
                  !(
                    'where' in section &&
                    section.where === 'here' &&
                    (field.field === 'link' || field.field === 'reminderMs')
                  ),
              )
              .map((field) => (
                <FieldOf
                  key={field.field}
                  field={field}
                  value={values[field.field]}
                  onChange={(value) => setField(field.field, value)}
                />
              ))}
            {numbers.length > 1 && (
              <ChoiceField
                label={words.keepTotal}
                showLabel
                value={keep}
                onChange={setKeep}
                options={{
                  '': words.keepNothing,
                  ...Object.fromEntries(numbers.map((field) => [field.field, words.fields[field.field] ?? field.word])),
                }}
                className="text-quiet"
              />
            )}
          </div>
          <Moves section={section} edit={editSection} selected={selected} library={library} />
        </div>
      )}
    </>
  )
}

interface MovesProps {
  section: Section
  edit: (recipe: (draft: Section) => void) => void
  selected: Segment | null
  library: readonly Move[]
}

function Moves({ section, edit, selected, library }: MovesProps): ReactNode {
  const notation = notationOf(section.format)
  const values = section as unknown as { workMs?: number; restMs?: number; longMs?: number }
  const usual = { workMs: values.workMs ?? values.longMs ?? 0, restMs: values.restMs ?? 0 }
  const path = selected?.origin?.station
  if (section.format === 'list') return <p className="px-5 text-quiet">{words.tableNote}</p>
  if ('stations' in section) {
    const editStations: EditStations = (recipe) =>
      edit((draft) => {
        if ('stations' in draft) recipe(draft.stations)
      })
    return (
      <Stations
        stations={section.stations}
        edit={editStations}
        notation={notation}
        usual={usual}
        library={library}
        active={path?.[0] === 'stations' ? Number(path[1]) : -1}
        addLabel={words.addStation}
      />
    )
  }
  if (!('groups' in section)) return null
  const least = Math.max(1, notation.groupSize?.[0] ?? 1)
  return (
    <div className="flex flex-col gap-2">
      {section.groups.map((group, at) => (
        <div key={at} className="border-l-8 border-land">
          <p className="flex items-center gap-2 px-3 font-display text-lg">
            {words.group} {at + 1}
          </p>
          <Stations
            stations={group}
            notation={notation}
            usual={usual}
            library={library}
            active={path?.[0] === 'groups' && path[1] === at ? Number(path[2]) : -1}
            addLabel={words.joinMove}
            edit={(recipe) =>
              edit((draft) => {
                const one = 'groups' in draft ? draft.groups[at] : undefined
                if (!one || !('groups' in draft)) return
                const remarks = one[0] ? { above: one[0].above, beside: one[0].beside } : null
                recipe(one)
                // Remarks belong to the group, whichever move comes first now.
                one.forEach((station: Station, index) =>
                  Object.assign(station, index === 0 && remarks ? remarks : { above: [], beside: '' }),
                )
                if (!one.length) draft.groups.splice(at, 1)
              })
            }
          />
        </div>
      ))}
      <Button
        weight="bare"
        className="ml-3 self-start"
        onClick={() =>
          edit((draft) => {
            if (!('groups' in draft)) return
            const taken = draft.groups.flat()
            const group: Station[] = []
            for (let index = 0; index < least; index++)
              group.push(
                stationToAdd(
                  [...taken, ...group],
                  notation.perMove?.includes('reps') && (index === 0 || draft.format === 'couplet') ? { reps: 10 } : {},
                ),
              )
            draft.groups.push(group)
          })
        }
      >
        {words.addGroup}
      </Button>
    </div>
  )
}
