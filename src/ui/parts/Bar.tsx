// The bar at the head of every page: the brand, the workout, and the way from score to ship with what is done of it.
'use client'
import Link from 'next/link'
import { usePathname } from 'next/navigation'
import { Check, Moon, Sun } from 'lucide-react'
import type { ReactNode } from 'react'
import type { Done } from '@/server/workoutState'
import { texts } from '@/core/words/en/screens'
import { KeySheet, type KeyPage } from './KeySheet'
import { useMayLeave } from './Shell'
import { useTheme } from './useTheme'
import { useDone } from './useDone'
import { WhoIsIn } from './WhoIsIn'

const STEPS = ['score', 'floor', 'sync', 'watch', 'ship'] as const
type Step = (typeof STEPS)[number]

const BRAND = 'flex shrink-0 items-center gap-2.5 pr-6 font-display text-3xl text-on-bar max-md:pr-3'

interface Props {
  workout?: { id: string; title: string; done: Done }
  /** On a device that is paired to a floor there is no way to anywhere else. */
  floorOnly?: boolean
}

export function Bar({ workout, floorOnly = false }: Props): ReactNode {
  const path = usePathname()
  const { theme, change } = useTheme()
  const mayLeave = useMayLeave()
  const known = useDone(floorOnly ? undefined : workout, path) ?? workout?.done
  const done: Partial<Record<Step, boolean>> = known ?? {}
  const here = STEPS.find((step) => path.endsWith(`/${step}`))
  return (
    <header className="flex h-16 items-stretch bg-bar pl-6 text-on-bar max-md:h-14 max-md:pl-3">
      {floorOnly ? (
        <span className={BRAND}>
          <Mark />
          <span className="max-md:sr-only">{texts.brand}</span>
        </span>
      ) : (
        <Link href="/" className={`${BRAND} hover:text-land`}>
          <Mark />
          <span className={workout ? 'max-md:sr-only' : ''}>{texts.brand}</span>
        </Link>
      )}
      {workout && (
        <span className="flex min-w-0 items-center border-l-2 border-on-bar/25 pl-6 text-lg max-md:hidden">
          <span className="truncate" title={workout.title}>
            {workout.title || texts.score.untitled}
          </span>
        </span>
      )}
      <nav className="ml-auto flex shrink-0 items-stretch pl-6 max-md:min-w-0 max-md:shrink max-md:pl-0">
        {workout &&
          STEPS.filter((step) => !floorOnly || step === 'floor').map((step) => (
            <Link
              key={step}
              href={`/w/${workout.id}/${step}`}
              aria-current={step === here ? 'page' : undefined}
              className={`flex items-center gap-2 px-5 font-display text-2xl max-md:gap-1 max-md:px-2 max-md:text-xl ${step === here ? 'bg-land text-print' : 'hover:bg-on-bar/15'}`}
            >
              {texts.way[step]}
              {done[step] && (
                <Check size={18} strokeWidth={3.5} role="img" aria-label={texts.done} className="max-md:size-3.5" />
              )}
            </Link>
          ))}
        {!workout && (
          <Link
            href="/moves"
            aria-current={path === '/moves' ? 'page' : undefined}
            className={`flex items-center px-5 font-display text-2xl ${path === '/moves' ? 'bg-land text-print' : 'hover:bg-on-bar/15'}`}
          >
            {texts.score.moves.way}
          </Link>
        )}
        {mayLeave && <WhoIsIn />}
        <KeySheet page={here as KeyPage | undefined} />
        <button
          type="button"
          onClick={change}
          aria-label={texts.theme[theme]}
          title={texts.theme[theme]}
          className="grid w-14 place-items-center hover:bg-on-bar/15 max-md:w-9"
        >
          {theme === 'day' ? <Moon size={20} /> : <Sun size={20} />}
        </button>
      </nav>
    </header>
  )
}

/** Two blocks of land over a waterline: the brand's mark. */
function Mark(): ReactNode {
  return (
    <svg width="30" height="30" viewBox="0 0 30 30" aria-hidden="true">
      <path d="M3 20V9l2-2 6 1 1 1.500V20zM17 20V4l4-1 5 1.500 1 1.500V20z" fill="var(--land)" />
      <path d="M0 20h30v2.500H0z" fill="currentColor" />
      <path d="M12 22.500q1 5 2.500 5t2.500-5z" fill="#5fb0ba" />
    </svg>
  )
}
