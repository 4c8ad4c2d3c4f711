// The names of a library, offered below every field in it that takes a move.
'use client'
import { createContext, useContext, useId, useMemo, useState, type KeyboardEvent, type ReactNode } from 'react'
import type { Move } from '@/core/score/move'
import { namesLike } from '@/core/score/namesLike'

const Names = createContext<readonly string[]>([])

export function MoveNames({ library, children }: { library: readonly Move[]; children: ReactNode }): ReactNode {
  const names = useMemo(() => library.map(({ name }) => name), [library])
  return <Names value={names}>{children}</Names>
}

interface Offers {
  /** What the field says of its offers to those who do not see them. */
  aria: { role: 'combobox'; 'aria-expanded': boolean; 'aria-controls': string; 'aria-activedescendant'?: string } | null
  /** @returns whether the key was for the offers. */
  onKey: (event: KeyboardEvent) => boolean
  list: ReactNode
}

/**
 * Names that what is being typed may become: chosen by the arrow keys and taken by Enter, or pressed.
 * @param offered whether the field takes a move at all.
 * @param typed null where nothing is being typed.
 * @param take puts a name in the field.
 */
export function useMoveOffers(offered: boolean, typed: string | null, take: (name: string) => void): Offers {
  const id = useId()
  const names = useContext(Names)
  const [chosen, setChosen] = useState({ of: typed, at: -1 })
  const offers = useMemo(() => (offered && typed !== null ? namesLike(typed, names) : []), [offered, typed, names])
  if (!offered) return { aria: null, onKey: () => false, list: null }
  const at = chosen.of === typed ? chosen.at : -1
  const name = offers[at]
  const onKey = (event: KeyboardEvent): boolean => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
    if (step && offers.length) {
      event.preventDefault()
      setChosen({ of: typed, at: Math.max(-1, Math.min(offers.length - 1, at + step)) })
      return true
    }
    if (event.key !== 'Enter' || name === undefined) return false
    event.preventDefault()
    take(name)
    return true
  }
  const optionId = (place: number): string => `${id}-${place}`
  return {
    aria: {
      role: 'combobox',
      'aria-expanded': offers.length > 0,
      'aria-controls': id,
      ...(name === undefined ? {} : { 'aria-activedescendant': optionId(at) }),
    },
    onKey,
    list: offers.length > 0 && (
      <ul
        id={id}
        role="listbox"
        className="absolute top-full left-0 z-20 w-max max-w-80 min-w-full border-2 border-ink bg-paper py-1 shadow-lg"
      >
        {offers.map((offer, place) => (
          <li
            key={offer}
            id={optionId(place)}
            role="option"
            aria-selected={place === at}
            className={`cursor-pointer px-3 py-1.5 ${place === at ? 'bg-land text-print' : 'hover:bg-pale'}`}
            // Before the field is left, which would keep what was typed so far.
            onPointerDown={(event) => {
              event.preventDefault()
              take(offer)
            }}
          >
            {offer}
          </li>
        ))}
      </ul>
    ),
  }
}
