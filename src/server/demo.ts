// Loads the demo on first start: the sample workout with its simulated footage, once.
import { copyFile, mkdir, readdir, readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { readWorkoutFile } from '../core/read/workoutFile'
import { readShorthand } from '../core/shorthand/read'
import { inTransaction, sql } from './db'
import { addFootage } from './footage'
import { uploadsFolder } from './store'
import { addWorkout } from './workouts'

/**
 * @param film the demo's footage file.
 * @param scores a folder of typed scores that come without footage.
 * @returns whether the demo was loaded now.
 */
export async function loadDemo(planFile: string, film: string, scores: string): Promise<boolean> {
  const [there] = await sql()`select 1 from workouts where is_demo limit 1`
  if (there) return false
  await mkdir(uploadsFolder(), { recursive: true })
  await copyFile(film, join(uploadsFolder(), UPLOAD))
  const { size } = await stat(film)
  const names = (await readdir(scores)).sort().reverse()
  const typed = await Promise.all(names.map((name) => readFile(join(scores, name), 'utf8')))
  const plan = readWorkoutFile(await readFile(planFile, 'utf8'))
  // All or nothing: a start that is killed here begins it again.
  await inTransaction(async (tx) => {
    for (const text of typed) await addWorkout(tx, readShorthand(text).score, true)
    const workoutId = await addWorkout(tx, plan, true)
    await addFootage({ workoutId, name: 'deck-hours.mp4', bytes: size, upload: UPLOAD }, tx)
  })
  return true
}

const UPLOAD = 'demo-film'
