// Words about what is removed for good.
import { sizeText } from './sizes'

export const forGoodTexts = {
  remove: 'Remove for good',
  label: (name: string): string => `Remove "${name}" for good`,
  title: (name: string): string => `Remove "${name}" for good?`,
  /** What goes, and how much room it takes; its files wait in the trash for a while. */
  hint: {
    footage: (bytes: number): string =>
      `The file (${sizeText(bytes)}) goes, with its ties. This cannot be undone. Its room on the disk is free within 16 days.`,
    workout: (bytes: number): string =>
      `The plan goes, with all its footage, ties, videos and sessions (${sizeText(bytes)}). This cannot be undone. Its room on the disk is free within 16 days.`,
    video: (bytes: number): string =>
      `The video (${sizeText(bytes)}) goes, with its texts. This cannot be undone. Its room on the disk is free within 16 days.`,
  },
  keep: 'Keep it',
  removed: (name: string): string => `"${name}" is removed for good.`,
} as const
