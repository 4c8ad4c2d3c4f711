// How much of a person's attention it takes until every count is held by a sure tie: ten simulated sessions with their
// faults, heard by the real engine. What is to do is answered, most harmful first, as by somebody who knows what
// happened; keys take the time that a hand and a look take. `npx tsx bench/attention.ts`
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { boundariesOf, tieKey } from '../src/core/align/boundaries'
import { notDoneStitch, restOfRound, stationAt, withNotDonePlaced } from '../src/core/align/notDone'
import { placeBoundaries } from '../src/core/align/place'
import { joinedReel, type Reel } from '../src/core/align/reel'
import { matchEvidence } from '../src/core/align/sync'
import { holdingTies, isSure, withHandTie, type Stitch } from '../src/core/align/ties'
import { todoOf, type Todo } from '../src/core/align/todo'
import { filesInRow } from '../src/core/filesInRow'
import { median } from '../src/core/sum'
import type { Ms } from '../src/core/units'
import { contentHash } from '../src/engine/contentHash'
import { gatherOnce } from '../src/engine/gatherOnce'
import { probeFootage } from '../src/engine/probe'
import { recordShoot } from '../demo/shoots/record'
import { truthOf, type Played } from '../demo/shoots/shoot'
import { SHOOTS } from '../demo/shoots/shoots'

/** Seconds: to read what is said, to make up one's mind, to press a key, to hear two seconds, to go there by hand. */
const READ_S = 5,
  MIND_S = 1.35,
  KEY_S = 0.3,
  HEAR_S = 2,
  SEEK_S = 6
/** A tie is right within this of the truth. */
const RIGHT_MS: Ms = 400
const MOST_ANSWERS = 40

interface Session {
  played: Played
  reel: Reel
  /** When each segment began, in the time of the files in a row: the take that is meant to be shown. */
  trueMs: ReadonlyMap<string, Ms>
}

async function recorded(shoot: (typeof SHOOTS)[number], folder: string): Promise<Session> {
  const films = await recordShoot(shoot, folder)
  const played = films[0]?.played
  if (!played) throw new Error('a shoot without a film')
  const near = played.files.filter(({ camera }) => camera === 'near')
  const files = await Promise.all(
    near.map(async (_, at) => {
      const path = films[at]?.film ?? ''
      const facts = await probeFootage(path)
      const { evidence } = await gatherOnce({ path, hash: await contentHash(path) }, facts)
      return { evidence, footageMs: facts.durationMs }
    }),
  )
  const { beginMs } = filesInRow(files.map(({ footageMs }) => footageMs))
  const truths = near.flatMap((file, at) =>
    truthOf(played, file)
      .boundaries.filter(({ stands }) => stands)
      .map(({ segmentId, footageMs }): [string, Ms] => [segmentId, footageMs + (beginMs[at] ?? 0)]),
  )
  return { played, reel: joinedReel(files), trueMs: new Map(truths) }
}

class Sitting {
  ties: Stitch[]
  answers: string[] = []
  seconds = KEY_S + READ_S

  constructor(private readonly session: Session) {
    const started = performance.now()
    this.ties = matchEvidence(this.segments, session.reel).found
    this.seconds += (performance.now() - started) / 1000
  }

  private get segments(): Played['segments'] {
    return this.session.played.segments
  }

  run(): this {
    while (this.answers.length < MOST_ANSWERS) {
      const [todo] = todoOf(this.segments, this.ties)
      if (!todo) return this
      this.seconds += KEY_S + MIND_S + HEAR_S
      const hands = this.answer(todo)
      const started = performance.now()
      this.lookAgain(hands)
      this.seconds += KEY_S + (performance.now() - started) / 1000
    }
    return this
  }

  /** @returns the ties by hand with this answer among them. */
  private answer(todo: Todo): Stitch[] {
    const { played, reel, trueMs } = this.session
    const at = boundariesOf(this.segments).findIndex((one) => tieKey(one) === tieKey(todo))
    const lastMs = Math.min(reel.footageMs, (played.happenings.at(-1)?.endMs ?? 0) - played.endMs + reel.footageMs)
    const wantedMs = todo.edge === 'end' ? lastMs : trueMs.get(todo.segmentId)
    if (wantedMs === undefined) return this.notDone(todo.segmentId)
    const right = (ms: Ms): boolean => Math.abs(ms - wantedMs) <= RIGHT_MS
    const placeMs = placeBoundaries(this.segments, this.ties, reel.footageMs)[at]?.footageMs ?? 0
    const rivals = this.ties.find((tie) => tieKey(tie) === tieKey(todo))?.alternatives ?? []
    const rival = rivals.findIndex(({ footageMs }) => right(footageMs))
    let tiedMs = placeMs
    if (right(placeMs)) this.answers.push('right')
    else if (rival >= 0) {
      for (let tried = 0; tried <= rival; tried++) this.answers.push('next place')
      this.seconds += (rival + 1) * (KEY_S + HEAR_S)
      tiedMs = rivals[rival]?.footageMs ?? wantedMs
    } else {
      this.answers.push('by hand')
      this.seconds += SEEK_S + HEAR_S
      tiedMs = wantedMs
    }
    const { ties } = withHandTie(this.segments, this.ties, { ...todo, footageMs: tiedMs }, reel.footageMs)
    return (ties ?? this.ties).filter(({ origin }) => origin === 'hand')
  }

  private notDone(segmentId: string): Stitch[] {
    const { trueMs } = this.session
    const asked = this.segments.find(({ id }) => id === segmentId)
    const roundDone = this.segments.some(
      ({ id, kind, round, section }) =>
        kind === 'work' && round === asked?.round && section === asked?.section && trueMs.has(id),
    )
    this.answers.push(roundDone ? 'not done' : 'round not done')
    const gone = (roundDone ? stationAt : restOfRound)(this.segments, this.ties, segmentId)
    const isGone = (tie: Stitch): boolean => tie.edge === 'start' && gone.includes(tie.segmentId)
    return [...this.ties.filter((tie) => tie.origin === 'hand' && !isGone(tie)), ...gone.map((id) => notDoneStitch(id))]
  }

  private lookAgain(hands: readonly Stitch[]): void {
    const { reel } = this.session
    const held = new Set(hands.map(tieKey))
    const { found } = matchEvidence(this.segments, reel, hands)
    const all = [...hands, ...found.filter((tie) => !held.has(tieKey(tie)))]
    const placed = withNotDonePlaced(this.segments, all, reel.footageMs)
    this.ties = holdingTies(this.segments, placed, reel.footageMs).map(({ tie }) => tie)
  }

  /** Sure ties of segments that are not where they really were, in whichever take. */
  get wrong(): number {
    const { played, trueMs } = this.session
    return this.ties.filter((tie) => {
      if (!isSure(tie) || tie.edge === 'end' || tie.done === false || !trueMs.has(tie.segmentId)) return false
      const takes = played.happenings.filter(({ segment }) => segment.id === tie.segmentId)
      const standsMs = trueMs.get(tie.segmentId) ?? 0
      const stands = takes.find(({ stands: counts }) => counts)
      return takes.every(
        ({ startMs }) => Math.abs(tie.footageMs - standsMs - (startMs - (stands?.startMs ?? 0))) > RIGHT_MS,
      )
    }).length
  }
}

const folder = mkdtempSync(join(tmpdir(), 'jivet-attention-'))
const all: number[] = []
console.log('| session | minutes | answers | seconds | of them | sure and wrong at the end |')
console.log('|---|---|---|---|---|---|')
for (const shoot of SHOOTS) {
  const session = await recorded(shoot, join(folder, shoot.name))
  const { seconds, answers, wrong } = new Sitting(session).run()
  all.push(seconds)
  const told = [...new Set(answers)].map((what) => `${answers.filter((one) => one === what).length} ${what}`)
  const minutes = (session.reel.footageMs / 60_000).toFixed(1)
  const row = [shoot.name, minutes, answers.length, Math.round(seconds), told.join(', ') || 'nothing to do', wrong]
  console.log(`| ${row.join(' | ')} |`)
}
console.log(`\nmedian ${median(all).toFixed(0)} s, worst ${Math.max(...all).toFixed(0)} s`)
rmSync(folder, { recursive: true, force: true })
