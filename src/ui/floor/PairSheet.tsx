// A code for the tablet beside the mat: read with its camera, it opens this floor and nothing else.
'use client'
import { Smartphone } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { accessTexts as words } from '@/core/words/en/floor'
import { call } from '../api'
import { Button } from '../parts/Button'
import { Sheet } from '../parts/Sheet'

interface Code {
  url: string
  svg: string
}

export function PairButton({ workoutId }: { workoutId: string }): ReactNode {
  const [code, setCode] = useState<Code | null>(null)
  const pair = (): void => {
    call<Code>('POST', `/api/workouts/${workoutId}/pairing`)
      .then(setCode)
      .catch((error: Error) => toast.error(error.message))
  }
  return (
    <>
      <Button icon={<Smartphone size={18} />} onClick={pair}>
        {words.pair}
      </Button>
      <Sheet
        open={code !== null}
        onOpenChange={(open) => !open && setCode(null)}
        title={words.pair}
        hint={words.pairHint}
      >
        {code && (
          <>
            <img
              className="mx-auto w-72 max-w-full bg-white"
              src={`data:image/svg+xml;utf8,${encodeURIComponent(code.svg)}`}
              alt={words.picture}
            />
            <p className="mt-4 text-center break-all">{code.url}</p>
          </>
        )}
      </Sheet>
    </>
  )
}
