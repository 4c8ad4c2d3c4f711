// The creator's own moves in the database, and what a change of one means for the workouts that use it.
import type { TransactionSql } from 'postgres'
import { z } from 'zod'
import { Problem } from '../core/problem'
import { changeMove } from '../core/score/library'
import { moveSchema, type Move } from '../core/score/move'
import { scoreSchema } from '../core/score/score'
import { inTransaction, sql } from './db'
import { moveKey } from './shelfFacts'
import { putScore } from './workouts'

interface Row {
  name: string
  short: string
  cue: string
  posture: string
  muscles: string[]
  impact: string
  effort: number
  side_rule: string
  standing_leg: string
  gear: string[]
  easier: string
  harder: string
  caution: string
  seconds_per_rep: number
  tags: string[]
}

const fromRow = ({ side_rule, standing_leg, seconds_per_rep, ...row }: Row): Move =>
  moveSchema.parse({
    ...row,
    sideRule: side_rule,
    standingLeg: standing_leg,
    secondsPerRep: Math.round(seconds_per_rep * 1000) / 1000,
  })
const toRow = ({ sideRule, standingLeg, secondsPerRep, ...move }: Move): Row => ({
  ...move,
  side_rule: sideRule,
  standing_leg: standingLeg,
  seconds_per_rep: secondsPerRep,
})

export async function listMoves(): Promise<Move[]> {
  const rows = await sql()<
    Row[]
  >`select name, short, cue, posture, muscles, impact, effort, side_rule, standing_leg, gear, easier, harder, caution, seconds_per_rep, tags from moves order by lower(name) limit 20000`
  return rows.map(fromRow)
}

export interface MoveUse {
  id: string
  title: string
  published: boolean
}

/** The workouts on the shelf that use a move, by name. */
export async function usesOfMove(name: string): Promise<MoveUse[]> {
  return sql()<MoveUse[]>`
    select id, title, exists (select 1 from packs where workout_id = workouts.id) as published
    from workouts join workout_moves on workout_id = id
    where name = ${moveKey(name)} and removed_at is null order by updated_at desc`
}

export const moveChangeSchema = z.object({
  move: moveSchema,
  /** The name before; null for a new move. */
  was: z.string().max(300).nullable(),
  /** Whether workouts that were published take the new text as well. */
  changePublished: z.boolean(),
})

/**
 * Saves a move and carries it into the workouts that use it: all of them, or those that were not published. All or
 * nothing.
 * @throws Problem `conflict` where another own move has the name.
 */
export async function saveMove({ move, was, changePublished }: z.infer<typeof moveChangeSchema>): Promise<void> {
  const used = await usesOfMove(was ?? move.name)
  await inTransaction(async (run) => {
    const renamed = was === null || was.toLowerCase() !== move.name.toLowerCase()
    const [taken] = renamed ? await run`select 1 from moves where lower(name) = lower(${move.name})` : []
    if (taken) throw new Problem({ code: 'move-exists', name: move.name })
    if (was !== null) await run`delete from moves where lower(name) = lower(${was})`
    await put(run, move)
    for (const { id, published } of used) {
      if (published && !changePublished) continue
      const [row] = await run<{ score: unknown }[]>`select score from workouts where id = ${id} for update`
      if (!row) continue
      const read = scoreSchema.safeParse(row.score)
      // A workout that cannot be read stays as it is, and is shown as damaged.
      if (!read.success) continue
      changeMove(read.data, move, was ?? move.name)
      await putScore(run, id, { score: read.data })
    }
  })
}

const put = async (run: TransactionSql, move: Move): Promise<void> =>
  void (await run`insert into moves ${run({ ...toRow(move) })} on conflict (lower(name)) do update set ${run({ ...toRow(move), updated_at: new Date() } as never)}`)

/** Takes many at once, over those of the same name; workouts keep what they have. */
export async function takeMoves(moves: readonly Move[]): Promise<void> {
  await inTransaction(async (run) => {
    for (const move of moves) await put(run, move)
  })
}

/** Forgets an own move; what ships with Jivet under that name holds again. Workouts keep the facts that they have. */
export async function removeMove(name: string): Promise<void> {
  const rows = await sql()`delete from moves where lower(name) = lower(${name}) returning name`
  if (!rows.length) throw new Problem({ code: 'move-unknown', name })
}
