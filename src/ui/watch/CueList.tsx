// Single cues: what does not fit with why, and every cue to be silenced, moved or reworded. Pips go with their change
// and are not listed.
'use client'
import { Bell, BellOff, ChevronLeft, ChevronRight, MessageSquare } from 'lucide-react'
import { useMemo, type ReactNode } from 'react'
import type { Cue, CueFinding, CueSheet } from '@/core/cue/cue'
import { MOST_SHIFT_MS, UNEDITED, type CueEdit, type CueWishes } from '@/core/cue/wishes'
import type { ShownSegment } from '@/core/cut/cut'
import { formatClock } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { findingWhy, ruleName, SOUND_NAMES, soundTexts as words } from '@/core/words/en/sounds'
import { nameOf } from '@/core/words/en/names'
import { Button, IconButton } from '../parts/Button'
import { NameField } from '../parts/fields'

interface Props {
  wishes: CueWishes
  onChange: (part: Partial<CueWishes>) => void
  sheet: CueSheet
  shown: readonly ShownSegment[]
  onGo: (outMs: Ms) => void
}

const STEP_MS: Ms = 100

export function CueList({ wishes, onChange, sheet, shown, onGo }: Props): ReactNode {
  const names = useMemo(() => new Map(shown.map(({ segment }) => [segment.id, nameOf(segment)])), [shown])
  const muted = new Set(sheet.muted.map(({ id }) => id))
  const rows = [...sheet.cues, ...sheet.muted]
    .filter(({ rule }) => rule !== 'countIn')
    .sort((one, other) => one.atMs - other.atMs)
  const edit = (id: string, part: Partial<CueEdit>): void => {
    const next = { ...(wishes.edits[id] ?? UNEDITED), ...part }
    const { [id]: _, ...others } = wishes.edits
    const isPlain = !next.muted && !next.shiftMs && next.line === null
    onChange({ edits: isPlain ? others : { ...others, [id]: next } })
  }
  return (
    <>
      <Unfit findings={sheet.findings} names={names} onDrop={(id) => edit(id, { muted: true })} onGo={onGo} />
      <h3 className="mt-6 text-xl">{words.single}</h3>
      <p className="mt-1 text-quiet">{words.singleHint}</p>
      <ul className="mt-2 max-h-[46vh] divide-y divide-rule overflow-y-auto border-y-2 border-ink pr-2">
        {rows.map((cue) => (
          <CueRow
            key={cue.id}
            cue={cue}
            name={names.get(cue.segmentId) ?? ''}
            own={wishes.edits[cue.id] ?? UNEDITED}
            isMuted={muted.has(cue.id)}
            onEdit={(part) => edit(cue.id, part)}
            onGo={() => onGo(cue.atMs)}
          />
        ))}
      </ul>
    </>
  )
}

interface UnfitProps {
  findings: readonly CueFinding[]
  names: ReadonlyMap<string, string>
  onDrop: (id: string) => void
  onGo: (outMs: Ms) => void
}

function Unfit({ findings, names, onDrop, onGo }: UnfitProps): ReactNode {
  if (!findings.length) return <p className="mt-6 font-bold">{words.allFits}</p>
  return (
    <section className="mt-6 border-l-8 border-signal bg-pale p-4">
      <h3 className="text-xl">{words.unheard(findings.length)}</h3>
      <ul className="mt-1 max-h-[30vh] divide-y divide-rule overflow-y-auto">
        {findings.map((finding) => {
          const { id, atMs, rule, segmentId, line } = finding
          const what = line === null ? ruleName(rule) : `"${line}"`
          return (
            <li key={id} className="flex flex-wrap items-center gap-x-3 py-1.5">
              <Place what={what} atMs={atMs} onGo={onGo} />
              <span className="flex-1">
                <b>{what}</b> <span className="text-quiet">{names.get(segmentId)}</span>
                <span className="block text-sm">{findingWhy(finding)}</span>
              </span>
              <Button weight="bare" onClick={() => onDrop(id)}>
                {words.drop}
              </Button>
            </li>
          )
        })}
      </ul>
    </section>
  )
}

function Place({ what, atMs, onGo }: { what: string; atMs: Ms; onGo: (outMs: Ms) => void }): ReactNode {
  return (
    <button
      type="button"
      aria-label={words.go(what, formatClock(atMs))}
      className="min-h-9 w-14 text-left font-display text-xl tabular-nums underline"
      onClick={() => onGo(atMs)}
    >
      {formatClock(atMs)}
    </button>
  )
}

interface RowProps {
  cue: Cue
  /** Of its interval. */
  name: string
  own: CueEdit
  isMuted: boolean
  onEdit: (part: Partial<CueEdit>) => void
  onGo: () => void
}

function CueRow({ cue, name, own, isMuted, onEdit, onGo }: RowProps): ReactNode {
  const what = cue.line === null ? `${SOUND_NAMES[cue.sound]}, ${name}` : `"${cue.line}"`
  const shift = (byMs: Ms): void =>
    onEdit({ shiftMs: Math.max(-MOST_SHIFT_MS, Math.min(MOST_SHIFT_MS, own.shiftMs + byMs)) })
  return (
    <li className={`flex flex-wrap items-center gap-x-2 py-1 ${isMuted ? 'text-quiet' : ''}`}>
      <Place what={what} atMs={cue.atMs} onGo={onGo} />
      {cue.line === null ? (
        <span className="min-w-40 flex-1">
          <b className={isMuted ? 'line-through' : ''}>{SOUND_NAMES[cue.sound]}</b>{' '}
          <span className="text-quiet">{name}</span>
        </span>
      ) : (
        <span className="flex min-w-40 flex-1 items-center gap-2">
          <MessageSquare size={16} className="shrink-0" aria-hidden />
          <NameField
            label={`${words.reword}: ${cue.line}`}
            value={cue.line}
            wide
            onChange={(line) => onEdit({ line: line.trim() || null })}
          />
        </span>
      )}
      <span className="w-16 text-right text-sm tabular-nums">
        {isMuted ? words.mutedNote : own.shiftMs ? words.moved(own.shiftMs) : ''}
      </span>
      <IconButton label={words.earlier(what)} onClick={() => shift(-STEP_MS)}>
        <ChevronLeft size={18} />
      </IconButton>
      <IconButton label={words.later(what)} onClick={() => shift(STEP_MS)}>
        <ChevronRight size={18} />
      </IconButton>
      <IconButton
        label={isMuted ? words.unmute(what) : words.mute(what)}
        aria-pressed={isMuted}
        onClick={() => onEdit({ muted: !isMuted })}
      >
        {isMuted ? <BellOff size={18} /> : <Bell size={18} />}
      </IconButton>
    </li>
  )
}
