// What the creator does with stretches that nobody wants to see whole: with the talk or pause that plays, and with dead
// stretches that are marked from where they begin to where they end.
'use client'
import { useCallback, useState } from 'react'
import { toast } from 'sonner'
import type { Cut, ShownSegment } from '@/core/cut/cut'
import type { CutWishes } from '@/core/cut/fit'
import type { Treatment } from '@/core/cut/treated'
import { formatInstant } from '@/core/time/clock'
import { cutTexts as words } from '@/core/words/en/cuts'
import { nameOf } from '@/core/words/en/names'
import type { FilmFile } from '../parts/ReelVideo'
import type { VideoClock } from '../parts/useVideoClock'
import { placeAt, type Place } from './placeAt'

interface Props {
  clock: VideoClock
  cut: Cut
  shown: readonly ShownSegment[]
  files: readonly FilmFile[]
  wishes: CutWishes
  onChange: (part: Partial<CutWishes>) => void
}

export interface Treatments {
  /** Shows what plays in another way; null: whole. */
  treat: (as: Treatment | null) => void
  /** Begins a dead stretch at the picture that is seen, or ends the one that was begun there and cuts it out. */
  mark: () => void
}

export function useTreatments({ clock, cut, shown, files, wishes, onChange }: Props): Treatments {
  const [begun, setBegun] = useState<Place | null>(null)
  const treat = useCallback(
    (as: Treatment | null) => {
      const now = clock.nowMs()
      const playing = shown.find(({ startMs, endMs }) => now >= startMs && now < endMs)?.segment
      if (!playing) return void toast(words.nothingPlays)
      if (playing.kind === 'work') return void toast(words.workStays)
      const { [playing.id]: _, ...others } = wishes.treated
      onChange({ treated: as ? { ...others, [playing.id]: as } : others })
      toast(words.treatedAs(nameOf(playing), as))
    },
    [clock, shown, wishes.treated, onChange],
  )
  const mark = useCallback(() => {
    const here = placeAt(cut, clock.nowMs(), files)
    if (!here) return void toast(words.notFilmedHere)
    if (!begun) {
      setBegun(here)
      return void toast(words.deadFrom(formatInstant(here.ms)), { duration: Infinity, id: 'dead' })
    }
    toast.dismiss('dead')
    setBegun(null)
    if (here.footage !== begun.footage) return void toast(words.deadInOneFile)
    const [fromMs, toMs] = [Math.min(begun.ms, here.ms), Math.max(begun.ms, here.ms)]
    if (toMs - fromMs < 1) return
    onChange({ dead: [...wishes.dead, { footage: here.footage, fromMs, toMs, as: 'cut' }] })
    toast(words.deadTo(formatInstant(fromMs), formatInstant(toMs)))
  }, [clock, cut, files, begun, wishes.dead, onChange])
  return { treat, mark }
}
