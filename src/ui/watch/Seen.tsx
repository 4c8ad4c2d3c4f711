// How a look is seen: over what was filmed, as large as each screen is to who stands before it, and by people who see
// fewer colours.
'use client'
import { useCallback, useState, type ReactNode } from 'react'
import { legibility, SCREENS, seenMm, WANTED, type Screen } from '@/core/look/distance'
import { drawOverlay, type Frame } from '@/core/look/drawOverlay'
import type { LookWish } from '@/core/look/looks/family'
import type { Sizes } from '@/core/look/looks/part'
import type { OverlayState } from '@/core/look/overlay'
import { SEEN_BY, VISIONS, type Vision } from '@/core/look/vision'
import { lookTexts as words } from '@/core/words/en/looks'
import { ChoiceField } from '../parts/fields'
import { useCanvas } from '../parts/useCanvas'
import type { FilmedPicture } from './useFraming'

interface Props {
  wish: LookWish
  size: Frame
  state: OverlayState
  /** What is seen in Watch; null where nothing was filmed. */
  under: FilmedPicture | null
}

/** The part of a picture that fills a frame. */
function drawUnder(pen: CanvasRenderingContext2D, { picture, at }: FilmedPicture, { width, height }: Frame): void {
  const scale = Math.max(width / picture.width, height / picture.height)
  const [wide, high] = [width / scale, height / scale]
  const [left, top] = [(picture.width - wide) * at, (picture.height - high) * at]
  pen.drawImage(picture, left, top, wide, high, 0, 0, width, height)
}

/** A look over its footage, or over what is bright on one side and dark on the other. */
export function Taste({ wish, size, state, under }: Props): ReactNode {
  const draw = useCallback(
    (pen: CanvasRenderingContext2D, width: number, height: number) => {
      if (under) drawUnder(pen, under, { width, height })
      else {
        const light = pen.createLinearGradient(0, 0, width, height)
        light.addColorStop(0, '#d8d2c2')
        light.addColorStop(1, '#2a3136')
        pen.fillStyle = light
        pen.fillRect(0, 0, width, height)
      }
      drawOverlay(pen, state, { width, height }, wish)
    },
    [wish, state, under],
  )
  const canvas = useCanvas(draw)
  return (
    <canvas
      ref={canvas}
      className="block max-h-full max-w-full"
      style={{
        aspectRatio: `${size.width} / ${size.height}`,
        ...(size.width >= size.height ? { width: '100%' } : { height: '100%' }),
      }}
    />
  )
}

/** Whoever sits before this screen is usually so far away. */
const DESK_MM = 550
/** Pixels of a page, by the definition of CSS. */
const PIXELS_A_MM = 96 / 25.4

type Seeing = Vision | 'all'
const SEEING = Object.fromEntries((['all', ...VISIONS] as const).map((one) => [one, words.visions[one]])) as Record<
  Seeing,
  string
>

export function Seen({ wish, size, state, under }: Props): ReactNode {
  const [seeing, setSeeing] = useState<Seeing>('all')
  return (
    <section className="mt-6">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h3 className="text-xl">{words.seen}</h3>
        <ChoiceField label={words.seeing} showLabel value={seeing} options={SEEING} onChange={setSeeing} />
      </div>
      <p className="mt-1 text-sm text-quiet">{words.seenHint}</p>
      {VISIONS.map((vision) => (
        <VisionFilter key={vision} vision={vision} />
      ))}
      <div className="mt-3 flex flex-wrap items-end gap-4 overflow-x-auto" data-testid="screens">
        {(Object.keys(SCREENS) as Screen[]).map((screen) => {
          const mm = seenMm(size, screen, DESK_MM)
          return (
            <figure key={screen} className="shrink-0">
              <div
                style={{
                  width: mm.width * PIXELS_A_MM,
                  height: mm.height * PIXELS_A_MM,
                  ...(seeing === 'all' ? {} : { filter: `url(#seen-${seeing})` }),
                }}
              >
                <Taste wish={wish} size={size} state={state} under={under} />
              </div>
              <figcaption className="mt-1 text-sm">{words.screens[screen]}</figcaption>
            </figure>
          )
        })}
      </div>
      <Distances wish={wish} size={size} />
    </section>
  )
}

function VisionFilter({ vision }: { vision: Vision }): ReactNode {
  const values = [...SEEN_BY[vision].map((row) => [...row, 0, 0]), [0, 0, 0, 1, 0]].flat().join(' ')
  return (
    <svg aria-hidden className="absolute size-0">
      <filter id={`seen-${vision}`} colorInterpolationFilters="linearRGB">
        <feColorMatrix type="matrix" values={values} />
      </filter>
    </svg>
  )
}

const KINDS = Object.keys(WANTED) as (keyof Sizes)[]

function Distances({ wish, size }: Pick<Props, 'wish' | 'size'>): ReactNode {
  return (
    <table className="mt-4 w-full border-collapse text-left">
      <caption className="pb-2 text-left text-sm text-quiet">{words.readableHint}</caption>
      <thead>
        <tr className="border-b-2 border-ink">
          <th scope="col" className="py-1.5 pr-3">
            {words.readable}
          </th>
          {KINDS.map((kind) => (
            <th key={kind} scope="col" className="py-1.5 pr-3 text-right">
              {words.kinds[kind]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {(Object.keys(SCREENS) as Screen[]).map((screen) => {
          const seen = legibility(wish, size, screen)
          return (
            <tr key={screen} className="border-b border-rule">
              <th scope="row" className="py-1 pr-3 font-normal">
                {words.screens[screen]}
              </th>
              {KINDS.map((kind) => (
                <td
                  key={kind}
                  className={`py-1 pr-3 text-right tabular-nums ${seen[kind].isEnough ? '' : 'font-bold text-signal'}`}
                >
                  {words.minutes(seen[kind].minutes)}
                  {seen[kind].isEnough ? '' : ' !'}
                </td>
              ))}
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}
