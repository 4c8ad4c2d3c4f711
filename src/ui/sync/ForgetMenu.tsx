// Takes ties away by the handful: what was heard, a kind of it, what hands made, a stretch. One step to undo.
'use client'
import { Eraser } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import type { ReactNode } from 'react'
import { toast } from 'sonner'
import { placesOf, type Stitch } from '@/core/align/ties'
import { tieKey } from '@/core/align/boundaries'
import type { EvidenceKind } from '@/core/evidence'
import type { Segment } from '@/core/score/segment'
import { EVIDENCE_NAMES } from '@/core/words/en/hearing'
import { texts } from '@/core/words/en/screens'
import { IconButton } from '../parts/Button'
import { MenuContent } from '../parts/MenuContent'
import type { Stitching } from './useStitching'

const words = texts.sync
const KINDS: readonly EvidenceKind[] = ['beep', 'word', 'sample', 'caption', 'chirp', 'log']

interface Props {
  on: Pick<Stitching, 'changes' | 'change' | 'forget' | 'undo' | 'anyTied'>
  segments: readonly Segment[]
}

export function ForgetMenu({ on, segments }: Props): ReactNode {
  const { changes, change } = on
  const forget = (which: (tie: Stitch) => boolean): void => {
    const count = on.forget(which)
    if (count) toast(words.forgot(count), { action: { label: texts.score.undo, onClick: on.undo } })
  }
  const there = KINDS.filter((kind) => changes.some(({ origin }) => origin === kind))
  const places = placesOf(segments)
  const chosenAt = change ? (places.get(tieKey(change)) ?? -1) : -1
  /** By places in the order of the plan; what is no longer planned stays. */
  const where = (isMeant: (at: number, tie: Stitch) => boolean) => (): void =>
    forget((tie) => {
      const at = places.get(tieKey(tie))
      return at !== undefined && isMeant(at, tie)
    })
  const round = new Set(
    segments
      .filter(({ section, round }) => section === change?.segment.section && round === change.segment.round)
      .map(({ id }) => id),
  )
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label={words.forgetTies} disabled={!on.anyTied}>
          <Eraser size={18} />
        </IconButton>
      </DropdownMenu.Trigger>
      <MenuContent align="end" className="w-72">
        <Item label={words.forgetAll} onSelect={() => forget(({ origin }) => origin === 'heard')} />
        {there.map((kind) => (
          <Item
            key={kind}
            label={EVIDENCE_NAMES[kind]}
            onSelect={() => forget(({ origin, evidence }) => origin === 'heard' && evidence[0] === kind)}
          />
        ))}
        <Item label={words.forgetHands} onSelect={() => forget(({ origin }) => origin === 'hand')} />
        {change && (
          <>
            <Item label={words.forgetFrom} onSelect={where((at) => at >= chosenAt)} />
            <Item label={words.forgetUntil} onSelect={where((at) => at <= chosenAt)} />
            {change.segment.round !== null && (
              <Item label={words.forgetRound} onSelect={where((_, tie) => round.has(tie.segmentId))} />
            )}
          </>
        )}
      </MenuContent>
    </DropdownMenu.Root>
  )
}

function Item({ label, onSelect }: { label: string; onSelect: () => void }): ReactNode {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="flex min-h-11 cursor-pointer items-center px-3 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-paper"
    >
      {label}
    </DropdownMenu.Item>
  )
}
