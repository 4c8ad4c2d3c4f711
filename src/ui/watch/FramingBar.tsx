// Where the picture looks: a slider that sets a key at what is seen, the way to other keys, and a way to have them
// follow whoever moves.
'use client'
import { ChevronLeft, ChevronRight, Footprints, X } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import type { Ms } from '@/core/units'
import { framingTexts as words } from '@/core/words/en/framing'
import { Button, IconButton } from '../parts/Button'
import { Level } from '../parts/Level'
import { useSteps, type VideoClock } from '../parts/useVideoClock'
import type { WatchedFraming } from './useFraming'

/** It is drawn anew so often while the picture plays. */
const STEP_MS: Ms = 200
/** A key so near is the one that is stood at. */
const BESIDE_MS: Ms = 60

interface Props {
  framing: WatchedFraming
  clock: VideoClock
  onGo: (outMs: Ms) => void
}

export function FramingBar({ framing, clock, onGo }: Props): ReactNode {
  useSteps(clock, STEP_MS)
  const [moved, setMoved] = useState(0)
  void moved
  const { at, key } = framing.now()
  const { keysAt } = framing
  const here = clock.nowMs()
  const before = keysAt.findLast((ms) => ms < here - BESIDE_MS),
    after = keysAt.find((ms) => ms > here + BESIDE_MS)
  const go = (ms: Ms | undefined): void => {
    if (ms !== undefined) onGo(ms)
  }
  return (
    <div className="flex min-h-12 flex-wrap items-center gap-x-4 gap-y-1 border-t-2 border-rule bg-pale px-6 max-sm:px-4">
      <Level
        label={words.looks}
        value={at}
        range={{ least: 0, most: 1, step: 0.01 }}
        told={words.place(at)}
        onChange={(next) => {
          framing.aim(next)
          setMoved((times) => times + 1)
        }}
      />
      <span className="flex items-center">
        <IconButton label={words.before} disabled={before === undefined} onClick={() => go(before)}>
          <ChevronLeft size={20} />
        </IconButton>
        <span className="min-w-16 text-center text-sm tabular-nums">{words.keys(framing.framing.keys.length)}</span>
        <IconButton label={words.after} disabled={after === undefined} onClick={() => go(after)}>
          <ChevronRight size={20} />
        </IconButton>
        <IconButton label={words.drop} disabled={!key} onClick={() => key && framing.drop(key)}>
          <X size={19} />
        </IconButton>
      </span>
      <Button weight="bare" icon={<Footprints size={18} />} disabled={framing.following} onClick={framing.follow}>
        {framing.following ? words.following : words.follow}
      </Button>
      {framing.framing.keys.length > 0 && (
        <Button weight="bare" onClick={framing.clear}>
          {words.clear}
        </Button>
      )}
      {!framing.framing.keys.length && <span className="text-sm text-quiet max-sm:hidden">{words.hint}</span>}
    </div>
  )
}
