// What can be told to a session, in targets for a hand that does not look: the main thing first, the rest beside it.
'use client'
import { ChevronLeft, Pause, Play, Repeat, SkipForward, MoreHorizontal } from 'lucide-react'
import type { MouseEvent, ReactNode } from 'react'
import type { Mark } from '@/core/floor/events'
import { floorTexts as words } from '@/core/words/en/floor'
import type { Command, FloorSession } from './useFloorSession'

/** What the one press does now: by a key, a clicker, or anywhere on the stage. */
export function mainOf({ can, state }: Pick<FloorSession, 'can' | 'state'>): { command: Command; text: string } | null {
  if (can('next')) return { command: 'next', text: state.opened ? words.go : words.done }
  if (can('goOn')) return { command: 'goOn', text: words.goOn }
  if (can('hold')) return { command: 'hold', text: words.hold }
  return null
}

const TARGET =
  'inline-flex min-h-16 min-w-16 items-center justify-center gap-2 border-2 border-current/40 px-4 text-lg font-bold whitespace-nowrap hover:bg-on-bar hover:text-bar disabled:opacity-35 max-sm:px-2 max-sm:text-base'

interface Props {
  floor: FloorSession
  /** The work that was done last, for what is said of it. */
  lastWork: { segmentId: string; name: string; mark: Mark | null } | null
  onMark: (mark: Mark) => void
  onMore: () => void
}

export function Commands({ floor, lastWork, onMark, onMore }: Props): ReactNode {
  const main = mainOf(floor)
  const { can, command } = floor
  const icon = main?.command === 'hold' ? <Pause size={26} /> : <Play size={26} />
  return (
    <div
      className="flex flex-wrap items-center gap-2 bg-bar p-2 text-on-bar"
      role="toolbar"
      aria-label={words.heading}
      onClick={letGo}
    >
      {main && (
        <button
          type="button"
          className="inline-flex min-h-16 min-w-44 items-center justify-center gap-2 bg-land px-6 text-xl font-bold text-print max-sm:min-w-0 max-sm:grow max-sm:px-3"
          onClick={() => command(main.command)}
        >
          {icon}
          {main.text}
        </button>
      )}
      <Tool name="back" label={words.back} icon={<ChevronLeft size={26} />} {...{ can, command }} />
      <Tool name="repeat" label={words.repeat} icon={<Repeat size={24} />} {...{ can, command }} />
      <Tool name="skip" label={words.skip} icon={<SkipForward size={24} />} {...{ can, command }} />
      {can('open') && <Tool name="open" label={words.open} icon={null} {...{ can, command }} />}
      {lastWork && (
        <div
          className="ml-auto flex items-center gap-2 max-lg:ml-0"
          role="group"
          aria-label={words.markOf(lastWork.name)}
        >
          <span className="max-w-48 truncate text-sm max-xl:hidden">{words.markOf(lastWork.name)}</span>
          {(['good', 'again'] as const).map((mark) => (
            <button
              key={mark}
              type="button"
              aria-pressed={lastWork.mark === mark}
              className={`${TARGET} aria-pressed:bg-on-bar aria-pressed:text-bar`}
              onClick={() => onMark(mark)}
            >
              {words[mark]}
            </button>
          ))}
        </div>
      )}
      <button
        type="button"
        aria-label={words.more}
        className={`${TARGET} ${lastWork ? '' : 'ml-auto'}`}
        onClick={onMore}
      >
        <MoreHorizontal size={26} />
      </button>
    </div>
  )
}

/** Pressed by a hand, a button does not keep the keys: Space means the main thing again. */
function letGo({ detail, target }: MouseEvent): void {
  if (detail > 0 && target instanceof HTMLElement) target.closest('button')?.blur()
}

interface ToolProps extends Pick<FloorSession, 'can' | 'command'> {
  name: Command
  label: string
  icon: ReactNode
}

function Tool({ name, label, icon, can, command }: ToolProps): ReactNode {
  return (
    <button type="button" className={TARGET} disabled={!can(name)} onClick={() => command(name)}>
      {icon}
      <span className={icon ? 'max-sm:sr-only' : ''}>{label}</span>
    </button>
  )
}
