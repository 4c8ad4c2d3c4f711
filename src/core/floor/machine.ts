// A session on the floor as a state machine: a plan, what was told, and what time it is give where the session is. The
// clock is whoever asks; nothing here waits.
import type { Segment } from '../score/segment'
import { SECOND, type Ms } from '../units'
import type { FloorEvent, FloorEventKind } from './events'

export type Phase = 'ready' | 'countingIn' | 'running' | 'holding' | 'ended'

export interface FloorState {
  phase: Phase
  /** Place in the plan of the segment that runs, or is counted in; the plan's length where all is done. */
  at: number
  /** Session time at which it, or its counting in, began, later by all it was held. */
  fromMs: Ms
  /** Session time at which it really began. */
  beganMs: Ms
  /** How long is counted in; 0 where nothing is. */
  countInMs: Ms
  /** Session time since when it is on hold, and whether that was while counting in. */
  heldSinceMs: Ms | null
  /** The clock was taken off it by hand. */
  opened: boolean
  /** Session time at which the slot began that it is part of, later by all that was held in it. */
  slotMs: Ms
}

/** How a stretch came to its end. `slot`: its slot was over, and nobody had said when it was done. */
export type EndedBy = 'clock' | 'slot' | 'next' | 'skip' | 'back' | 'repeat' | 'restartRound' | 'end'

/** A segment as it was done once: `[fromMs, toMs)` in session time. */
export interface Stretch {
  segmentId: string
  fromMs: Ms
  toMs: Ms
  /** How much of it was on hold. */
  heldMs: Ms
  endedBy: EndedBy
}

/** What follows, and what was done by then. */
export interface Step {
  state: FloorState
  done: Stretch[]
}

/** Time to get back into place before what is done again. */
const COUNT_IN_AGAIN_MS: Ms = 5 * SECOND

export const READY: FloorState = {
  ...{ phase: 'ready', at: 0, fromMs: 0, beganMs: 0, countInMs: 0, slotMs: 0 },
  ...{ heldSinceMs: null, opened: false },
}

const inSlot = (segment: Segment | undefined): boolean => (segment?.slot?.beforeMs ?? 0) > 0
/** Whether others of its slot follow it. */
const slotGoesOn = (segments: readonly Segment[], at: number): boolean =>
  segments[at]?.slot !== null && segments[at]?.slot !== undefined && inSlot(segments[at + 1])

/** Whether a segment lasts until somebody says that it is done. */
export function waits(segments: readonly Segment[], { at, opened }: Pick<FloorState, 'at' | 'opened'>): boolean {
  const segment = segments[at]
  if (!segment) return false
  if (opened) return true
  if (segment.slot) return slotGoesOn(segments, at)
  return segment.pace === 'own' || segment.pace === 'open'
}

/** When the clock will end what runs; null where it waits, or nothing runs. */
export function endMsOf(segments: readonly Segment[], state: FloorState): Ms | null {
  const segment = segments[state.at]
  if (state.phase === 'countingIn') return state.fromMs + state.countInMs
  if (state.phase !== 'running' || !segment) return null
  // A slot's clock goes on over all its parts.
  if (segment.slot && !state.opened) return state.slotMs + segment.slot.ofMs
  return waits(segments, state) ? null : state.fromMs + segment.durationMs
}

/** How long what runs has run, without what it was held. */
export const elapsedMs = (state: FloorState, nowMs: Ms): Ms => Math.max(0, (state.heldSinceMs ?? nowMs) - state.fromMs)

/** All changes that the clock makes up to an instant. */
export function advanced(segments: readonly Segment[], from: FloorState, nowMs: Ms): Step {
  let state = from
  const done: Stretch[] = []
  for (let endMs = endMsOf(segments, state); endMs !== null && endMs <= nowMs; endMs = endMsOf(segments, state)) {
    if (state.phase === 'countingIn') {
      state = entered(segments, state, state.at, endMs)
      continue
    }
    const late = waits(segments, state)
    done.push(...stretchOf(segments, state, endMs, late ? 'slot' : 'clock'))
    // With its slot, all that was left of it is over.
    let next = state.at + 1
    if (late) while (inSlot(segments[next])) next++
    state = entered(segments, state, next, endMs)
  }
  return { state, done }
}

/** What a command does. Those that do not fit the state, or were meant for another segment, do nothing. */
export function after(segments: readonly Segment[], before: FloorState, event: FloorEvent): Step {
  const { state, done } = advanced(segments, before, event.atMs)
  const step = commanded(segments, state, event)
  return { state: step.state, done: [...done, ...step.done] }
}

type Command = (segments: readonly Segment[], state: FloorState, event: FloorEvent) => Step

const stay: Command = (_, state) => ({ state, done: [] })

/** From which phases each command is heard. */
const HEARD: Record<FloorEventKind, readonly Phase[]> = {
  start: ['ready'],
  hold: ['countingIn', 'running'],
  goOn: ['holding'],
  next: ['running'],
  skip: ['countingIn', 'running', 'holding'],
  back: ['countingIn', 'running', 'holding'],
  repeat: ['countingIn', 'running', 'holding'],
  restartRound: ['countingIn', 'running', 'holding'],
  open: ['running'],
  end: ['countingIn', 'running', 'holding'],
  mark: [],
  note: [],
  result: [],
  heart: [],
}

/** Whether a command would do anything now. */
export function isHeard(segments: readonly Segment[], state: FloorState, kind: FloorEventKind): boolean {
  if (!HEARD[kind].includes(state.phase)) return false
  if (kind === 'next') return waits(segments, state)
  if (kind === 'open') return segments[state.at]?.kind !== 'work' && !waits(segments, state)
  if (kind === 'back') return state.at > 0
  if (kind === 'repeat') return workBefore(segments, state.at) !== null
  return true
}

function commanded(segments: readonly Segment[], state: FloorState, event: FloorEvent): Step {
  if (!isHeard(segments, state, event.kind) || ('on' in event && event.on !== state.at)) return { state, done: [] }
  return COMMANDS[event.kind](segments, state, event)
}

const COMMANDS: Record<FloorEventKind, Command> = {
  start: (_, state, event) => ({
    state: countingIn(state, 0, event.atMs, event.kind === 'start' ? event.countInMs : COUNT_IN_AGAIN_MS),
    done: [],
  }),
  hold: (_, state, { atMs }) => ({ state: { ...state, phase: 'holding', heldSinceMs: atMs }, done: [] }),
  goOn: (_, state, { atMs }) => ({ state: wentOn(state, atMs), done: [] }),
  next: leaving('next', (state) => state.at + 1),
  skip: leaving('skip', (state) => state.at + 1),
  back: again('back', (_, { at }) => at - 1),
  repeat: again('repeat', (segments, { at }) => workBefore(segments, at) ?? at),
  restartRound: again('restartRound', (segments, { at }) => roundStart(segments, at)),
  open: (_, state) => ({ state: { ...state, opened: true }, done: [] }),
  end: (segments, state, { atMs }) => ({
    state: { ...wentOn(state, atMs), phase: 'ended' },
    done: stretchOf(segments, wentOn(state, atMs), atMs, 'end'),
  }),
  mark: stay,
  note: stay,
  result: stay,
  heart: stay,
}

/** Ends what runs, and goes on with another at once. What is only counted in begins at once when it is skipped. */
function leaving(endedBy: EndedBy, to: (state: FloorState) => number): Command {
  return (segments, before, { atMs }) => {
    const state = wentOn(before, atMs)
    if (state.phase === 'countingIn') return { state: entered(segments, state, state.at, atMs), done: [] }
    return { state: entered(segments, state, to(state), atMs), done: stretchOf(segments, state, atMs, endedBy) }
  }
}

/** Ends what runs, and counts another in. */
function again(endedBy: EndedBy, to: (segments: readonly Segment[], state: FloorState) => number): Command {
  return (segments, before, { atMs }) => {
    const state = wentOn(before, atMs)
    const done = stretchOf(segments, state, atMs, endedBy)
    return { state: countingIn(state, to(segments, state), atMs, COUNT_IN_AGAIN_MS), done }
  }
}

const countingIn = (state: FloorState, at: number, atMs: Ms, countInMs: Ms): FloorState => ({
  ...state,
  ...{ phase: 'countingIn', at, fromMs: atMs, beganMs: atMs, countInMs, heldSinceMs: null, opened: false },
})

function entered(segments: readonly Segment[], state: FloorState, at: number, atMs: Ms): FloorState {
  const segment = segments[at]
  const runs = { ...state, at, fromMs: atMs, beganMs: atMs, countInMs: 0, heldSinceMs: null, opened: false }
  if (!segment) return { ...runs, phase: 'ended' }
  const { slot } = segment
  // A part of a slot that was not come to by its clock has of the slot what is planned from there on.
  const goesOn = slot && slot.beforeMs > 0 && state.phase === 'running' && state.at === at - 1
  return { ...runs, phase: 'running', slotMs: goesOn ? state.slotMs : atMs - (slot?.beforeMs ?? 0) }
}

/** The state without its hold: all that it counts from is later by as much. */
function wentOn(state: FloorState, atMs: Ms): FloorState {
  if (state.heldSinceMs === null) return state
  const heldMs = atMs - state.heldSinceMs
  const phase = state.countInMs > 0 ? 'countingIn' : 'running'
  return { ...state, phase, fromMs: state.fromMs + heldMs, slotMs: state.slotMs + heldMs, heldSinceMs: null }
}

function stretchOf(segments: readonly Segment[], state: FloorState, toMs: Ms, endedBy: EndedBy): Stretch[] {
  const segment = segments[state.at]
  if (!segment || state.phase === 'countingIn' || state.phase === 'ready') return []
  const { beganMs, fromMs } = state
  return [{ segmentId: segment.id, fromMs: beganMs, toMs, heldMs: fromMs - beganMs, endedBy }]
}

function workBefore(segments: readonly Segment[], at: number): number | null {
  for (let place = Math.min(at, segments.length - 1); place >= 0; place--)
    if (segments[place]?.kind === 'work') return place
  return null
}

/** Where the round begins, or the section where it has no rounds; a break between rounds belongs to the one before. */
function roundStart(segments: readonly Segment[], at: number): number {
  const here = segments[at]
  let place = at
  const same = (one: Segment | undefined): boolean =>
    one !== undefined && one.sectionKey === here?.sectionKey && one.round === here.round
  while (same(segments[place - 1])) place--
  return place
}
