// What is said in Ship, besides the checks and the video itself.
import { formatLength } from '../../time/clock'

export const shipTexts = {
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
  soundAlone: 'Sound alone',
  soundAloneHint: 'As it is planned and tied now, to the sample as long as the video. A long one takes some seconds.',
  stem: 'What',
  stems: { mix: 'all of it', footage: 'the footage', cues: 'the cues', music: 'the music' },
  ending: 'As',
  endings: { wav: 'WAV', flac: 'FLAC', mp3: 'MP3' },
  download: 'Download',
} as const
