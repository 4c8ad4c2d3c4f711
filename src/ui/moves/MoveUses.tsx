// Where a move is used, and whether workouts that were published take its changes.
'use client'
import { useEffect, useState, type ReactNode } from 'react'
import { scoreTexts } from '@/core/words/en/score'
import { call } from '../api'
import { CheckField } from '../parts/CheckField'

const words = scoreTexts.moves
const SHOWN = 12

export interface MoveUse {
  id: string
  title: string
  published: boolean
}

/** The workouts that use a move; null until they are known. */
export function useMoveUses(name: string | null): MoveUse[] | null {
  const [uses, setUses] = useState<MoveUse[] | null>(null)
  useEffect(() => {
    if (name === null) return
    let gone = false
    void call<{ uses: MoveUse[] }>('GET', `/api/moves/uses?name=${encodeURIComponent(name)}`)
      .then((found) => {
        if (!gone) setUses(found.uses)
      })
      .catch(() => {})
    return () => {
      gone = true
    }
  }, [name])
  return uses
}

interface Props {
  uses: readonly MoveUse[]
  keepPublished: boolean
  onKeepPublished: (keep: boolean) => void
}

export function MoveUses({ uses, keepPublished, onKeepPublished }: Props): ReactNode {
  return (
    <div className="border-l-8 border-water bg-pale px-4 py-2">
      <p className="font-bold">{words.usedIn(uses.length)}</p>
      <ul>
        {uses.slice(0, SHOWN).map((use) => (
          <li key={use.id} className="truncate">
            {use.title || scoreTexts.untitled}
            {use.published && <span className="pl-2 text-quiet">({words.published})</span>}
          </li>
        ))}
      </ul>
      {uses.some((use) => use.published) && (
        <CheckField label={words.keepPublished} on={keepPublished} onChange={onKeepPublished} />
      )}
    </div>
  )
}
