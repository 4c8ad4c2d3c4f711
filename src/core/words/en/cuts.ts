// What is said of a cut.
import type { Span, Why } from '../../cut/cut'

const WHY: Record<Why, string> = {
  filmed: 'as filmed',
  shortened: 'as filmed, shortened',
  reused: 'filmed for another interval, shown again',
  held: 'last picture held',
  card: 'card, nothing was filmed',
}

export const whyShown = ({ why, mirrored }: Pick<Span, 'why' | 'mirrored'>): string =>
  `${WHY[why]}${mirrored ? ', mirrored' : ''}`
