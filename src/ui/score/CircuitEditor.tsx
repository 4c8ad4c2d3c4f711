// One circuit: its numbers in a row, its stations in a table.
'use client'
import { Plus, X } from 'lucide-react'
import type { ReactNode } from 'react'
import type { Circuit, Station } from '@/core/score/formats/circuit'
import { moveNamed, MOVES } from '@/core/score/moves'
import { freshKey } from '@/core/score/score'
import { formatLength } from '@/core/time/clock'
import { Button, IconButton } from '../parts/Button'
import { ChoiceField, CountField, LengthField, NameField, OptionalLengthField } from '../parts/fields'
import { moveWithin, SortableList, useGrip } from '../parts/sortable'
import { texts } from '../texts'

const words = texts.score
type EditCircuit = (recipe: (draft: Circuit) => void) => void

export function CircuitEditor({ section, edit, selected }: { section: Circuit; edit: EditCircuit; selected: string | null }): ReactNode {
  const addStation = (): void => edit((draft) => {
    const used = new Set(draft.stations.map((station) => station.label))
    const move = MOVES.find((one) => !used.has(one.name))
    const label = move?.name ?? words.newStation
    draft.stations.push({
      key: freshKey(label, draft.stations.map((station) => station.key)), label, sideRule: move?.sideRule ?? 'none',
      posture: move?.posture ?? 'standing', effort: move?.effort ?? 3, workMs: null, restMs: null,
    })
  })
  const active = selected ? Number(/\/s(\d+)\//.exec(selected)?.[1] ?? 0) - 1 : -1
  return (
    <div className="pb-4">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3 px-5 pb-4">
        <CountField label={words.rounds} showLabel value={section.rounds} low={1} high={500} onChange={(value) => edit((draft) => { draft.rounds = value })} />
        <LengthField label={words.workFor} showLabel value={section.workMs} onChange={(ms) => edit((draft) => { draft.workMs = ms })} />
        <LengthField label={words.restFor} showLabel value={section.restMs} onChange={(ms) => edit((draft) => { draft.restMs = ms })} />
        <LengthField label={words.between} showLabel value={section.roundBreakMs} onChange={(ms) => edit((draft) => { draft.roundBreakMs = ms })} />
        <LengthField label={words.lead} showLabel value={section.leadInMs} onChange={(ms) => edit((draft) => { draft.leadInMs = ms })} />
        <ChoiceField label={words.lastRest} showLabel value={section.lastRest} options={words.lastRests} onChange={(value) => edit((draft) => { draft.lastRest = value })} />
      </div>
      <SortableList keys={section.stations.map((station) => station.key)} onMove={(from, to) => edit((draft) => moveWithin(draft.stations, from, to))}>
        <ol aria-label={words.station}>
          {section.stations.map((station, index) => (
            <StationRow key={station.key} station={station} index={index} section={section} active={index === active}
              edit={(recipe) => edit((draft) => { const one = draft.stations[index]; if (one) recipe(one) })}
              onRemove={() => edit((draft) => { draft.stations.splice(index, 1) })} />
          ))}
        </ol>
      </SortableList>
      <datalist id="moves">{MOVES.map((move) => <option key={move.name} value={move.name} />)}</datalist>
      <Button weight="bare" icon={<Plus size={18} />} className="mt-2 ml-3" onClick={addStation}>{words.addStation}</Button>
    </div>
  )
}

interface RowProps { station: Station; index: number; section: Circuit; active: boolean; edit: (recipe: (draft: Station) => void) => void; onRemove: () => void }

function StationRow({ station, index, section, active, edit, onRemove }: RowProps): ReactNode {
  const { setNodeRef, style, grip } = useGrip(station.key)
  const rename = (label: string): void => edit((draft) => {
    draft.label = label
    const move = moveNamed(label)
    if (move) Object.assign(draft, { posture: move.posture, effort: move.effort, sideRule: move.sideRule })
  })
  return (
    <li ref={setNodeRef} style={style} className={`grid grid-cols-[auto_2rem_minmax(10rem,1.6fr)_minmax(8.5rem,1fr)_minmax(9rem,1fr)_6rem_5rem_5rem_auto] items-center gap-3 border-t border-rule px-3 py-1 ${active ? 'bg-land/35' : 'bg-pale'}`}>
      {grip}
      <span className="text-right font-display text-xl">{index + 1}</span>
      <NameField label={words.station} value={station.label} onChange={rename} list="moves" wide className="w-full font-bold" placeholder={words.newStation} />
      <ChoiceField label={words.side} value={station.sideRule} options={words.sides} onChange={(value) => edit((draft) => { draft.sideRule = value })} className="w-full" />
      <ChoiceField label={words.posture} value={station.posture} options={words.postures} onChange={(value) => edit((draft) => { draft.posture = value })} className="w-full" />
      <Effort value={station.effort} onChange={(value) => edit((draft) => { draft.effort = value })} />
      <OptionalLengthField label={words.workFor} value={station.workMs} placeholder={formatLength(section.workMs)} onChange={(ms) => edit((draft) => { draft.workMs = ms })} />
      <OptionalLengthField label={words.restFor} value={station.restMs} placeholder={formatLength(section.restMs)} onChange={(ms) => edit((draft) => { draft.restMs = ms })} />
      <IconButton label={words.remove} onClick={onRemove}><X size={17} /></IconButton>
    </li>
  )
}

/** Five blocks that rise: the height of the land. A row of radio buttons to keyboard and ear. */
function Effort({ value, onChange }: { value: number; onChange: (value: number) => void }): ReactNode {
  return (
    <div role="radiogroup" aria-label={words.effort} className="flex h-9 items-end gap-[3px] pb-1.5">
      {[1, 2, 3, 4, 5].map((level) => (
        <button key={level} type="button" role="radio" aria-checked={level === value} aria-label={`${words.effort} ${level}`} tabIndex={level === value ? 0 : -1}
          onClick={() => onChange(level)} className="flex h-9 w-4 items-end"
          onKeyDown={(event) => {
            const step = event.key === 'ArrowRight' || event.key === 'ArrowUp' ? 1 : event.key === 'ArrowLeft' || event.key === 'ArrowDown' ? -1 : 0
            const next = Math.min(5, Math.max(1, value + step))
            if (!step) return
            event.preventDefault()
            onChange(next)
            ;(event.currentTarget.parentElement?.children[next - 1] as HTMLElement | undefined)?.focus()
          }}>
          <span style={{ height: `${18 + level * 13}%` }} className={`w-full ${level <= value ? 'bg-land outline outline-1 outline-ink' : 'bg-rule'}`} />
        </button>
      ))}
    </div>
  )
}
