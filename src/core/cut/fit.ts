// How the footage becomes the output: followed as filmed, cut to the score, or filled up to the whole score. Each
// change that is made to what was filmed is listed, and can be taken back alone.
import { z } from 'zod'
import type { Tie } from '../align/ties'
import type { Evidence } from '../evidence'
import type { Segment } from '../score/segment'
import { sum } from '../sum'
import type { Ms, Share } from '../units'
import { shownFrom, type Camera } from './cameras'
import { shownIn, type Cut, type ShownSegment } from './cut'
import { editedCut, type Edit } from './edited'
import { Donors, type Donor } from './donors'
import { follow } from './follow'
import { busyStretches, leastNoticed, longestStill, silencesIn, type Busy, type Range } from './joint'
import { lay, type LaidSegment } from './lane'
import { SpanList } from './spans'
import { treated, treatmentSchema, type TreatedStretch } from './treated'

/**
 * `follow`: as filmed. `score`: what was filmed, as long as planned. `fill`: the same, with what was not filmed.
 * `edited`: as another program cut it.
 */
export const FITS = ['follow', 'score', 'fill', 'edited'] as const
export type Fit = (typeof FITS)[number]

export interface Filmed {
  laid: readonly LaidSegment[]
  /** Of the whole reel. */
  footageMs: Ms
  /** In order of time. */
  heard: readonly Evidence[]
  cameras: readonly Camera[]
  /** Stretches that are not shown whole, whatever they belong to. */
  dead: readonly TreatedStretch[]
  /** What another program made of the reel; empty where none did. */
  edits: readonly Edit[]
}

/** How a workout is cut, as it is kept. */
export const cutWishesSchema = z.object({
  fit: z.enum(FITS).default('follow'),
  /** Keys of changes that are not made. */
  undone: z.array(z.string().max(400)).max(2000).default([]),
  /** Whether work of the other side, mirrored, may stand for work that was not filmed. */
  mirrors: z.boolean().default(true),
  /** Whether long silences in talk are shortened. */
  tightens: z.boolean().default(false),
  /** Segments that are not shown whole. */
  treated: z.record(z.string().max(400), treatmentSchema).default({}),
  /** Stretches of single files that are not shown whole. */
  dead: z
    .array(z.object({ footage: z.string().max(100), fromMs: z.number(), toMs: z.number(), as: treatmentSchema }))
    .max(1000)
    .default([]),
  /** What another program made of the files, in order of the video's time. */
  edits: z
    .array(
      z.object({
        footage: z.string().max(100),
        ...{ fromMs: z.number(), toMs: z.number(), atMs: z.number(), lengthMs: z.number().positive() },
      }),
    )
    .max(5000)
    .default([]),
  /** Ids of second cameras, by the segments that are shown from them. */
  cameras: z.record(z.string().max(400), z.string().max(100)).default({}),
})
export type CutWishes = z.infer<typeof cutWishesSchema>
export const USUAL_CUT: CutWishes = cutWishesSchema.parse({})

/** What is done to the footage, and where. */
export interface CutChange {
  /** The id of its segment; `before` and `after` for what lies outside the plan. */
  key: string
  kind: 'shortened' | 'tightened' | 'lengthened' | 'left-out' | 'reused' | 'carded' | 'outside'
  segmentId: string | null
  /** Output less what was filmed. */
  byMs: Ms
  /** Where in the reel; what was not filmed has no length there. */
  fromMs: Ms
  toMs: Ms
}

/** From ties to what a cut is made from. */
export const filmedFrom = (
  segments: readonly Segment[],
  ties: readonly Tie[],
  { footageMs, heard, cameras = [], dead = [], edits = [] }: Pick<Filmed, 'footageMs' | 'heard'> & Partial<Filmed>,
): Filmed => ({ laid: lay(segments, ties, footageMs), footageMs, heard, cameras, dead, edits })

export interface Fitted {
  cut: Cut
  /** As it would be without second cameras. */
  plainCut: Cut
  shown: ShownSegment[]
  changes: CutChange[]
  /** How much of the output is shown a second time. */
  reused: Share
}

export function fitted(filmed: Filmed, asked: Partial<CutWishes>): Fitted {
  const wishes = { ...USUAL_CUT, ...asked }
  const { cut: whole, changes } = cutFor(filmed, wishes)
  const ofSegments = filmed.laid.flatMap(({ segment, fromMs, toMs }): TreatedStretch[] => {
    const as = wishes.treated[segment.id]
    return as ? [{ fromMs, toMs, as }] : []
  })
  const plainCut = treated(whole, [...ofSegments, ...filmed.dead])
  const cut = shownFrom(plainCut, filmed.cameras, wishes.cameras)
  const again = sum(cut.spans.map(({ why, lengthMs }) => (why === 'reused' ? lengthMs : 0)))
  return { cut, plainCut, shown: shownIn(cut, filmed.laid), changes, reused: cut.outMs ? again / cut.outMs : 0 }
}

function cutFor(filmed: Filmed, wishes: CutWishes): { cut: Cut; changes: CutChange[] } {
  const { laid, footageMs, edits } = filmed
  if (wishes.fit === 'edited' && edits.length) return { cut: editedCut(laid, edits), changes: [] }
  if (wishes.fit === 'follow' || wishes.fit === 'edited') return { cut: follow(laid, footageMs), changes: [] }
  return new Fitting(filmed, wishes).made()
}

/** A stretch that is so little off is left as it was filmed; what adds up is put right by the next that is more. */
const SLACK_MS: Record<'work' | 'other', Ms> = { work: 500, other: 250 }
/** The last picture is held so long at most; more is a card. */
const MOST_HELD_MS: Ms = 1500
/** Slower than this a picture looks slowed. */
const SLOWEST = 0.5
/** What a change begins with, and what leads to the next, is kept. */
const KEPT_START_MS: Ms = 1500,
  KEPT_END_MS: Ms = 4000
/** How far before its end overrun work may be cut to spare a word. */
const TAIL_MS: Ms = 300

class Fitting {
  private readonly list = new SpanList()
  private readonly changes: CutChange[] = []
  private readonly busy: Busy
  private readonly donors: Donors
  private readonly undone: ReadonlySet<string>
  /** Where the plan would be by now, in output time. */
  private dueMs: Ms = 0

  constructor(
    private readonly filmed: Filmed,
    private readonly wishes: CutWishes,
  ) {
    this.busy = busyStretches(filmed.heard)
    this.donors = new Donors(filmed.laid, mayStandIn, wishes.mirrors)
    this.undone = new Set(wishes.undone)
  }

  made(): { cut: Cut; changes: CutChange[] } {
    const { laid, footageMs } = this.filmed
    this.outside('before', 0, laid[0]?.fromMs ?? footageMs)
    for (const one of laid) this.add(one)
    this.outside('after', laid.at(-1)?.toMs ?? footageMs, footageMs)
    return { cut: this.list.cut, changes: this.changes }
  }

  private outside(key: string, fromMs: Ms, toMs: Ms): void {
    if (toMs <= fromMs) return
    if (this.isUndone(key)) {
      this.list.show({ fromMs, toMs, segmentId: null, why: 'filmed' })
      this.dueMs += toMs - fromMs
    } else this.changes.push({ key, kind: 'outside', segmentId: null, byMs: fromMs - toMs, fromMs, toMs })
  }

  private add(one: LaidSegment): void {
    const filmedMs = one.toMs - one.fromMs
    if (!wasFilmed(one)) return this.unfilmed(one)
    if (one.segment.kind === 'talk' && this.wishes.tightens && !this.isUndone(one.segment.id)) {
      const silences = silencesIn(this.busy, rangeOf(one))
      if (silences.length) return this.tighten(one, silences)
    }
    const lengthMs = this.lengthOf(one.segment, filmedMs)
    const slackMs = SLACK_MS[one.segment.kind === 'work' ? 'work' : 'other']
    if (Math.abs(lengthMs - filmedMs) <= slackMs || this.isUndone(one.segment.id)) {
      // What was left longer on purpose moves the plan; what is only inexact is made up for.
      if (Math.abs(lengthMs - filmedMs) > slackMs) this.dueMs += filmedMs - lengthMs
      return this.list.show({ ...rangeOf(one), segmentId: one.segment.id, why: 'filmed' })
    }
    const { segment } = one
    this.note(one, lengthMs < filmedMs ? 'shortened' : 'lengthened', lengthMs - filmedMs)
    this.showFor({ from: one, mirrored: false, segmentId: segment.id, lengthMs, why: 'filmed' })
  }

  /** Talk without its long silences. */
  private tighten(one: LaidSegment, silences: readonly Range[]): void {
    const { id } = one.segment
    const startMs = this.list.outMs
    let fromMs = one.fromMs
    for (const silence of silences) {
      this.list.show({ fromMs, toMs: silence.fromMs, segmentId: id, why: 'shortened' })
      fromMs = silence.toMs
    }
    this.list.show({ fromMs, toMs: one.toMs, segmentId: id, why: 'shortened' })
    const lengthMs = this.list.outMs - startMs
    this.dueMs += lengthMs
    this.note(one, 'tightened', lengthMs - (one.toMs - one.fromMs))
  }

  private unfilmed(one: LaidSegment): void {
    const { segment } = one
    // Nobody knows how long talk would have been that nobody filmed.
    if (this.wishes.fit !== 'fill' || segment.pace === 'open' || this.isUndone(segment.id)) {
      if (segment.durationMs) this.note(one, 'left-out', one.fromMs - one.toMs)
      return
    }
    const lengthMs = this.lengthOf(segment, segment.durationMs)
    const donor = this.donors.for(one)
    this.note(one, donor ? 'reused' : 'carded', lengthMs - (one.toMs - one.fromMs))
    if (donor) this.showFor({ ...donor, segmentId: segment.id, lengthMs, why: 'reused' })
    else this.list.card(lengthMs, segment.id)
  }

  private note({ segment, fromMs, toMs }: LaidSegment, kind: CutChange['kind'], byMs: Ms): void {
    this.changes.push({ key: segment.id, kind, segmentId: segment.id, byMs, fromMs, toMs })
  }

  private isUndone(key: string): boolean {
    return this.undone.has(key)
  }

  /** How long a segment is to be. */
  private lengthOf({ pace, slot, durationMs, minMs, maxMs }: Segment, filmedMs: Ms): Ms {
    const endsSlot = slot !== null && slot.beforeMs + durationMs >= slot.ofMs
    if (pace === 'fixed' || endsSlot) {
      this.dueMs += durationMs
      return Math.max(0, this.dueMs - this.list.outMs)
    }
    const lengthMs = pace === 'range' ? Math.max(minMs, Math.min(maxMs ?? Infinity, filmedMs)) : filmedMs
    // Within a slot the clock runs on whatever the parts take.
    this.dueMs += slot ? durationMs : lengthMs
    return lengthMs
  }

  /** A stretch of the reel made as long as wanted: less of it, or with its last picture held, slowed, or a card. */
  private showFor({
    from,
    lengthMs,
    why,
    ...shown
  }: Donor & { segmentId: string; lengthMs: Ms; why: 'filmed' | 'reused' }): void {
    const whole = rangeOf(from)
    const overMs = whole.toMs - whole.fromMs - lengthMs
    if (overMs <= 0) {
      const still = -overMs > MOST_HELD_MS ? this.stillFor(from, -overMs) : null
      if (still) return this.slow(whole, still, -overMs, shown)
      this.list.show({ ...shown, ...whole, why })
      if (-overMs <= MOST_HELD_MS) this.list.hold(whole.toMs, -overMs, shown)
      else this.list.card(-overMs, shown.segmentId)
      return
    }
    // What stands for something else leads to nothing that was filmed after it: its end goes.
    if (why === 'reused') return this.list.show({ ...shown, ...whole, toMs: whole.toMs - overMs, why })
    const out = this.takenOut(from, overMs)
    this.list.show({ ...shown, fromMs: whole.fromMs, toMs: out.fromMs, why: 'shortened' })
    this.list.show({ ...shown, fromMs: out.toMs, toMs: whole.toMs, why: 'shortened' })
  }

  /** Where a rest can be slowed by so much that nobody sees or hears it. Work is done at its own pace. */
  private stillFor({ segment, fromMs, toMs }: LaidSegment, byMs: Ms): Range | null {
    if (segment.kind === 'work') return null
    const still = longestStill(this.filmed.heard, { fromMs, toMs })
    const lengthMs = still ? still.toMs - still.fromMs : 0
    return lengthMs / (lengthMs + byMs) >= SLOWEST ? still : null
  }

  private slow(whole: Range, still: Range, byMs: Ms, shown: { segmentId: string; mirrored: boolean }): void {
    this.list.show({ ...shown, fromMs: whole.fromMs, toMs: still.fromMs, why: 'filmed' })
    this.list.show({ ...shown, ...still, lengthMs: still.toMs - still.fromMs + byMs, why: 'slowed' })
    this.list.show({ ...shown, fromMs: still.toMs, toMs: whole.toMs, why: 'filmed' })
  }

  private takenOut({ segment, fromMs, toMs }: LaidSegment, byMs: Ms): Range {
    if (segment.kind === 'work')
      return leastNoticed(this.busy, byMs, { fromMs: Math.max(fromMs + byMs, toMs - TAIL_MS), toMs }, toMs)
    const leftMs = toMs - fromMs - byMs
    const earliest = fromMs + byMs + Math.min(KEPT_START_MS, leftMs / 4),
      latest = toMs - Math.min(KEPT_END_MS, leftMs / 2)
    return leastNoticed(this.busy, byMs, { fromMs: Math.round(earliest), toMs: Math.round(latest) }, Math.round(latest))
  }
}

const rangeOf = ({ fromMs, toMs }: LaidSegment): Range => ({ fromMs, toMs })

/** Less than this of a timed segment is a scrap of another one, or reckoned where nothing was filmed. */
const LEAST_FILMED: Share = 0.5

/** Whether the footage has a segment at all. A rest of which both ends are tied was cut short, and filmed. */
export function wasFilmed({ segment, fromMs, toMs, fromTied, toTied }: LaidSegment): boolean {
  const filmedMs = toMs - fromMs
  if (filmedMs <= 0) return false
  if (segment.pace !== 'fixed' || filmedMs >= segment.durationMs * LEAST_FILMED) return true
  return segment.kind !== 'work' && fromTied && toTied
}

/** An interval that only its neighbours place was reckoned, and may show anything: it stands for nothing else. */
const mayStandIn = (one: LaidSegment): boolean => wasFilmed(one) && (one.fromTied || one.toTied)
