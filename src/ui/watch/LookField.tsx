// How viewers are shown what they read: the looks beside each other, what of it is shown, and from where it can be
// read.
'use client'
import { Shirt, Trash2 } from 'lucide-react'
import { RadioGroup } from 'radix-ui'
import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import {
  LOOK_NAMES,
  lookFileSchema,
  SHOWN,
  type LookName,
  type LookWish,
  type NamedLook,
} from '@/core/look/looks/family'
import type { OverlayState } from '@/core/look/overlay'
import { framingTexts } from '@/core/words/en/framing'
import { lookTexts as words } from '@/core/words/en/looks'
import { call } from '../api'
import { Button, IconButton } from '../parts/Button'
import { CheckField } from '../parts/CheckField'
import { ChoiceField } from '../parts/fields'
import { FileInput } from '../parts/FileInput'
import { Sheet } from '../parts/Sheet'
import { Seen, Taste } from './Seen'
import type { FilmedPicture, WatchedFraming } from './useFraming'

const SIZES = { '0.8': '0.8 x', '1': '1 x', '1.2': '1.2 x', '1.4': '1.4 x', '1.7': '1.7 x' } as const

interface Props {
  wish: LookWish
  onChange: (part: Partial<LookWish>) => void
  /** What part of the picture is shown. */
  framing: WatchedFraming
  /** What is drawn for a taste; null where nothing ever stands on the picture. */
  tasteNow: () => OverlayState | null
}

/** The button that opens the looks. */
export function LookField({ tasteNow, ...props }: Props): ReactNode {
  const [taste, setTaste] = useState<OverlayState | null>(null)
  const [under, setUnder] = useState<FilmedPicture | null>(null)
  const open = (): void => {
    setTaste(tasteNow())
    setUnder(props.framing.pictureNow())
  }
  return (
    <>
      <Button icon={<Shirt size={18} />} onClick={open}>
        {`${words.open}: ${words.names[props.wish.look]}`}
      </Button>
      <Sheet open={taste !== null} onOpenChange={() => setTaste(null)} title={words.heading} hint={words.hint} wide>
        {taste && <Looks {...props} taste={taste} under={under} />}
      </Sheet>
    </>
  )
}

function Looks({
  wish,
  onChange,
  framing,
  taste,
  under,
}: Omit<Props, 'tasteNow'> & { taste: OverlayState; under: FilmedPicture | null }): ReactNode {
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
            <span className="flex h-[190px] items-center justify-center bg-bar">
              <Taste wish={{ ...wish, look }} size={framing.size} state={taste} under={under} />
            </span>
            <span className="mt-1.5 flex items-baseline gap-3">
              <span className="size-3.5 shrink-0 self-center rounded-full border-2 border-ink group-data-[state=checked]:bg-ink" />
              <span className="font-display text-2xl">{words.names[look]}</span>
            </span>
            <span className="block text-sm text-quiet">{words.means[look]}</span>
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <Dressing wish={wish} onChange={onChange} framing={framing} />
      <Seen wish={wish} size={framing.size} state={taste} under={under} />
      <Named wish={wish} onChange={onChange} />
      <Files wish={wish} onChange={onChange} />
    </>
  )
}

/** Tones, size, what is kept free and what is shown: of any look. */
function Dressing({ wish, onChange, framing }: Pick<Props, 'wish' | 'onChange' | 'framing'>): ReactNode {
  return (
    <>
      <div className="mt-5 flex flex-wrap gap-x-8 gap-y-3">
        <ChoiceField
          label={framingTexts.shape}
          showLabel
          value={framing.framing.shape}
          options={framingTexts.shapes}
          onChange={framing.shape}
        />
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
    </>
  )
}

/** Looks that were given a name, for every workout. */
function Named({ wish, onChange }: Pick<Props, 'wish' | 'onChange'>): ReactNode {
  const [looks, setLooks] = useState<NamedLook[]>([])
  const [name, setName] = useState('')
  const ask = useCallback(
    (method: 'GET' | 'PUT' | 'DELETE', query = '', body?: NamedLook): Promise<void> =>
      call<{ looks: NamedLook[] }>(method, `/api/looks${query}`, body)
        .then((answer) => setLooks(answer.looks))
        .catch((error: Error) => void toast.error(error.message)),
    [],
  )
  useEffect(() => void ask('GET'), [ask])
  const keep = (): void => {
    const wanted = name.trim()
    if (wanted)
      void ask('PUT', '', { name: wanted, look: wish }).then(() => {
        setName('')
        toast(words.keptAs(wanted))
      })
  }
  return (
    <section className="mt-5">
      <h3 className="text-xl">{words.named}</h3>
      <ul className="mt-1 flex flex-wrap gap-2">
        {looks.map((one) => (
          <li key={one.name} className="flex items-center border-2 border-rule">
            <button
              className="min-h-10 max-w-[280px] truncate px-3 text-left font-bold hover:bg-pale"
              aria-label={words.use(one.name)}
              onClick={() => onChange(one.look)}
            >
              {one.name}
            </button>
            <IconButton
              label={words.forget(one.name)}
              onClick={() => void ask('DELETE', `?${new URLSearchParams({ name: one.name }).toString()}`)}
            >
              <Trash2 size={17} />
            </IconButton>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          keep()
        }}
      >
        <label className="flex flex-1 flex-col text-sm text-quiet">
          {words.name}
          <input
            className="min-h-11 border-b-2 border-ink bg-transparent text-base text-ink"
            value={name}
            maxLength={80}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <Button type="submit" disabled={!name.trim()}>
          {words.keep}
        </Button>
      </form>
    </section>
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
