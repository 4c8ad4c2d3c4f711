// What can be wrong, as data: a code with its values, and nothing else. The sentences stand in `words/en`.
import type { Ms } from './units'
import type { Version } from './version'

/** Wrong with a format's own numbers. */
export type FormatFact =
  | { code: 'reps-with-lengths'; section: string }
  | { code: 'slot-overflows'; section: string; topMs: Ms; slotMs: Ms }
  | { code: 'group-overflows-slot'; label: string; takesMs: Ms; slotMs: Ms }
  | { code: 'reps-overflow-slot'; reps: number; label: string; takesMs: Ms; slotMs: Ms; secondsPerRep: number }
  | { code: 'rest-not-as-wanted'; reps: number; label: string; restMs: Ms; wantedMs: Ms; secondsPerRep: number }
  | { code: 'climb-too-short'; climbMs: Ms; moves: readonly string[] }
  | { code: 'buy-in-too-long'; label: string; takesMs: Ms; workMs: Ms }
  | { code: 'couplet-too-short'; workMs: Ms; moves: readonly string[] }

export type TitlePromise = 'tabata' | 'emom' | 'ladder' | 'pyramid' | 'finisher' | 'warmUp' | 'coolDown'

/** A change of posture, and how long it takes. */
export interface PostureFact {
  code: 'stand-up' | 'kneel-down' | 'get-to-floor' | 'kneel' | 'leave-kneeling' | 'turn-over'
  ms: Ms
}
/** Something that has to happen between two works. */
export type NeedFact =
  | PostureFact
  | { code: 'swap-gear' | 'take-gear'; gear: string; ms: Ms }
  | { code: 'change-side' | 'hear-next' | 'show-next' | 'count-in'; ms: Ms }

/** What a move may say that its format does not hear. */
export type NoEffect = 'workMs' | 'restMs' | 'swaps'

/** Everything that a judgement finds. `times`: how often it was met. */
export type FindingFact =
  | FormatFact
  | { code: 'beyond-limits'; problem: ProblemFact }
  | { code: 'promise-off'; promiseMs: Ms; totalMs: Ms; estimated: boolean; of: 'video' | 'workout' }
  | { code: 'title-word'; word: TitlePromise; reading: string | null }
  | { code: 'title-minutes'; minutes: number; totalMs: Ms; estimated: boolean }
  | {
      code: 'rest-too-short'
      from: string
      to: string
      needs: readonly NeedFact[]
      hasMs: Ms
      times: number
      guess: boolean
      /** How many other changes stand at rests of the same length, and are too short as well. */
      others: number
    }
  | { code: 'sides-uneven'; label: string; leftMs: Ms; rightMs: Ms; rounds: number; roundWord: string }
  | { code: 'no-warm-up'; label: string; jumping: boolean; guess: boolean }
  | { code: 'warm-up-late' | 'cool-down-early'; section: string }
  | { code: 'no-cool-down' }
  | { code: 'no-caution' | 'caution-card-nowhere' | 'end-card-nowhere' }
  | { code: 'same-muscles'; one: string; next: string; muscles: readonly string[]; times: number; guess: boolean }
  | { code: 'long-posture'; ms: Ms; from: string; guess: boolean }
  | { code: 'posture-every-rest'; section: string; rests: number; shortestMs: Ms }
  | { code: 'not-ready'; from: string; to: string; talk: boolean; times: number }
  | { code: 'no-effect'; section: string; settings: readonly NoEffect[] }
  | { code: 'station-unnamed' }
  | { code: 'moves-unsure'; guessed: readonly string[]; unknown: readonly string[] }
  | { code: 'no-easier'; names: readonly string[]; jumping: boolean }
  | { code: 'no-gear'; names: readonly string[] }
  | { code: 'no-moves' | 'repeats-nothing'; section: string }
  | { code: 'group-too-small'; section: string }
  | { code: 'lasts-nothing'; label: string; times: number }
  | { code: 'too-short-to-count'; label: string; ms: Ms; times: number }
  | { code: 'label-long'; label: string; letters: number; most: number; times: number }
  | { code: 'one-round'; word: string }
  | { code: 'not-understood'; line: string }

/** What a mend would do. */
export type MendFact =
  | {
      code:
        'take-lengths-off' | 'take-out' | 'take-off' | 'both-sides' | 'add-warm-up' | 'add-cool-down' | 'caution-both'
    }
  | { code: 'add-opening-talk' | 'add-closing-talk' }
  | { code: 'step-of' | 'make-it' | 'lead-in'; ms: Ms }
  | { code: 'set-reps'; reps: number }
  | { code: 'promise-minutes'; minutes: number; title: boolean }
  | { code: 'title-minutes'; minutes: number }

/** Everything that can be wrong with what came from outside, or with the machine. */
export type ProblemFact = ProblemOfInput | ProblemOfEdits | ProblemOfFootage | ProblemOfWork

type ProblemOfInput =
  | { code: 'bad-json'; reason: string }
  | { code: 'bad-document'; what: DocumentKind; field: string; reason: string }
  | { code: 'not-moves-file' }
  | { code: 'not-sync-file'; reason: string }
  | { code: 'not-utf8' | 'unstorable-text' }
  | { code: 'not-understood'; problem: string }
  | { code: 'bad-header'; found: string; expected: string }
  | { code: 'name-column-missing'; found: string; known: string }
  | { code: 'bad-cell'; column: string; found: string; expected: CellWanted }
  | { code: 'wrong-cells'; found: number; expected: number }
  | { code: 'broken-quote' }
  | { code: 'empty-plan'; why: 'no-rows' | 'no-section' }
  | { code: 'too-long' }
  | { code: 'too-many'; what: Counted; most: number; found: number | null }
  | { code: 'too-large'; megabytes: number }
  | { code: 'plan-too-long'; letters: number; most: number }
  | { code: 'bad-name' }
  | { code: 'no-file' | 'no-music' }
  | { code: 'music-too-long'; minutes: number }
  | { code: 'music-in-use'; title: string }
  | { code: 'in-use' }
  | { code: 'music-gone'; name: string }
  /** Of a part of a render; the reason is a sentence. */
  | { code: 'part-failed'; reason: string }
  | { code: 'unreadable-file'; reason: string }
  | { code: 'sync-of-other-plan' | 'video-of-other-plan'; segmentId: string }
  | { code: 'log-of-other-plan' }
  | { code: 'sync-of-other-reel'; number: number; files: number }
  | { code: 'not-a-file' }
  | { code: 'there-already' }

export type DocumentKind = 'workout file' | 'floor log' | 'request'
export type Counted = 'intervals' | 'stations' | 'sections' | 'rows' | 'ties' | 'pairs to match' | 'captions'
/** What a cell of a table has to hold. */
export type CellWanted =
  | { code: 'one-of'; options: readonly string[]; orNothing: boolean }
  | { code: 'letters'; most: number }
  | { code: 'whole'; low: number; high: number }
  | { code: 'seconds'; most: number; orNothing: boolean }
  | { code: 'yes' }

type ProblemOfEdits =
  | { code: 'edits-none' | 'edits-backwards' | 'edits-no-range' | 'edits-order' }
  | { code: 'edits-no-cut'; found: string }
  | { code: 'edits-timecode'; found: string; perSecond: number }
  | { code: 'edits-layers'; count: number }
  | { code: 'edits-clip'; found: string }
  | { code: 'edits-beyond'; footageMs: Ms }
  | { code: 'not-otio'; field: string; reason: string }

type ProblemOfFootage =
  | {
      code:
        | 'not-video'
        | 'empty-file'
        | 'no-picture'
        | 'no-sound'
        | 'broken-end'
        | 'no-frames'
        | 'upload-gone'
        | 'footage-missing'
    }
  | { code: 'footage-too-long'; durationMs: Ms }
  | { code: 'picture-too-large'; width: number; height: number }
  | { code: 'tie-crosses'; tie: string; other: string; atMs: Ms; otherMs: Ms }
  | { code: 'tie-outside'; tie: string; atMs: Ms; footageMs: Ms }
  | { code: 'tie-twice'; tie: string }
  | { code: 'not-stitched' | 'cut-empty' }
  | { code: 'nothing-heard' | 'no-ties-in-file' | 'nothing-said' }
  | { code: 'not-as-planned'; fault: string }

type ProblemOfWork =
  | { code: 'not-found'; what: Thing }
  | { code: 'stale'; what: 'score' | 'ties'; now: Version }
  | { code: 'move-exists' | 'move-unknown'; name: string }
  | { code: 'footage-not-ready' | 'already-rendering' | 'busy' | 'not-in-this-workout' }
  | { code: 'foreign-host' | 'foreign-origin' | 'move-name-missing' | 'cancelled' | 'disk-full' | 'unexpected' }
  | { code: 'database-away' }
  | { code: 'store-away'; reason: string }
  | { code: 'not-hdr' }
  | { code: 'store-of-another'; where: 'folder' | 'bucket'; path: string }
  | { code: 'sweep-too-large'; files: number; of: number }
  | { code: 'upload-differs'; sentBytes: number; thereBytes: number }
  | { code: 'session-over' | 'ahead-of-time' }
  | { code: 'session-under-way' | 'floor-empty' | 'passphrase-wrong' | 'only-here' }
  | { code: 'tries-too-many'; waitMs: Ms }
  | {
      code:
        | 'broke-off-often'
        | 'claim-lost'
        | 'prepare-cancelled'
        | 'stored-file-gone'
        | 'nothing-to-try'
        | 'length-missing'
        | 'reel-changed'
        | 'not-together'
    }
  | { code: 'host-away'; name: string }
  | { code: 'host-refused'; name: string; reason: string }
  | { code: 'host-slow' | 'already-publishing' | 'published-already' }
  | { code: 'tool-failed'; tool: string; reason: string }
  | { code: 'tool-killed' | 'tool-slow'; tool: string }
  | { code: 'tool-missing'; tool: string; package: string }
  | { code: 'captions-unreadable' }
  | { code: 'font-missing' | 'package-missing' | 'model-missing' | 'model-damaged'; name: string }

export type Thing =
  | 'host'
  | 'workout'
  | 'session'
  | 'device'
  | 'footage'
  | 'job'
  | 'video'
  | 'file'
  | 'part'
  | 'thing'
  | 'stored file'
  | 'stored video'
  | 'piece of music'

/** Wrong with one move of a file of moves; the others are taken. */
export type MoveFact = { code: 'bad-field'; field: string; reason: string } | { code: 'stands-twice'; name: string }
