// The sheet of keys, on `?` from anywhere.
'use client'
import { Keyboard } from 'lucide-react'
import { useEffect, useState, type ReactNode } from 'react'
import { texts } from '@/core/words/en/screens'
import { isShortcut, setSingleKeys, singleKeysOn } from './isTyping'
import { Sheet } from './Sheet'
import { CheckField } from './CheckField'

export type KeyPage = 'score' | 'floor' | 'sync' | 'watch'

export function KeySheet({ page }: { page: KeyPage | undefined }): ReactNode {
  const [open, setOpen] = useState(false)
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === '?' && isShortcut(event)) setOpen(true)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  const rows = [...(page && page in texts.keys ? texts.keys[page] : []), ...texts.keys.everywhere]
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        aria-label={texts.keys.open}
        title={`${texts.keys.open} (?)`}
        className="grid w-14 place-items-center hover:bg-on-bar/15 max-md:w-9 max-sm:hidden"
      >
        <Keyboard size={20} />
      </button>
      <Sheet open={open} onOpenChange={setOpen} title={texts.keys.heading}>
        <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2.5">
          {rows.map(([keys, what]) => (
            <div key={keys} className="contents">
              <dt className="font-display text-xl">{keys}</dt>
              <dd className="self-center text-quiet">{what}</dd>
            </div>
          ))}
        </dl>
        {open && <SingleKeys />}
      </Sheet>
    </>
  )
}

/** Kept in this browser. */
function SingleKeys(): ReactNode {
  const [on, setOn] = useState(singleKeysOn)
  return (
    <CheckField
      className="mt-5 border-t border-rule pt-3"
      label={texts.keys.single}
      on={on}
      onChange={(next) => {
        setSingleKeys(next)
        setOn(next)
      }}
    />
  )
}
