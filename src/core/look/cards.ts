// Cards that stand alone on the picture while somebody talks: the cautions, where to warm up or cool down, and what
// comes next in the series.
import type { ShownSegment } from '../cut/cut'
import { isReminder } from '../score/formats/outside'
import type { Score } from '../score/score'
import type { Segment } from '../score/segment'
import { SECOND, type Ms } from '../units'
import { viewerTexts as words } from '../words/en/viewers'

export interface Card {
  fromMs: Ms
  untilMs: Ms
  segmentId: string
  /** Its title first. */
  texts: readonly string[]
}

/** How long cautions and the end stand, and the least in which a card is read. */
const CARD_MS: Ms = 12 * SECOND
const LEAST_CARD_MS: Ms = 4 * SECOND

export type Cards = Pick<Score, 'caution' | 'series'>

/** In order of time; no two stand at once. */
export function cardsOf(lane: readonly ShownSegment[], { caution, series }: Cards): Card[] {
  const lasting = lane.filter(({ startMs, endMs }) => endMs - startMs >= LEAST_CARD_MS)
  const opening = holdsCard(lane.find(lasts)),
    closing = holdsCard(lane.findLast(lasts))
  const cards: Card[] = lasting
    .filter(({ segment }) => isReminder(segment))
    .map(({ segment, startMs, endMs }) => cardOn(segment, { fromMs: startMs, untilMs: endMs }, reminderTexts(segment)))
  if (opening && isOnCard(caution)) {
    const { segment, startMs, endMs } = opening
    cards.unshift(cardOn(segment, { fromMs: startMs, untilMs: Math.min(endMs, startMs + CARD_MS) }, words.caution))
  }
  if (closing && series.next) {
    const { segment, startMs, endMs } = closing
    const fromMs = Math.max(startMs, endMs - CARD_MS, cards.at(-1)?.untilMs ?? 0)
    if (endMs - fromMs >= LEAST_CARD_MS)
      cards.push(cardOn(segment, { fromMs, untilMs: endMs }, words.comesNext(series.name, series.next)))
  }
  return cards
}

/** Cards that are wished for and have no talk to stand over. */
export function cardsWithoutPlace(lane: readonly ShownSegment[], wished: Cards): ('caution' | 'end')[] {
  const hasEnd = cardsOf(lane, { ...wished, caution: 'none' }).some(({ texts }) => texts.includes(wished.series.next))
  return [
    ...(wished.caution === 'card' && !holdsCard(lane.find(lasts)) ? ['caution' as const] : []),
    ...(wished.series.next && !hasEnd ? ['end' as const] : []),
  ]
}

const isOnCard = (caution: Score['caution']): boolean => caution === 'both' || caution === 'card'

const cardOn = (segment: Segment, stands: Pick<Card, 'fromMs' | 'untilMs'>, texts: readonly string[]): Card => ({
  ...stands,
  segmentId: segment.id,
  texts,
})

const lasts = ({ startMs, endMs }: ShownSegment): boolean => endMs > startMs

/** Talk that lasts, in which nothing is shown that a card would hide, and that has no card of its own. */
function holdsCard(laid: ShownSegment | undefined): ShownSegment | null {
  if (!laid || laid.endMs - laid.startMs < LEAST_CARD_MS) return null
  const { segment } = laid
  return segment.kind === 'talk' && !segment.moves.length && !isReminder(segment) ? laid : null
}

/** A reminder is called "Warm-up: Harbour walk, part one"; the card has both apart. */
function reminderTexts({ section, label }: Segment): string[] {
  return [section, label.startsWith(`${section}: `) ? label.slice(section.length + 2) : label]
}
