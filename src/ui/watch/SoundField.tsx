// What viewers hear: the button that opens it, the family of tones, the voice, the rules and the levels.
'use client'
import { AudioLines, Volume2 } from 'lucide-react'
import { RadioGroup } from 'radix-ui'
import { useRef, useState, type ReactNode } from 'react'
import { RULES, type RuleName } from '@/core/cue/cue'
import { holds, type CueWishes } from '@/core/cue/wishes'
import type { ShownSegment } from '@/core/cut/cut'
import { FAMILY_NAMES, type FamilyName } from '@/core/sound/families/names'
import { gainOf } from '@/core/sound/loudness'
import { MIX_RATE, MOST_DUCK, type Mix } from '@/core/sound/mix'
import { tone } from '@/core/sound/voiced'
import type { Ms } from '@/core/units'
import { ruleName, soundTexts as words } from '@/core/words/en/sounds'
import { Button, IconButton } from '../parts/Button'
import { CheckField } from '../parts/CheckField'
import { ChoiceField } from '../parts/fields'
import { Level } from '../parts/Level'
import { Sheet } from '../parts/Sheet'
import { CueList } from './CueList'
import { MusicField } from './MusicField'
import { RecordLines } from './RecordLines'
import type { WatchedSound } from './useSound'

interface Props {
  wishes: CueWishes
  onChange: (part: Partial<CueWishes>) => void
  mix: Mix
  onMix: (part: Partial<Mix>) => void
  sound: WatchedSound
  shown: readonly ShownSegment[]
  onGo: (outMs: Ms) => void
}

export function SoundField({ onGo, ...props }: Props): ReactNode {
  const [open, setOpen] = useState(false)
  const { wishes, sound } = props
  const unfit = sound.sheet.findings.length
  return (
    <>
      <Button icon={<AudioLines size={18} />} onClick={() => setOpen(true)}>
        {`${words.open}: ${words.families[wishes.family]}`}
        {unfit > 0 && (
          <span className="bg-signal px-1.5 text-sm text-paper" title={words.unheard(unfit)}>
            {unfit}
          </span>
        )}
      </Button>
      <Sheet open={open} onOpenChange={setOpen} title={words.heading} hint={words.hint} wide>
        <Sounds
          {...props}
          onGo={(outMs) => {
            setOpen(false)
            onGo(outMs)
          }}
        />
      </Sheet>
    </>
  )
}

function Sounds({ wishes, onChange, mix, onMix, sound, shown, onGo }: Props): ReactNode {
  const rule = (name: RuleName, on: boolean): void => onChange({ rules: { ...wishes.rules, [name]: on } })
  return (
    <>
      <Families wishes={wishes} onChange={onChange} />
      <div className="mt-5 flex flex-wrap items-end gap-x-8 gap-y-3">
        <ChoiceField
          label={words.voice}
          showLabel
          value={wishes.voice}
          options={words.voices}
          onChange={(voice) => onChange({ voice })}
        />
        <ChoiceField
          label={words.loudness}
          showLabel
          value={mix.target}
          options={words.targets}
          onChange={(target) => onMix({ target })}
        />
        {wishes.voice !== 'none' && (
          <Level
            label={words.duck}
            value={mix.duckDb}
            range={{ least: 0, most: MOST_DUCK, step: 1 }}
            told={words.decibels(mix.duckDb)}
            onChange={(duckDb) => onMix({ duckDb })}
          />
        )}
      </div>
      <h3 className="mt-6 text-xl">{words.rules}</h3>
      <div className="mt-1 grid grid-cols-2 max-sm:grid-cols-1">
        {RULES.filter((name) => wishes.voice !== 'none' || SOUNDS_WITHOUT_VOICE.has(name)).map((name) => (
          <CheckField key={name} label={ruleName(name)} on={holds(wishes, name)} onChange={(on) => rule(name, on)} />
        ))}
        <CheckField label={words.hushPips} on={wishes.hushPips} onChange={(hushPips) => onChange({ hushPips })} />
      </div>
      <MusicField mix={mix} onMix={onMix} />
      {wishes.voice === 'own' && <RecordLines sound={sound} />}
      <CueList wishes={wishes} onChange={onChange} sheet={sound.sheet} shown={shown} onGo={onGo} />
    </>
  )
}

/** Rules that have a tone; the others only say something. */
const SOUNDS_WITHOUT_VOICE: ReadonlySet<RuleName> = new Set([
  ...(['countIn', 'go', 'rest', 'end', 'switch', 'halfway', 'last', 'ten'] as const),
])

/** How loud a taste is, against full scale. */
const TASTE_GAIN = gainOf(4)

function Families({ wishes, onChange }: Pick<Props, 'wishes' | 'onChange'>): ReactNode {
  const context = useRef<AudioContext | null>(null)
  const taste = (family: FamilyName): void => {
    context.current ??= new AudioContext()
    void context.current.resume()
    let atS = context.current.currentTime + 0.05
    for (const [sound, pauseS] of [
      ['pip', 0.5],
      ['pip', 0.5],
      ['go', 0.9],
      ['rest', 0],
    ] as const) {
      const samples = tone(family, sound, MIX_RATE).map((one) => one * TASTE_GAIN)
      const buffer = context.current.createBuffer(1, samples.length, MIX_RATE)
      buffer.copyToChannel(Float32Array.from(samples), 0)
      const source = context.current.createBufferSource()
      source.buffer = buffer
      source.connect(context.current.destination)
      source.start(atS)
      atS += pauseS
    }
  }
  return (
    <RadioGroup.Root
      aria-label={words.family}
      value={wishes.family}
      onValueChange={(family) => onChange({ family: family as FamilyName })}
      className="grid grid-cols-2 gap-2 max-sm:grid-cols-1"
    >
      {FAMILY_NAMES.map((family) => (
        <span
          key={family}
          className="flex items-stretch border-2 border-rule hover:border-ink has-[[data-state=checked]]:border-ink has-[[data-state=checked]]:bg-pale"
        >
          <RadioGroup.Item value={family} className="group flex flex-1 items-center gap-3 p-2.5 text-left">
            <span className="size-3.5 shrink-0 rounded-full border-2 border-ink group-data-[state=checked]:bg-ink" />
            <span>
              <span className="block font-display text-2xl leading-tight">{words.families[family]}</span>
              <span className="block text-sm text-quiet">{words.means[family]}</span>
            </span>
          </RadioGroup.Item>
          <IconButton
            label={words.taste(words.families[family])}
            className="!h-auto !w-12"
            onClick={() => taste(family)}
          >
            <Volume2 size={20} />
          </IconButton>
        </span>
      ))}
    </RadioGroup.Root>
  )
}
