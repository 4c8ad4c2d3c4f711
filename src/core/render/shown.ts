// What of a score a video and its texts show.
import type { Score } from '../score/score'

/**
 * The score without what neither the video nor its texts tell: findings that were set aside, the creator's own limits
 * for them, and a series of which nothing is said to come next.
 */
export function shownOf({ dismissed: _dismissed, needs: _needs, ...score }: Score): object {
  return { ...score, series: score.series.next ? score.series : null }
}
