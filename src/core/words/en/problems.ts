// English sentences for problems. Each says what is wrong and what to do; exhaustive over the facts.
import type { CellWanted, Counted, MoveFact, ProblemFact, Thing } from '../../facts'
import { formatInstant, formatLength } from '../../time/clock'

const THINGS: Record<Thing, string> = {
  host: 'There is no such host.',
  workout: 'There is no such workout; it may have been removed.',
  session: 'There is no such session on the floor.',
  device: 'There is no such device; it may have been removed.',
  footage: 'There is no such footage.',
  job: 'There is no such job.',
  video: 'There is no such video.',
  file: 'There is no such file.',
  part: 'There is no such part.',
  thing: 'There is no such thing here.',
  'stored file': 'The file is no longer there.',
  'stored video': 'The video is no longer there. Render it again.',
  'piece of music': 'piece of music',
}

const ADVICE: Record<Counted, string> = {
  intervals: 'Fewer rounds or stations are needed.',
  stations: 'Rounds repeat stations without listing them again.',
  sections: 'Put neighbouring parts together.',
  rows: 'Split the table.',
  ties: 'There is one at most for each change.',
  'pairs to match': 'Tie it by hand, or split the recording.',
  captions: 'These captions are of more than one session.',
}

const listed = (options: readonly string[]): string => options.join(', ')

function wanted(cell: CellWanted): string {
  switch (cell.code) {
    case 'one-of':
      return listed(cell.orNothing ? ['nothing', ...cell.options] : cell.options)
    case 'letters':
      return `${cell.most} letters at most`
    case 'whole':
      return `a whole number from ${cell.low} to ${cell.high}, or nothing`
    case 'seconds':
      return `a number from 0 to ${cell.most}${cell.orNothing ? ', or nothing' : ''}`
    case 'yes':
      return 'yes, or nothing'
  }
}

/** Sentences that need no values. */
const PLAIN = {
  'not-moves-file': 'This is no file of moves: it needs "format": "jivet-moves", "version": 1 and "moves".',
  'not-utf8': 'The text is not UTF-8. Save it as UTF-8 and try again.',
  'unstorable-text':
    'There is a character in the text that cannot be kept: half of an emoji, or an invisible NUL. Delete it and type it anew.',
  'session-under-way': 'A session of this workout is under way already. Take it up, or end it first.',
  'session-over': 'This session is over. What this device still had to tell of it was not kept.',
  'ahead-of-time': "This device's clock is ahead of the session's. Open the floor again on it.",
  'passphrase-wrong': 'That is not the passphrase.',
  'only-here':
    'Jivet can be reached from this machine only. Start it with HOST=0.0.0.0 and JIVET_PASSPHRASE set, and a device can be paired.',
  'floor-empty': 'Write the score first; then there is something to run.',
  'log-of-other-plan': 'Nothing of what this record of the floor has was planned here. It is of another plan.',
  'broken-quote': 'The quoting is broken: a quote is opened and not closed, or stands inside a bare cell.',
  'too-long': 'The score is longer than 24 hours.',
  'bad-name': 'Found a name that ends in none of .jivet.json, .score.txt and .csv; a plan is one of the three.',
  'edits-order':
    'It shows what was filmed earlier after what was filmed later, or something twice. Only what leaves parts out is read.',
  'edits-none': 'There is no cut in this edit list: no event of a picture.',
  'edits-backwards': 'Its end comes before its beginning.',
  'edits-no-range': 'This clip does not say what part of its file it is.',
  'there-already': 'This is there already, and is not written over.',
  'not-a-file': 'This is there already and is no regular file, so it is not written over.',
  'no-file': 'There is no such file.',
  'no-music': 'No sound was found in this file, so it cannot be played as music.',
  'not-video': 'This is not a video that can be read. Footage is a file such as MP4, MOV, MKV or WebM.',
  'empty-file': 'This file is empty: it holds 0 bytes. Copy it from the camera again.',
  'no-picture': 'This file has sound but no picture. Add the video file of the session.',
  'no-sound': 'This file has no sound, so there is nothing to hear.',
  'broken-end':
    'The end of this file is missing, and without it the rest cannot be read. Copy it from the camera again.',
  'no-frames': 'This file announces a picture but holds none. Copy it from the camera again.',
  'footage-missing':
    'The file of this footage is not where it should be. Its ties and its place are kept; it is used again as soon as the file is back.',
  'upload-gone': 'The uploaded file is gone. Add the footage again.',
  'nothing-heard': 'No interval was found in the sound. Give --sync FILE.json.',
  'no-ties-in-file':
    'This file has no ties: when it was made, nothing was found in the sound. Tie at least one change in Sync.',
  'nothing-said': 'Nothing can be heard in this recording. Try again, a little louder.',
  'not-stitched': 'No interval is tied to the footage yet. Tie at least one in Sync.',
  'cut-empty':
    'Nothing of this session was filmed, so this cut shows nothing. Tie its changes, or cut it another way in Watch.',
  'footage-not-ready': 'The footage is not ready yet.',
  'not-hdr':
    'The first file was not filmed in high dynamic range, so a video in it would only pretend. Render for a host.',
  'already-rendering': 'This workout is being rendered already.',
  busy: 'Too much is being worked out at once. Try again in a moment.',
  'not-in-this-workout': 'This footage belongs to another workout.',
  'foreign-host': "This address is not one of Jivet's own.",
  'foreign-origin': 'Another site asked for this change, so it was refused.',
  'move-name-missing': 'The name of the move is missing.',
  cancelled: 'Cancelled.',
  'disk-full': 'The disk is full. Free some space, then try again.',
  'database-away': 'The database is starting again. Try again in a moment.',
  unexpected: 'Something went wrong on the server. Nothing was changed; try again.',
  'claim-lost': 'Another worker has taken this up meanwhile.',
  'prepare-cancelled': 'Preparing this file was stopped. Try again, or add another.',
  'stored-file-gone': 'The file of this footage is no longer in the data folder. Add it again.',
  'length-missing': 'The length of the upload has to be said when it begins.',
  'nothing-to-try': 'This file needs no second try.',
  'reel-changed': 'The files of this workout have changed meanwhile. Look again, then put them in order.',
  'not-together': 'The sound of these two files was not found to be the same anywhere.',
  'host-slow': 'The host is still working at this video after hours. Look there what has become of it.',
  'already-publishing': 'A video of this workout is being published. Wait for it, or cancel it.',
  'published-already': 'This video is there already. Render a new one to publish another.',
  'broke-off-often':
    'This broke off several times, each time because the server stopped. Start it again when the server runs steadily.',
} as const satisfies Partial<Record<ProblemFact['code'], string>>

type Plain = keyof typeof PLAIN
type WithValues = Exclude<ProblemFact, { code: Plain }>

const isPlain = (fact: ProblemFact): fact is Extract<ProblemFact, { code: Plain }> => fact.code in PLAIN

export const problemSentence = (fact: ProblemFact): string => (isPlain(fact) ? PLAIN[fact.code] : sentence(fact))

// A table in the form of a switch: the compiler sees that none is missing.
// eslint-disable-next-line complexity, max-lines-per-function
function sentence(fact: WithValues): string {
  switch (fact.code) {
    case 'bad-json':
      return `This is not JSON: ${fact.reason}.`
    case 'bad-document':
      return `This ${fact.what} is not right at ${fact.field}: ${fact.reason}.`
    case 'not-sync-file':
      return `Not the output of "sync --json" (${fact.reason}).`
    case 'not-as-planned':
      return `The video was rendered, decoded and found wrong, so it is not kept. ${fact.fault}`
    case 'music-too-long':
      return `A piece of music may be ${fact.minutes} minutes long. Cut it, or bring its parts.`
    case 'music-in-use':
      return `"${fact.title}" plays this piece. Take it out there first.`
    case 'in-use':
      return 'Only what is out of use is removed for good: what was put aside, or off the shelf, and was not published.'
    case 'host-away':
      return `${fact.name} does not answer. What was sent is kept; publish again to go on.`
    case 'store-away':
      return `The bucket in which files are kept does not answer (${fact.reason}). Nothing is lost; try again when it does.`
    case 'host-refused':
      return `${fact.name} has refused: ${fact.reason}`
    case 'part-failed':
      return fact.reason
    case 'music-gone':
      return `The file of the piece "${fact.name}" is no longer in the data folder. Bring it again, or take it out of the music.`
    case 'not-understood':
      return fact.problem
    case 'bad-header':
      return `Found the header "${fact.found}", expected "${fact.expected}".`
    case 'name-column-missing':
      return `Found the header "${fact.found}"; "name" is needed, and known are ${fact.known}.`
    case 'bad-cell':
      return `Found "${fact.found}" in ${fact.column}, expected ${wanted(fact.expected)}.`
    case 'wrong-cells':
      return `Found ${fact.found} cells, expected ${fact.expected}.`
    case 'empty-plan':
      return fact.why === 'no-rows'
        ? 'The table has a header but no rows.'
        : 'No section was found; a plan has at least one, such as "circuit Main: 3 rounds, 40 on, 20 off".'
    case 'too-many': {
      const most = `${fact.most.toLocaleString('en')} ${fact.what}`
      const found = fact.found === null ? `More than ${most}` : `${fact.found.toLocaleString('en')} ${fact.what}`
      return `${found}${fact.found === null ? '' : `; ${most} is the most`}. ${ADVICE[fact.what]}`
    }
    case 'plan-too-long':
      return `the text has ${fact.letters.toLocaleString('en')} letters; a plan has ${fact.most.toLocaleString('en')} at most`
    case 'too-large':
      return `This is larger than ${fact.megabytes} MB.`
    case 'unreadable-file':
      return `The file cannot be read (${fact.reason}).`
    case 'footage-too-long':
      return `By its time stamps this file lasts ${formatLength(fact.durationMs)}; footage lasts a day at most. If it was filmed shorter, its time stamps are damaged: copy it from the camera again.`
    case 'edits-no-cut':
      return `Found "${fact.found}"; only cuts, gaps and steady speeds are read.`
    case 'edits-timecode':
      return `Found "${fact.found}"; expected a timecode of ${fact.perSecond} frames a second. Give another --rate.`
    case 'edits-layers':
      return `There are ${fact.count} tracks of pictures; one is read. Put them into one.`
    case 'edits-clip':
      return `It shows "${fact.found}", which is none of the footage.`
    case 'edits-beyond':
      return `It shows more than there is; the footage lasts ${formatLength(fact.footageMs)}.`
    case 'not-otio':
      return `This is no timeline of OpenTimelineIO: ${fact.field}: ${fact.reason}`
    case 'picture-too-large':
      return `Its picture has ${fact.width} x ${fact.height} pixels; 7680 x 4320 is the most.`
    case 'store-of-another':
      return fact.where === 'folder'
        ? `The files in ${fact.path} belong to another database than this one. Nothing there is touched. Look at DATABASE_URL and JIVET_HOME.`
        : 'The files in the bucket belong to another database than this one. Nothing there is touched. Look at DATABASE_URL and JIVET_S3_BUCKET.'
    case 'sweep-too-large':
      return `${fact.files} of ${fact.of} stored files are named by nothing. That is more than a third, so none was swept: look whether this is the right database. npm run tidy -- --anyway sweeps them all the same.`
    case 'upload-differs':
      return fact.sentBytes === fact.thereBytes
        ? 'What is on the disk is not what was sent: the disk, or the way to it, is at fault. Add the footage again.'
        : `Only ${fact.thereBytes} of the ${fact.sentBytes} bytes that were sent are on the disk. Add the footage again.`
    case 'tries-too-many':
      return `Too many tries. Try again in ${formatLength(Math.ceil(fact.waitMs / 1000) * 1000)}.`
    case 'sync-of-other-plan':
      return `This belongs to another plan, or to an older version of it: it ties "${fact.segmentId}", which this plan does not have.`
    case 'video-of-other-plan':
      return `This video was made from another plan, or from an older version of it: it shows "${fact.segmentId}", which this plan does not have.`
    case 'tie-crosses':
      return `${fact.tie} cannot be tied at ${formatInstant(fact.atMs)}: ${fact.other} is tied at ${formatInstant(fact.otherMs)}, and the two would change places.`
    case 'tie-outside':
      return `${fact.tie} cannot be tied at ${formatInstant(fact.atMs)}: the footage lasts ${formatLength(fact.footageMs)}.`
    case 'tie-twice':
      return `${fact.tie} is tied twice.`
    case 'sync-of-other-reel':
      return `This ties to file ${fact.number} of the footage, and ${fact.files === 1 ? 'there is 1' : `there are ${fact.files}`}.`
    case 'not-found':
      return THINGS[fact.what]
    case 'stale':
      return fact.what === 'score'
        ? 'This score was changed in another tab since you opened it.'
        : 'The ties were changed in another tab since you opened them.'
    case 'move-exists':
      return `There is a move "${fact.name}" already.`
    case 'move-unknown':
      return `There is no own move "${fact.name}".`
    case 'tool-failed':
      return `${fact.tool} gave up: ${fact.reason}`
    case 'tool-killed':
      return `${fact.tool} was ended from outside. Try again.`
    case 'tool-slow':
      return `${fact.tool} took far longer than this file should need, so it was stopped. The file may be damaged.`
    case 'tool-missing':
      return `This machine has no ${fact.tool}. Installing the package "${fact.package}" helps.`
    case 'font-missing':
      return `The font file ${fact.name} is missing. Running "npm start" brings it back.`
    case 'captions-unreadable':
      return 'No line of captions with its time was found. Captions are WebVTT or SRT files.'
    case 'model-missing':
      return `The model ${fact.name} is missing, so calls of the coach are not heard. Beeps still are. Installing Jivet again brings it back.`
    case 'model-damaged':
      return `The model ${fact.name} is damaged, so calls of the coach are not heard. Beeps still are. Installing Jivet again brings it back.`
    case 'package-missing':
      return `The package of ${fact.name} is missing. Running "npm start" brings it back.`
  }
}

/** What was wrong with one move of a file. */
export function moveSentence(place: string, fact: MoveFact): string {
  switch (fact.code) {
    case 'bad-field':
      return `${place}: ${fact.field}: ${fact.reason}.`
    case 'stands-twice':
      return `${place}: "${fact.name}" stands twice; the first was taken.`
  }
}

/** What is worth knowing of footage that can be used all the same. */
export const WARNINGS = {
  brokenEnd: 'The end of this file is missing. What is there can be used.',
  noSound: 'This footage has no sound, so there is nothing to hear. Tie it by hand.',
  notWatched: 'Its picture cannot be read to the end: movement was not looked for.',
} as const
