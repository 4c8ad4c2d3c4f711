// How loud footage and cues are, and whether there are cues at all.
'use client'
import { Bell, BellOff } from 'lucide-react'
import type { ReactNode } from 'react'
import { CUE_LU, type Mix } from '@/core/sound/mix'
import { texts } from '@/core/words/en/screens'
import { IconButton } from '../parts/Button'
import { Level } from '../parts/Level'

const words = texts.watch

export function MixFields({ mix, onChange }: { mix: Mix; onChange: (part: Partial<Mix>) => void }): ReactNode {
  const { voice, cueLu, cuesOn } = mix
  return (
    <>
      <Level label={words.voice} value={voice} onChange={(level) => onChange({ voice: level })} />
      <span className="flex items-center gap-1">
        <Level
          label={words.cues}
          value={cueLu}
          range={{ ...CUE_LU, step: 1 }}
          disabled={!cuesOn}
          onChange={(level) => onChange({ cueLu: level })}
        />
        <IconButton
          label={cuesOn ? words.cuesOff : words.cuesOn}
          aria-pressed={!cuesOn}
          onClick={() => onChange({ cuesOn: !cuesOn })}
        >
          {cuesOn ? <Bell size={18} /> : <BellOff size={18} />}
        </IconButton>
      </span>
    </>
  )
}
