// A plan pasted as it stands in a description: what was understood is shown as shorthand before anything is taken.
'use client'
import { useMemo, useState, type ReactNode } from 'react'
import { tryExpand } from '@/core/expand/expand'
import { readPastedPlan } from '@/core/read/pastedPlan'
import { freshKey } from '@/core/score/score'
import { printShorthand } from '@/core/shorthand/print'
import { formatClock } from '@/core/time/clock'
import { Button } from '../parts/Button'
import { Sheet } from '../parts/Sheet'
import type { Edit } from './edit'
import { scoreTexts } from '@/core/words/en/score'

const words = scoreTexts.pastePlan

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  edit: Edit
  empty: boolean
}

export function PastePlan({ open, onOpenChange, edit, empty }: Props): ReactNode {
  const [text, setText] = useState('')
  const plan = useMemo(() => readPastedPlan(text), [text])
  const shown = useMemo(() => printShorthand(plan).replace(/^title.*\n/, ''), [plan])
  const unread = shown.split('\n').filter((line) => line.startsWith('?')).length
  const total = tryExpand(plan).expansion
  const take = (whole: boolean): void => {
    edit((draft) => {
      if (whole) draft.sections = []
      const keys = draft.sections.map((section) => section.key)
      for (const section of plan.sections) {
        const key = freshKey(section.name, keys)
        keys.push(key)
        draft.sections.push({ ...section, key })
      }
      draft.below.push(...plan.below)
      if (plan.title && (whole || !draft.title)) draft.title = plan.title
    })
    setText('')
    onOpenChange(false)
  }
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.heading} hint={words.hint} wide>
      <textarea
        autoFocus
        aria-label={words.heading}
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder={words.placeholder}
        spellCheck={false}
        className="h-40 w-full resize-y border-2 border-ink bg-pale p-3 placeholder:text-quiet/80"
      />
      {text.trim() && (
        <>
          <h3 className="pt-3 text-xl">
            {words.read}
            {total && (
              <span className="pl-3 font-text text-base tabular-nums">
                {total.estimated ? `${scoreTexts.about} ` : ''}
                {formatClock(total.totalMs)}
              </span>
            )}
          </h3>
          <pre className="mt-1 max-h-48 overflow-auto bg-pale p-3 font-text whitespace-pre-wrap">
            {shown.split('\n').map((line, index) => (
              <span key={index} className={line.startsWith('?') ? 'block text-signal' : 'block'}>
                {line || ' '}
              </span>
            ))}
          </pre>
          {unread > 0 && <p className="pt-2 font-bold text-signal">{words.unread(unread)}</p>}
        </>
      )}
      <div className="mt-4 flex justify-end gap-3">
        {!empty && (
          <Button disabled={!plan.sections.length && !unread} onClick={() => take(true)}>
            {words.replace}
          </Button>
        )}
        <Button weight="main" disabled={!plan.sections.length && !unread} onClick={() => take(false)}>
          {words.add}
        </Button>
      </div>
    </Sheet>
  )
}
