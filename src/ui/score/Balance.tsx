// How the session is spread, drawn: blocks, postures, muscles, sides, impact, effort over time.
'use client'
import { useMemo, type ReactNode } from 'react'
import { balanceOf, type Balance as Sums } from '@/core/score/balance'
import { castOf } from '@/core/score/cast'
import { IMPACTS, MUSCLES, POSTURES } from '@/core/score/postures'
import type { Score } from '@/core/score/score'
import type { Expansion } from '@/core/score/segment'
import { formatClock, formatLength } from '@/core/time/clock'
import { nameOf } from '@/core/words/en/names'
import type { Palette } from '@/core/look/palette'
import { Drawn, type ChartConfig as Config } from '../parts/Drawn'
import { useTheme } from '../parts/useTheme'
import { scoreTexts } from '@/core/words/en/score'

const words = scoreTexts.balance
/** More blocks than these are drawn as the first ones and a rest, so that bars stay bars. */
const MOST_BLOCKS = 12
const MOST_POINTS = 1500
/** Closer together, outlines would leave nothing of the land. */
const OUTLINED_POINTS = 250

export function Balance({ score, expansion }: { score: Score; expansion: Expansion }): ReactNode {
  const { palette } = useTheme()
  const sums = useMemo(() => balanceOf(expansion, castOf(score.moves)), [expansion, score.moves])
  if (!expansion.workMs) return <p className="py-6 text-lg text-quiet">{words.none}</p>
  return (
    <div className="grid gap-x-8 gap-y-7 lg:grid-cols-2">
      <dl className="flex flex-wrap gap-x-8 gap-y-3 lg:col-span-2">
        <Figure label={words.real} value={`${Math.round((expansion.workMs / 60_000) * 10) / 10} min`} />
        {sums.longest && (
          <Figure label={`${words.longest}: ${nameOf(sums.longest)}`} value={formatLength(sums.longest.durationMs)} />
        )}
        <Figure
          label={words.gear}
          value={
            sums.gear.length ? sums.gear.map((one) => `${one.name} ${formatClock(one.ms)}`).join(', ') : words.noGear
          }
          small
        />
      </dl>
      <Panel title={words.effort} wide>
        <Drawn label={words.effort} config={effortChart(sums, expansion.totalMs, palette)} height={150} />
      </Panel>
      <Panel title={words.blocks}>
        <Bars
          label={words.blocks}
          config={blocksChart(sums, palette)}
          height={60 + 30 * Math.min(MOST_BLOCKS, sums.blocks.length)}
        />
      </Panel>
      <Panel title={words.sides}>
        <Bars
          label={words.sides}
          config={barsChart(
            [
              [words.left, sums.leftMs],
              [words.right, sums.rightMs],
            ],
            palette,
          )}
          height={100}
        />
      </Panel>
      <Panel title={words.postures}>
        <Bars
          label={words.postures}
          config={barsChart(
            POSTURES.map((one) => [scoreTexts.postures[one], sums.postures[one]]),
            palette,
          )}
          height={210}
        />
      </Panel>
      <Panel title={words.muscles} note={words.muscleNote}>
        <Bars
          label={words.muscles}
          config={barsChart(
            MUSCLES.map((one) => [scoreTexts.muscles[one], sums.muscles[one]]),
            palette,
          )}
          height={280}
        />
      </Panel>
      <Panel title={words.impacts}>
        <Bars
          label={words.impacts}
          config={barsChart(
            IMPACTS.map((one) => [scoreTexts.impacts[one], sums.impacts[one]]),
            palette,
          )}
          height={125}
        />
      </Panel>
    </div>
  )
}

function Figure({ label, value, small = false }: { label: string; value: string; small?: boolean }): ReactNode {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-[13px] text-quiet">{label}</dt>
      <dd className={`font-display tabular-nums ${small ? 'text-xl' : 'text-3xl leading-none'}`}>{value}</dd>
    </div>
  )
}

function Panel({
  title,
  note,
  wide = false,
  children,
}: {
  title: string
  note?: string
  wide?: boolean
  children: ReactNode
}): ReactNode {
  return (
    <section className={`border-t-4 border-ink pt-2 ${wide ? 'lg:col-span-2' : ''}`}>
      <h2 className="pb-1 text-xl">{title}</h2>
      {children}
      {note && <p className="text-[13px] text-quiet">{note}</p>}
    </section>
  )
}

/** Bars of minutes, said as lengths. */
function Bars({ label, config, height }: { label: string; config: Config; height: number }): ReactNode {
  const spoken = config.data.datasets.map(({ label: set = '', data }) => {
    const values = data.map((value, at) => `${String(config.data.labels?.[at])} ${formatClock(Number(value) * 60_000)}`)
    return `${set} ${values.join(', ')}`
  })
  return <Drawn label={label} spoken={spoken.join('; ')} config={config} height={height} />
}

const minutes = (ms: number): number => ms / 60_000

function plain(palette: Palette): Partial<NonNullable<Config['options']>> {
  const ticks = { color: palette.ink, font: { family: 'Hanken Grotesk', size: 13 } }
  return {
    responsive: true,
    maintainAspectRatio: false,
    animation: false,
    indexAxis: 'y',
    scales: {
      x: {
        stacked: true,
        beginAtZero: true,
        ticks: { ...ticks, maxRotation: 0, callback: (value) => `${value} min` },
        grid: { color: `${palette.ink}22` },
      },
      y: { stacked: true, ticks, grid: { display: false } },
    },
    plugins: {
      legend: { display: false },
      tooltip: {
        callbacks: { label: (item) => `${item.dataset.label ?? ''} ${formatClock(Number(item.raw) * 60_000)}` },
      },
    },
  }
}

function barsChart(rows: readonly (readonly [string, number])[], palette: Palette): Config {
  return {
    type: 'bar',
    data: {
      labels: rows.map(([name]) => name),
      datasets: [
        {
          label: '',
          data: rows.map(([, ms]) => minutes(ms)),
          backgroundColor: palette.land,
          borderColor: palette.ink,
          borderWidth: 1.5,
          maxBarThickness: 20,
        },
      ],
    },
    options: plain(palette),
  } as Config
}

function blocksChart(sums: Sums, palette: Palette): Config {
  const blocks = sums.blocks.slice(0, MOST_BLOCKS)
  const set = (label: string, colour: string, pick: (block: Sums['blocks'][number]) => number): object => ({
    label,
    data: blocks.map((block) => minutes(pick(block))),
    backgroundColor: colour,
    borderColor: palette.ink,
    borderWidth: 1.5,
    maxBarThickness: 20,
  })
  const options = plain(palette)
  return {
    type: 'bar',
    data: {
      labels: blocks.map((block) => block.name || scoreTexts.untitled),
      datasets: [
        set(scoreTexts.work, palette.land, (block) => block.workMs),
        set(scoreTexts.rest, palette.water, (block) => block.restMs),
        set(words.other, palette.ink, (block) => block.otherMs),
      ],
    },
    options: {
      ...options,
      plugins: {
        ...options.plugins,
        legend: {
          display: true,
          position: 'top',
          align: 'start',
          labels: { color: palette.ink, boxWidth: 14, font: { family: 'Hanken Grotesk', size: 13 } },
        },
      },
    },
  } as Config
}

function effortChart(sums: Sums, totalMs: number, palette: Palette): Config {
  const every = Math.ceil(sums.effort.length / MOST_POINTS)
  const points = sums.effort
    .filter((_, index) => index % every === 0 || index === sums.effort.length - 1)
    .map(({ atMs, effort }) => ({ x: atMs / 60_000, y: effort }))
  const ticks = { color: palette.ink, font: { family: 'Hanken Grotesk', size: 13 } }
  return {
    type: 'line',
    data: {
      datasets: [
        {
          label: scoreTexts.effort,
          data: points,
          stepped: 'before' as const,
          borderColor: palette.ink,
          borderWidth: points.length > OUTLINED_POINTS ? 0 : 1.5,
          backgroundColor: palette.land,
          fill: true,
          pointRadius: 0,
        },
      ],
    },
    options: {
      responsive: true,
      maintainAspectRatio: false,
      animation: false,
      parsing: false,
      scales: {
        x: {
          type: 'linear',
          min: 0,
          max: totalMs / 60_000,
          ticks: { ...ticks, maxRotation: 0, callback: (value) => `${Math.round(Number(value) * 10) / 10} min` },
          grid: { display: false },
        },
        y: { min: 0, max: 5, ticks: { ...ticks, stepSize: 1 }, grid: { color: `${palette.ink}22` } },
      },
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
    },
  } as Config
}
