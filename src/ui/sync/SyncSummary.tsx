// How much is tied and how surely, how the session went, and the one tie that would help most.
import type { ReactNode } from 'react'
import { tieKey } from '@/core/align/boundaries'
import type { filmedInPart, Story } from '@/core/align/story'
import type { SyncSummary as Summary } from '@/core/align/sync'
import { formatClock } from '@/core/time/clock'
import { storySentence } from '@/core/words/en/hearing'
import { nameOf, roundOf } from '@/core/words/en/names'
import { texts } from '@/core/words/en/screens'
import type { Change } from './changes'

const words = texts.sync
const whole = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0, signDisplay: 'exceptZero' })
const seconds = new Intl.NumberFormat('en-GB', {
  style: 'unit',
  unit: 'second',
  unitDisplay: 'narrow',
  minimumFractionDigits: 2,
  maximumFractionDigits: 2,
})

interface Props {
  changes: Change[]
  summary: Summary
  story: Story
  /** Whether the changes were looked for, or tied at all: until then nothing is asked for. */
  asks: boolean
  /** Where the footage is too short for all that was planned. */
  inPart: ReturnType<typeof filmedInPart>
  onShow: (index: number) => void
}

export function SyncSummary({ changes, summary, story, asks, inPart, onShow }: Props): ReactNode {
  const { sure, likely, ask } = story
  const tied = sure + likely
  const asked = ask ? changes.findIndex((change) => tieKey(change) === tieKey(ask)) : -1
  const change = changes[asked]
  return (
    <div data-testid="sync-summary" className="min-w-0">
      <p className="font-display text-3xl leading-none">{words.tied(tied, changes.length)}</p>
      {tied === 0 && !asks && <p className="pt-1 text-quiet">{words.listensFor}</p>}
      {tied > 0 && <p className="pt-1 text-quiet tabular-nums">{figuresOf(story, summary)}</p>}
      {inPart && <p>{words.inPart(formatClock(inPart.footageMs), formatClock(inPart.plannedMs))}</p>}
      {tied > 0 && <p>{storySentence(story)}</p>}
      {asks && change && (
        <p className="pt-1" data-testid="ask">
          {words.ask(changeName(change))}{' '}
          <button type="button" className="font-bold underline underline-offset-4" onClick={() => onShow(asked)}>
            {words.showMe}
          </button>
        </p>
      )}
    </div>
  )
}

/** "12 sure · 1 likely · clock +64 ppm · furthest off by 2.31s"; what is none is not told. */
function figuresOf({ sure, likely, open }: Story, { driftPpm, worstErrorMs }: Summary): string {
  return [
    sure && words.sure(sure),
    likely && words.likely(likely),
    open && words.unheard(open),
    sure + likely > 1 && words.clock(whole.format(driftPpm)),
    sure + likely > 1 && `${words.worst} ${seconds.format(worstErrorMs / 1000)}`,
  ]
    .filter(Boolean)
    .join(' · ')
}

/** "Jug lift starts, Round 2 of 3" */
const changeName = ({ segment, edge }: Change): string =>
  [`${nameOf(segment)} ${edge === 'start' ? words.start : words.end}`, roundOf(segment)].filter(Boolean).join(', ')
