// Which camera shows the interval that plays. Only there is a choice where a second camera has all of it.
'use client'
import { useCallback, useEffect, useMemo, useState, type ReactNode } from 'react'
import { seenBy, type Camera } from '@/core/cut/cameras'
import { spanAt, type Cut } from '@/core/cut/cut'
import type { CutWishes } from '@/core/cut/fit'
import { reelTexts as words } from '@/core/words/en/reel'
import { ChoiceField } from '../parts/fields'
import type { VideoClock } from '../parts/useVideoClock'

const MAIN = 'main'

/** A second camera, and what its file is called. */
export interface NamedCamera extends Camera {
  name: string
}

interface Props {
  clock: VideoClock
  /** As it would be without second cameras. */
  cut: Cut
  cameras: readonly NamedCamera[]
  wishes: CutWishes
  onChange: (part: Partial<CutWishes>) => void
}

export interface CameraChoice {
  /** By their ids; the first camera first. Null where there is nothing to choose. */
  options: Record<string, string> | null
  value: string
  choose: (id: string) => void
  next: () => void
}

export function useCameras({ clock, cut, cameras, wishes, onChange }: Props): CameraChoice {
  const [at, setAt] = useState(0)
  useEffect(() => clock.follow((outMs) => setAt(spanAt(cut, outMs))), [clock, cut])
  const span = cut.spans[at]
  const segmentId = span?.segmentId ?? null
  const options = useMemo(() => {
    const able = span && segmentId !== null ? cameras.filter((camera) => seenBy(camera, span)) : []
    return able.length ? Object.fromEntries([[MAIN, words.main], ...able.map(({ id, name }) => [id, name])]) : null
  }, [cameras, span, segmentId])
  const chosen = segmentId === null ? undefined : wishes.cameras[segmentId]
  const value = chosen && options?.[chosen] ? chosen : MAIN
  const choose = useCallback(
    (id: string) => {
      if (segmentId === null) return
      const { [segmentId]: _, ...others } = wishes.cameras
      onChange({ cameras: id === MAIN ? others : { ...others, [segmentId]: id } })
    },
    [segmentId, wishes.cameras, onChange],
  )
  const next = useCallback(() => {
    const ids = Object.keys(options ?? {})
    const after = ids[(ids.indexOf(value) + 1) % ids.length]
    if (after !== undefined) choose(after)
  }, [options, value, choose])
  return { options, value, choose, next }
}

export function CameraField({ options, value, choose }: CameraChoice): ReactNode {
  return options && <ChoiceField label={words.shownFrom} value={value} options={options} onChange={choose} showLabel />
}
