// How the footage is cut: every fit beside the others with what it comes to, and each step that is made to the film, to
// be gone to and taken back alone.
'use client'
import { RadioGroup } from 'radix-ui'
import { useMemo, useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import { FileInput as FileInputIcon } from 'lucide-react'
import type { FootageProgress } from '@/server/progress'
import { placedEdits } from '@/core/cut/edited'
import { Problem } from '@/core/problem'
import { readEditList } from '@/core/read/editList'
import type { FitChoice } from '@/core/cut/choices'
import { TREATMENTS } from '@/core/cut/treated'
import { FITS, type CutChange, type CutWishes, type Fit } from '@/core/cut/fit'
import type { Planned, Segment } from '@/core/score/segment'
import { formatClock, formatInstant } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { changeText, cutTexts as words, fitSummary } from '@/core/words/en/cuts'
import { countersOf, nameOf } from '@/core/words/en/names'
import { Button } from '../parts/Button'
import { FileInput } from '../parts/FileInput'
import { CheckField } from '../parts/CheckField'
import { Sheet } from '../parts/Sheet'
import type { Treatments } from './useTreatments'

const PARTS: Record<FitChoice['parts'][number]['kind'], string> = {
  filmed: 'bg-land',
  reused: 'bg-[repeating-linear-gradient(135deg,var(--land)_0_5px,var(--ink)_5px_8px)]',
  drawn: 'bg-water',
}

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  choices: Record<Fit, FitChoice>
  wishes: CutWishes
  segments: readonly Segment[]
  planned: Planned
  onChange: (part: Partial<CutWishes>) => void
  /** Names of files by their ids. */
  names: Readonly<Record<string, string>>
  /** Of the reel, in order. */
  files: readonly FilmedFile[]
  treatments: Treatments
  /** Goes to a segment, or to the beginning or the end. */
  onGo: (key: string) => void
}

export function CutSheet({ open, onOpenChange, choices, wishes, planned, onChange, ...others }: Props): ReactNode {
  const { names, files, treatments, ...steps } = others
  const { totalMs: plannedMs, estimated } = planned
  const fits = FITS.filter((fit) => fit !== 'edited' || wishes.edits.length > 0)
  const longestMs = Math.max(plannedMs, ...fits.map((fit) => choices[fit].outMs))
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.heading} hint={words.hint} wide>
      <RadioGroup.Root
        aria-label={words.heading}
        value={wishes.fit}
        onValueChange={(fit) => onChange({ fit: fit as Fit })}
        className="flex flex-col gap-2"
      >
        {fits.map((fit) => (
          <FitRow key={fit} fit={fit} choice={choices[fit]} longestMs={longestMs} plannedMs={plannedMs} />
        ))}
      </RadioGroup.Root>
      <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2 text-sm">
        {(Object.keys(PARTS) as (keyof typeof PARTS)[]).map((kind) => (
          <span key={kind} className="flex items-center gap-2">
            <span className={`inline-block h-3 w-6 ${PARTS[kind]}`} />
            {words.legend[kind]}
          </span>
        ))}
        <span className="flex items-center gap-2">
          <span className="inline-block h-4 w-0.5 bg-signal" />
          {words.planned(`${estimated ? 'about ' : ''}${formatClock(plannedMs)}`)}
        </span>
      </div>
      <EditList files={files} onChange={onChange} />
      {(wishes.fit === 'score' || wishes.fit === 'fill') && (
        <div className="mt-3 flex flex-col">
          <CheckField label={words.tightens} on={wishes.tightens} onChange={(tightens) => onChange({ tightens })} />
          {wishes.fit === 'fill' && (
            <CheckField label={words.mirrors} on={wishes.mirrors} onChange={(mirrors) => onChange({ mirrors })} />
          )}
        </div>
      )}
      <Steps choice={choices[wishes.fit]} undone={wishes.undone} onChange={onChange} {...steps} />
      <Treating treatments={treatments} onDone={() => onOpenChange(false)} />
      <ByHand wishes={wishes} names={names} segments={steps.segments} onChange={onChange} />
    </Sheet>
  )
}

export type FilmedFile = Pick<FootageProgress, 'id' | 'name' | 'facts'>

/** A cut that another program made of the same files. */
function EditList({ files, onChange }: Pick<Props, 'files' | 'onChange'>): ReactNode {
  const input = useRef<HTMLInputElement>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const bring = async (file: File): Promise<void> => {
    try {
      const edits = editsFrom(await file.text(), file.name, files)
      setProblem(null)
      toast(words.brought(edits.length))
      onChange({ fit: 'edited', edits })
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      setProblem(`${file.name}${error.place ? `, ${error.place}` : ''}: ${error.message}`)
    }
  }
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      <Button icon={<FileInputIcon size={17} />} onClick={() => input.current?.click()}>
        {words.bring}
      </Button>
      <FileInput ref={input} label={words.bring} accept=".edl,.otio" onFile={(file) => void bring(file)} />
      <span className="text-sm text-quiet">{words.bringHint}</span>
      {problem && (
        <p role="alert" className="basis-full border-l-8 border-signal bg-pale p-3">
          {problem}
        </p>
      )}
    </div>
  )
}

/** @throws Problem with its place. */
function editsFrom(text: string, name: string, files: readonly FilmedFile[]): CutWishes['edits'] {
  const rate = files[0]?.facts?.rate ?? { num: 30, den: 1 }
  const reel = { names: files.map((file) => file.name), fileMs: files.map(({ facts }) => facts?.durationMs ?? 0) }
  return placedEdits(readEditList(text, name, rate), reel).map(({ file, ...edit }) => ({
    ...edit,
    footage: files[file]?.id ?? '',
  }))
}

interface FitRowProps {
  fit: Fit
  choice: FitChoice
  longestMs: Ms
  plannedMs: Ms
}

function FitRow({ fit, choice: { outMs, parts, changes, reused }, longestMs, plannedMs }: FitRowProps): ReactNode {
  const share = (ms: Ms): string => `${(100 * ms) / Math.max(1, longestMs)}%`
  const summary = fitSummary(changes, reused)
  return (
    <RadioGroup.Item
      value={fit}
      className="group border-2 border-rule p-3 text-left hover:border-ink data-[state=checked]:border-ink data-[state=checked]:bg-pale"
    >
      <span className="flex flex-wrap items-baseline gap-x-3">
        <span className="size-3.5 shrink-0 self-center rounded-full border-2 border-ink group-data-[state=checked]:bg-ink" />
        <span className="font-display text-2xl">{words.fits[fit]}</span>
        <span className="text-sm text-quiet max-sm:order-last max-sm:basis-full">{summary || words.means[fit]}</span>
        <span className="ml-auto font-display text-2xl tabular-nums">{formatClock(outMs)}</span>
      </span>
      <span className="relative mt-2 block h-5">
        <span className="flex h-full overflow-hidden" style={{ width: share(outMs) }}>
          {parts.map(({ kind, lengthMs }, at) => (
            <span key={at} className={PARTS[kind]} style={{ flex: `${lengthMs} 0 0` }} />
          ))}
        </span>
        <span className="absolute -top-1 h-7 w-0.5 bg-signal" style={{ left: `calc(${share(plannedMs)} - 1px)` }} />
      </span>
    </RadioGroup.Item>
  )
}

/** What has a place in the film. */
const FILMED: ReadonlySet<CutChange['kind']> = new Set(['shortened', 'tightened', 'lengthened', 'outside'])

interface StepsProps extends Pick<Props, 'segments' | 'onGo' | 'onChange'> {
  choice: FitChoice
  undone: readonly string[]
}

const nameIn = (segment: Segment): string => {
  const where = countersOf(segment).join(', ')
  return `${nameOf(segment)}${where ? `, ${where}` : ''}`
}

/** What is done with the talk that plays, or with what is dead. */
function Treating({ treatments, onDone }: { treatments: Treatments; onDone: () => void }): ReactNode {
  const ways = [null, ...TREATMENTS]
  return (
    <section className="mt-5">
      <h3 className="text-xl">{words.treatments}</h3>
      <p className="mt-1 text-quiet">{words.treatmentsHint}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {ways.map((as) => (
          <Button key={as} onClick={() => treatments.treat(as)}>
            {words.treat[as ?? 'whole']}
          </Button>
        ))}
        <Button
          weight="bare"
          onClick={() => {
            treatments.mark()
            onDone()
          }}
        >
          {words.mark}
        </Button>
      </div>
    </section>
  )
}

type ByHandProps = Pick<Props, 'wishes' | 'names' | 'segments' | 'onChange'>

/** What is shown otherwise because the creator said so; each can be taken back. */
function ByHand({ wishes: { treated, dead }, names, segments, onChange }: ByHandProps): ReactNode {
  const rows = [
    ...segments.flatMap((segment) => {
      const as = treated[segment.id]
      const { [segment.id]: _, ...left } = treated
      return as ? [{ key: segment.id, name: nameIn(segment), as, back: { treated: left } }] : []
    }),
    ...dead.map((one, at) => ({
      ...{ key: String(at), as: one.as, back: { dead: dead.filter((other) => other !== one) } },
      name: words.deadStretch(names[one.footage] ?? '', formatInstant(one.fromMs), formatInstant(one.toMs)),
    })),
  ]
  return (
    rows.length > 0 && (
      <section className="mt-5">
        <h3 className="text-xl">{words.byHand}</h3>
        <ul className="mt-1 divide-y divide-rule">
          {rows.map(({ key, name, as, back }) => (
            <li key={key} className="flex flex-wrap items-center gap-x-3 py-1.5">
              <b>{name}</b>
              <span className="flex-1 text-quiet">{words.treated(as)}</span>
              <Button weight="bare" onClick={() => onChange(back)}>
                {words.undo}
              </Button>
            </li>
          ))}
        </ul>
      </section>
    )
  )
}

function Steps({ choice, undone, segments, onGo, onChange }: StepsProps): ReactNode {
  const named = useMemo(() => new Map(segments.map((segment) => [segment.id, segment])), [segments])
  const nameFor = (key: string): string => {
    const segment = named.get(key)
    if (!segment) return key === 'before' ? words.before : words.after
    return nameIn(segment)
  }
  const rows = stepsOf(choice.changes, undone, segments)
  return (
    <section className="mt-5">
      <h3 className="text-xl">{words.steps}</h3>
      {!rows.length && <p className="mt-1 text-quiet">{words.noSteps}</p>}
      <ul className="mt-1 divide-y divide-rule">
        {rows.map(({ key, change, isBack }) => (
          <li key={key} className="flex items-center gap-3 py-1.5">
            <button
              type="button"
              className="flex min-h-10 flex-1 items-center gap-3 text-left hover:underline"
              aria-label={words.go(nameFor(key))}
              onClick={() => onGo(key)}
            >
              <span className="w-14 shrink-0 text-sm text-quiet tabular-nums">
                {change && FILMED.has(change.kind) ? formatInstant(change.fromMs).slice(0, -2) : ''}
              </span>
              <span className="flex flex-wrap gap-x-3">
                <span className={`font-bold ${isBack ? 'text-quiet' : ''}`}>{nameFor(key)}</span>
                <span className="text-quiet">{change ? changeText(change) : words.asFilmed}</span>
              </span>
            </button>
            <Button
              weight="bare"
              onClick={() => onChange({ undone: isBack ? undone.filter((one) => one !== key) : [...undone, key] })}
            >
              {isBack ? words.redo : words.undo}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}

interface Step {
  key: string
  /** Null where the film is shown as it is. */
  change: CutChange | null
  /** It was taken back: something else, or nothing, is done in its place. */
  isBack: boolean
}

/** What is done and what was taken back, in the order of the session. */
function stepsOf(changes: readonly CutChange[], undone: readonly string[], segments: readonly Segment[]): Step[] {
  const done = new Map(changes.map((change) => [change.key, change]))
  const order = ['before', ...segments.map(({ id }) => id), 'after']
  const back = new Set(undone)
  return order.flatMap((key): Step[] => {
    const change = done.get(key)
    return change || back.has(key) ? [{ key, change: change ?? null, isBack: back.has(key) }] : []
  })
}
