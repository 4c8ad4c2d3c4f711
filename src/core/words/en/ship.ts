// What is said in Ship, besides the checks and the video itself.
import { formatLength } from '../../time/clock'

export const shipTexts = {
  purpose: 'For',
  purposes: {
    host: 'a host, which encodes it anew',
    hdr: 'a host, in high dynamic range as it is filmed',
    phone: 'a phone, to be played as it is',
    small: 'a message, as small as can be',
    master: 'keeping, or working on it',
    draft: 'a look, at 360 lines',
  },
  /** Of a video that is there. */
  rendered: {
    host: 'For a host',
    hdr: 'High dynamic range',
    phone: 'For a phone',
    small: 'Small',
    master: 'Master',
    draft: 'Draft',
  },
  inHardware: (encoder: string) => `, encoded in hardware (${encoder})`,
  earlier: (count: number): string =>
    count === 1 ? 'The video before this one' : `The ${count} videos before this one`,
  wasPublished: 'published',
  hdr: (name: string) =>
    `${name} is filmed in high dynamic range. The video is mapped to the usual range, unless it is rendered in the high one.`,
  notPlayed: 'High dynamic range is H.265, which many browsers do not play. Download it to look at it.',
  written: 'Back to what Jivet wrote',
  clashes: (count: number) =>
    `${count === 1 ? 'In one place' : `In ${count} places`} both you and Jivet had changed the text; it is as you had it. Compare the times.`,
  notSaved: 'The description could not be kept',
  thumbnail: 'Thumbnail',
  thumbnailHint: 'What stands for the video in lists; once more as small as they show it.',
  thumbnailAt: 'Instant',
  thumbnailText: 'Words',
  thumbnailSize: 'Letters',
  thumbnailSizes: { large: 'large', medium: 'medium', small: 'small' },
  thumbnailPlace: 'Place',
  thumbnailPlaces: { bottomLeft: 'foot, left', topLeft: 'top, left', topRight: 'top, right', middle: 'middle' },
  thumbnailTone: 'Plate',
  thumbnailTones: { dark: 'dark', pale: 'pale' },
  thumbnailDownload: 'Download the thumbnail',
  companion: 'Render the companion video',
  companionHint:
    'There is no footage, so the plan itself is drawn, with its count, its names and its cues: a video to train by.',
  page: 'Page for a phone',
  pageHint:
    'One file that runs the session anywhere, without a network: count, tones, easier ways, hold and skip. Send it to who trains without the video.',
  pageDownload: 'Download the page',
  captioned: 'The same with captions and chapters inside',
  description: 'Description',
  chapters: 'Chapters',
  redo: ({ chunks, missing, likelyMs }: { chunks: number; missing: number; likelyMs: number | null }) =>
    [
      missing
        ? `A new render makes ${missing} of ${chunks} parts of the picture anew`
        : 'A new render makes no part of the picture anew, only what is heard or goes with it',
      likelyMs === null ? '' : `; about ${formatLength(Math.max(1000, Math.round(likelyMs / 1000) * 1000))}`,
      '.',
    ].join(''),
  letters: (count: number) => `${count} of the 5000 letters that hosts commonly take`,
  copy: 'Copy',
  copied: 'Copied',
  series: 'Series as a calendar',
  seriesHint: (name: string) =>
    `All workouts of "${name}" on the shelf in order of their titles, one each time, as iCalendar.`,
  seriesFrom: 'First on',
  seriesEvery: 'Days apart',
  seriesWrong: 'Choose a day, and 1 to 60 days.',
  seriesDownload: 'Download',
  overlay: 'Overlay alone',
  overlayHint:
    'Count and names without the footage, seen through, on the very pictures on which the video changes, for whoever edits elsewhere.',
  overlayDownloads: { mov: 'Overlay as ProRes 4444 (MOV)', webm: 'Overlay as VP9 (WebM), smaller' },
  paper: 'On paper',
  paperSheet: 'Card, one page',
  paperBoard: 'Board for the wall',
  soundAlone: 'Sound alone',
  soundAloneHint: 'As it is planned and tied now, to the sample as long as the video. A long one takes some seconds.',
  stem: 'What',
  stems: { mix: 'all of it', footage: 'the footage', cues: 'the cues', music: 'the music' },
  ending: 'As',
  endings: { wav: 'WAV', flac: 'FLAC', mp3: 'MP3' },
  download: 'Download',
} as const
