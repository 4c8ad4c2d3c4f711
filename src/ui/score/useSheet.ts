// The running sheet's lines, the rows that are chosen, and what keys and clipboard do with them.
'use client'
import { useCallback, useMemo, useRef, useState, type ClipboardEvent, type KeyboardEvent, type MouseEvent } from 'react'
import { toast } from 'sonner'
import { Problem } from '@/core/problem'
import { removeMoves, shiftMove } from '@/core/score/edits'
import type { Score } from '@/core/score/score'
import type { Segment } from '@/core/score/segment'
import type { Ms } from '@/core/units'
import { scoreTexts } from '@/core/words/en/score'
import { isTyping } from '../parts/isTyping'
import { toggled } from '../parts/toggled'
import type { Edit } from './edit'
import { copyInto, putSections, readPastedRows, rowsIn } from './sheetClipboard'

const words = scoreTexts.sheet

export type Line =
  | { kind: 'section'; key: string; name: string; count: number; ms: Ms; folded: boolean }
  | { kind: 'row'; segment: Segment }

type Modifiers = Pick<MouseEvent | KeyboardEvent, 'shiftKey' | 'ctrlKey' | 'metaKey'>

export interface Sheet {
  lines: Line[]
  fold: (key: string) => void
  isChosen: (id: string) => boolean
  chosen: Segment[]
  clear: () => void
  choose: (segment: Segment, how: Modifiers) => void
  shift: (segment: Segment, by: number) => void
  /** Takes out the moves of the chosen rows. */
  removeChosen: () => void
  forChosen: (change: (draft: Score, segment: Segment) => void) => void
  onKeyDown: (event: KeyboardEvent) => void
  onCopy: (event: ClipboardEvent) => void
  onPaste: (event: ClipboardEvent) => void
}

interface Props {
  segments: readonly Segment[]
  edit: Edit
  selected: string | null
  onSelect: (id: string) => void
}

export function useSheet({ segments, edit, selected, onSelect }: Props): Sheet {
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set())
  const lines = useMemo(() => linesOf(segments, folded), [segments, folded])
  const { ids, setIds, choose } = useChoosing(segments, onSelect)
  const chosen = useMemo(() => segments.filter((segment) => ids.has(segment.id)), [segments, ids])
  const shift = useCallback(
    (segment: Segment, by: number): void => edit((draft) => void shiftMove(draft, segment, by)),
    [edit],
  )
  const clear = (): void => setIds(new Set())
  const removeChosen = (): void => {
    const moved = chosen.filter((segment) => segment.kind === 'work' || segment.origin?.station)
    edit((draft) => removeMoves(draft, moved))
    clear()
  }
  const step = (by: number, how: Modifiers): void => {
    const at = segments.findIndex((segment) => segment.id === selected)
    const next = segments[Math.min(segments.length - 1, Math.max(0, at + by))]
    if (next) choose(next, { shiftKey: how.shiftKey, ctrlKey: false, metaKey: false })
  }
  const onKeyDown = (event: KeyboardEvent): void => {
    if (isTyping(event.nativeEvent)) return
    if (event.key === 'Delete' || event.key === 'Backspace') return removeChosen()
    if (event.key === 'Escape') return clear()
    const way = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
    if (!way) return
    event.preventDefault()
    const segment = segments.find((one) => one.id === selected)
    if (event.altKey && segment) shift(segment, way)
    else step(way, event)
  }
  const onCopy = (event: ClipboardEvent): void => {
    if (isField(event.target) || !chosen.length) return
    event.preventDefault()
    copyInto(event.clipboardData, chosen)
    toast(words.copied(chosen.length))
  }
  const onPaste = (event: ClipboardEvent): void => {
    if (isField(event.target)) return
    event.preventDefault()
    try {
      const pasted = readPastedRows(event.clipboardData.getData('text/plain'))
      const after = segments.find((segment) => segment.id === selected)?.sectionKey
      edit((draft) => putSections(draft, pasted, after))
      toast(words.pasted(rowsIn(pasted)))
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      toast.error(`${words.badPaste}${error.place ? `${error.place}: ` : ''}${error.message}`)
    }
  }
  return {
    ...{ lines, chosen, clear, choose, shift, removeChosen, onKeyDown, onCopy, onPaste },
    fold: (key) => setFolded((before) => toggled(before, key)),
    isChosen: (id) => ids.has(id),
    forChosen: (change) =>
      edit((draft) => {
        for (const segment of chosen) change(draft, segment)
      }),
  }
}

interface Choosing {
  ids: ReadonlySet<string>
  setIds: (ids: ReadonlySet<string>) => void
  choose: Sheet['choose']
}

/** One row, with ctrl one more, with shift all up to it. */
function useChoosing(segments: readonly Segment[], onSelect: Props['onSelect']): Choosing {
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set())
  const anchor = useRef<number | null>(null)
  const choose = useCallback(
    (segment: Segment, how: Modifiers): void => {
      const at = segment.row - 1
      if (how.shiftKey && anchor.current !== null) {
        const [from, to] = [Math.min(anchor.current, at), Math.max(anchor.current, at)]
        setIds(new Set(segments.slice(from, to + 1).map((one) => one.id)))
      } else {
        anchor.current = at
        if (how.ctrlKey || how.metaKey) setIds((before) => toggled(before, segment.id))
        else setIds(new Set([segment.id]))
      }
      onSelect(segment.id)
    },
    [segments, onSelect],
  )
  return { ids, setIds, choose }
}

function linesOf(segments: readonly Segment[], folded: ReadonlySet<string>): Line[] {
  const lines: Line[] = []
  let open: Extract<Line, { kind: 'section' }> | undefined
  for (const segment of segments) {
    if (open?.key !== segment.sectionKey) {
      open = {
        kind: 'section',
        key: segment.sectionKey,
        name: segment.section,
        count: 0,
        ms: 0,
        folded: folded.has(segment.sectionKey),
      }
      lines.push(open)
    }
    open.count++
    open.ms += segment.durationMs
    if (!open.folded) lines.push({ kind: 'row', segment })
  }
  return lines
}

const isField = (target: EventTarget): boolean =>
  target instanceof HTMLElement && target.matches('input, select, textarea')
