// Removes what is out of use already; asked once, as nothing brings it back.
'use client'
import { Trash2 } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { forGoodTexts as words } from '@/core/words/en/forGood'
import { call } from '../api'
import { Button, IconButton } from './Button'
import { Sheet } from './Sheet'

interface Props {
  what: keyof typeof words.hint
  name: string
  bytes: number
  /** Of what is removed, on the server. */
  path: string
}

export function RemoveForGood({ what, name, bytes, path }: Props): ReactNode {
  const [asked, setAsked] = useState(false)
  const router = useRouter()
  const remove = (): void =>
    void call('DELETE', path).then(
      () => {
        setAsked(false)
        toast(words.removed(name))
        router.refresh()
      },
      (error: Error) => toast.error(error.message),
    )
  return (
    <>
      <IconButton label={words.label(name)} onClick={() => setAsked(true)}>
        <Trash2 size={17} />
      </IconButton>
      <Sheet open={asked} onOpenChange={setAsked} title={words.title(name)} hint={words.hint[what](bytes)}>
        <div className="flex flex-wrap justify-end gap-3">
          <Button onClick={remove}>{words.remove}</Button>
          <Button weight="main" autoFocus onClick={() => setAsked(false)}>
            {words.keep}
          </Button>
        </div>
      </Sheet>
    </>
  )
}
