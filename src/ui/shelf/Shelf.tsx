// The shelf: every workout with its terrain, and the ways to put another one there.
'use client'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { CopyPlus, FileUp, Plus, Undo2, X } from 'lucide-react'
import { useRef, useState, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { Stretch } from '@/core/look/terrain'
import { formatClock } from '@/core/time/clock'
import type { ShelfEntry, ShelfQuestion } from '@/server/workouts'
import { call } from '../api'
import { Bar } from '../parts/Bar'
import { Button, IconButton } from '../parts/Button'
import { FileInput } from '../parts/FileInput'
import { RemoveForGood } from '../parts/RemoveForGood'
import { Terrain } from '../parts/Terrain'
import { texts } from '@/core/words/en/screens'
import { sizeText } from '@/core/words/en/sizes'
import { NewWorkout } from './NewWorkout'
import { ShelfSearch } from './ShelfSearch'

export type ShelfWorkout = Omit<ShelfEntry, 'score' | 'updatedAt'> & { updatedAt: string; stretches: Stretch[] }

interface Props {
  workouts: ShelfWorkout[]
  question: ShelfQuestion
  /** How many were taken off the shelf. */
  removed: number
  /** Where the next page is; null on the last. */
  older: string | null
  /** Where the first page is; null on it. */
  first: string | null
}

const words = texts.shelf
const dates = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' })

/** What can be done on the shelf; each says on screen where it went wrong. */
interface ShelfActions {
  openPlan: (chosen: File) => Promise<void>
  copy: (workout: ShelfWorkout) => Promise<void>
  remove: (workout: ShelfWorkout) => Promise<void>
  putBack: (workout: ShelfWorkout) => Promise<void>
}

function useShelf(): ShelfActions {
  const router = useRouter()
  const openPlan = async (chosen: File): Promise<void> => {
    try {
      const { id } = await call<{ id: string }>('POST', '/api/workouts', {
        plan: await chosen.text(),
        name: chosen.name,
      })
      router.push(`/w/${id}/score`)
    } catch (error) {
      toast.error((error as Error).message, { duration: 12_000 })
    }
  }
  const set = async ({ id }: ShelfWorkout, removed: boolean): Promise<void> => {
    await call('PUT', `/api/workouts/${id}/removed`, { removed })
    router.refresh()
  }
  const remove = async (workout: ShelfWorkout): Promise<void> => {
    await set(workout, true).then(
      () =>
        toast(words.removed(workout.title), {
          action: { label: words.undo, onClick: () => void set(workout, false) },
          duration: 10_000,
        }),
      (error: Error) => toast.error(error.message),
    )
  }
  const putBack = async (workout: ShelfWorkout): Promise<void> => {
    await set(workout, false).then(
      () => toast(words.putBack(workout.title)),
      (error: Error) => toast.error(error.message),
    )
  }
  const copy = async ({ id: copyOf }: ShelfWorkout): Promise<void> => {
    await call<{ id: string }>('POST', '/api/workouts', { copyOf }).then(
      ({ id }) => router.push(`/w/${id}/score`),
      (error: Error) => toast.error(error.message),
    )
  }
  return { openPlan, copy, remove, putBack }
}

export function Shelf({ workouts, question, removed, older, first }: Props): ReactNode {
  const [making, setMaking] = useState(false)
  const file = useRef<HTMLInputElement>(null)
  const { openPlan, copy, remove, putBack } = useShelf()
  return (
    <>
      <Bar />
      <main id="content" tabIndex={-1} className="mx-auto max-w-[1240px] px-6 pb-16">
        <div className="flex flex-wrap items-center gap-3 py-7">
          <h1 className="mr-auto text-5xl">{question.removed ? words.removedHeading : words.heading}</h1>
          <Button icon={<FileUp size={18} />} title={words.fromFileHint} onClick={() => file.current?.click()}>
            {words.fromFile}
          </Button>
          <Button weight="main" icon={<Plus size={18} />} onClick={() => setMaking(true)}>
            {words.make}
          </Button>
          <FileInput
            ref={file}
            label={words.fromFile}
            accept=".json,.csv,.txt"
            onFile={(chosen) => void openPlan(chosen)}
          />
        </div>
        <ShelfSearch question={question} removed={removed} />
        {!workouts.length && (
          <p className="border-t-4 border-ink py-16 text-center text-lg text-quiet">
            {question.search ? words.nothingFound(question.search) : question.removed ? words.noneRemoved : words.empty}
          </p>
        )}
        <ul className="grid grid-cols-1 gap-x-8 gap-y-10 md:grid-cols-2">
          {workouts.map((workout) => (
            <li key={workout.id}>
              <ShelfCard
                workout={workout}
                onCopy={() => void copy(workout)}
                onRemove={question.removed ? null : () => void remove(workout)}
                onPutBack={() => void putBack(workout)}
              />
            </li>
          ))}
        </ul>
        {(first || older) && (
          <nav aria-label={words.pages} className="flex gap-3 pt-10">
            {first && (
              <Link href={first} className={PAGE_LINK}>
                {words.newest}
              </Link>
            )}
            {older && (
              <Link href={older} className={`${PAGE_LINK} ml-auto`}>
                {words.more}
              </Link>
            )}
          </nav>
        )}
      </main>
      <NewWorkout open={making} onOpenChange={setMaking} />
    </>
  )
}

const PAGE_LINK = 'inline-flex min-h-10 items-center border-2 border-ink px-4 font-bold hover:bg-ink hover:text-paper'

interface CardProps {
  workout: ShelfWorkout
  onCopy: () => void
  /** Null where it was taken off already. */
  onRemove: (() => void) | null
  onPutBack: () => void
}

function ShelfCard({ workout, onCopy, onRemove, onPutBack }: CardProps): ReactNode {
  return (
    <article className="group relative border-t-4 border-ink bg-pale">
      {workout.planState === 'damaged' ? (
        <Damaged workout={workout} />
      ) : (
        <Readable workout={workout} open={onRemove !== null} />
      )}
      <div className="absolute right-2 bottom-3 flex gap-1">
        {onRemove && workout.planState !== 'damaged' && (
          <IconButton label={words.copy(workout.title)} onClick={onCopy}>
            <CopyPlus size={18} />
          </IconButton>
        )}
        {onRemove ? (
          <IconButton label={`${words.remove}: ${workout.title}`} onClick={onRemove}>
            <X size={18} />
          </IconButton>
        ) : (
          <>
            <RemoveForGood
              what="workout"
              name={workout.title}
              bytes={workout.bytes ?? 0}
              path={`/api/workouts/${workout.id}`}
            />
            <Button icon={<Undo2 size={17} />} onClick={onPutBack}>
              {words.undo}
            </Button>
          </>
        )}
      </div>
    </article>
  )
}

/** @param open whether it can be opened: what was taken off is put back first. */
function Readable({ workout, open }: { workout: ShelfWorkout; open: boolean }): ReactNode {
  const { id, title, totalMs, workMs, stretches, planState } = workout
  const shown = (
    <>
      {stretches.length ? (
        <Terrain stretches={stretches} totalMs={totalMs} label={`The terrain of ${title}`} className="h-36" />
      ) : (
        <div className="grid h-36 place-items-center text-quiet">
          {planState === 'beyond' ? words.beyond : words.noSections}
        </div>
      )}
      <Title workout={workout} />
      <p className="px-4 pr-28 pb-4 text-quiet tabular-nums">
        {formatClock(totalMs)} {texts.score.total}, {formatClock(workMs)} {texts.score.work} ·{' '}
        {dates.format(new Date(workout.updatedAt))} · {words.way[stageOf(workout)]}
        {!!workout.bytes && ` · ${sizeText(workout.bytes)}`}
      </p>
    </>
  )
  if (!open) return shown
  return (
    <Link href={`/w/${id}/score`} className="block">
      {shown}
    </Link>
  )
}

const stageOf = ({ filmed, tied, rendered }: ShelfWorkout): keyof typeof words.way =>
  rendered ? 'rendered' : tied ? 'tied' : filmed ? 'filmed' : 'planned'

/** What cannot be read is shown as that, with the way to have it out. */
function Damaged({ workout }: { workout: ShelfWorkout }): ReactNode {
  return (
    <div className="border-l-8 border-signal">
      <p className="min-h-36 p-5 pr-8">{words.damaged}</p>
      <Title workout={workout} />
      <p className="px-4 pb-4">
        <a href={`/api/workouts/${workout.id}/stored`} download className="font-bold underline">
          {words.download}
        </a>
      </p>
    </div>
  )
}

function Title({ workout: { title, isDemo } }: { workout: ShelfWorkout }): ReactNode {
  return (
    <div className="flex items-baseline gap-4 px-4 py-3 pr-24">
      <h2 className="line-clamp-2 text-2xl break-words" title={title}>
        {title || texts.score.untitled}
      </h2>
      {isDemo && <span className="shrink-0 bg-land px-2 text-sm font-bold text-print">{words.demo}</span>}
    </div>
  )
}
