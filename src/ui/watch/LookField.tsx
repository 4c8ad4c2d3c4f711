// How viewers are shown what they read: the looks beside each other, what of it is shown, and from where it can be
// read.
'use client'
import { Shirt } from 'lucide-react'
import { RadioGroup } from 'radix-ui'
import { useCallback, useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { legibility, SCREENS, WANTED, type Screen } from '@/core/look/distance'
import { drawOverlay, type Frame } from '@/core/look/drawOverlay'
import { LOOK_NAMES, lookFileSchema, SHOWN, type LookName, type LookWish } from '@/core/look/looks/family'
import type { Sizes } from '@/core/look/looks/part'
import type { OverlayState } from '@/core/look/overlay'
import { lookTexts as words } from '@/core/words/en/looks'
import { Button } from '../parts/Button'
import { CheckField } from '../parts/CheckField'
import { ChoiceField } from '../parts/fields'
import { FileInput } from '../parts/FileInput'
import { Sheet } from '../parts/Sheet'
import { useCanvas } from '../parts/useCanvas'

const SIZES = { '0.8': '0.8 x', '1': '1 x', '1.2': '1.2 x', '1.4': '1.4 x', '1.7': '1.7 x' } as const

interface Props {
  wish: LookWish
  onChange: (part: Partial<LookWish>) => void
  /** Of the video. */
  size: Frame
  /** What is drawn for a taste; null where nothing ever stands on the picture. */
  tasteNow: () => OverlayState | null
}

/** The button that opens the looks. */
export function LookField({ tasteNow, ...props }: Props): ReactNode {
  const [taste, setTaste] = useState<OverlayState | null>(null)
  return (
    <>
      <Button icon={<Shirt size={18} />} onClick={() => setTaste(tasteNow())}>
        {`${words.open}: ${words.names[props.wish.look]}`}
      </Button>
      <Sheet open={taste !== null} onOpenChange={() => setTaste(null)} title={words.heading} hint={words.hint} wide>
        {taste && <Looks {...props} taste={taste} />}
      </Sheet>
    </>
  )
}

function Looks({ wish, onChange, size, taste }: Omit<Props, 'tasteNow'> & { taste: OverlayState }): ReactNode {
  return (
    <>
      <RadioGroup.Root
        aria-label={words.heading}
        value={wish.look}
        onValueChange={(look) => onChange({ look: look as LookName })}
        className="grid grid-cols-2 gap-2 max-sm:grid-cols-1"
      >
        {LOOK_NAMES.map((look) => (
          <RadioGroup.Item
            key={look}
            value={look}
            className="group flex flex-col items-stretch justify-start border-2 border-rule p-2 text-left hover:border-ink data-[state=checked]:border-ink data-[state=checked]:bg-pale"
          >
            <Taste wish={{ ...wish, look }} size={size} state={taste} />
            <span className="mt-1.5 flex items-baseline gap-3">
              <span className="size-3.5 shrink-0 self-center rounded-full border-2 border-ink group-data-[state=checked]:bg-ink" />
              <span className="font-display text-2xl">{words.names[look]}</span>
            </span>
            <span className="block text-sm text-quiet">{words.means[look]}</span>
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <div className="mt-5 flex flex-wrap gap-x-8 gap-y-3">
        <ChoiceField
          label={words.tone}
          showLabel
          value={wish.tone}
          options={words.tones}
          onChange={(tone) => onChange({ tone })}
        />
        <ChoiceField
          label={words.size}
          showLabel
          value={String(wish.size) as keyof typeof SIZES}
          options={SIZES}
          onChange={(chosen) => onChange({ size: Number(chosen) })}
        />
        <ChoiceField
          label={words.footFree}
          showLabel
          value={String(wish.footFree) as keyof typeof words.footFreeOptions}
          options={words.footFreeOptions}
          onChange={(chosen) => onChange({ footFree: Number(chosen) })}
        />
        <ChoiceField
          label={words.edgeFree}
          showLabel
          value={String(wish.edgeFree) as keyof typeof words.edgeFreeOptions}
          options={words.edgeFreeOptions}
          onChange={(chosen) => onChange({ edgeFree: Number(chosen) })}
        />
      </div>
      <div className="mt-3 grid grid-cols-2 max-sm:grid-cols-1">
        {SHOWN.map((one) => (
          <CheckField
            key={one}
            label={words.shows[one]}
            on={wish.shows[one]}
            onChange={(on) => onChange({ shows: { ...wish.shows, [one]: on } })}
          />
        ))}
      </div>
      <Distances wish={wish} size={size} />
      <Files wish={wish} onChange={onChange} />
    </>
  )
}

/** A look over a picture that is bright on one side and dark on the other. */
function Taste({ wish, size, state }: { wish: LookWish; size: Frame; state: OverlayState }): ReactNode {
  const draw = useCallback(
    (pen: CanvasRenderingContext2D, width: number, height: number) => {
      const light = pen.createLinearGradient(0, 0, width, height)
      light.addColorStop(0, '#d8d2c2')
      light.addColorStop(1, '#2a3136')
      pen.fillStyle = light
      pen.fillRect(0, 0, width, height)
      drawOverlay(pen, state, { width, height }, wish)
    },
    [wish, state],
  )
  const canvas = useCanvas(draw)
  return (
    <span className="flex h-[190px] items-center justify-center bg-bar">
      <canvas
        ref={canvas}
        className="block max-h-full max-w-full"
        style={{
          aspectRatio: `${size.width} / ${size.height}`,
          ...(size.width >= size.height ? { width: '100%' } : { height: '100%' }),
        }}
      />
    </span>
  )
}

const KINDS = Object.keys(WANTED) as (keyof Sizes)[]

function Distances({ wish, size }: Pick<Props, 'wish' | 'size'>): ReactNode {
  return (
    <table className="mt-5 w-full border-collapse text-left">
      <caption className="pb-2 text-left text-sm text-quiet">{words.readableHint}</caption>
      <thead>
        <tr className="border-b-2 border-ink">
          <th scope="col" className="py-1.5 pr-3">
            {words.readable}
          </th>
          {KINDS.map((kind) => (
            <th key={kind} scope="col" className="py-1.5 pr-3 text-right">
              {words.kinds[kind]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {(Object.keys(SCREENS) as Screen[]).map((screen) => {
          const seen = legibility(wish, size, screen)
          return (
            <tr key={screen} className="border-b border-rule">
              <th scope="row" className="py-1 pr-3 font-normal">
                {words.screens[screen]}
              </th>
              {KINDS.map((kind) => (
                <td
                  key={kind}
                  className={`py-1 pr-3 text-right tabular-nums ${seen[kind].isEnough ? '' : 'font-bold text-signal'}`}
                >
                  {words.minutes(seen[kind].minutes)}
                  {seen[kind].isEnough ? '' : ' !'}
                </td>
              ))}
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

/** A look as a file, for another workout. */
function Files({ wish, onChange }: Pick<Props, 'wish' | 'onChange'>): ReactNode {
  const file = `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify({ jivetLook: 1, ...wish }, null, 2))}`
  const load = async (chosen: File): Promise<void> => {
    const read = lookFileSchema.safeParse(
      await chosen
        .text()
        .then(JSON.parse)
        .catch(() => null),
    )
    if (!read.success) return void toast.error(words.unreadable)
    onChange(read.data)
    toast(words.loaded)
  }
  const input = useRef<HTMLInputElement>(null)
  return (
    <div className="mt-5 flex flex-wrap items-center gap-5">
      <a
        className="inline-flex min-h-11 items-center font-bold underline"
        href={file}
        download={`${wish.look}.look.json`}
      >
        {words.save}
      </a>
      <Button onClick={() => input.current?.click()}>{words.load}</Button>
      <FileInput ref={input} label={words.load} accept=".json" onFile={(one) => void load(one)} />
    </div>
  )
}
