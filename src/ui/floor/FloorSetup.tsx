// Before a session: what for, how it is heard and read, and the caution that stands before the first one.
'use client'
import Link from 'next/link'
import type { ReactNode } from 'react'
import type { Planned } from '@/core/score/segment'
import { formatLength } from '@/core/time/clock'
import { floorTexts as words } from '@/core/words/en/floor'
import { texts } from '@/core/words/en/screens'
import { Button, PLAIN_LINK } from '../parts/Button'
import { CheckField } from '../parts/CheckField'
import { ChoiceField } from '../parts/fields'
import { PairButton } from './PairSheet'
import { Level } from '../parts/Level'
import type { SessionBefore } from './facts'
import type { FloorWishes } from './useFloorWishes'

interface Props {
  workoutId: string
  planned: Planned
  wishes: FloorWishes
  onWish: (part: Partial<FloorWishes>) => void
  before: readonly SessionBefore[]
  busy: boolean
  onBegin: () => void
}

export function FloorSetup({ workoutId, planned, wishes, onWish, before, busy, onBegin }: Props): ReactNode {
  return (
    <main
      id="content"
      tabIndex={-1}
      className="mx-auto grid w-full max-w-6xl flex-1 content-start gap-x-14 gap-y-8 px-6 py-8 lg:grid-cols-[1fr_22rem]"
    >
      <div>
        <h1 className="text-5xl">{words.heading}</h1>
        <p className="mt-2 max-w-prose text-lg text-quiet">{words.intro}</p>
        <div role="radiogroup" aria-label={words.forWhat} className="mt-6 grid gap-3 sm:grid-cols-2">
          <Purpose
            chosen={!wishes.rehearsal}
            name={words.film}
            hint={words.filmHint}
            onChoose={() => onWish({ rehearsal: false })}
          />
          <Purpose
            chosen={wishes.rehearsal}
            name={words.rehearse}
            hint={words.rehearseHint}
            onChoose={() => onWish({ rehearsal: true })}
          />
        </div>
        <Measures wishes={wishes} onWish={onWish} />
        <Heard wishes={wishes} onWish={onWish} />
        <div className="mt-8 flex flex-wrap items-center gap-5">
          <Button
            weight="main"
            className="min-h-16 px-10 text-2xl"
            disabled={busy || !wishes.understood}
            onClick={onBegin}
          >
            {wishes.rehearsal ? words.rehearse : words.begin}
          </Button>
          <p className="font-display text-3xl">
            {planned.estimated ? words.about(formatLength(planned.totalMs)) : formatLength(planned.totalMs)}
          </p>
          {!wishes.understood && <p className="text-quiet">{words.readFirst}</p>}
        </div>
      </div>
      <Aside {...{ workoutId, wishes, onWish, before }} />
    </main>
  )
}

function Measures({ wishes, onWish }: Pick<Props, 'wishes' | 'onWish'>): ReactNode {
  return (
    <div className="mt-6 flex flex-wrap gap-x-8 gap-y-4">
      <ChoiceField
        label={words.countIn}
        value={wishes.countInS}
        options={{ '5': words.seconds(5), '10': words.seconds(10), '20': words.seconds(20) }}
        onChange={(countInS) => onWish({ countInS })}
        showLabel
      />
      <ChoiceField
        label={words.distance}
        value={wishes.metres}
        options={{ '1': words.metres(1), '2': words.metres(2), '3': words.metres(3), '4': words.metres(4) }}
        onChange={(metres) => onWish({ metres })}
        showLabel
      />
      {wishes.rehearsal && (
        <ChoiceField
          label={words.speed}
          value={wishes.speed}
          options={{ '1': '1 x', '2': '2 x', '4': '4 x' }}
          onChange={(speed) => onWish({ speed })}
          showLabel
        />
      )}
    </div>
  )
}

function Aside({
  workoutId,
  wishes,
  onWish,
  before,
}: Pick<Props, 'workoutId' | 'wishes' | 'onWish' | 'before'>): ReactNode {
  return (
    <aside>
      <section className="border-l-8 border-signal bg-pale p-5">
        <h2 className="text-2xl">{words.caution}</h2>
        <p className="mt-2">{texts.ship.cautionText}</p>
        <CheckField
          className="mt-2 font-bold"
          label={words.understood}
          on={wishes.understood}
          onChange={(understood) => onWish({ understood })}
        />
      </section>
      <section className="mt-8 grid gap-3">
        <h2 className="text-2xl">{words.beside}</h2>
        <p className="text-quiet">{words.wallHint}</p>
        <div className="flex flex-wrap gap-3">
          <a href={`/w/${workoutId}/floor?board`} target="_blank" rel="noreferrer" className={PLAIN_LINK}>
            {words.wall}
          </a>
          <PairButton workoutId={workoutId} />
        </div>
      </section>
      <section className="mt-8">
        <h2 className="text-2xl">{words.report.before}</h2>
        {before.length === 0 && <p className="mt-2 text-quiet">{words.report.none}</p>}
        <ul className="mt-2 grid">
          {before.map(({ id, openedAt, rehearsal }) => (
            <li key={id} className="border-b border-rule">
              <Link
                className="flex min-h-11 items-center justify-between gap-4 hover:underline"
                href={`/w/${workoutId}/floor?session=${id}`}
              >
                <span suppressHydrationWarning>{instantText(openedAt)}</span>
                <span className="text-quiet">{rehearsal ? words.report.rehearsal : words.report.filmed}</span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
    </aside>
  )
}

const instantText = (iso: string): string =>
  new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(iso))

function Purpose({
  chosen,
  name,
  hint,
  onChoose,
}: {
  chosen: boolean
  name: string
  hint: string
  onChoose: () => void
}): ReactNode {
  return (
    <button
      type="button"
      role="radio"
      aria-checked={chosen}
      onClick={onChoose}
      className={`flex min-h-20 flex-col items-start justify-center border-2 px-5 py-3 text-left ${chosen ? 'border-ink bg-chosen' : 'border-rule hover:border-ink'}`}
    >
      <span className="font-display text-2xl">{name}</span>
      <span className="text-quiet">{hint}</span>
    </button>
  )
}

function Heard({ wishes, onWish }: Pick<Props, 'wishes' | 'onWish'>): ReactNode {
  return (
    <section className="mt-8 border-t-2 border-rule pt-5">
      <h2 className="text-2xl">{words.sounds}</h2>
      <div className="mt-3 flex flex-wrap items-end gap-x-8 gap-y-3">
        <Level label={words.cues} value={wishes.cues} onChange={(cues) => onWish({ cues })} />
        <Level label={words.ear} value={wishes.ear} onChange={(ear) => onWish({ ear })} />
        <ChoiceField
          label={words.chirps}
          value={wishes.chirps}
          options={words.chirpVoices}
          onChange={(chirps) => onWish({ chirps })}
          showLabel
        />
      </div>
      <p className="mt-3 max-w-prose text-sm text-quiet">{words.chirpsHint}</p>
      <CheckField className="mt-2" label={words.strap} on={wishes.strap} onChange={(strap) => onWish({ strap })} />
    </section>
  )
}
