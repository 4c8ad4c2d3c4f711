// Warm-up and cool-down need not be in the video: they can be linked to, or left to the viewer, with a reminder.
import type { Segment } from '../segment'
import { choice, length, text } from './fields'
import type { Run } from './run'

const WHERE = ['here', 'linked', 'viewer'] as const
export const outsideFields = [
  choice('where', 'where', WHERE),
  /** What the viewer is pointed to: the title of another video, or its address. */
  text('link', 'link', 2000),
  /** A guess at the reminder's length. */
  length('reminderMs', 'reminder', { bare: 8000, mayLack: true }),
] as const

export interface Outside {
  key: string
  name: string
  where: (typeof WHERE)[number]
  link: string
  reminderMs: number
}

/** The reminder in place of the moves. */
export function remind(run: Run, { where, link, reminderMs, name }: Outside): void {
  const label = where === 'linked' ? `${name}: ${link || 'see the link'}` : `${name}: in your own way`
  run.talk({ place: 'talk', ms: reminderMs, label, spot: {}, field: ['reminderMs'] })
}

/** Whether a segment is such a reminder. */
export const isReminder = ({ origin }: Pick<Segment, 'origin'>): boolean => origin?.length?.field[0] === 'reminderMs'

export const describeOutside = ({ where, link }: Outside): string =>
  where === 'linked' ? `in another video${link ? `: ${link}` : ''}` : 'left to the viewer, with a reminder'
