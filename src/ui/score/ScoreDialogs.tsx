// The dialogs of the Score view; one is open at a time.
'use client'
import type { ReactNode } from 'react'
import { scoreTexts as words } from '@/core/words/en/score'
import { StaleDialog } from '../parts/StaleDialog'
import { BeatPlanner } from './BeatPlanner'
import { OtherLength } from './OtherLength'
import { PastePlan } from './PastePlan'
import { Needs, Rules } from './Rules'
import { SolvePromise } from './SolvePromise'
import { UnsureMoves } from './UnsureMoves'
import type { ScoreEditing } from './useScoreEditing'

export type Dialog = 'solve' | 'paste' | 'rules' | 'needs' | 'beat' | 'unsure' | 'length'

interface Props {
  editing: ScoreEditing
  open: Dialog | null
  onOpen: (dialog: Dialog | null) => void
}

export function ScoreDialogs({ editing, open, onOpen }: Props): ReactNode {
  const { score, edit, expansion, state, library } = editing
  const of = (dialog: Dialog): { open: boolean; onOpenChange: (open: boolean) => void } => ({
    open: open === dialog,
    onOpenChange: (opened) => onOpen(opened ? dialog : null),
  })
  return (
    <>
      <SolvePromise {...of('solve')} score={score} totalMs={expansion.totalMs} edit={edit} />
      <OtherLength {...of('length')} score={score} edit={edit} />
      <PastePlan {...of('paste')} edit={edit} empty={score.sections.length === 0} />
      <Rules {...of('rules')} score={score} edit={edit} />
      <Needs {...of('needs')} score={score} edit={edit} />
      <BeatPlanner {...of('beat')} expansion={expansion} edit={edit} />
      <UnsureMoves {...of('unsure')} score={score} library={library} edit={edit} />
      <StaleDialog open={state.saveState === 'stale'} hint={words.staleText} onAnswer={state.resolveStale} />
    </>
  )
}
