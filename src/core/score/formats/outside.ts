// Warm-up and cool-down need not be in the video: they can be linked to, or left to the viewer, with a reminder.
import { z } from 'zod'
import { choice, length, ms, text } from './format'
import { Run } from './run'

const WHERE = ['here', 'linked', 'viewer'] as const
export const outside = {
  where: z.enum(WHERE).default('here'),
  /** What the viewer is pointed to: the title of another video, or its address. */
  link: z.string().max(2000).default(''),
  /** A guess at the reminder's length. */
  reminderMs: ms.default(8000),
}
export const outsideFields = [
  choice('where', 'where', WHERE),
  text('link', 'link'),
  length('reminderMs', 'reminder', 8000),
]

export interface Outside {
  key: string
  name: string
  where: (typeof WHERE)[number]
  link: string
  reminderMs: number
}

/** The reminder in place of the moves. */
export function remind(run: Run, { where, link, reminderMs, name }: Outside): void {
  run.talk(
    'talk',
    reminderMs,
    where === 'linked' ? `${name}: ${link || 'see the link'}` : `${name}: in your own way`,
    {},
    ['reminderMs'],
  )
}

export const describeOutside = ({ where, link }: Outside): string =>
  where === 'linked' ? `in another video${link ? `: ${link}` : ''}` : 'left to the viewer, with a reminder'
