// What viewers read, as data, in the words of the headless contract.
import type { ShownSegment } from '../cut/cut'
import { overlayChanges, type Viewing } from '../look/overlay'
import type { Marks } from '../look/counters'
import type { Ms } from '../units'

export interface ToldState {
  fromMs: Ms
  untilMs: Ms
  segmentId: string
  count: { value: number; direction: 'down' | 'up' } | null
  label: string
  side: 'left' | 'right' | null
  reps: number | null
  /** At most two, widest first. */
  counters: string
  marks: Marks | null
  block: string
  next: string
  nextMs: Ms | null
  lines: string[]
  /** Of the whole. */
  leftMs: Ms
}

/** @returns states in order; stretches of talk of which nothing is said stand between them. */
export function tellOverlay(lane: readonly ShownSegment[], viewing: Viewing): ToldState[] {
  const changes = overlayChanges(lane, viewing)
  const endMs = lane.at(-1)?.endMs ?? 0
  return changes.flatMap(({ fromMs, state }, at): ToldState[] => {
    if (!state) return []
    const { segmentId, count, way, label, side, reps, counters, marks, section, next, nextMs, lines } = state
    return [
      {
        ...{ fromMs, untilMs: changes[at + 1]?.fromMs ?? endMs, segmentId },
        count: count === null ? null : { value: count, direction: way },
        ...{ label, side, reps, counters: counters.join(' / '), marks, block: section, next, nextMs },
        lines: [...(state.card ?? lines.map(({ text }) => text))],
        leftMs: endMs - fromMs,
      },
    ]
  })
}
