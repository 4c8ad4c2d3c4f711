// Findings beside the thing they are about: what, why, and the mend. Set aside with a reason, brought back at will.
'use client'
import { CircleAlert, Crosshair, OctagonAlert, Lightbulb, Timer, Wrench } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import type { Judgement, ToldFinding } from '@/core/check/check'
import type { Severity } from '@/core/check/finding'
import { LONGEST_FINDING } from '@/core/score/score'
import { Button, IconButton } from '../parts/Button'
import type { Edit } from './edit'
import { findingSentence, mendLabel } from '@/core/words/en/findings'
import { scoreTexts } from '@/core/words/en/score'
import { clipped } from '@/core/text'

const words = scoreTexts.findings
const ICONS: Record<Severity, ReactNode> = {
  error: <OctagonAlert size={18} />,
  warning: <CircleAlert size={18} />,
  note: <Lightbulb size={18} />,
}
/** More than these are asked for, so that a score full of trouble stays quick. */
const FIRST = 30

interface Props {
  judgement: Judgement<ToldFinding> | null
  edit: Edit
  onMend: (findingId: string) => void
  onSelect: (segmentId: string) => void
  onNeeds: () => void
  /** Opens the moves that are not in the library. */
  onUnsure: () => void
  /** Opens the ways to another length. */
  onLength: () => void
  empty: boolean
}

export function Findings({ judgement, edit, onMend, onSelect, onNeeds, onUnsure, onLength, empty }: Props): ReactNode {
  const { findings, dismissed } = judgement ?? NOTHING
  const [all, setAll] = useState(false)
  const shown = all ? findings : findings.slice(0, FIRST)
  return (
    <aside aria-label={words.heading} className="flex flex-col gap-3">
      <div className="flex items-baseline justify-between">
        <h2 className="text-2xl">
          {words.heading}
          {findings.length > 0 && <span className="pl-2 tabular-nums">{findings.length}</span>}
        </h2>
        <button type="button" className="min-h-8 text-[13px] underline" onClick={onNeeds}>
          {words.needs}
        </button>
      </div>
      {!findings.length && (
        <p className="text-quiet">{empty ? words.nothingYet : judgement ? words.none : words.judging}</p>
      )}
      <ul className="flex flex-col gap-2.5">
        {shown.map((finding, index) => (
          <Card
            key={finding.id}
            finding={finding}
            edit={edit}
            onMend={onMend}
            onSelect={onSelect}
            onUnsure={onUnsure}
            onLength={onLength}
            repeated={index > 0 && whyOf(shown[index - 1]) === whyOf(finding)}
          />
        ))}
      </ul>
      {shown.length < findings.length && (
        <Button weight="bare" onClick={() => setAll(true)}>
          {words.more(findings.length - shown.length)}
        </Button>
      )}
      {dismissed.length > 0 && (
        <details>
          <summary className="min-h-8 cursor-pointer text-quiet">{words.dismissed(dismissed.length)}</summary>
          <ul className="flex flex-col gap-2 pt-2">
            {dismissed.map(({ finding, reason }) => (
              <li key={finding.id} className="border-l-4 border-rule pl-3 text-quiet">
                <p>{findingSentence(finding.fact).what}</p>
                {reason && <p className="italic">{reason}</p>}
                <button
                  type="button"
                  className="min-h-8 font-bold text-ink underline"
                  onClick={() =>
                    edit((draft) => {
                      draft.dismissed = draft.dismissed.filter((one) => one.finding !== finding.id)
                    })
                  }
                >
                  {words.restore}
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </aside>
  )
}

const NOTHING: Judgement<ToldFinding> = { findings: [], dismissed: [] }

const whyOf = (finding: ToldFinding | undefined): string | null => (finding ? findingSentence(finding.fact).why : null)

/** @param repeated the finding before has the same reason, which then need not stand twice. */
function Card({
  finding,
  edit,
  onMend,
  onSelect,
  onUnsure,
  onLength,
  repeated,
}: {
  finding: ToldFinding
  edit: Edit
  onMend: Props['onMend']
  onSelect: Props['onSelect']
  onUnsure: Props['onUnsure']
  onLength: Props['onLength']
  repeated: boolean
}): ReactNode {
  const [asking, setAsking] = useState(false)
  const { segmentId } = finding
  const { what, why } = findingSentence(finding.fact)
  return (
    <li
      className={`border-l-8 bg-pale py-2 pr-2 pl-3 ${finding.severity === 'note' ? 'border-water' : finding.severity === 'warning' ? 'border-land' : 'border-signal'}`}
      data-finding={finding.check}
    >
      <div className="flex items-start gap-2">
        <span
          className={`pt-0.5 ${finding.severity === 'error' ? 'text-signal' : ''}`}
          title={words.severities[finding.severity]}
        >
          {ICONS[finding.severity]}
          <span className="sr-only">{words.severities[finding.severity]}: </span>
        </span>
        <p className="min-w-0 flex-1 leading-snug font-bold break-words">{what}</p>
        {segmentId && (
          <IconButton label={words.go} className="-mt-1" onClick={() => onSelect(segmentId)}>
            <Crosshair size={16} />
          </IconButton>
        )}
      </div>
      {!repeated && <p className="pt-1 text-[13.5px] leading-snug text-quiet">{why}</p>}
      <div className="flex flex-wrap items-center gap-2 pt-1.5">
        <Ways finding={finding} onMend={onMend} onUnsure={onUnsure} onLength={onLength} />
        {!asking && (
          <button type="button" className="min-h-8 px-1 text-[13.5px] underline" onClick={() => setAsking(true)}>
            {words.dismiss}
          </button>
        )}
      </div>
      {asking && (
        <Dismissal
          onCancel={() => setAsking(false)}
          onDismiss={(reason) =>
            edit((draft) => {
              draft.dismissed.push({ finding: clipped(finding.id, LONGEST_FINDING), reason: clipped(reason, 1000) })
            })
          }
        />
      )}
    </li>
  )
}

/** What can be done about a finding. */
function Ways({
  finding: { id, mend, fact },
  onMend,
  onUnsure,
  onLength,
}: Pick<Props, 'onMend' | 'onUnsure' | 'onLength'> & { finding: ToldFinding }): ReactNode {
  return (
    <>
      {mend && (
        <Button weight="plain" className="!min-h-8 !border px-3" icon={<Wrench size={15} />} onClick={() => onMend(id)}>
          {mendLabel(mend)}
        </Button>
      )}
      {fact.code === 'promise-off' && (
        <Button weight="plain" className="!min-h-8 !border px-3" icon={<Timer size={15} />} onClick={onLength}>
          {scoreTexts.otherLength.fit}
        </Button>
      )}
      {fact.code === 'moves-unsure' && (
        <Button weight="plain" className="!min-h-8 !border px-3" onClick={onUnsure}>
          {scoreTexts.unsure.open}
        </Button>
      )}
    </>
  )
}

/** Asks for the reason why a finding is laid aside. */
function Dismissal({ onDismiss, onCancel }: { onDismiss: (reason: string) => void; onCancel: () => void }): ReactNode {
  const [reason, setReason] = useState('')
  return (
    <form
      className="flex items-end gap-2 pt-1"
      onSubmit={(event) => {
        event.preventDefault()
        onDismiss(reason)
      }}
    >
      <label className="min-w-0 flex-1 text-[13px] text-quiet">
        {words.reason}
        <input
          autoFocus
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Escape') onCancel()
          }}
          className="mt-0.5 min-h-8 w-full border-b-2 border-rule bg-transparent px-1 text-ink focus:border-ink"
        />
      </label>
      <Button weight="plain" className="!min-h-8 !border px-2.5 text-[13.5px]" type="submit">
        {words.save}
      </Button>
    </form>
  )
}
