// What a browser's tab says of a page of one workout.
import { texts } from '../core/words/en/screens'
import { idFrom } from './http'
import { storedScore } from './workouts'

/** @returns no title of its own where there is no such workout: the page says so. */
export async function pageTitle(
  step: keyof typeof texts.way,
  params: Promise<{ id: string }>,
): Promise<{ title?: string }> {
  const { id } = await params
  const title = await Promise.resolve()
    .then(() => storedScore(idFrom(id)))
    .then((stored) => stored.title || texts.score.untitled)
    .catch(() => null)
  return title === null ? {} : { title: `${texts.way[step]}: ${title}` }
}
