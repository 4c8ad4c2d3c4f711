// The picture that stands for a workout's video.
import type { Thumbnail } from '../core/look/thumbnail'
import { thumbnailOf } from '../engine/thumbnail'
import type { Rendering } from './rendering'

/** @param wish without words of its own it bears the title. @returns a JPEG. @throws Problem as a render does. */
export const drawnThumbnail = (
  { workout, job }: Pick<Rendering, 'workout' | 'job'>,
  wish: Thumbnail,
  signal: AbortSignal,
): ReturnType<typeof thumbnailOf> => thumbnailOf(job, { ...wish, text: wish.text ?? workout.score.title }, signal)
