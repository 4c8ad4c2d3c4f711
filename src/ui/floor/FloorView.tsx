// Floor: before a session, while it runs, and after it.
'use client'
import { useRouter } from 'next/navigation'
import { useEffect, useState, useSyncExternalStore, type ReactNode } from 'react'
import { toast } from 'sonner'
import type { Planned } from '@/core/score/segment'
import { formatLength } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { floorTexts as words } from '@/core/words/en/floor'
import { texts } from '@/core/words/en/screens'
import { call } from '../api'
import { newKey } from '../parts/newKey'
import { Button } from '../parts/Button'
import type { SessionBefore, SessionFacts } from './facts'
import type { Told } from './FloorLink'
import { FloorSetup } from './FloorSetup'
import { RunningFloor } from './RunningFloor'
import { useFloorWishes, type FloorWishes } from './useFloorWishes'

interface Under {
  session: SessionFacts
  told: Told
}

interface Props {
  workoutId: string
  planned: Planned | null
  /** The session that stands on this floor already. */
  under: Under | null
  before: readonly SessionBefore[]
  /** Shows what another window runs. */
  wallBoard: boolean
}

const noChange = (): (() => void) => () => {}

export function FloorView(props: Props): ReactNode {
  // What a browser keeps, and its clock, are not the server's to draw.
  const here = useSyncExternalStore(
    noChange,
    () => true,
    () => false,
  )
  if (!props.planned || !props.planned.totalMs) return <Empty />
  return here ? <Floor {...props} planned={props.planned} /> : <main id="content" className="flex-1" />
}

function Empty(): ReactNode {
  return (
    <main id="content" tabIndex={-1} className="p-10 text-lg">
      <h1 className="sr-only">{texts.way.floor}</h1>
      <p>{words.needScore}</p>
    </main>
  )
}

function Floor({ workoutId, planned, under, before, wallBoard }: Props & { planned: Planned }): ReactNode {
  const router = useRouter()
  const { wishes, change } = useFloorWishes()
  const [running, setRunning] = useState<Under | null>(null)
  const [busy, setBusy] = useState(false)
  const report = (id: string): void => router.push(`/w/${workoutId}/floor?session=${id}`)
  const begin = (): void => {
    setBusy(true)
    void opened(workoutId, wishes)
      .then(setRunning)
      .catch((error: Error) => {
        toast.error(error.message)
        router.refresh()
      })
      .finally(() => setBusy(false))
  }
  if (wallBoard && !under) return <WallWaits onLook={() => router.refresh()} />
  if (wallBoard && under)
    return <RunningFloor key={under.session.id} {...under} wishes={wishes} looksOn onOver={() => router.refresh()} />
  if (running)
    return (
      <RunningFloor
        key={running.session.id}
        {...running}
        wishes={wishes}
        looksOn={false}
        onOver={() => report(running.session.id)}
      />
    )
  if (under)
    return (
      <UnderWay
        {...under}
        onTakeUp={() => setRunning(under)}
        onEnd={() =>
          void ended(under).then(
            () => report(under.session.id),
            (error: Error) => toast.error(error.message),
          )
        }
      />
    )
  return <FloorSetup {...{ workoutId, planned, wishes, before, busy }} onWish={change} onBegin={begin} />
}

/** How often a board looks whether something runs. */
const LOOK_MS: Ms = 3000

function WallWaits({ onLook }: { onLook: () => void }): ReactNode {
  useEffect(() => {
    const timer = setInterval(onLook, LOOK_MS)
    return () => clearInterval(timer)
  }, [onLook])
  return (
    <main id="content" tabIndex={-1} className="grid flex-1 place-content-center gap-4 p-10 text-center">
      <h1 className="text-6xl">{words.wall}</h1>
      <p className="text-2xl text-quiet">{words.wallWaits}</p>
    </main>
  )
}

async function opened(workoutId: string, wishes: FloorWishes): Promise<Under> {
  const { rehearsal, chirps, countInS } = wishes
  const speed = rehearsal ? Number(wishes.speed) : 1
  const { id } = await call<{ id: string }>('POST', `/api/workouts/${workoutId}/sessions`, {
    ...{ rehearsal, speed, chirps: chirps === 'off' ? null : chirps },
  })
  const start = { kind: 'start', key: newKey(), atMs: 0, countInMs: Number(countInS) * 1000 }
  const told = await call<Told>('POST', `/api/sessions/${id}/events`, { events: [start], seenMs: 0, after: 0 })
  const session = await call<SessionFacts>('GET', `/api/sessions/${id}`)
  return { session, told }
}

const ended = ({ session, told }: Under): Promise<Told> =>
  call('POST', `/api/sessions/${session.id}/events`, {
    events: [{ kind: 'end', key: newKey(), atMs: Math.max(told.seenMs, lastTold(told)) }],
    ...{ seenMs: null, after: 0 },
  })

const lastTold = ({ events }: Told): Ms => Math.max(0, ...events.map(({ atMs }) => atMs))

function UnderWay({ told, onTakeUp, onEnd }: Under & { onTakeUp: () => void; onEnd: () => void }): ReactNode {
  const away = told.nowMs - told.seenMs
  return (
    <main
      id="content"
      tabIndex={-1}
      className="mx-auto flex w-full max-w-2xl flex-1 flex-col items-start gap-5 px-6 py-16"
    >
      <h1 className="text-5xl">{words.under}</h1>
      <p className="text-xl">{words.since(formatLength(Math.round(told.nowMs / 1000) * 1000))}</p>
      {away > 3000 && (
        <p className="text-lg text-quiet">{words.resumed(formatLength(Math.round(away / 1000) * 1000))}</p>
      )}
      <div className="flex flex-wrap gap-4">
        <Button weight="main" className="min-h-16 px-10 text-2xl" onClick={onTakeUp}>
          {words.tookUp}
        </Button>
        <Button className="min-h-16 px-6 text-lg" onClick={onEnd}>
          {words.endThere}
        </Button>
      </div>
    </main>
  )
}
