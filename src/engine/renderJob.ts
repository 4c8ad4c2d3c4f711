// What a video is rendered from.
import type { CueAsk } from '../core/cue/cues'
import type { Cut, ShownSegment } from '../core/cut/cut'
import type { Aim, Shape } from '../core/cut/framing'
import type { LookWish } from '../core/look/looks/family'
import type { Viewing } from '../core/look/overlay'
import type { Purpose } from '../core/render/purpose'
import type { Steps } from '../core/sound/loudness'
import type { Mix } from '../core/sound/mix'
import type { MusicPiece } from '../core/sound/music'
import type { Share } from '../core/units'
import type { InHardware } from './encoding'
import type { FootageFacts } from './probe'

/** A recording, and what is known of it. */
export interface RecordedFile {
  path: string
  facts: FootageFacts
  /** SHA-256 of its contents, where it is known. */
  hash?: string
  /** How loud it is, where that was measured already: `engine/loudness`. */
  loudness?: Steps | null
}

/** The form of a video that no footage gives one. */
export const DRAWN: FootageFacts = {
  ...{ durationMs: 0, zeroS: 0, pictureFromMs: 0, soundFromMs: 0, recordedMs: null },
  ...{ width: 1280, height: 720, rate: { num: 30, den: 1 }, videoCodec: 'h264' },
  ...{ audioCodec: null, audioRate: 48_000, audioChannels: 1, browserPlayable: true, brokenEnd: false },
}

/** A framing in the files of a reel. */
export interface Framed {
  shape: Shape
  /** Of each file, in the order of the reel; in order of time. */
  aims: readonly (readonly Aim[])[]
}

/** A piece of music with its file. */
export type PieceFile = MusicPiece & { path: string }

/** What the picture of a video is made from. */
export interface PictureJob {
  /**
   * The files in order; the video has the first one's size, unless it is framed, and its rate. Without any, it is
   * drawn (`DRAWN`).
   */
  reel: readonly RecordedFile[]
  cut: Cut
  /** The segments in the cut's output time. */
  shown: readonly ShownSegment[]
  /** How the workout is shown. Default: as usual, without facts of the creator's own moves. */
  viewing?: Viewing
  /** Default: the usual one. */
  look?: LookWish
  /** What part of the picture is shown. Default: all of it. */
  framing?: Framed
  /** What it is for. Default: the usual. */
  purpose?: Purpose
  /** What encodes the picture, where that is hardware: `engine/hardware`. Default: the processor. */
  encoder?: InHardware
}

export interface RenderJob extends PictureJob {
  /** Default: the usual one. */
  mix?: Mix
  /** What is heard besides the footage. Default: the usual tones. */
  cueAsk?: CueAsk
  /** The pieces of the mix with their files, in its order. Default: none. */
  music?: readonly PieceFile[]
  /** Files of lines that the coach recorded. */
  recordings?: ReadonlyMap<string, string>
  out: string
  /** Where pictures wait; a fresh folder inside it is removed at the end. Default: the machine's folder for such. */
  scratch?: string
  signal?: AbortSignal
  onProgress?: (share: Share) => void
}
