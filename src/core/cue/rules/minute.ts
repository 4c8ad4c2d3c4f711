// Twenty seconds are left of a minute, or of another slot whose end alone is by the clock.
import { MINUTE, SECOND } from '../../units'
import { cueTexts } from '../../words/en/cues'
import type { CueRule } from '../place'

const LEFT_MS = 20 * SECOND
const FROM_MS = 40 * SECOND
const WINDOW_MS = 2500

export const minute: CueRule = {
  name: 'minute',
  usual: true,
  candidates: ({ segment, startMs, slotEndMs }) => {
    const { slot } = segment
    if (!slot || slot.beforeMs > 0 || slotEndMs - startMs < FROM_MS) return []
    const atMs = slotEndMs - LEFT_MS
    const lines = cueTexts.leftOf(slot.ofMs === MINUTE)
    return [{ key: 'said', segmentId: segment.id, priority: 55, lines, atMs, fromMs: atMs, untilMs: atMs + WINDOW_MS }]
  },
}
