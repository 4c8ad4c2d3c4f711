// The menu of formats: each with what is particular about it, in the order in which sessions are built.
'use client'
import { DropdownMenu } from 'radix-ui'
import { Plus } from 'lucide-react'
import { useRef, type ReactNode } from 'react'
import { FORMAT_NAMES, type FormatName } from '@/core/score/formats'
import { Button } from '../parts/Button'
import { scoreTexts as words } from '@/core/words/en/score'

const GROUPS: readonly (readonly FormatName[])[] = [
  ['talk', 'warmUp', 'circuit', 'byStation', 'pairs', 'burst'],
  ['straight', 'ladder', 'slot', 'table', 'growingBreak', 'compound'],
  ['uneven', 'minuteTime', 'minuteReps', 'couplet', 'buyIn', 'pyramid'],
  ['sets', 'finisher', 'coolDown', 'break', 'again', 'list'],
]
if (GROUPS.flat().length !== FORMAT_NAMES.length) throw new Error('a format is missing from the menu')

export function AddSection({ onAdd, main }: { onAdd: (format: FormatName) => void; main: boolean }): ReactNode {
  const added = useRef(false)
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button weight={main ? 'main' : 'plain'} icon={<Plus size={18} />}>
          {words.addSection}
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={6}
          collisionPadding={12}
          onCloseAutoFocus={(event) => {
            // The new section takes the focus, not the button.
            if (added.current) event.preventDefault()
            added.current = false
          }}
          className="z-40 grid max-h-(--radix-dropdown-menu-content-available-height) w-[min(94vw,1130px)] grid-cols-4 gap-x-1 overflow-y-auto border-t-8 border-land bg-paper p-3 shadow-2xl max-md:grid-cols-2"
        >
          {GROUPS.map((group, index) => (
            <div key={index}>
              {group.map((format) => (
                <DropdownMenu.Item
                  key={format}
                  onSelect={() => {
                    added.current = true
                    onAdd(format)
                  }}
                  className="cursor-pointer px-3 py-1.5 outline-none data-[highlighted]:bg-land data-[highlighted]:text-print"
                >
                  <span className="block font-display text-xl leading-tight">{words.formats[format][0]}</span>
                  <span className="block text-[13px] leading-tight opacity-80">{words.formats[format][1]}</span>
                </DropdownMenu.Item>
              ))}
            </div>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
