// What is told more rarely: notes, numbers, the round once more, the end.
'use client'
import { useState, type FormEvent, type ReactNode } from 'react'
import { toast } from 'sonner'
import { RESULTS, type ResultOf } from '@/core/floor/events'
import { floorTexts as words } from '@/core/words/en/floor'
import { Button } from '../parts/Button'
import { Sheet } from '../parts/Sheet'
import type { FloorSession } from './useFloorSession'

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  floor: FloorSession
  /** What notes and numbers are about. */
  about: { segmentId: string; name: string } | null
}

export function MoreSheet({ open, onOpenChange, floor, about }: Props): ReactNode {
  const close = (): void => onOpenChange(false)
  const kept = (): void => {
    toast(words.noteKept)
    close()
  }
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={about?.name ?? words.more}>
      <div className="flex flex-wrap gap-3">
        <Button
          className="min-h-16"
          disabled={!floor.can('restartRound')}
          onClick={() => {
            floor.command('restartRound')
            close()
          }}
        >
          {words.round}
        </Button>
        <Button
          className="min-h-16"
          onClick={() => {
            floor.link.tell({ kind: 'end' })
            close()
          }}
        >
          {words.end}
        </Button>
      </div>
      {about && (
        <>
          <NoteForm
            onKeep={(text) => {
              floor.link.tell({ kind: 'note', segmentId: about.segmentId, text })
              kept()
            }}
          />
          <div className="mt-5 grid gap-3">
            {RESULTS.map((of) => (
              <ResultForm
                key={of}
                of={of}
                onKeep={(value) => {
                  floor.link.tell({ kind: 'result', segmentId: about.segmentId, of, value })
                  kept()
                }}
              />
            ))}
          </div>
        </>
      )}
    </Sheet>
  )
}

const FIELD = 'min-h-12 border-2 border-ink bg-pale px-3 text-lg'

function NoteForm({ onKeep }: { onKeep: (text: string) => void }): ReactNode {
  const [text, setText] = useState('')
  const keep = (event: FormEvent): void => {
    event.preventDefault()
    if (text.trim()) onKeep(text.trim())
  }
  return (
    <form onSubmit={keep} className="mt-6 flex flex-wrap items-end gap-3">
      <label className="grid grow gap-1">
        {words.note}
        <input
          className={FIELD}
          value={text}
          maxLength={500}
          placeholder={words.noteHint}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <Button type="submit" className="min-h-12" disabled={!text.trim()}>
        {words.keep}
      </Button>
    </form>
  )
}

function ResultForm({ of, onKeep }: { of: ResultOf; onKeep: (value: number) => void }): ReactNode {
  const [text, setText] = useState('')
  const value = Number(text.replace(',', '.'))
  const fine = text.trim() !== '' && Number.isFinite(value) && value >= 0 && value <= 10_000
  const keep = (event: FormEvent): void => {
    event.preventDefault()
    if (fine) onKeep(value)
  }
  return (
    <form onSubmit={keep} className="flex items-end gap-3">
      <label className="grid grow gap-1">
        {words.results[of]}
        <input
          className={FIELD}
          inputMode="decimal"
          value={text}
          aria-invalid={text !== '' && !fine}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <Button type="submit" className="min-h-12" disabled={!fine}>
        {words.keep}
      </Button>
    </form>
  )
}
