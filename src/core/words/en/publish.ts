// What is said of publishing.
import type { Harm, Obstacle } from '../../publish/obstacles'
import { formatLength } from '../../time/clock'
import { texts } from './screens'

export const publishTexts = {
  heading: 'Publish',
  simulated: (host: string) => `${host} is a simulated host on this machine. Nothing goes to the internet.`,
  away: (host: string) => `${host} does not answer. Start it with "npm run host", then look again.`,
  look: 'Look again',
  clear: 'Nothing stands in the way.',
  harms: {
    refused: 'The host will not take it',
    misleads: 'Viewers would be misled',
    less: 'Less than it could be',
  } satisfies Record<Harm, string>,
  publish: (host: string) => `Publish on ${host}`,
  anyway: (host: string) => `Publish on ${host} all the same`,
  sending: 'Publishing',
  published: 'Published',
  open: 'See it there',
  rejected: (host: string, reason: string) => `${host} has rejected it: ${reason}`,
  comments: 'Comments',
  noComments: 'Nobody has said anything yet.',
  curve: (share: number) => `${Math.round(share * 100)} of 100 viewers stay to the end (simulated: nobody watched).`,
} as const

const megabytes = (bytes: number): string => `${Math.ceil(bytes / 1e6).toLocaleString('en')} MB`

/** @param many with `#` where the number stands. */
const counted = (count: number, one: string, many: string): string =>
  count === 1 ? one : many.replace('#', String(count))

export function obstacleText(obstacle: Obstacle): string {
  switch (obstacle.code) {
    case 'host-away':
      return 'It does not answer.'
    case 'title-missing':
      return 'The workout has no title. Give it one in Score, then render again.'
    case 'title-long':
      return `The title has ${obstacle.letters} letters; ${obstacle.most} is the most.`
    case 'description-long':
      return `The description has ${obstacle.letters.toLocaleString('en')} letters; ${obstacle.most.toLocaleString('en')} is the most.`
    case 'video-large':
      return `The video has ${megabytes(obstacle.bytes)}; ${megabytes(obstacle.most)} is the most.`
    case 'video-long':
      return `The video lasts ${formatLength(obstacle.ms)}; ${formatLength(obstacle.mostMs)} is the most.`
    case 'unproofed':
      return obstacle.count === obstacle.of
        ? 'Nobody has proofed it in Watch.'
        : `${obstacle.count} of ${obstacle.of} changes were never proofed in Watch.`
    case 'proofed-before':
      return counted(
        obstacle.count,
        'One change is another since it was proofed.',
        '# changes are others since they were proofed.',
      )
    case 'open-notes':
      return counted(obstacle.count, 'One note of the proof is left.', '# notes of the proof are left.')
    case 'draft':
      return 'It was rendered as a draft.'
    case 'outdated':
      return 'The workout has changed since this video was rendered.'
    case 'nothing-tied':
      return texts.ship.missing.nothingTied
    case 'left-to-do':
      return texts.ship.missing.stitched(obstacle.count)
    case 'faults':
      return counted(
        obstacle.count,
        'The check of the video found one thing, listed above.',
        'The check of the video found # things, listed above.',
      )
    case 'few-chapters':
      return 'There are fewer than three chapters of ten seconds and more, so the host shows none.'
    case 'no-captions':
      return 'There are no captions.'
    case 'no-description':
      return 'There is no description.'
  }
}
