// Moving on the beat: tempos that make every length of the score whole bars, and what to change for a wanted one.
'use client'
import { useState, type ReactNode } from 'react'
import { changesForTempo, repsAtTempo, temposFor } from '@/core/score/beats'
import { setLength } from '@/core/score/edits'
import type { Expansion } from '@/core/score/segment'
import { formatLength } from '@/core/time/clock'
import type { Ms } from '@/core/units'
import { Button } from '../parts/Button'
import { CountField } from '../parts/fields'
import { Sheet } from '../parts/Sheet'
import { toggled } from '../parts/toggled'
import type { Edit } from './edit'
import { scoreTexts } from '@/core/words/en/score'
import { CheckField } from '../parts/CheckField'

const words = scoreTexts.beatPlanner

interface Props {
  open: boolean
  onOpenChange: (open: boolean) => void
  expansion: Expansion
  edit: Edit
}

export function BeatPlanner({ open, onOpenChange, expansion, edit }: Props): ReactNode {
  const [beats, setBeats] = useState(4)
  const [wanted, setWanted] = useState(128)
  const [perRep, setPerRep] = useState(4)
  const [free, setFree] = useState<ReadonlySet<number>>(new Set())
  const timed = expansion.segments.filter(
    (segment) => (segment.kind === 'work' || segment.kind === 'rest') && !segment.estimated && segment.durationMs > 0,
  )
  const all = [...new Set(timed.map((segment) => segment.durationMs))].sort((one, other) => one - other)
  const lengths = all.filter((ms) => !free.has(ms))
  const changes = changesForTempo(lengths, wanted, beats)
  return (
    <Sheet open={open} onOpenChange={onOpenChange} title={words.heading} hint={words.hint} wide>
      {!all.length ? (
        <p>{words.noLengths}</p>
      ) : (
        <>
          <div className="flex gap-6">
            <CountField label={words.beats} showLabel value={beats} low={2} high={12} onChange={setBeats} />
            <CountField label={words.perRep} showLabel value={perRep} low={1} high={32} onChange={setPerRep} />
            <CountField label={words.wanted} showLabel value={wanted} low={40} high={240} onChange={setWanted} />
          </div>
          <OnBeat all={all} free={free} onChange={setFree} />
          <Tempos lengths={lengths} beats={beats} perRep={perRep} />
          <h3 className="pt-5 pb-1 text-xl">{words.change}</h3>
          <Changes changes={changes} />
          <div className="mt-4 flex justify-end">
            <Button
              weight="main"
              disabled={changes.every((one) => one.ms === one.fittedMs)}
              onClick={() => {
                const fitted = new Map(changes.map((one) => [one.ms, one.fittedMs]))
                edit((draft) => {
                  for (const segment of timed)
                    setLength(draft, segment, fitted.get(segment.durationMs) ?? segment.durationMs)
                })
                onOpenChange(false)
              }}
            >
              {words.apply}
            </Button>
          </div>
        </>
      )}
    </Sheet>
  )
}

/** Which lengths have to fall on the beat. @param free those that need not. */
function OnBeat({
  all,
  free,
  onChange,
}: {
  all: readonly Ms[]
  free: ReadonlySet<Ms>
  onChange: (free: ReadonlySet<Ms>) => void
}): ReactNode {
  return (
    <fieldset className="mt-4 flex flex-wrap items-center gap-x-5">
      <legend className="text-[13px] text-quiet">{words.onBeat}</legend>
      {all.map((ms) => (
        <CheckField
          key={ms}
          className="font-display text-xl tabular-nums"
          label={formatLength(ms)}
          on={!free.has(ms)}
          onChange={() => onChange(toggled(free, ms))}
        />
      ))}
    </fieldset>
  )
}

/** The tempos at which every length is whole bars, with bars and repetitions of each. */
function Tempos({ lengths, beats, perRep }: { lengths: readonly Ms[]; beats: number; perRep: number }): ReactNode {
  const fits = temposFor(lengths, { beatsPerBar: beats }).slice(0, 12)
  if (!lengths.length || !fits.length) return <p className="mt-4">{lengths.length ? words.none : words.noneChosen}</p>
  return (
    <div className="mt-4 overflow-x-auto" tabIndex={0} role="region" aria-label={words.tempo}>
      <table className="w-full text-left whitespace-nowrap tabular-nums">
        <thead>
          <tr className="border-b-4 border-ink text-[13px] text-quiet">
            <th className="pr-4 font-medium">{words.tempo}</th>
            {lengths.map((ms) => (
              <th key={ms} className="pr-4 font-medium">
                {formatLength(ms)} · {words.bars.toLowerCase()}, {words.reps.toLowerCase()}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {fits.map((fit) => (
            <tr key={fit.bpm} className="border-b border-rule">
              <td className="font-display text-xl">{Math.round(fit.bpm * 100) / 100}</td>
              {lengths.map((ms, index) => (
                <td key={ms} className="pr-4">
                  {fit.bars[index]}, {repsAtTempo(ms, fit.bpm, perRep)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

function Changes({ changes }: { changes: ReturnType<typeof changesForTempo> }): ReactNode {
  return (
    <ul className="flex flex-wrap gap-x-8 gap-y-1 tabular-nums">
      {changes.map(({ ms, fittedMs, bars }) => (
        <li key={ms}>
          <b>{formatLength(ms)}</b>{' '}
          {fittedMs === ms
            ? words.fits
            : words.becomes(
                formatLength(fittedMs),
                `${fittedMs > ms ? '+' : '-'}${Math.abs(fittedMs - ms) / 1000} s`,
              )}{' '}
          · {bars} {words.bars.toLowerCase()}
        </li>
      ))}
    </ul>
  )
}
