// The title, the totals and the promise, undo, and whether all is saved: always in sight while the score is edited.
'use client'
import { Redo2, Undo2 } from 'lucide-react'
import type { ReactNode } from 'react'
import { texts } from '@/core/words/en/screens'
import { IconButton } from '../parts/Button'
import { NameField } from '../parts/fields'
import type { SaveState } from '../parts/saveQueue'
import type { ScoreState } from './scoreStore'
import { Totals } from './Totals'
import type { ScoreEditing } from './useScoreEditing'

const words = texts.score

export function ScoreHead({ editing }: { editing: ScoreEditing }): ReactNode {
  const { state, score, edit, expansion } = editing
  return (
    <div className="top-0 z-20 flex items-end gap-x-6 bg-paper px-6 py-2.5 max-lg:flex-wrap max-md:px-3 md:sticky [@media(max-height:620px)]:!static">
      <h1 className="sr-only">{score.title || words.untitled}</h1>
      <div className="min-w-56 flex-1 font-display text-[32px] max-md:text-[26px]">
        <NameField
          label={texts.shelf.name}
          value={score.title}
          onChange={(title) => edit((draft) => void (draft.title = title))}
          wide
          className="w-full !border-transparent py-0.5 text-ellipsis hover:!border-rule"
          placeholder={words.untitled}
        />
      </div>
      <Totals
        expansion={expansion}
        promise={score}
        onPromise={(promiseMs) => edit((draft) => void (draft.promiseMs = promiseMs))}
      />
      <div className="flex flex-col items-end max-lg:order-1">
        <span className="flex">
          <IconButton label={`${words.undo} (Ctrl Z)`} disabled={!state.undo.length} onClick={state.undoOnce}>
            <Undo2 size={19} />
          </IconButton>
          <IconButton label={`${words.redo} (Ctrl Shift Z)`} disabled={!state.redo.length} onClick={state.redoOnce}>
            <Redo2 size={19} />
          </IconButton>
        </span>
        <SaveLine state={state} />
      </div>
    </div>
  )
}

const TROUBLED: ReadonlySet<SaveState> = new Set(['offline', 'stale', 'refused'])

function SaveLine({ state: { saveState, refusal } }: { state: ScoreState }): ReactNode {
  const shown: Record<SaveState, string> = {
    saved: words.saved,
    saving: words.saving,
    unsaved: words.unsaved,
    offline: words.offline,
    stale: texts.stale.title,
    refused: words.refused(refusal),
  }
  return (
    <p
      role="status"
      data-testid="save-state"
      className={`max-w-52 min-w-20 text-right text-[13px] leading-tight ${TROUBLED.has(saveState) ? 'text-signal' : 'text-quiet'}`}
    >
      {shown[saveState]}
    </p>
  )
}
