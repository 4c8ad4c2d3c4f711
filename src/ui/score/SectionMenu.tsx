// What can be done with a section as a whole.
'use client'
import { Copy, Ellipsis, List, ScanSearch, X } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import type { ReactNode } from 'react'
import { toast } from 'sonner'
import { formatOf, type Section } from '@/core/score/formats'
import type { Around } from '@/core/score/formats/format'
import { recognise, toList } from '@/core/score/listing'
import { freshKey } from '@/core/score/score'
import { scoreTexts as words } from '@/core/words/en/score'
import type { Edit } from './edit'
import { MenuContent } from '../parts/MenuContent'

interface Props {
  section: Section
  index: number
  around: Around
  edit: Edit
}

interface Entry {
  label: string
  icon: ReactNode
  run: () => void
}

export function SectionMenu(props: Props): ReactNode {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <button
          type="button"
          aria-label={`${words.sectionMenu}: ${props.section.name}`}
          className="inline-grid size-9 place-items-center hover:bg-ink hover:text-paper"
        >
          <Ellipsis size={19} />
        </button>
      </DropdownMenu.Trigger>
      <MenuContent align="end">
        {entriesFor(props).map(({ label, icon, run }) => (
          <DropdownMenu.Item
            key={label}
            onSelect={run}
            className="flex min-h-9 cursor-pointer items-center gap-3 px-3 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-paper"
          >
            {icon}
            {label}
          </DropdownMenu.Item>
        ))}
      </MenuContent>
    </DropdownMenu.Root>
  )
}

function entriesFor({ section, index, around, edit }: Props): Entry[] {
  const replace = (other: Section): void =>
    edit((draft) => {
      draft.sections[index] = other
    })
  const duplicate = (): void =>
    edit((draft) => {
      const keys = draft.sections.map((one) => one.key)
      draft.sections.splice(index + 1, 0, { ...structuredClone(section), key: freshKey(section.name, keys) })
    })
  const asFormat = (): void => {
    const found = 'rows' in section ? recognise(section, around) : null
    if (!found) return void toast(words.notRecognised)
    replace(found)
    toast(words.recognised(words.formats[found.format][0]))
  }
  const remove = (): void =>
    edit((draft) => {
      draft.sections.splice(index, 1)
    })
  const { moves } = formatOf(section).notation
  return [
    { label: words.duplicate, icon: <Copy size={16} />, run: duplicate },
    ...(moves === 'rows' ? [{ label: words.recognise, icon: <ScanSearch size={16} />, run: asFormat }] : []),
    ...(moves === 'flat' || moves === 'groups'
      ? [{ label: words.toList, icon: <List size={16} />, run: () => replace(toList(section, around)) }]
      : []),
    { label: words.removeSection, icon: <X size={16} />, run: remove },
  ]
}
