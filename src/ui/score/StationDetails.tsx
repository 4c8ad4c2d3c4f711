// What a move may have beyond its name and lengths: the side that begins, what is lifted, what one rep is, and what is
// otherwise in later passes.
'use client'
import { Plus, X } from 'lucide-react'
import type { ReactNode } from 'react'
import {
  FIRST_SIDES,
  newSwap,
  parseWeight,
  weightText,
  type Station,
  type Swap,
  type Weight,
} from '@/core/score/formats/station'
import { SIDE_RULES } from '@/core/score/postures'
import { scoreTexts as words } from '@/core/words/en/score'
import { Button, IconButton } from '../parts/Button'
import { ChoiceField, CountField, NameField, OptionalCountField, TypedField } from '../parts/fields'

interface Props {
  station: Station
  /** The row that a field stands in, for whoever cannot see it. */
  row: string
  edit: (recipe: (draft: Station) => void) => void
}

export function Details({ station, row, edit }: Props): ReactNode {
  return (
    <div className="flex flex-wrap items-end gap-x-5 gap-y-1 pb-2 pl-16 max-md:pl-3">
      <TypedField<{ weight: Weight | null }>
        label={`${words.weight}, ${row}`}
        caption={words.weight}
        value={{ weight: station.weight }}
        write={({ weight }) => (weight ? weightText(weight) : '')}
        read={(text) => {
          if (!text.trim()) return { weight: null }
          const weight = parseWeight(text)
          return weight && { weight }
        }}
        complaint={words.badWeight}
        placeholder="2 x 8 kg"
        className="w-28"
        onChange={({ weight }) =>
          edit((draft) => {
            draft.weight = weight
          })
        }
      />
      <NameField
        label={`${words.repIs}, ${row}`}
        caption={words.repIs}
        value={station.repIs}
        placeholder={words.repIsExample}
        className="w-56"
        onChange={(repIs) =>
          edit((draft) => {
            draft.repIs = repIs.slice(0, 120)
          })
        }
      />
      <ChoiceField
        label={`${words.firstSide}, ${row}`}
        caption={words.firstSide}
        value={station.firstSide}
        options={
          Object.fromEntries(FIRST_SIDES.map((side) => [side, words.sides[side]])) as Record<'left' | 'right', string>
        }
        onChange={(side) =>
          edit((draft) => {
            draft.firstSide = side
          })
        }
      />
    </div>
  )
}

/** What is otherwise from a later pass on: another move, other reps, other sides. */
export function Swaps({ station, row, edit }: Props): ReactNode {
  const change = (at: number, recipe: (swap: Swap) => void): void =>
    edit((draft) => {
      const one = draft.swaps[at]
      if (one) recipe(one)
    })
  return station.swaps.map((swap, at) => (
    <div key={at} className="flex flex-wrap items-center gap-x-2 pb-1 pl-16 max-md:pl-3">
      <span className="text-quiet">{words.swapFrom}</span>
      <CountField
        label={`${words.swapFrom}, ${row}`}
        value={swap.from}
        low={2}
        high={500}
        onChange={(from) => change(at, (one) => void (one.from = from))}
      />
      <OptionalCountField
        label={`${words.reps}, ${words.swapFrom} ${swap.from}, ${row}`}
        value={swap.reps}
        low={1}
        high={10_000}
        placeholder="reps"
        onChange={(reps) => change(at, (one) => void (one.reps = reps))}
      />
      <span className="w-64">
        <NameField
          label={`${words.swap}, ${row}`}
          value={swap.label}
          onChange={(label) => change(at, (one) => void (one.label = label))}
          offersMoves
          wide
          className="w-full font-bold"
          placeholder={words.sameMove}
        />
      </span>
      <ChoiceField
        label={`${words.side}, ${words.swapFrom} ${swap.from}, ${row}`}
        value={swap.sideRule ?? ''}
        options={{ '': swap.label ? words.itsOwnSides : words.sidesAsBefore, ...onlyRules() }}
        onChange={(rule) => change(at, (one) => void (one.sideRule = rule || null))}
        className={swap.sideRule ? '' : 'text-quiet'}
      />
      <IconButton
        label={`${words.remove}: ${words.swapFrom} ${swap.from}, ${row}`}
        onClick={() =>
          edit((draft) => {
            draft.swaps.splice(at, 1)
          })
        }
      >
        <X size={16} />
      </IconButton>
      {at === station.swaps.length - 1 && (
        <Button
          weight="bare"
          icon={<Plus size={16} />}
          onClick={() =>
            edit((draft) => {
              draft.swaps.push(newSwap(Math.min(500, swap.from + 1)))
            })
          }
        >
          {words.addSwap}
        </Button>
      )}
    </div>
  ))
}

const onlyRules = (): Record<Station['sideRule'] & string, string> =>
  Object.fromEntries(SIDE_RULES.map((rule) => [rule, words.sides[rule]])) as Record<(typeof SIDE_RULES)[number], string>
