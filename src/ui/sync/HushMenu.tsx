// Which kinds of evidence changes are found by: each that was heard can be hushed.
'use client'
import { Check, EarOff } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import type { ReactNode } from 'react'
import type { EvidenceKind } from '@/core/evidence'
import { marksChanges, type HeardRow } from '@/core/look/heardRows'
import { texts } from '@/core/words/en/screens'
import { IconButton } from '../parts/Button'
import { MenuContent } from '../parts/MenuContent'

const words = texts.sync

interface Props {
  rows: readonly HeardRow[]
  hushed: ReadonlySet<EvidenceKind>
  onHush: (kind: EvidenceKind, hush: boolean) => void
}

export function HushMenu({ rows, hushed, onHush }: Props): ReactNode {
  const marking = rows.filter(marksChanges)
  if (!marking.length) return null
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label={words.hush}>
          <EarOff size={17} />
        </IconButton>
      </DropdownMenu.Trigger>
      <MenuContent align="end" className="w-64">
        <DropdownMenu.Label className="px-3 pb-2 text-[13px] text-quiet">{words.hushHint}</DropdownMenu.Label>
        {marking.map(({ kind, name, marks }) => (
          <DropdownMenu.CheckboxItem
            key={kind}
            checked={!hushed.has(kind)}
            onCheckedChange={(used) => onHush(kind, !used)}
            onSelect={(event) => event.preventDefault()}
            className="flex min-h-11 cursor-pointer items-center gap-3 px-3 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-paper"
          >
            <span className="grid size-5 place-items-center border-2 border-current">
              <DropdownMenu.ItemIndicator>
                <Check size={15} strokeWidth={3} />
              </DropdownMenu.ItemIndicator>
            </span>
            <b>{name}</b>
            <span className="ml-auto tabular-nums">{marks.length}</span>
          </DropdownMenu.CheckboxItem>
        ))}
      </MenuContent>
    </DropdownMenu.Root>
  )
}
