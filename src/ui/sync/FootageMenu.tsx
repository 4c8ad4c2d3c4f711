// The footage that is in use, captions for it, and what was put aside: each can be taken back with the ties that were
// made on it.
'use client'
import { Film } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useRef, type ReactNode } from 'react'
import { texts } from '@/core/words/en/screens'
import type { FootageAside } from '@/server/footage'
import { Button } from '../parts/Button'
import { MenuContent } from '../parts/MenuContent'
import { FileInput } from '../parts/FileInput'

const words = texts.sync

interface Props {
  current: { id: string; name: string } | null
  aside: readonly FootageAside[]
  onTake: (footage: FootageAside) => void
  onPut: (footage: { id: string; name: string }) => void
  onCaptions: (file: File) => void
}

export function FootageMenu({ current, aside, onTake, onPut, onCaptions }: Props): ReactNode {
  const captions = useRef<HTMLInputElement>(null)
  return (
    <>
      <FileInput ref={captions} label={words.addCaptions} accept=".vtt,.srt,text/vtt" onFile={onCaptions} />
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button weight="bare" icon={<Film size={17} />}>
            {aside.length ? words.footageAside(aside.length) : words.footage}
          </Button>
        </DropdownMenu.Trigger>
        <MenuContent align="end" className="max-w-96">
          {current && (
            <>
              <Item name={current.name} note={words.inUse} action={words.putAsideNow} onSelect={() => onPut(current)} />
              <Item
                name={words.addCaptions}
                note={words.captionsHint}
                action={words.choose}
                onSelect={() => captions.current?.click()}
              />
            </>
          )}
          {aside.map((one) => (
            <Item
              key={one.id}
              name={one.name}
              note={words.withTies(one.ties)}
              action={words.takeBack}
              onSelect={() => onTake(one)}
            />
          ))}
        </MenuContent>
      </DropdownMenu.Root>
    </>
  )
}

interface ItemProps {
  name: string
  note: string
  action: string
  onSelect: () => void
}

function Item({ name, note, action, onSelect }: ItemProps): ReactNode {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="flex min-h-11 cursor-pointer items-center gap-5 px-3 py-1 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-paper"
    >
      <span className="min-w-0 flex-1">
        <span className="block truncate">{name}</span>
        <span className="block text-[13px]">{note}</span>
      </span>
      <b className="shrink-0">{action}</b>
    </DropdownMenu.Item>
  )
}
