// A session that runs: the stage, what can be told to it, and what stands in its way.
'use client'
import { Volume2 } from 'lucide-react'
import { useEffect, useState, type ReactNode } from 'react'
import type { Mark } from '@/core/floor/events'
import type { Take } from '@/core/floor/run'
import { floorTexts as words } from '@/core/words/en/floor'
import { nameOf } from '@/core/words/en/names'
import { Commands, mainOf } from './Commands'
import type { SessionFacts } from './facts'
import type { Told } from './FloorLink'
import { MoreSheet } from './MoreSheet'
import { Stage } from './Stage'
import { useAwake, useMediaButtons } from './useAwake'
import { useFloorKeys } from './useFloorKeys'
import { useFloorSession, type FloorSession } from './useFloorSession'
import { useStrap } from './useStrap'
import type { FloorWishes } from './useFloorWishes'

interface Props {
  session: SessionFacts
  told: Told
  wishes: FloorWishes
  /** A wall board: looks on, and tells nothing. */
  looksOn: boolean
  onOver: () => void
}

/** How long a board shows that a session is over before it looks for the next. */
const BOARD_LINGERS_MS = 8000

export function RunningFloor({ session, told, wishes, looksOn, onOver }: Props): ReactNode {
  const [levels] = useState({ cues: wishes.cues, ear: wishes.ear })
  const floor = useFloorSession({ session, told, levels, looksOn })
  const strap = wishes.strap && !looksOn && floor.state.phase !== 'ended'
  const bpm = useStrap(strap, floor.link)
  const [more, setMore] = useState(false)
  const { board, state, link, command, can } = floor
  const runs = state.phase !== 'ended' && !looksOn
  const awake = useAwake(state.phase !== 'ended')
  const over = looksOn && state.phase === 'ended'
  useEffect(() => {
    if (!over) return
    const timer = setTimeout(onOver, BOARD_LINGERS_MS)
    return () => clearTimeout(timer)
  }, [over, onOver])
  const main = mainOf(floor)
  const press = (): void => {
    if (main) command(main.command)
    else floor.wakeSound()
  }
  const forward = (): void => command(can('next') ? 'next' : 'skip')
  const back = (): void => command('back')
  const last = lastWork(floor)
  const mark = (value: Mark): void => {
    if (last) link.tell({ kind: 'mark', segmentId: last.segmentId, mark: value })
  }
  useFloorKeys({ main: press, forward, back, mark, repeat: () => command('repeat'), open: () => command('open') })
  useMediaButtons(runs, { main: press, forward, back })
  const about = aboutNow(floor) ?? last
  return (
    <main id="content" tabIndex={-1} className="fixed inset-0 z-30 flex flex-col">
      <h1 className="sr-only">{words.heading}</h1>
      <Notices floor={floor} awake={awake} looksOn={looksOn} heart={strap ? bpm : undefined} />
      <Stage
        board={board}
        metres={Number(wishes.metres)}
        beats={strap ? bpm : null}
        onPress={looksOn || !main ? null : press}
        pressed={main?.text ?? ''}
      />
      {state.phase === 'ended' && !looksOn ? (
        <div className="flex gap-3 bg-bar p-2">
          <button type="button" className="min-h-16 bg-land px-8 text-xl font-bold text-print" onClick={onOver}>
            {words.seeRecord}
          </button>
        </div>
      ) : (
        !looksOn && <Commands floor={floor} lastWork={last} onMark={mark} onMore={() => setMore(true)} />
      )}
      <MoreSheet open={more} onOpenChange={setMore} floor={floor} about={about} />
    </main>
  )
}

/** The work that was done last, until the next begins. */
function lastWork({
  state,
  takes,
  segments,
}: FloorSession): { segmentId: string; name: string; mark: Mark | null } | null {
  if (segments[state.at]?.kind === 'work' && state.phase === 'running') return null
  const kinds = new Map(segments.map((segment) => [segment.id, segment]))
  const last = takes.findLast((take: Take) => kinds.get(take.segmentId)?.kind === 'work')
  const segment = last && kinds.get(last.segmentId)
  return last && segment ? { segmentId: last.segmentId, name: nameOf(segment), mark: last.mark } : null
}

function aboutNow({ state, segments }: FloorSession): { segmentId: string; name: string } | null {
  const segment = segments[state.at]
  return segment?.kind === 'work' ? { segmentId: segment.id, name: nameOf(segment) } : null
}

interface NoticesProps {
  floor: FloorSession
  awake: boolean
  looksOn: boolean
  /** Beats a minute; null where the strap says nothing, undefined where none is worn. */
  heart: number | null | undefined
}

function Notices({ floor, awake, looksOn, heart }: NoticesProps): ReactNode {
  const { linkState, soundOn, voice, wakeSound, state } = floor
  if (state.phase === 'ended' && !linkState.unsent) return null
  const lines = [
    linkState.away ? `${words.away}${linkState.unsent ? ` ${words.unsent(linkState.unsent)}.` : ''}` : '',
    !voice && !looksOn ? words.noVoice : '',
    awake ? '' : words.awake,
    heart === undefined ? '' : heart === null ? words.noBeats : words.beats(heart),
  ].filter(Boolean)
  return (
    <div className="bg-bar text-on-bar" role="status">
      {soundOn === false && !looksOn && (
        <button
          type="button"
          className="flex min-h-16 w-full items-center justify-center gap-3 bg-signal text-xl font-bold text-on-bar dark:text-print"
          onClick={wakeSound}
        >
          <Volume2 size={26} />
          {words.soundOff}
        </button>
      )}
      {lines.map((line) => (
        <p key={line} className="px-4 py-1.5">
          {line}
        </p>
      ))}
    </div>
  )
}
